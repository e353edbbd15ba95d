import type { Finding } from '../findings';
import { callThing, type Edit, isKind, type LayoutDocument } from '../survey';
import { type Feeder, feedersOf } from './districts';
import { pieceAt } from './division';
import type { Partition } from './partition';

/** What is wrong with what is led where: sections that nothing feeds, or two boosters do, and gaps that do not part districts. */
export function districtFindings(document: LayoutDocument, partition: Partition): Finding<Edit>[] {
  const feeders = feedersOf(document, partition);
  if (feeders.size === 0) return [];
  const named = [...feeders.values()].flat().some(({ booster }) => booster !== undefined);
  const names = new Map(document.boosters.map(({ id, name }) => [id, name]));
  const called: Called = (booster) => names.get(booster) ?? booster;
  const says = (feeder: Feeder) => callThing('features', feeder, document.shownUnit);
  return [
    ...unfed(partition, feeders),
    ...(named ? [...fedTwice(partition, feeders, called), ...ofNone(feeders, says, called)] : []),
    ...(named && document.ownReturns ? joinedByRail(document, partition, feeders, called) : []),
  ];
}

/** What people call a booster, by its id. */
type Called = (booster: string) => string;

const boostersOf = (feeders: readonly Feeder[] = []): string[] => [
  ...new Set(feeders.flatMap(({ booster }) => booster ?? [])),
];

const blocksIn = ({ sections, blocks }: Partition, section: number) =>
  sections[section]!.blocks.map((block) => blocks[block]!);
const namesIn = (partition: Partition, section: number): string =>
  blocksIn(partition, section)
    .map(({ name }) => name)
    .join(', ');

/** Sections without a feeder. */
const unfed = (partition: Partition, feeders: ReadonlyMap<number, Feeder[]>): Finding<Edit>[] =>
  partition.sections
    .filter(({ index }) => !feeders.has(index))
    .map(({ index }) => {
      const { id } = blocksIn(partition, index)[0]!;
      return {
        id: `unfed ${id}`,
        kind: 'section without a feeder',
        severity: 'check',
        subject: id,
        says: `No feeder leads to ${namesIn(partition, index)}: between its gaps trains get no current, and nothing is seen there.`,
        figures: [],
        advice: 'Enter the feeder that leads there: feeder 96.',
        fixes: [],
      };
    });

function fedTwice(partition: Partition, feeders: ReadonlyMap<number, Feeder[]>, called: Called): Finding<Edit>[] {
  return [...feeders].flatMap(([section, own]): Finding<Edit>[] => {
    const boosters = boostersOf(own);
    if (boosters.length < 2) return [];
    const { id } = blocksIn(partition, section)[0]!;
    return [
      {
        id: `fed twice ${id}`,
        kind: 'two boosters in one section',
        severity: 'unsafe',
        subject: id,
        says: `${boosters.map(called).join(' and ')} both feed ${namesIn(partition, section)}: two supplies joined work against each other and can burn what lies between.`,
        figures: own.map(({ name, booster }) => ({
          name,
          value: booster === undefined ? 'no booster said' : called(booster),
        })),
        advice: 'Never join two supplies. Cut the section between them, or lead all its feeders from one.',
        fixes: boosters.map((booster) => ({
          says: `Lead all its feeders from ${called(booster)}`,
          edit: { do: 'change features', ids: own.map((feeder) => feeder.id), change: { booster } },
        })),
      },
    ];
  });
}

const ofNone = (
  feeders: ReadonlyMap<number, Feeder[]>,
  says: (feeder: Feeder) => string,
  called: Called,
): Finding<Edit>[] =>
  [...feeders.values()]
    .flatMap((own) => own.filter(({ booster }) => booster === undefined).map((feeder) => ({ feeder, own })))
    .map(({ feeder, own }) => ({
      id: `no booster ${feeder.id}`,
      kind: 'feeder of no booster',
      severity: 'check',
      subject: feeder.id,
      says: `${says(feeder)} does not say from which booster it is led, and others do.`,
      figures: [],
      advice: 'Choose it, and say its booster.',
      fixes: boostersOf(own).map((booster) => ({
        says: `Lead it from ${called(booster)}`,
        edit: { do: 'change features', ids: [feeder.id], change: { booster } },
      })),
    }));

/** Gaps between two districts that leave the other rail whole, where boosters share no return. */
function joinedByRail(
  document: LayoutDocument,
  partition: Partition,
  feeders: ReadonlyMap<number, Feeder[]>,
  called: Called,
): Finding<Edit>[] {
  return document.features.filter(isKind('gap')).flatMap((gap): Finding<Edit>[] => {
    if (gap.rail === 'both') return [];
    const [one, other] = (['down', 'up'] as const).map(
      (side) => boostersOf(feeders.get(pieceAt(partition, gap.line, gap.at.tenthUm, side).section))[0],
    );
    if (one === undefined || other === undefined || one === other) return [];
    return [
      {
        id: `joined ${gap.id}`,
        kind: 'boosters joined by a rail',
        severity: 'unsafe',
        subject: gap.id,
        says: `${callThing('features', gap, document.shownUnit)} parts ${called(one)} from ${called(other)}, but cuts the ${gap.rail} rail alone: the other one joins the two, which share no return.`,
        figures: [],
        advice: 'Cut both rails where two boosters meet.',
        fixes: [{ says: 'Cut both rails', edit: { do: 'change features', ids: [gap.id], change: { rail: 'both' } } }],
      },
    ];
  });
}
