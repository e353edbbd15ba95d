/**
 * How well a name fits what was typed, from 0 to 1: every word typed must be found in it, and one that begins a word of the name
 * fits better than one inside a word. Letters scattered over a name are no fit.
 */
export function findScore(name: string, typed: string): number {
  const words = name.toLowerCase().split(/[^\p{L}\p{N}]+/u);
  const sought = typed.toLowerCase().split(/\s+/).filter(Boolean);
  const fits = sought.map((word) =>
    Math.max(...words.map((own) => (own === word ? 1 : own.startsWith(word) ? 0.8 : own.includes(word) ? 0.4 : 0))),
  );
  if (fits.some((fit) => fit === 0)) return 0;
  const mean = fits.reduce((sum, fit) => sum + fit, 0) / Math.max(1, fits.length);
  /** Of two that fit alike the shorter comes first. */
  return mean - Math.min(0.1, name.length / 2000);
}
