import type { Finding } from '../findings';
import { greyOf, lampsOut, promisesFree, SIGHT_SYSTEM, SPEED_SYSTEM } from '../kinds';
import { type Edit, systemOf, type Wiring } from '../survey';
import { CHOOSABLE, cutsOff } from './pattern-list';
import type { Scheme } from './scheme';

/** What is wrong with what signals show: what nobody can tell, what nobody is told before, and what shows too much when it fails. */
export function aspectFindings(scheme: Scheme): Finding<Edit>[] {
  return [
    ...systemFindings(scheme),
    ...wiringFindings(scheme),
    ...unannouncedLimits(scheme),
    ...headsForSeveral(scheme),
    ...holdNothing(scheme),
    ...sayTooMuch(scheme),
    ...lampsLikeSignals(scheme),
  ];
}

/** Of the systems that signals use. */
function systemFindings({ document, readings }: Scheme): Finding<Edit>[] {
  const first = new Map(
    readings.map(({ signal }) => [signal.system, signal]).reverse() as [string, (typeof readings)[number]['signal']][],
  );
  return [...first].flatMap(([id, signal]) => {
    const system = systemOf(document, id);
    const found: Finding<Edit>[] = [];
    const alike = system.aspects.flatMap((one, i) =>
      system.aspects
        .slice(i + 1)
        .filter((two) => greyOf(system, one) === greyOf(system, two))
        .map((two) => `${one.id} and ${two.id}`),
    );
    if (alike.length > 0)
      found.push({
        id: `alike ${id}`,
        kind: 'aspects alike without colours',
        severity: 'check',
        subject: signal.id,
        says: `By ${system.name}, nobody who sees no colours can tell apart ${alike.join('; ')}.`,
        figures: [],
        advice: 'Give them other shapes or places, or let one flash: Aspect systems, in Signal.',
        fixes: [],
      });
    const bad = lampsOut(system).find(({ worse }) => worse);
    if (bad)
      found.push({
        id: `lamp-out ${id}`,
        kind: 'lamp that fails to a less restrictive aspect',
        severity: 'unsafe',
        subject: signal.id,
        says: `By ${system.name}, ${bad.aspect.id} with lamp ${bad.lamp + 1} out is read as ${bad.read!.id}, which is less restrictive.`,
        figures: [],
        advice: 'Let the more restrictive aspect light fewer lamps, or others: Aspect systems, in Signal.',
        fixes: [],
      });
    return found;
  });
}

/** Wiring that was said to fail to a false clear. */
function wiringFindings({ document, readings }: Scheme): Finding<Edit>[] {
  const signals = readings.map(({ signal }) => signal);
  const wrong: {
    ids: string[];
    names: string[];
    /** Of one, and of several. */
    says: [string, string];
    why: string;
    mends: string;
    wiring: Wiring;
  }[] = [
    {
      ...idsAndNames(document.sensors.filter(({ broken }) => broken === 'free')),
      says: ['reads free when its wire is', 'read free when their wires are'],
      why: 'broken, or there is no supply: signals clear into a train',
      mends: 'Wire it so that its input is on while the track is free',
      wiring: { sensors: 'occupied' },
    },
    {
      ...idsAndNames(signals.filter(({ broken }) => broken === 'clear')),
      says: ['shows clear when its wire is', 'show clear when their wires are'],
      why: 'broken, or the relay is dead',
      mends: 'Energise it to clear, so that it drops to stop by itself',
      wiring: { signals: 'stop' },
    },
    {
      ...idsAndNames(signals.filter((signal) => signal.relay === 'fed' && cutsOff(signal))),
      says: [
        'has the section before it fed when the relay is',
        'have the sections before them fed when the relays are',
      ],
      why: 'dead, or there is no supply: trains run past at stop',
      mends: 'Feed the section through the open contact, so that it is off by itself',
      wiring: { relays: 'off' },
    },
  ];
  return wrong
    .filter(({ ids }) => ids.length > 0)
    .map(
      ({ ids, names, says, why, mends, wiring }): Finding<Edit> => ({
        id: `fails ${Object.keys(wiring)[0]}`,
        kind: 'wiring that fails to a false clear',
        severity: 'unsafe',
        subject: ids[0]!,
        says: `${names.length > 4 ? `${names.slice(0, 3).join(', ')} and ${names.length - 3} more` : names.join(', ')} ${says[names.length > 1 ? 1 : 0]} ${why}.`,
        figures: [],
        advice: `${mends}.`,
        fixes: [{ says: `${mends}${ids.length > 1 ? `, all ${ids.length}` : ''}`, edit: { do: 'wire', ids, wiring } }],
      }),
    );
}
const idsAndNames = (things: readonly { id: string; name: string }[]) => ({
  ids: things.map(({ id }) => id),
  names: things.map(({ name }) => name),
});

/** A signal whose ways aside have a limit of speed, and one before it that cannot say so. */
function unannouncedLimits({ document, readings }: Scheme): Finding<Edit>[] {
  return readings.flatMap(({ index, signal, routes }) => {
    const system = systemOf(document, signal.system);
    const limits = system.aspects.some(({ speed, leads }) => speed && leads === 'aside');
    if (!limits || !routes.some(({ aside }) => aside)) return [];
    const silent = readings.filter(
      (before) =>
        before.routes.some(({ ending }) => ending.kind === 'signal' && ending.signal === index) &&
        !systemOf(document, before.signal.system).aspects.some(({ speedAtNext }) => speedAtNext),
    );
    if (silent.length === 0) return [];
    const announces = system.aspects.some(({ speedAtNext }) => speedAtNext);
    const names = silent.map(({ signal: { name } }) => name).join(', ');
    const finding: Finding<Edit> = {
      id: `unannounced ${signal.id}`,
      kind: 'limit of speed that nobody announces',
      severity: 'check',
      subject: signal.id,
      says: `${signal.name} can clear a diverging route at reduced speed, and ${names} cannot say so beforehand: trains come to it at full speed.`,
      figures: [],
      advice: announces
        ? `Let ${names} signal by ${system.name} too.`
        : `Give the signals before it a system that announces a speed at the next, such as ${systemOf(document, SPEED_SYSTEM).name}.`,
      fixes: announces
        ? [
            {
              says: `Let ${names} signal by ${system.name}`,
              edit: { do: 'signal by', ids: silent.map(({ signal: { id } }) => id), system: signal.system },
            },
          ]
        : [],
    };
    return [finding];
  });
}

/** Signals that somebody chose to follow the points alone: no hazard where their aspects promise nothing. */
const holdNothing = ({ document, readings }: Scheme): Finding<Edit>[] =>
  readings.flatMap(({ signal: { id, name, system, patterns = [] } }) =>
    CHOOSABLE.filter((one) => one.holdsNothing && patterns.includes(one.id)).map((one): Finding<Edit> => {
      const promises = systemOf(document, system).aspects.some(promisesFree);
      return {
        id: `holds-nothing ${id}`,
        kind: 'signal that holds no train',
        severity: promises ? 'unsafe' : 'note',
        subject: id,
        says: promises
          ? `${name} shows which way the points lie, and shows proceed whatever stands there: one of its arms is always clear.`
          : `${name} shows which way the points lie, and holds no train.`,
        figures: [],
        advice: promises
          ? 'Give each arm its own control as well, and let a signal before it hold trains; or signal by an indicator, which promises nothing.'
          : 'Let a signal before it hold trains.',
        fixes: [{ says: 'Let it hold trains', edit: { do: 'use pattern', id, pattern: one.id, on: false } }],
      };
    }),
  );

/** Lamps beside the track whose red says that it has power: gravest where drivers look for signals. */
const lampsLikeSignals = ({ document, partition, readings }: Scheme): Finding<Edit>[] =>
  document.sensors.flatMap(({ id, name, patterns = [] }) =>
    CHOOSABLE.filter((one) => one.redForPower && patterns.includes(one.id)).flatMap((one): Finding<Edit>[] => {
      const section = partition.sections.find(({ sensors }) => sensors.includes(id));
      if (!section) return [];
      const read = readings.filter(({ rear }) => partition.blocks[rear]!.section === section.index);
      const called = read.map(({ signal }) => signal.name).join(' and ');
      return [
        {
          id: `red-for-power ${id}`,
          kind: 'lamp that passes for a signal',
          severity: read.length > 0 ? 'unsafe' : 'check',
          subject: id,
          says: `The lamp of ${name} is red while the track has power, and goes dark when a train is held there.${called ? ` Whoever drives towards ${called} sees red where he may go, and learns to pass it.` : ''}`,
          figures: [],
          advice: 'Put it on the panel, give it another colour, or take it away: red beside the track means stop.',
          fixes: [{ says: 'Take the lamp away', edit: { do: 'use pattern', id, pattern: one.id, on: false } }],
        },
      ];
    }),
  );

/** Signals that show proceed where a train may stand, by an aspect that says that none does. */
const sayTooMuch = ({ document, readings }: Scheme): Finding<Edit>[] =>
  readings.flatMap(({ signal: { id, name, system, patterns = [] } }) => {
    const { name: called, aspects } = systemOf(document, system);
    const asks = CHOOSABLE.some((one) => one.onSight && patterns.includes(one.id));
    if (!asks || aspects.some(({ onSight }) => onSight)) return [];
    return [
      {
        id: `says-too-much ${id}`,
        kind: 'permission by an aspect that says too much',
        severity: 'unsafe',
        subject: id,
        says: `${name} shows proceed where a train may stand, by ${aspects[1].id}, which says that none does: ${called} cannot say “on sight”.`,
        figures: [],
        advice: 'Choose a system with an aspect on sight, or give your own one.',
        fixes: [
          {
            says: `Let it signal by ${systemOf(document, SIGHT_SYSTEM).name.toLowerCase()}`,
            edit: { do: 'signal by', ids: [id], system: SIGHT_SYSTEM },
          },
        ],
      },
    ];
  });

/** Signals that show the same for ways straight on and for ways that lead aside. */
function headsForSeveral({ document, readings }: Scheme): Finding<Edit>[] {
  const same = readings.filter(({ signal, routes }) => {
    const open = routes.filter(({ blocks, ending }) => blocks.length > 0 && ending.kind !== 'circle');
    const tells = systemOf(document, signal.system).aspects.some(({ leads }) => leads);
    return !tells && open.some(({ aside }) => aside) && open.some(({ aside }) => !aside);
  });
  const [first] = same;
  if (!first) return [];
  const names = same.map(({ signal: { name } }) => name);
  return [
    {
      id: 'one head',
      kind: 'one head for several tracks',
      severity: 'note',
      subject: first.signal.id,
      says: `${names.length > 5 ? `${names.slice(0, 4).join(', ')} and ${names.length - 4} more` : names.join(', ')} ${names.length === 1 ? 'shows' : 'show'} the same whether the route leads straight on or diverges.`,
      figures: [],
      advice:
        'Junction arms and speed signals tell crews which route is set. Or show it beside the points by an indicator.',
      fixes: [
        {
          says: `Let them signal by ${systemOf(document, SPEED_SYSTEM).name.toLowerCase()}`,
          edit: { do: 'signal by', ids: same.map(({ signal: { id } }) => id), system: SPEED_SYSTEM },
        },
      ],
    },
  ];
}
