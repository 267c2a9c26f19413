/** Installs what is missing, builds, and serves the app with its demo. */
import { ensurePackages, run } from './setup.mjs';

ensurePackages();
run('npm', ['run', '--silent', 'build']);
await import('./serve.mjs');
