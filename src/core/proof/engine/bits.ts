/** A set of small numbers as bits of so many 32-bit words. */
export function bitsOf(members: readonly number[], words: number): number[] {
  const bits = new Array<number>(words).fill(0);
  for (const member of members) bits[member >> 5]! |= 1 << (member & 31);
  return bits;
}
