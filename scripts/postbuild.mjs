/** After `next build`: a content security policy per page, then the service worker that lets the app open without a network. */
import { createHash } from 'node:crypto';
import { readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join, relative, sep } from 'node:path';

const OUT = 'out';
const walk = (folder) => readdirSync(folder).flatMap((name) => (statSync(join(folder, name)).isDirectory() ? walk(join(folder, name)) : [join(folder, name)]));

// The bundler copies worker sources next to the bundle; nothing loads them.
for (const file of walk(OUT)) if (file.endsWith('.ts')) rmSync(file);
// Every browser that runs the app reads woff2; the older form doubles the face for Chinese lists.
for (const file of walk(OUT)) if (/noto-sans-sc.*\.woff$/.test(file)) rmSync(file);

const POLICY =
  "default-src 'none'; script-src 'self' 'wasm-unsafe-eval' HASHES; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; font-src 'self'; connect-src 'self'; worker-src 'self'; manifest-src 'self'; base-uri 'none'; form-action 'none'";
for (const file of walk(OUT).filter((f) => f.endsWith('.html'))) {
  const html = readFileSync(file, 'utf8');
  const hashes = [...html.matchAll(/<script(?![^>]*\ssrc=)[^>]*>([\s\S]*?)<\/script>/g)].map(
    (m) => `'sha256-${createHash('sha256').update(m[1]).digest('base64')}'`,
  );
  writeFileSync(file, html.replace('<head>', `<head><meta http-equiv="Content-Security-Policy" content="${POLICY.replace('HASHES', hashes.join(' '))}"/>`));
}

const files = walk(OUT)
  // The face for Chinese lists comes in a hundred pieces: each is kept when it is first used.
  .filter((f) => !/\.(map|ts)$|[\\/]sw\.js$|noto-sans-sc/.test(f))
  .map((f) => ({ path: `/${relative(OUT, f).split(sep).join('/')}`, hash: createHash('sha256').update(readFileSync(f)).digest('hex').slice(0, 16) }))
  .sort((a, b) => a.path.localeCompare(b.path));
const version = createHash('sha256').update(JSON.stringify(files)).digest('hex').slice(0, 16);
const worker = readFileSync('scripts/sw.template.js', 'utf8')
  .replace('__VERSION__', version)
  .replace('__FILES__', JSON.stringify(files.map((f) => f.path)));
writeFileSync(join(OUT, 'sw.js'), worker);
console.log(`${files.length} files, offline version ${version}`);
