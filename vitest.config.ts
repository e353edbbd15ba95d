import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  test: {
    include: ['tests/unit/**/*.test.ts'],
    testTimeout: 300_000,
    hookTimeout: 120_000,
    maxWorkers: 2,
    reporters: ['default'],
  },
});
