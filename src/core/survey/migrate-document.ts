type Fields = Record<string, unknown>;

/** What each older version needs to become the next one. A step takes whatever it finds: the schema judges the outcome. */
const STEPS: Record<number, (old: Fields) => Fields> = {
  /** Version 2 names the two directions of the line. */
  1: (old) => ({ ...old, directions: { ...DIRECTIONS } }),
};

/** The names that directions have until somebody gives them others; common practice, no source. */
export const DIRECTIONS = { up: 'eastbound', down: 'westbound' };

/** Brings an older document up to a version, one step after the other; one that cannot be is given back as it is. */
export function migrateDocument(value: Fields, to: number): Fields {
  let document = value;
  for (let version = document.version; typeof version === 'number' && version < to; version = document.version) {
    const step = STEPS[version];
    if (!step) return document;
    document = { ...step(document), version: version + 1 };
  }
  return document;
}
