/** Runs a script bundled, as the browser gets the code: `node scripts/bundled.mjs SCRIPT.ts [ARGUMENTS]`. */
import { rmSync } from 'node:fs';
import { buildSync } from 'esbuild';
import { run } from './setup.mjs';

const [script, ...rest] = process.argv.slice(2);
const outfile = `scripts/.bundled-${process.pid}.mjs`;
buildSync({
  entryPoints: [script],
  bundle: true,
  platform: 'node',
  format: 'esm',
  packages: 'external',
  outfile,
  tsconfig: 'tsconfig.json',
  logLevel: 'error',
});
process.on('exit', () => rmSync(outfile, { force: true }));
run('node', [outfile, ...rest]);
