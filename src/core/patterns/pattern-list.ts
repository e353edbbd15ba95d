import type { OutputKindId } from '../kinds';
import { type LayoutDocument, signalsOf } from '../survey';
import { approachLit } from './approach-lit';
import { arrivalLocking } from './arrival-locking';
import { assumed } from './assumed';
import { assumedPosition } from './assumed-position';
import { authority } from './authority';
import { automaticBlock } from './automatic-block';
import { byHand } from './by-hand';
import { cautionAtFirst } from './caution-at-first';
import { contactArms } from './contact-arms';
import { detectorLocking } from './detector-locking';
import { divergingHeld } from './diverging-held';
import { flankProtection } from './flank-protection';
import { occupancy } from './occupancy';
import { onePulseStation } from './one-pulse-station';
import { overlap } from './overlap';
import { overtakingLoop } from './overtaking-loop';
import { panelLamp } from './panel-lamp';
import type { Pattern } from './pattern';
import { permission } from './permission';
import { pointsIndicator } from './points-indicator';
import { post } from './posts';
import { powerLamp } from './power-lamp';
import { powerUp } from './power-up';
import { releaseAlone } from './release-alone';
import { RELEASES } from './released';
import { routeLocking } from './route-locking';
import { setRoutes } from './set-routes';
import { spotCount } from './spot-count';
import { spotMemory } from './spot-memory';
import { stopSection } from './stop-section';
import { takesTurns } from './takes-turns';
import { throwRules } from './throw-rules';
import { timedCaution } from './timed-caution';
import { trafficDirection } from './traffic-direction';
import { trainsSetRoutes } from './trains-set-routes';
import { twoRoadBlock } from './two-road-block';

/** Every pattern, in the order in which their terms stand in a rule. */
export const PATTERNS: readonly Pattern[] = [
  automaticBlock,
  byHand,
  assumedPosition,
  powerUp,
  occupancy,
  spotMemory,
  spotCount,
  assumed,
  divergingHeld,
  timedCaution,
  contactArms,
  post,
  authority,
  permission,
  cautionAtFirst,
  releaseAlone,
  ...RELEASES,
  takesTurns,
  twoRoadBlock,
  onePulseStation,
  overtakingLoop,
  throwRules,
  trainsSetRoutes,
  setRoutes,
  approachLit,
  detectorLocking,
  routeLocking,
  flankProtection,
  overlap,
  arrivalLocking,
  trafficDirection,
  stopSection,
  panelLamp,
  powerLamp,
  pointsIndicator,
];

/** What can be chosen for things, beside what works everywhere; `automatic`: trains work it. */
export const CHOOSABLE = PATTERNS.flatMap(({ id, chosen, off, keepsReleases = false }) =>
  chosen ? [{ id, ...chosen, automatic: off !== undefined || keepsReleases }] : [],
);

/** Whether a signal cuts off the section before it. */
export const cutsOff = ({ patterns = [] }: { patterns?: string[] }): boolean =>
  CHOOSABLE.some(({ id, makes }) => makes === 'power' && patterns.includes(id));

/** Whether a signal is wired straight to what it shows, a contact of points, and no control stands between. */
export const isWired = ({ patterns = [] }: { patterns?: string[] }): boolean =>
  CHOOSABLE.some(({ id, makes, wired }) => makes === 'aspect' && wired && patterns.includes(id));

/** Whether a signal shows proceed whatever stands beyond, so that it holds no train. */
export const holdsNothing = ({ patterns = [] }: { patterns?: string[] }): boolean =>
  CHOOSABLE.some((one) => one.holdsNothing && patterns.includes(one.id));

/** The kinds of output that are worked because somebody chose what works them. */
export function chosenOutputs(document: LayoutDocument): ReadonlySet<OutputKindId> {
  const things = [...signalsOf(document), ...document.turnouts, ...document.crossings, ...document.sensors];
  const chosen = new Set(things.flatMap(({ patterns }) => patterns ?? []));
  return new Set(CHOOSABLE.filter(({ id }) => chosen.has(id)).map(({ makes }) => makes));
}
