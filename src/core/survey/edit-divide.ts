import { SENSOR_KIND_IDS, type SensorKindId, sensorKind } from '../kinds';
import type { TypedLength } from '../measure';
import { asItWas } from './draft';
import { FEATURES } from './feature-kinds';
import { nextName } from './free-names';
import { LISTS } from './lists';
import { freshId } from './new-document';
import { remove } from './remove';
import type { Gap, LayoutDocument } from './schema';

interface Spot {
  line: string;
  at: TypedLength;
}

/** A gap to be cut; without a rail it is in the right one. */
interface Cut extends Spot {
  rail?: Gap['rail'];
}

/** What can be done about how the track is divided as a whole. */
export type DivideEdit =
  /** Gaps that are added, gaps and block marks by id that go, and where new sensors watch what is then a section. */
  | { do: 'divide'; cuts: readonly Cut[]; without: readonly string[]; watch: readonly Spot[]; kind?: SensorKindId }
  | { do: 'turnouts in'; turnoutsIn: LayoutDocument['turnoutsIn'] };

const counted = (count: number, what: string): string[] =>
  count > 0 ? [`${count} ${what}${count > 1 ? 's' : ''}`] : [];

/** Does it to the draft; what was done, in words. */
export function editDivision(document: LayoutDocument, edit: DivideEdit): string {
  if (edit.do === 'turnouts in') {
    document.turnoutsIn = edit.turnoutsIn;
    return edit.turnoutsIn === 'blocks' ? 'Make points part of blocks' : 'Give points sections of their own';
  }
  if (edit.without.length > 0) remove(document, edit.without);
  const ids: string[] = [];
  const id = (prefix: string) => {
    const fresh = freshId(asItWas(document), prefix, ids);
    ids.push(fresh);
    return fresh;
  };
  for (const { line, at, rail = 'right' } of edit.cuts)
    document.features.push({
      id: id(FEATURES.gap.prefix),
      line,
      at,
      certainty: 'tentative',
      kind: 'gap',
      rail,
    });
  const { kind = SENSOR_KIND_IDS[0]! } = edit;
  const { names, holdMs } = sensorKind(kind);
  const given: string[] = [];
  for (const anchor of edit.watch) {
    const name = nextName(document, names, ...given);
    given.push(name);
    document.sensors.push({
      id: id(LISTS.sensors.prefix),
      name,
      kind,
      anchor: { ...anchor },
      holdMs,
      input: undefined,
      certainty: 'tentative',
    });
  }
  return `Divide the track: ${[...counted(edit.cuts.length, 'gap'), ...counted(edit.watch.length, 'detector')].join(' and ')}`;
}
