import type { NextConfig } from 'next';

/**
 * Emscripten glue refers to Node built-ins behind a run-time test; the browser bundle gets an empty module for them.
 */
const nodeOnly = ['fs', 'path', 'module'];

/** A worker does not inherit the page's policy: it gets the one of its own script response. */
const filePolicy = [
  `default-src 'none'`,
  `script-src 'self' 'wasm-unsafe-eval'`,
  `connect-src 'self' blob:`,
  `img-src 'self' blob: data:`,
  `font-src 'self' blob: data:`,
  `worker-src 'self' blob:`,
  `frame-ancestors 'none'`,
].join('; ');
const fixed = [
  { key: 'Content-Security-Policy', value: filePolicy },
  { key: 'X-Content-Type-Options', value: 'nosniff' },
];

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  distDir: process.env.DIST_DIR ?? '.next',
  typescript: { ignoreBuildErrors: process.env.SKIP_TYPECHECK === '1' },
  async headers() {
    // What the proxy passes by (its matcher says the same); missing files of these folders are answered with it too.
    return ['/_next/static', '/wasm', '/fonts', '/icc', '/pictures', '/icons', '/api']
      .map((folder) => ({ source: `${folder}/:path*`, headers: fixed }))
      .concat([
        // Asked for anew at every visit: it says which version is in force.
        { source: '/sw.js', headers: [...fixed, { key: 'Cache-Control', value: 'no-cache' }] },
      ]);
  },
  turbopack: {
    root: import.meta.dirname,
    resolveAlias: Object.fromEntries(nodeOnly.map((m) => [m, { browser: './src/stubs/empty.ts' }])),
  },
};
export default config;
