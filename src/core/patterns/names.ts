import type { Block, Partition, Section } from '../detection';
import type { Program } from '../logic';
import type { TurnoutPosition } from '../survey';
import type { Scheme } from './scheme';

/** What the names of rules are made of: ids, so that what people call a thing changes no rule. */
interface Thing {
  id: string;
}
export interface Named extends Thing {
  name: string;
}
/** A route, by its signal and what it leads to. */
interface OfSignal extends Thing {
  reading: { signal: Thing };
}

export const detect = ({ id }: Thing) => `detect.${id}`;
export const seen = ({ id }: Thing) => `seen.${id}`;
export const occupied = ({ id }: Thing) => `occupied.${id}`;
export const points = ({ id }: Thing) => `points.${id}`;
export const contact = ({ id }: Thing) => `contact.${id}`;
export const sent = ({ id }: Thing, position: TurnoutPosition) => `sent.${id}.${position}`;
export const ask = ({ id }: Thing, position: TurnoutPosition) => `ask.${id}.${position}`;
export const locked = ({ id }: Thing) => `locked.${id}`;
export const cleared = ({ id }: Thing) => `cleared.${id}`;
export const drive = ({ id }: Thing) => `drive.${id}`;
export const hold = ({ id }: Thing) => `hold.${id}`;
export const near = ({ id }: Thing) => `near.${id}`;
export const wants = ({ id }: Thing) => `wants.${id}`;
export const may = ({ reading: { signal }, id }: OfSignal) => `may.${signal.id}.${id}`;
export const go = ({ reading: { signal }, id }: OfSignal) => `go.${signal.id}.${id}`;
export const free = ({ reading: { signal }, id }: OfSignal) => `free.${signal.id}.${id}`;
export const underWay = ({ reading: { signal }, id }: OfSignal) => `underway.${signal.id}.${id}`;
export const release = ({ reading: { signal }, id }: OfSignal) => `release.${signal.id}.${id}`;
export const overlapHeld = ({ id }: Thing) => `overlap.${id}`;
export const routeButton = ({ reading: { signal }, id }: OfSignal) => `button.${signal.id}.${id}`;
export const routeSet = ({ reading: { signal }, id }: OfSignal) => `set.${signal.id}.${id}`;
export const switchedOff = ({ id }: Thing, what: 'routes' | 'release' | 'turns' | 'rules') => `off.${id}.${what}`;
export const off = ({ id }: Thing) => `manual.${id}`;
export const leaving = ({ id }: Thing) => `leaving.${id}`;
export const turn = ({ id }: Thing) => `turn.${id}`;
export const departure = ({ id }: Thing, road: string) => `departure.${id}.${road}`;
export const comesAbout = ({ id }: Thing) => `about.${id}`;
export const wanted = ({ id }: Thing) => `wanted.${id}`;
export const swap = ({ id }: Thing) => `swap.${id}`;
export const start = ({ id }: Thing) => `start.${id}`;
export const released = ({ id }: Thing, who: string, how: string) => `released.${id}.${who}.${how}`;
export const comes = ({ id }: Thing) => `comes.${id}`;
export const open = ({ reading: { signal }, id }: OfSignal) => `open.${signal.id}.${id}`;
export const before = ({ id }: Thing, { id: other }: Thing) => `before.${id}.${other}`;
export const cancel = ({ id }: Thing) => `cancel.${id}`;
export const proceed = ({ id }: Thing) => `proceed.${id}`;
export const stopsIn = ({ id }: Thing, signals: number) => `stops.${id}.${signals}`;
export const shows = ({ id }: Thing) => `signal.${id}`;
export const held = ({ id }: Thing, side: string) => `held.${id}.${side}`;
export const tell = ({ id }: Thing, side: string) => `tell.${id}.${side}`;
export const quiet = ({ id }: Thing, side: string) => `quiet.${id}.${side}`;
export const stepping = ({ id }: Thing) => `stepping.${id}`;
export const manned = ({ id }: Thing) => `manned.${id}`;
export const give = ({ id }: Thing) => `give.${id}`;
export const givenFor = ({ id }: Thing) => `pressed.${id}`;
export const given = ({ id }: Thing) => `given.${id}`;
export const reads = ({ id }: Thing) => `reads.${id}`;
/** An output that patterns alone work, by its kind. */
export const output = (kind: string, { id }: Thing) => `${kind}.${id}`;
export const lighting = ({ id }: Thing) => `lighting.${id}`;
export const cut = ({ id }: Thing) => `cut.${id}`;
export const letOn = ({ id }: Thing) => `let.${id}`;
export const dead = ({ id }: Thing) => `dead.${id}`;
export const inside = ({ id }: Thing) => `inside.${id}`;
export const heard = ({ id }: Thing) => `heard.${id}`;
export const unheard = ({ id }: Thing) => `unheard.${id}`;
export const unsure = ({ id }: Thing) => `unsure.${id}`;
export const taken = ({ id }: Thing) => `taken.${id}`;
export const freed = ({ id }: Thing) => `freed.${id}`;
export const atEnd = ({ id }: Thing, nth: number, what: string) => `end.${id}.${nth}.${what}`;
export const SETTLED = 'settled';

/** What a train reads off a signal: what it shows, or that it is dark. */
export const asRead = (slots: ReadonlyMap<string, number>, signal: Thing): string =>
  slots.has(reads(signal)) ? reads(signal) : shows(signal);

/** A section is called after its first block. */
export const headOf = ({ blocks }: Partition, section: Section): Block => blocks[section.blocks[0]!]!;

/** What people call that of which the names of rules are made. A dot would split a name, so it is shown as a middle dot. */
export function calledIn({ document, partition, readings, trafficSections, routesOf }: Scheme): Program['called'] {
  const things = [
    ...document.sensors,
    ...partition.blocks,
    ...partition.graph.motors,
    ...readings.map(({ signal }) => signal),
    ...trafficSections.all,
  ];
  const called = [
    ...things.map(({ id, name }) => [id, name]),
    ...routesOf.flat().map(({ id, to }) => [id, to]),
    ...trafficSections.sideNames,
    ...document.throwRules.map(({ id }, nth) => [id, `throw rule ${nth + 1}`]),
  ];
  return Object.fromEntries(called.map(([id, name]) => [id, name!.replaceAll('.', '·')]));
}
