/** A step is one number: its kind in the uppermost byte, below it 16 bits say which thing, and 8 which choice. */
export const encodeMove = (kind: number, index: number, choice: number) => (kind << 24) | (index << 8) | choice;
export const kindOf = (code: number): number => code >> 24;
export const indexOf = (code: number): number => (code >> 8) & 0xffff;
export const choiceOf = (code: number): number => code & 0xff;
