import type { Finding } from '../findings';
import { showLength, TENTH_UM_PER_MM, type TenthUm } from '../measure';
import type { Edit, FeatureOf, LayoutDocument } from '../survey';
import type { TrackGraph } from './graph';
import { measureBetween, type Stretch } from './measure-between';

/** Two readings of one tape differ by so much, and by so much more for every length of tape; common practice, no source. */
const READING: TenthUm = 3 * TENTH_UM_PER_MM;
const SHARE = 0.002;

/** A stretch that was taped again, against what the distances of its lines say. */
interface Tape {
  id: string;
  /** “Main from 120 cm to 480 cm”. */
  what: string;
  stretches: Stretch[];
  along: TenthUm;
  taped: TenthUm;
}

const agrees = ({ along, taped }: Tape): boolean => Math.abs(taped - along) <= READING + SHARE * along;

/** What of stretches none of others covers. */
function without(whole: readonly Stretch[], others: readonly Stretch[]): Stretch[] {
  let left = [...whole];
  for (const other of others)
    left = left.flatMap((piece) =>
      piece.line !== other.line
        ? [piece]
        : [
            { ...piece, to: Math.min(piece.to, other.from) },
            { ...piece, from: Math.max(piece.from, other.to) },
          ].filter(({ from, to }) => to > from),
    );
  return left;
}

/** Stretches that were taped again and came out otherwise. Neither length is thrown away: what differs is told, and where to look. */
export function tapeFindings(document: LayoutDocument, graph: TrackGraph): Finding<Edit>[] {
  const shown = (length: TenthUm) => showLength(length, document.shownUnit);
  const nameOf = (line: string) => document.lines.find(({ id }) => id === line)!.name;
  const lost: FeatureOf<'tapedAcross'>[] = [];
  const tapes = document.features.flatMap((one): Tape[] => {
    if (one.kind === 'taped') {
      const [from, to] = [one.at.tenthUm, one.to.tenthUm];
      const what = `${nameOf(one.line)} from ${shown(from)} to ${shown(to)}`;
      const stretches = [{ line: one.line, from, to }];
      return [{ id: one.id, what, stretches, along: to - from, taped: one.taped.tenthUm }];
    }
    if (one.kind !== 'tapedAcross') return [];
    const far = { line: one.far.line, at: one.far.at.tenthUm };
    const between = measureBetween(graph, { line: one.line, at: one.at.tenthUm }, far);
    if (!between) {
      lost.push(one);
      return [];
    }
    const what = `The track from ${shown(one.at.tenthUm)} on ${nameOf(one.line)} to ${shown(far.at)} on ${nameOf(far.line)}`;
    return [{ id: one.id, what, stretches: between.stretches, along: between.length, taped: one.taped.tenthUm }];
  });
  return [
    ...tapes.filter((tape) => !agrees(tape)).map((tape) => disagreeing(document, tape, tapes)),
    ...lost.map(
      (one): Finding<Edit> => ({
        id: `tape of nothing ${one.id}`,
        kind: 'tapes that disagree',
        severity: 'check',
        subject: one.id,
        says: `No train runs from ${shown(one.at.tenthUm)} on ${nameOf(one.line)} to ${shown(one.far.at.tenthUm)} on ${nameOf(one.far.line)} without turning back: what was taped there is compared with nothing.`,
        figures: [{ name: 'taped', value: shown(one.taped.tenthUm) }],
        advice: 'Enter the track between the two, or correct where it was taped to.',
        fixes: [{ says: 'Forget that tape', edit: { do: 'delete', id: one.id } }],
      }),
    ),
  ];
}

function disagreeing(document: LayoutDocument, tape: Tape, tapes: readonly Tape[]): Finding<Edit> {
  const { id, what, stretches, along, taped } = tape;
  const shown = (length: TenthUm) => showLength(length, document.shownUnit);
  const lines = new Set(stretches.map(({ line }) => line));
  const suspect = without(
    stretches,
    tapes.filter((other) => other !== tape && agrees(other)).flatMap((other) => other.stretches),
  );
  const where = suspect
    .map(({ line, from, to }) => {
      const on = lines.size > 1 ? ` on ${document.lines.find((one) => one.id === line)!.name}` : '';
      return `${shown(from)} to ${shown(to)}${on}`;
    })
    .join(', and ');
  const whole = suspect.reduce((sum, { from, to }) => sum + to - from, 0) === along;
  const off = taped - along;
  return {
    id: `tapes ${id}`,
    kind: 'tapes that disagree',
    severity: 'check',
    subject: id,
    says: `${what} was taped again and is ${shown(Math.abs(off))} ${off > 0 ? 'longer' : 'shorter'} than by its distances.`,
    figures: [
      { name: 'by the distances', value: shown(along) },
      { name: 'taped again', value: shown(taped) },
    ],
    advice:
      suspect.length === 0
        ? 'Every part of it agrees with other tapes: it was read wrongly itself. Tape it once more.'
        : `Measure again ${where}${whole ? '; half of it at a time tells which half is wrong.' : ': the rest agrees with other tapes.'}`,
    fixes: [{ says: 'Forget the second tape', edit: { do: 'delete', id } }],
  };
}
