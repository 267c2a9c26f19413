/** Serves the exported app from out/, compressed, on PORT (default 4173), to this machine only unless HOST says otherwise. */
import { createServer } from 'node:http';
import compression from 'compression';
import handler from 'serve-handler';

const port = Number(process.env.PORT ?? 4173);
const host = process.env.HOST ?? 'localhost';
const compress = compression();
const headers = [
  {
    source: '**',
    headers: [
      { key: 'X-Content-Type-Options', value: 'nosniff' },
      { key: 'Cache-Control', value: 'no-cache' },
      { key: 'Content-Security-Policy', value: "frame-ancestors 'none'" },
    ],
  },
  { source: '_next/static/**', headers: [{ key: 'Cache-Control', value: 'public, max-age=31536000, immutable' }] },
];
const server = createServer((request, response) => {
  compress(request, response, () => {
    void handler(request, response, { public: 'out', trailingSlash: true, cleanUrls: true, directoryListing: false, headers });
  });
});
server.on('error', (error) => {
  console.error(error.code === 'EADDRINUSE' ? `Port ${port} is taken. Choose another one: PORT=4200 npm run demo` : error.message);
  process.exit(1);
});
server.listen(port, host, () => {
  console.log(`Zesty Bench is at http://${host}:${port}/  (Ctrl C stops it${host === 'localhost' ? '; HOST=0.0.0.0 lets other machines in' : ''})`);
});
