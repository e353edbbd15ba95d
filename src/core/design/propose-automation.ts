import { type Finding, GRAVITY } from '../findings';
import {
  allRoads,
  isTwoRoads,
  type NamedRoute,
  PATTERNS,
  type Scheme,
  TWO_ROAD_PATTERNS,
  trainsSetRoutes,
} from '../patterns';
import { standingStart } from '../proof';
import { hazardOfEvent, TICK_MS } from '../simulation';
import { applyEdit, type Edit, type LayoutDocument } from '../survey';
import { checkDesign, type Design } from './check-design';

const SEEDS = [1, 2];
const MINUTES = 6;
/** A train that has not moved for so long at the end has come to a stand. */
const STANDS_TICKS = 90_000 / TICK_MS;
/** Running so much more is worth proposing, where no train more runs. */
const WORTH = 1.1;

/** Automatic working that was tried on a copy, and lets trains run that stood, or run more. */
export interface AutomationProposal {
  points: { id: string; name: string };
  says: string;
  /** How it works then, or where. */
  how: string;
  /** What comes of it beside what came before. */
  why: string;
  edit: Edit;
  /** What there is to say after it that was not before; nothing as grave as “to check”. */
  brings: string[];
}

export interface AutomationProposals {
  /** How it is now: how many of the trains run on by themselves. */
  now: string;
  proposals: AutomationProposal[];
  /** The best of each turnout as one step, tried together; undefined where there are fewer than two, or where they do not suit each other. */
  all: AutomationProposal | undefined;
}

/** What rehearsals with nobody at hand come to. */
interface Came {
  /** Trains that still run at the end, at least, of so many. */
  running: number;
  trains: number;
  ranM: number;
  mishap: boolean;
}

/**
 * For each turnout, which automatic working would suit it: each is tried on a copy by checking it and by rehearsals in which nobody touches anything, beside the
 * layout as it is. Yields how far it is, from 0 to 1. Throws RuleProgramError when the rules cannot be compiled.
 */
export function* proposeAutomation(design: Design): Generator<number, AutomationProposals> {
  const { document } = design.scheme;
  const before = rehearse(design);
  const candidates = candidatesOf(design.scheme);
  const tried: { of: Candidate; found: AutomationProposal; came: Came }[] = [];
  for (const [nth, one] of candidates.entries()) {
    yield nth / Math.max(1, candidates.length);
    const result = tryIt(document, design.findings, one, before);
    if (result) tried.push({ of: one, ...result });
  }
  /** The best of each turnout, the one that lets most trains run first. */
  const best = new Map<string, (typeof tried)[number]>();
  for (const one of tried) {
    const known = best.get(one.of.points.id);
    if (!known || isBetter(one.came, known.came)) best.set(one.of.points.id, one);
  }
  const together: Candidate | undefined =
    best.size > 1
      ? {
          points: { id: 'all', name: 'all' },
          says: `Do the best at each of the ${best.size} turnouts`,
          how: [...best.values()].map(({ of }) => `${of.says}.`).join(' '),
          edits: [...best.values()].flatMap(({ of }) => of.edits),
        }
      : undefined;
  const all = together && tryIt(document, design.findings, together, before);
  const sorted = [...tried].sort(
    (one, two) => Number(isBetter(two.came, one.came)) - Number(isBetter(one.came, two.came)),
  );
  return { now: sayCame(before), proposals: sorted.map(({ found }) => found), all: all?.found };
}

interface Candidate {
  points: { id: string; name: string };
  says: string;
  how: string;
  edits: { do: 'use pattern'; id: string; pattern: string; on: boolean }[];
}

/** Every two-road pattern where there are two roads, and routes set by trains at all signals that lead over a turnout. */
function candidatesOf(scheme: Scheme): Candidate[] {
  const { graph } = scheme.partition;
  return graph.points.flatMap((points): Candidate[] => {
    const motors = graph.motors.filter(({ points: of }) => graph.points[of] === points);
    const thing = [...scheme.document.turnouts, ...scheme.document.crossings].find(({ id }) => id === points.id);
    if (!thing) return [];
    const at = { id: points.id, name: points.name };
    const chosen = thing.patterns?.some((one) => TWO_ROAD_PATTERNS.includes(one));
    const roads = motors.some(({ index }) => isTwoRoads(allRoads(scheme)[index]!)) && !chosen;
    const byPattern = (roads ? TWO_ROAD_PATTERNS : []).map((pattern) => ({
      points: at,
      says: `Let ${points.name} work as “${pattern}”`,
      how: `${PATTERNS.find(({ id }) => id === pattern)!.chosen!.says}.`,
      edits: [{ do: 'use pattern', id: points.id, pattern, on: true } as const],
    }));
    const signals = [...new Set(motors.flatMap(({ index }) => scheme.routesOver[index]!.map(signalOf)))].filter(
      ({ patterns = [] }) => !patterns.includes(trainsSetRoutes.id),
    );
    const byRoutes = {
      points: at,
      says: `Let trains set the routes over ${points.name}`,
      how: `At ${AND.format(signals.map(({ name }) => name))}.`,
      edits: signals.map(({ id }) => ({ do: 'use pattern', id, pattern: trainsSetRoutes.id, on: true }) as const),
    };
    return [...byPattern, ...(signals.length > 0 ? [byRoutes] : [])];
  });
}
const signalOf = ({ reading }: NamedRoute) => reading.signal;
const AND = new Intl.ListFormat('en');

/** Undefined where it brings a mishap, or something to say that is more than a note, or lets trains run no more than before. */
function tryIt(
  document: LayoutDocument,
  findings: readonly Finding<Edit>[],
  { points, says, how, edits }: Candidate,
  before: Came,
): { found: AutomationProposal; came: Came } | undefined {
  const edit: Edit = edits.length === 1 ? edits[0]! : { do: 'one after another', edits, says };
  const done = applyEdit(document, edit);
  if (!done.ok) return undefined;
  const design = checkDesign(done.change.document);
  const known = new Set(findings.map(({ id }) => id));
  const fresh = design.findings.filter(({ id }) => !known.has(id));
  if (fresh.some(({ severity }) => GRAVITY[severity] > GRAVITY.note)) return undefined;
  const came = rehearse(design);
  if (came.mishap || !isWorthIt(came, before)) return undefined;
  const why = `${sayCame(came)} Before: ${sayCame(before)}`;
  return { came, found: { points, says, how, why, edit, brings: fresh.map((one) => one.says) } };
}

const isBetter = (one: Came, two: Came): boolean =>
  one.running > two.running || (one.running === two.running && one.ranM > two.ranM);

/** More trains run on than before; or all do as before, and get clearly farther; or what went wrong before does so no longer. */
const isWorthIt = (came: Came, before: Came): boolean =>
  came.running > 0 &&
  (before.mishap ||
    came.running > before.running ||
    (before.running === before.trains && came.running === before.running && came.ranM > before.ranM * WORTH));

const sayCame = ({ running, trains, ranM, mishap }: Came): string =>
  `${running} of ${trains} ${trains === 1 ? 'train runs' : 'trains run'} on, ${Math.round(ranM)} m in ${MINUTES} minutes${mishap ? ', and there is a mishap' : ''}.`;

function rehearse({ system }: Design): Came {
  const came: Came = { running: Number.POSITIVE_INFINITY, trains: 0, ranM: 0, mishap: false };
  for (const seed of SEEDS) {
    const { start: run } = standingStart(system, { pulsed: true, seed });
    const { trains } = run.plant;
    for (const train of trains) train.running = true;
    const moved = trains.map(() => 0);
    const began = run.tick;
    let ran = 0;
    while (run.tick - began < (MINUTES * 60_000) / TICK_MS) {
      run.step((event) => {
        came.mishap ||= hazardOfEvent(event) !== undefined;
      });
      for (const [t, { speed }] of trains.entries()) {
        if (speed === 0) continue;
        moved[t] = run.tick;
        ran += (speed * TICK_MS) / 1e6;
      }
    }
    came.trains = trains.length;
    came.running = Math.min(came.running, moved.filter((tick) => run.tick - tick < STANDS_TICKS).length);
    came.ranM += ran / SEEDS.length;
  }
  return came;
}
