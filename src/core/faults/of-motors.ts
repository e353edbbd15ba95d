import { namesRead, type Program } from '../logic';
import { faultKind } from './kind';

export const pointsStay = faultKind({
  title: 'Points do not move',
  says: (name) => `${name} does not move, whatever it is told`,
  at: ['drive'],
  puts: () => 'as it was',
});

/** Straight for diverging and the other way about; between the two it says so. */
export const contactReversed = faultKind({
  title: 'A contact is the wrong way round',
  says: (name) => `the contact of ${name} is the wrong way round`,
  at: ['contact'],
  strikes: ({ terminals, program }, of) => isRead(program, terminals.find('contact', of)!.name),
  puts: (_system, _of, was) => (was === 0 ? 1 : was === 1 ? 0 : was),
});

const readIn = new WeakMap<Program, ReadonlySet<string>>();
/** Whether any rule asks for a name. */
function isRead(program: Program, name: string): boolean {
  const known =
    readIn.get(program) ?? new Set(program.declarations.flatMap(({ expr }) => (expr ? [...namesRead(expr)] : [])));
  readIn.set(program, known);
  return known.has(name);
}
