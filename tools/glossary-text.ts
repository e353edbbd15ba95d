import { type Entry, GLOSSARY } from '../src/core/kinds';

const cell = (text: string | undefined): string => text ?? '';
const code = (text: string | undefined): string => (text === undefined ? '' : `\`${text}\``);

/** The glossary as a document. */
export function glossaryText(): string {
  const entries: [string, Entry][] = Object.entries(GLOSSARY);
  const rows = entries
    .toSorted(([, a], [, b]) => (a.word < b.word ? -1 : 1))
    .map(
      ([, { word, engineer, british, code: name, means }]) =>
        `| ${word} | ${cell(engineer)} | ${cell(british)} | ${code(name)} | ${means} |`,
    );
  return `# Words

One word for one thing: on the screen, in hover texts, in names in the code. Written from \`src/core/kinds/glossary.ts\` by
\`node --import tsx tools/write-glossary.ts\`; a test holds the two together, and looks for words that are no longer used.
The words on the screen are American; the British one is found by search and read in typed text.

| on the screen | engineers say | British | in code | what it is |
|---|---|---|---|---|
${rows.join('\n')}
`;
}
