import type { NextConfig } from 'next';

/** What a worker may do: its own script’s response says so, and nothing else may start WebAssembly. */
const WORKER_POLICY = "default-src 'none'; script-src 'self' 'wasm-unsafe-eval'; connect-src 'self'";

const config: NextConfig = {
  agentRules: false,
  devIndicators: false,
  poweredByHeader: false,
  headers: async () => [
    {
      source: '/_next/static/chunks/:file(turbopack-worker-.*)',
      headers: [{ key: 'Content-Security-Policy', value: WORKER_POLICY }],
    },
  ],
  experimental: { agentUpgrade: false, proxyClientMaxBodySize: '24mb' },
} as NextConfig;

export default config;
