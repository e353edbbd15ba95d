import { and, name, not, or, previous } from '../logic';
import type { SignalReading } from '../signals';
import { byScheme } from './by-scheme';
import * as names from './names';
import { isChosen, type Pattern } from './pattern';
import type { Scheme } from './scheme';

/** How long a section that has power again may take until its sensors notice what stands there; common practice, no source. */
const NOTICED_AGAIN_MS = 500;

/** By section: the signals before which it is cut off while they show stop. */
const cutting = byScheme(({ readings, partition }): ReadonlyMap<number, SignalReading[]> => {
  const bySection = new Map<number, SignalReading[]>();
  for (const reading of readings) {
    if (!isChosen(stopSection, reading.signal)) continue;
    const { section } = partition.pieces[reading.piece]!;
    bySection.set(section, [...(bySection.get(section) ?? []), reading]);
  }
  return bySection;
});
export const isCutOff = (scheme: Scheme, section: number): boolean => cuttingOff(scheme, section).length > 0;
const cuttingOff = (scheme: Scheme, section: number): readonly SignalReading[] => cutting(scheme).get(section) ?? [];

/**
 * The stop section. A section before a signal is cut off once a train is noticed in it while that shows stop, so that also a driver who
 * pays no attention comes to a stand; it is fed again when the signal shows proceed,
 * and stays fed until they have left it. Where signals at both its ends cut it off, all of
 * them have to show stop. A section without power sees nothing: it counts as occupied until it has been fed again for a moment.
 */
export const stopSection: Pattern = {
  id: 'stop section',
  chosen: {
    at: 'signal',
    says: 'Cut off the section before it while it shows stop and a train is there',
    makes: 'power',
    wired: true,
  },
  power(scheme, section, book) {
    const signals = cuttingOff(scheme, section.index);
    if (signals.length === 0) return [];
    const { document, partition } = scheme;
    const head = names.headOf(partition, section);
    const { id: about, name: called } = head;
    const noticed = document.sensors.filter(({ id }) => section.sensors.includes(id));
    const anyNoticed = or(...noticed.map((sensor) => name(names.detect(sensor))));
    const anySeen = or(...noticed.map((sensor) => name(names.seen(sensor))));
    const atStop = signals.map(({ signal }) => not(name(names.proceed(signal))));
    /** A signal drops to stop behind the engine that it has let past; what follows in the section is no reason to cut it off. */
    book.rule(
      names.letOn(head),
      'bool',
      { op: 'RS', set: and(not(and(...atStop)), anyNoticed), reset: not(anySeen), starts: false },
      { about, yes: `What is in ${called} was let on`, no: `Nothing in ${called} was let on` },
    );
    const said = signals.map(({ signal }) => signal.name).join(' and ');
    book.rule(
      names.cut(head),
      'bool',
      {
        op: 'RS',
        set: and(name(names.SETTLED), ...atStop, anyNoticed, not(name(names.letOn(head)))),
        reset: not(and(...atStop)),
        starts: false,
      },
      { about, yes: `${called} is cut off: a train is in it and ${said} at stop`, no: `${called} is not cut off` },
    );
    book.rule(
      names.dead(head),
      'bool',
      { op: 'TOF', in: name(names.cut(head)), ms: NOTICED_AGAIN_MS, starts: false },
      {
        about,
        yes: `${called} has no power, or has it again for a moment only`,
        no: `${called} has had power for long enough to see trains`,
      },
    );
    return [{ shows: 'off', when: name(names.cut(head)) }];
  },
  occupied(scheme, block) {
    const section = scheme.partition.sections[block.section]!;
    if (cuttingOff(scheme, section.index).length === 0 || section.sensors.length === 0) return [];
    const dead = names.dead(names.headOf(scheme.partition, section));
    return [{ expr: previous(dead), says: 'it is cut off, and sees nothing' }];
  },
};
