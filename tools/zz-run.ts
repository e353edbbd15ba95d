import { existsSync, writeFileSync, unlinkSync } from 'node:fs';
import { withScratchApplication } from './scratch';
if (existsSync('/tmp/stop-app')) unlinkSync('/tmp/stop-app');
await withScratchApplication(async (address: string) => {
  writeFileSync('/tmp/address', address);
  while (!existsSync('/tmp/stop-app')) await new Promise((r) => setTimeout(r, 500));
});
