import { FEEDS, type Feed } from '../kinds';
import { readLength, showLength, type TenthUm } from '../measure';
import type { Axle } from '../survey';
import type { CellReading, RosterContext } from './context';

const MOST_AXLES = 24;

/** Axles as a cell says them, from the leading end: “2 cm motor; 5.5 cm; 11 cm resistor; 14 cm plastic”. */
export function writeAxles(axles: readonly Axle[], say: (at: Axle['at']) => string): string {
  return axles
    .map(({ at, feeds, plastic }) =>
      [say(at), feeds === 'nothing' ? '' : feeds, plastic ? 'plastic' : ''].filter(Boolean).join(' '),
    )
    .join('; ');
}

/** Reads what `writeAxles` writes, in any order of places; a place without a unit is in that of the layout. */
export function readAxles(text: string, length: TenthUm, { scale, shownUnit }: RosterContext): CellReading<Axle[]> {
  const said = text
    .split(/;|,(?=\s)/)
    .map((one) => one.trim())
    .filter(Boolean);
  if (said.length > MOST_AXLES) return { ok: false, problem: `A vehicle has at most ${MOST_AXLES} axles.` };
  const axles: Axle[] = [];
  for (const one of said) {
    let [place, feeds, plastic] = [one, 'nothing' as Feed, undefined as true | undefined];
    for (let word = lastWord(place); word; word = lastWord(place)) {
      if (word === 'plastic') plastic = true;
      else if ((FEEDS as readonly string[]).includes(word)) feeds = word as Feed;
      else if (word === 'metal') plastic = undefined;
      else break;
      place = place.slice(0, -word.length).trim();
    }
    const read = readLength(place, shownUnit, scale);
    if (!read.ok)
      return { ok: false, problem: `“${one}” is no axle: ${read.problem} After it: ${FEEDS.join(', ')}, plastic.` };
    if (read.value.tenthUm > length)
      return {
        ok: false,
        problem: `The axle at ${place} lies beyond the vehicle, which is ${showLength(length, shownUnit)} long.`,
      };
    axles.push({ at: read.value, feeds, plastic });
  }
  return { ok: true, value: axles.sort((a, b) => a.at.tenthUm - b.at.tenthUm) };
}

const lastWord = (text: string): string | undefined => /[a-z]+$/i.exec(text)?.[0].toLowerCase();
