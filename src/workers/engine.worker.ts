import * as Comlink from 'comlink';
import { run } from './engine';

Comlink.expose({ run });
