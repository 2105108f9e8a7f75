import { NextResponse, type NextRequest } from 'next/server';

/** The page's security policy. Styles stay 'unsafe-inline' (Radix and React write style attributes). */
function contentSecurityPolicy(nonce: string): string {
  return [
    `default-src 'self'`,
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic' 'wasm-unsafe-eval'`,
    `style-src 'self' 'unsafe-inline'`,
    `img-src 'self' blob: data:`,
    `font-src 'self' blob: data:`,
    `connect-src 'self' blob:`,
    `worker-src 'self' blob:`,
    `object-src 'none'`,
    `frame-src 'self' blob:`,
    `form-action 'self'`,
    `base-uri 'none'`,
    `frame-ancestors 'none'`,
  ].join('; ');
}

export function proxy(req: NextRequest) {
  const nonce = btoa(String.fromCharCode(...crypto.getRandomValues(new Uint8Array(16))));
  const policy = contentSecurityPolicy(nonce);
  const headers = new Headers(req.headers);
  headers.set('Content-Security-Policy', policy); // Next reads the nonce from the request header
  const res = NextResponse.next({ request: { headers } });
  res.headers.set('Content-Security-Policy', policy);
  res.headers.set('X-Content-Type-Options', 'nosniff');
  return res;
}

// All but what next.config gives a fixed policy: the folders of files, and /api, where a proxied request body is cut at
// 10 MB.
export const config = { matcher: ['/((?!_next/static/|wasm/|fonts/|icc/|pictures/|icons/|api/|sw\\.js$).*)'] };
