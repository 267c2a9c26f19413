import { type NextConfig } from 'next';

/** A static export: every page is a file, any static server will do. */
const config: NextConfig = {
  output: 'export',
  trailingSlash: true,
  reactStrictMode: true,
  images: { unoptimized: true },
  // Types are checked once, by `npm run check`.
  typescript: { ignoreBuildErrors: true },
  turbopack: { resolveAlias: { '@stdlib/utils-define-property': './scripts/define-property.cjs' } },
};

export default config;
