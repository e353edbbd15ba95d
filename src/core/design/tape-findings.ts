import type { Finding } from '../findings';
import { showLength, TENTH_UM_PER_MM, type TenthUm } from '../measure';
import { type Edit, type FeatureOf, isKind, type LayoutDocument } from '../survey';

/** Two readings of one tape differ by so much, and by so much more for every length of tape; common practice, no source. */
const READING: TenthUm = 3 * TENTH_UM_PER_MM;
const SHARE = 0.002;

interface Stretch {
  from: TenthUm;
  to: TenthUm;
}

/** What of a stretch none of others covers. */
function without(whole: Stretch, others: readonly Stretch[]): Stretch[] {
  let left = [whole];
  for (const other of others)
    left = left.flatMap(({ from, to }) =>
      [
        { from, to: Math.min(to, other.from) },
        { from: Math.max(from, other.to), to },
      ].filter((piece) => piece.to > piece.from),
    );
  return left;
}

const stretchOf = ({ at, to }: FeatureOf<'taped'>): Stretch => ({ from: at.tenthUm, to: to.tenthUm });

/** Stretches that were taped again and came out otherwise. Neither length is thrown away: what differs is told, and where to look. */
export function tapeFindings(document: LayoutDocument): Finding<Edit>[] {
  const tapes = document.features.filter(isKind('taped')).map((tape) => {
    const along = tape.to.tenthUm - tape.at.tenthUm;
    const off = tape.taped.tenthUm - along;
    return { tape, along, off, agrees: Math.abs(off) <= READING + SHARE * along };
  });
  const shown = (length: TenthUm) => showLength(length, document.shownUnit);
  return tapes
    .filter(({ agrees }) => !agrees)
    .map(({ tape, along, off }): Finding<Edit> => {
      const line = document.lines.find(({ id }) => id === tape.line)!.name;
      const onLine = tapes.filter((other) => other.tape.line === tape.line && other.tape !== tape);
      const suspect = without(
        stretchOf(tape),
        onLine.filter(({ agrees }) => agrees).map((other) => stretchOf(other.tape)),
      );
      const where = suspect.map(({ from, to }) => `${shown(from)} to ${shown(to)}`).join(', and ');
      return {
        id: `tapes ${tape.id}`,
        kind: 'tapes that disagree',
        severity: 'check',
        subject: tape.id,
        says: `${line} from ${shown(tape.at.tenthUm)} to ${shown(tape.to.tenthUm)} was taped again and is ${shown(Math.abs(off))} ${off > 0 ? 'longer' : 'shorter'} than by its distances.`,
        figures: [
          { name: 'by the distances', value: shown(along) },
          { name: 'taped again', value: shown(tape.taped.tenthUm) },
        ],
        advice:
          suspect.length === 0
            ? 'Every part of it agrees with other tapes: it was read wrongly itself. Tape it once more.'
            : `Measure again ${where}${suspect.length === 1 && suspect[0]!.to - suspect[0]!.from === along ? '; half of it at a time tells which half is wrong.' : ': the rest agrees with other tapes.'}`,
        remedies: [{ says: 'Forget the second tape', edit: { do: 'delete', id: tape.id } }],
      };
    });
}
