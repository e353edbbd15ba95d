/** One step, for telling it: a train goes on, a timer ends, a person throws a turnout, a turnout arrives. */
export type Move =
  | { kind: 'advance'; train: number; way: number }
  | { kind: 'timer'; timer: number }
  | { kind: 'throw'; turnout: number; diverging: boolean }
  | { kind: 'arrive'; turnout: number };

/** Kinds of steps, in the uppermost byte of a step’s code; below it 16 bits say which thing, and 8 which choice. */
export const [ADVANCE, TIMER, THROW, ARRIVE] = [0, 1, 2, 3] as const;
export const encodeMove = (kind: number, index: number, choice: number) => (kind << 24) | (index << 8) | choice;

export function decodeMove(code: number): Move {
  const [index, choice] = [(code >> 8) & 0xffff, code & 0xff];
  switch (code >> 24) {
    case ADVANCE:
      return { kind: 'advance', train: index, way: choice };
    case TIMER:
      return { kind: 'timer', timer: index };
    case THROW:
      return { kind: 'throw', turnout: index, diverging: choice === 1 };
    default:
      return { kind: 'arrive', turnout: index };
  }
}
