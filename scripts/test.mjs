/** Everything that must hold: types, layers, style, unused code, unit tests, build, browser tests. */
import { ensureChromium, ensurePackages, run } from './setup.mjs';

ensurePackages();
ensureChromium();
run('npm', ['run', '--silent', 'check']);
run('npm', ['run', '--silent', 'test:unit']);
run('npm', ['run', '--silent', 'build']);
run('npm', ['run', '--silent', 'test:browser']);
