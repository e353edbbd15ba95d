import { type Finding, GRAVITY, hazardOfFinding, isOpen } from '../findings';
import { arrivalLocking, flankProtection } from '../patterns';
import { applyEdit, type Edit, type LayoutDocument } from '../survey';
import { refusalOf } from '../system';
import { checkDesign, type Design } from './check-design';

/** One more way of locking points that was tried on a copy, and mends something. */
export interface LockProposal {
  /** The points that it is chosen at: several where only all together mend it. */
  points: { id: string; name: string }[];
  says: string;
  /** What it mends, in sentences. */
  why: string[];
  edit: Edit;
  /** What there is to say after it that was not before; nothing as grave as what it mends. */
  brings: string[];
}

/** Points, with what holds them as things stand. */
export interface HeldPoints {
  id: string;
  name: string;
  /** While any of these is so they do not move. */
  while: string[];
  /** By a rule of somebody’s own that drives it nothing more can be told than what that says. */
  otherwise?: string;
  /** What is still told of them as unsafe or to check, in this stage or because they can move under a train. */
  open: string[];
}

export interface LockProposals {
  points: HeldPoints[];
  proposals: LockProposal[];
  /** All of them as one step, tried together; undefined where there are fewer than two, or where they do not suit each other. */
  all: LockProposal | undefined;
}

/** Ways of locking that can be proposed, as what they are proposed in a sentence. */
const WAYS: { pattern: string; says(names: string): string; helps(finding: Finding<Edit>): boolean }[] = [
  {
    pattern: arrivalLocking.id,
    says: (names) => `Keep ${names} locked until trains have arrived`,
    helps: ({ kind }) => hazardOfFinding(kind) === 'points moved under a train',
  },
  {
    pattern: flankProtection.id,
    says: (names) => `Let ${names} guard the routes beside them`,
    helps: ({ kind }) => kind === 'side of a route that nothing guards',
  },
];

/**
 * For all points, what holds them, and which ways of locking more would mend something that is told of them: each tried on a copy, one at a time, and
 * where one alone mends nothing, at all points together. Nothing is proposed that brings something as grave. Yields how far it is, from 0 to 1.
 */
export function* proposeLocks(design: Design): Generator<number, LockProposals> {
  const { scheme, system, findings } = design;
  const { document, partition } = scheme;
  const things = [...document.turnouts, ...document.crossings];
  const points = partition.graph.points.map(({ id, name, motors }): HeldPoints => {
    const about = findings.filter((one) => isOpen(one) && isAbout(one, id) && isOfLocks(one));
    const held = motors.map((motor) => refusalOf(system, motor));
    const otherwise = held.flatMap((one) => one.otherwise ?? []).join('; ');
    return {
      id,
      name,
      while: [...new Set(held.flatMap((one) => one.while))],
      ...(otherwise && { otherwise }),
      open: about.map(({ says }) => says),
    };
  });
  const proposals: LockProposal[] = [];
  for (const [nth, { pattern, says, helps }] of WAYS.entries()) {
    if (!findings.some((one) => isOpen(one) && helps(one))) continue;
    const without = points.filter(({ id }) => !things.find((one) => one.id === id)?.patterns?.includes(pattern));
    const tried = (some: readonly HeldPoints[]) => {
      const edits = some.map(({ id }) => ({ do: 'use pattern', id, pattern, on: true }) as const);
      const named = says(AND.format(some.map(({ name }) => name)));
      const edit: Edit = edits.length === 1 ? edits[0]! : { do: 'one after another', edits, says: named };
      return tryEdit(document, findings, edit, named, some, helps);
    };
    const alone: LockProposal[] = [];
    for (const [i, one] of without.entries()) {
      const found = tried([one]);
      if (found) alone.push(found);
      yield (nth + (i + 1) / without.length) / WAYS.length;
    }
    const together = alone.length === 0 && without.length > 1 ? fewest(without, tried) : undefined;
    proposals.push(...alone, ...(together ? [together] : []));
  }
  return { points, proposals, all: allOf(document, findings, proposals) };
}

/** Of more points than this it is not looked for which of them could be left out. */
const MOST_LEFT_OUT = 20;

/** What all points together mend, and which of them it takes for that. */
function fewest(
  all: readonly HeldPoints[],
  tried: (some: readonly HeldPoints[]) => LockProposal | undefined,
): LockProposal | undefined {
  const whole = tried(all);
  if (!whole || all.length > MOST_LEFT_OUT) return whole;
  let [found, kept] = [whole, all];
  for (const one of all) {
    const rest = kept.filter((other) => other !== one);
    const still = rest.length > 0 ? tried(rest) : undefined;
    if (still && whole.why.every((says) => still.why.includes(says))) [found, kept] = [still, rest];
  }
  return found;
}

/** What comes of an edit: what it mends and brings. Undefined where it mends nothing of what it is for, or brings something as grave. */
function tryEdit(
  document: LayoutDocument,
  before: readonly Finding<Edit>[],
  edit: Edit,
  says: string,
  points: readonly LockProposal['points'][number][],
  helps: (finding: Finding<Edit>) => boolean,
): LockProposal | undefined {
  const done = applyEdit(document, edit);
  if (!done.ok) return undefined;
  const after = checkDesign(done.change.document).findings;
  const [known, left] = [new Set(before.map(({ id }) => id)), new Set(after.map(({ id }) => id))];
  const mended = before.filter((one) => isOpen(one) && helps(one) && !left.has(one.id));
  const fresh = after.filter(({ id }) => !known.has(id));
  const worst = Math.max(0, ...mended.map(({ severity }) => GRAVITY[severity]));
  if (mended.length === 0 || fresh.some(({ severity }) => GRAVITY[severity] >= worst)) return undefined;
  return {
    points: points.map(({ id, name }) => ({ id, name })),
    says,
    why: mended.map((one) => one.says),
    edit,
    brings: fresh.map((one) => one.says),
  };
}

function allOf(
  document: LayoutDocument,
  findings: readonly Finding<Edit>[],
  proposals: readonly LockProposal[],
): LockProposal | undefined {
  if (proposals.length < 2) return undefined;
  const says = `Do all ${proposals.length}`;
  const edits = proposals.flatMap(({ edit }) => (edit.do === 'one after another' ? edit.edits : [edit]));
  const points = [...new Map(proposals.flatMap((one) => one.points).map((one) => [one.id, one])).values()];
  const all = tryEdit(document, findings, { do: 'one after another', edits, says }, says, points, (one) =>
    WAYS.some(({ helps }) => helps(one)),
  );
  return all && proposals.every(({ why }) => why.every((one) => all.why.includes(one))) ? all : undefined;
}

const isOfLocks = (finding: Finding<Edit>): boolean => WAYS.some(({ helps }) => helps(finding));
const isAbout = ({ subject, id }: Finding<Edit>, points: string): boolean =>
  subject === points || id.split(' ').includes(points);

const AND = new Intl.ListFormat('en');
