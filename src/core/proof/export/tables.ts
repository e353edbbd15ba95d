/** Tables in C, in parts that Spin can take: the declarations, and the statements that put those together that are in several parts. */
export interface Tables {
  declared: string[];
  joined: string[];
}

/** Spin takes no text of C that is longer than some 64 thousand characters; so many numbers are well below that. */
const MOST_IN_ONE = 3000;

/** Numbers one after the other. */
export function column({ declared, joined }: Tables, name: string, numbers: readonly number[], type = 'int'): void {
  if (numbers.length <= MOST_IN_ONE) {
    declared.push(`static const ${type} ${name}[] = {${numbers.length > 0 ? numbers.join(',') : 0}};`);
    return;
  }
  declared.push(`static ${type} ${name}[${numbers.length}];`);
  for (let from = 0; from < numbers.length; from += MOST_IN_ONE) {
    const part = numbers.slice(from, from + MOST_IN_ONE);
    declared.push(`static const ${type} ${name}_${from}[] = {${part.join(',')}};`);
    joined.push(`memcpy(${name} + ${from}, ${name}_${from}, sizeof ${name}_${from});`);
  }
}

/** Lists of numbers by row: all of them one after the other, and where each begins. The text grows with the numbers. */
export function table(tables: Tables, name: string, rows: readonly (readonly number[])[], type?: string): void {
  const starts: number[] = [0];
  for (const row of rows) starts.push(starts.at(-1)! + row.length);
  column(tables, `${name}_of`, rows.flat(), type);
  column(tables, `${name}_at`, starts);
}
