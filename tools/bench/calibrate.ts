/** Always the same work, whatever else the machine does: how long it takes tells the machine’s mood, in ms. */
export function calibrate(): number {
  const from = performance.now();
  const cells = new Uint32Array(1 << 14);
  let seed = 12_345;
  for (let i = 0; i < 3_000_000; i++) {
    seed = (Math.imul(seed, 1_664_525) + 1_013_904_223) >>> 0;
    const at = seed >>> 18;
    cells[at] = (cells[at]! ^ seed) >>> 0;
  }
  if (cells[7] === 1) throw new Error('That cannot be.');
  return performance.now() - from;
}
