/** Serves the exported app from out/, compressed, on PORT (default 4173), to this machine only unless HOST says otherwise. */
import { createServer } from 'node:http';
import { networkInterfaces } from 'node:os';
import compression from 'compression';
import handler from 'serve-handler';

const port = Number(process.env.PORT ?? 4173);
const host = process.env.HOST ?? 'localhost';
const local = host === 'localhost' || host === '127.0.0.1' || host === '::1';
const compress = compression();
/** What a static server of the app should send with every file; docs/serving.md lists the same. */
const SAFE = {
  'X-Content-Type-Options': 'nosniff',
  'Content-Security-Policy': "frame-ancestors 'none'; object-src 'none'; base-uri 'self'; form-action 'self'",
  'Referrer-Policy': 'no-referrer',
  'Permissions-Policy': 'geolocation=(), payment=(), usb=(), camera=(self), microphone=(self), serial=(self)',
  'Cross-Origin-Opener-Policy': 'same-origin',
  'Cross-Origin-Resource-Policy': 'same-origin',
};
const asHeaders = (of) => Object.entries(of).map(([key, value]) => ({ key, value }));
const headers = [
  { source: '**', headers: asHeaders({ ...SAFE, 'Cache-Control': 'no-cache' }) },
  { source: '_next/static/**', headers: asHeaders({ 'Cache-Control': 'public, max-age=31536000, immutable' }) },
];

/** Names under which this machine may be asked: a page of another site must not reach it by a name of its own. */
const isOwnName = (asked) => !local || /^(?:localhost|127\.0\.0\.1|\[::1\])(?::\d+)?$/.test(asked ?? '');

function isReadable(url) {
  try {
    return !decodeURIComponent(url ?? '/').includes('\0');
  } catch {
    return false;
  }
}

function refuse(response, status, text) {
  response.writeHead(status, { 'Content-Type': 'text/plain; charset=utf-8', ...SAFE, ...(status === 405 ? { Allow: 'GET, HEAD' } : {}) });
  response.end(`${text}\n`);
}

const server = createServer((request, response) => {
  if (request.method !== 'GET' && request.method !== 'HEAD') refuse(response, 405, 'Only GET and HEAD.');
  else if (!isOwnName(request.headers.host)) refuse(response, 421, 'This server answers to localhost only.');
  else if (!isReadable(request.url)) refuse(response, 400, 'This address cannot be read.');
  else
    compress(request, response, () => {
      void handler(request, response, { public: 'out', trailingSlash: true, cleanUrls: true, directoryListing: false, headers });
    });
});
server.on('error', (error) => {
  console.error(error.code === 'EADDRINUSE' ? `Port ${port} is taken. Choose another one: PORT=4200 npm run demo` : error.message);
  process.exit(1);
});
server.listen(port, host, () => {
  console.log(`Zesty Bench is at http://${local ? 'localhost' : host}:${port}/  (Ctrl C stops it${local ? '; HOST=0.0.0.0 lets other machines in' : ''})`);
  if (local) return;
  const addresses = Object.values(networkInterfaces()).flatMap((all) => (all ?? []).filter((a) => a.family === 'IPv4' && !a.internal));
  for (const { address } of addresses) console.log(`In the local network: http://${address}:${port}/`);
  console.log('Everybody in this network can open the app; kits stay in each browser. Over plain HTTP some things are missing: docs/serving.md');
});
