import { basename } from 'node:path';
import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';
import { BaseSequencer, type TestSpecification } from 'vitest/node';

/** The files that take longest, longest first: begun first, none of them is left running alone at the end. */
const LONGEST = ['covering', 'any-document', 'emitted', 'proof', 'points', 'claims', 'main-line-table', 'one-scan'];

class LongestFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const place = ({ moduleId }: TestSpecification) => {
      const at = LONGEST.indexOf(basename(moduleId, '.test.ts'));
      return at < 0 ? LONGEST.length : at;
    };
    return files.toSorted((a, b) => place(a) - place(b) || (a.moduleId < b.moduleId ? -1 : 1));
  }
}

export default defineConfig({
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  test: {
    include: ['tests/unit/**/*.test.ts'],
    testTimeout: 300_000,
    hookTimeout: 120_000,
    maxWorkers: 2,
    /** No test leaves anything behind in a module. */
    isolate: false,
    sequence: { sequencer: LongestFirst },
    reporters: ['default'],
  },
});
