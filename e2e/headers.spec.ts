import { test, expect } from '@playwright/test';
import { readdirSync, statSync } from 'node:fs';
import path from 'node:path';

/** Every file that is served, one a folder and ending. */
function samples(folder: string, address: string): string[] {
  const seen = new Set<string>();
  const out: string[] = [];
  const look = (at: string, under: string): void => {
    for (const name of readdirSync(at)) {
      const file = path.join(at, name);
      if (statSync(file).isDirectory()) look(file, `${under}/${name}`);
      else {
        const kind = `${under} ${path.extname(name)}`;
        if (!seen.has(kind)) out.push(`${under}/${name}`);
        seen.add(kind);
      }
    }
  };
  look(folder, address);
  return out;
}

test('every answer carries the policy, nosniff, and may not be framed: pages, files, what is not there, any method', async ({
  request,
}) => {
  const pages = [
    '/',
    '/bench/lantern-walk-poster',
    '/bench/a.b',
    '/nowhere',
    '/nowhere.txt',
    '/a/b.c/d.html',
    '/api',
    '/api/',
    '/api/none',
    '/api/none.json',
    '/_next',
    '/_next/none',
    '/_next/data/x.json',
    '/_next/image?url=%2Ficon.svg&w=64&q=75',
    '/icon.svg',
    '/favicon.ico',
    '/robots.txt',
    '/%2e%2e/x',
  ];
  const missing = ['/_next/static/none.js', '/wasm/none.wasm', '/fonts/none.ttf', '/icc/none', '/pictures/none.png'];
  const files = [...samples('public', ''), ...samples('.next/static', '/_next/static')];
  expect(files.length).toBeGreaterThan(6);
  const bare: string[] = [];
  for (const address of [...pages, ...missing, ...files])
    for (const method of ['GET', 'HEAD', 'POST']) {
      const answer = await request.fetch(address, { method, maxRedirects: 0, failOnStatusCode: false });
      const headers = answer.headers();
      const policy = headers['content-security-policy'] ?? '';
      const whole =
        /default-src '(self|none)'/.test(policy) &&
        policy.includes("frame-ancestors 'none'") &&
        headers['x-content-type-options'] === 'nosniff';
      // A way to the address that is meant, with nothing in it.
      if (answer.status() === 308) continue;
      if (!whole) bare.push(`${method} ${address} ${answer.status()}: ${policy.slice(0, 60) || 'no policy'}`);
    }
  expect(bare).toEqual([]);
});
