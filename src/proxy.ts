import { type NextRequest, NextResponse } from 'next/server';

/** Names of this machine; any other is a foreign page that points its own name here. */
const LOOPBACK = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/;

/** Security headers on every page, and no writes from other sites. */
export function proxy(request: NextRequest): NextResponse {
  if (process.env.ROBLIK_LOOPBACK === '1' && !LOOPBACK.test(request.headers.get('host') ?? '')) {
    return NextResponse.json(
      { problem: 'Roblik answers on this machine only. Start it with --host to open it to others.' },
      { status: 403 },
    );
  }
  const changes = !['GET', 'HEAD', 'OPTIONS'].includes(request.method);
  const origin = request.headers.get('origin');
  const host = request.headers.get('host');
  const foreign = origin !== null && origin.replace(/^https?:\/\//, '') !== host;
  if (changes && (foreign || request.headers.get('sec-fetch-site') === 'cross-site')) {
    return NextResponse.json({ problem: 'Changes are taken from Roblik’s own pages only.' }, { status: 403 });
  }
  const nonce = btoa(crypto.randomUUID());
  const development = process.env.NODE_ENV === 'development';
  const policy = [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}'${development ? " 'unsafe-eval'" : ''}`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');
  const headers = new Headers(request.headers);
  headers.set('x-nonce', nonce);
  headers.set('content-security-policy', policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set('Content-Security-Policy', policy);
  response.headers.set('X-Content-Type-Options', 'nosniff');
  response.headers.set('X-Frame-Options', 'DENY');
  response.headers.set('Referrer-Policy', 'same-origin');
  response.headers.set('Cross-Origin-Opener-Policy', 'same-origin');
  response.headers.set('Permissions-Policy', 'camera=(), microphone=(), geolocation=()');
  return response;
}

export const config = { matcher: ['/((?!_next/static|icon.svg).*)'] };
