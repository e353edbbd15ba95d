import type { NextConfig } from 'next';

const config: NextConfig = {
  agentRules: false,
  devIndicators: false,
  poweredByHeader: false,
  experimental: { agentUpgrade: false },
} as NextConfig;

export default config;
