import type { NextConfig } from 'next';

const config: NextConfig = {
  agentRules: false,
  devIndicators: false,
  poweredByHeader: false,
  experimental: { agentUpgrade: false, proxyClientMaxBodySize: '24mb' },
} as NextConfig;

export default config;
