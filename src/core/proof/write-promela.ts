import { names } from '../patterns';
import { faceToFace } from '../plant';
import { END_OF_TRACK } from '../signals';
import { HARM_IDS, type HarmId } from '../simulation';
import type { ProofModel } from './model';
import type { Advance, Before, Placement } from './placements';
import { meet } from './proof-train';
import { ORDERS, touchOf, twoOf } from './touch';
import { slotText, writeRulesPromela } from './write-rules-promela';

/** The flag of each harm in the model: `spin -DHARM=harm_trains_touch` looks for that one. */
export const harmFlag = (harm: HarmId): string => `harm_${harm.replaceAll(' ', '_')}`;

/**
 * Plant and rule program as a model for the Spin checker: the same steps as `ProofModel`, written out from its tables and from
 * the rules’ own expressions. A step sets the flag of each harm it does; after one that ends things, the run ends.
 */
export function writePromela(model: ProofModel): string {
  const { document, scheme, trains } = model;
  const { previous } = model.rules;
  const { compiled, program } = model.rules.wiring;
  if (model.on.has('lift'))
    throw new Error('A model with trains lifted off cannot be written yet. Switch that off first.');
  const lines: string[] = [];
  const say = (...text: string[]) => lines.push(...text);
  const slotOf = (name: string) => slotText(model, name);
  const rules = writeRulesPromela(model);
  const aspectOf = (signal: number) => slotOf(names.shows(scheme.readings[signal]!.signal.name));
  const first = { ...model.present, ...model.memoryNow() };
  const among = (t: number, numbers: number[]) => `(${numbers.map((n) => `at${t} == ${n}`).join(' || ')})`;
  const where = (t: number, pick: (p: Placement, number: number) => boolean) =>
    trains[t]!.placements.flatMap((p, n) => (pick(p, n) ? [n] : []));
  const either = (parts: string[]) => (parts.length > 0 ? `(${parts.join(' || ')})` : '0');
  const whenever = (guard: string, then: string) => `if :: ${guard} -> ${then} :: else fi`;
  const set = (harm: HarmId) => `${harmFlag(harm)} = 1`;
  const numberOf = (a: number, b: number) => twoOf(Math.min(a, b), Math.max(a, b));

  say(`#ifndef HARM`, `#define HARM ${harmFlag('trains touch')}`, `#endif`);
  say(`/* ${document.name.replace(/[^\w ]/g, '')}: plant and rule program. */`);
  say(`byte value[${compiled.slotCount}];`, `byte before[${compiled.slotCount}];`);
  say(`bit memo[${Math.max(1, rules.memory)}];`, `hidden byte temp[${Math.max(1, rules.temporary)}];`);
  say(`bit ends[${Math.max(1, rules.timers.length)}];`, `hidden byte was[${Math.max(1, rules.memory)}];`);
  say('hidden byte changed; hidden byte moved; hidden byte i; hidden byte stop; hidden byte known; hidden byte next;');
  say('hidden int past; hidden int counted; byte work = 1; byte events; byte todo; int who = -1;');
  say(...HARM_IDS.map((harm) => `bit ${harmFlag(harm)};`), 'bit ended;');
  for (const t of trains.keys()) say(`byte at${t} = ${first.at[t]};`, `short past${t}; int counted${t};`);
  for (const t of document.turnouts.keys()) say(`byte lies${t} = ${first.turnouts[t]};`);
  for (const i of first.orders.keys()) say(`byte order${i} = ${first.orders[i]};`);

  say('inline inputs() {');
  for (const section of scheme.partition.sections) {
    const seen = trains.flatMap((_, t) => {
      const numbers = where(t, (p) => p.sections.includes(section.index));
      return numbers.length > 0 ? [among(t, numbers)] : [];
    });
    for (const id of section.detectors) {
      const detector = document.detectors.find((d) => d.id === id)!;
      say(`  ${slotOf(names.detect(detector.name))} = ${either(seen)};`);
    }
  }
  for (const [t, turnout] of document.turnouts.entries())
    say(`  ${slotOf(names.points(turnout.name))} = (lies${t} > 1 -> 2 : lies${t});`);
  say('  skip', '}');
  say('inline scan() {', ...rules.scan.map((line) => `  ${line}`));
  for (const slot of previous)
    say(`  if :: before[${slot}] != value[${slot}] -> before[${slot}] = value[${slot}]; changed = 1 :: else fi;`);
  say('  skip', '}');

  const coming = (over: Before['over']) =>
    over.length === 0
      ? '1'
      : `(${over.map(({ turnout, position }) => `(lies${turnout} > 1 || lies${turnout} == ${position})`).join(' && ')})`;
  /** Bound past everything before what a train must stop at now. */
  const bind = (t: number, before: Before[]): string => {
    const count = before.length;
    const looks = before.map(({ signal, over }, k) => {
      const moving = over.map(({ turnout }) => `lies${turnout} > 1`);
      const lie = over.map(({ turnout, position }) => `lies${turnout} == ${position}`);
      const meets =
        signal === END_OF_TRACK
          ? `stop = ${k}`
          : `if :: next == 0 -> if :: ${aspectOf(signal)} == 0 -> stop = ${k} :: else -> next = 3 - ${aspectOf(signal)} fi :: next == 2 -> stop = ${k} :: else fi`;
      return [
        moving.length > 0 ? `${whenever(moving.join(' || '), 'known = 0')}; ` : '',
        whenever(['known', `stop == ${count}`, ...lie].join(' && '), meets),
      ].join('');
    });
    const counts = before.flatMap(({ signal }, k) =>
      signal === END_OF_TRACK
        ? []
        : [whenever(`past${t} > ${k} && ${aspectOf(signal)} != 0`, `counted${t} = counted${t} | ${1 << k}`)],
    );
    return [
      `stop = ${count}; known = 1; next = 0`,
      ...looks,
      whenever(`stop > past${t}`, `past${t} = stop`),
      ...counts,
      'next = 0; known = 0; stop = 0',
    ].join('; ');
  };
  for (const [t, train] of trains.entries()) {
    say(`inline bind${t}() {`, '  if');
    train.placements.forEach(({ before }, p) => {
      if (before.length > 0) say(`  :: at${t} == ${p} -> ${bind(t, before)}`);
    });
    say(`  :: else -> past${t} = 0; counted${t} = 0`, '  fi', '}');
  }

  /** The harms that lie in where trains are, once one of them has come to a placement. */
  for (const [t, train] of trains.entries()) {
    for (const [o, other] of trains.entries()) {
      if (o === t) continue;
      say(`inline look${t}_${o}() {`);
      const pairs = (holds: (p: number, q: number) => boolean) =>
        train.placements.flatMap((_, p) => {
          const numbers = where(o, (__, q) => holds(p, q));
          return numbers.length > 0 ? [`(at${t} == ${p} && ${among(o, numbers)})`] : [];
        });
      const shared = pairs((p, q) => meet(train.blocks, p, other.blocks, q));
      if (shared.length > 0) say(`  ${whenever(either(shared), set('two trains in a block'))};`);
      const facing = pairs((p, q) => faceToFace(train.stances[p]!, other.stances[q]!));
      if (facing.length > 0) say(`  ${whenever(either(facing), set('face to face'))};`);
      const order = `order${numberOf(t, o)}`;
      say('  if');
      train.placements.forEach((_, p) => {
        other.placements.forEach((__, q) => {
          const outcomes = Array.from({ length: ORDERS }, (___, was) =>
            t < o ? touchOf(train, p, other, q, was, true) : touchOf(other, q, train, p, was, false),
          );
          if (outcomes.every(({ order: now, possible }) => now === 0 && !possible)) return;
          outcomes.forEach(({ order: now, possible, certain }, was) => {
            const harm = `${possible ? `; ${set('trains touch')}` : ''}${certain ? '; ended = 1' : ''}`;
            say(`  :: at${t} == ${p} && at${o} == ${q} && ${order} == ${was} -> ${order} = ${now}${harm}`);
          });
        });
      });
      say(`  :: else -> ${order} = 0`, '  fi;', '  skip', '}');
    }
  }

  say('inline settle() {', '  inputs();', '  do', '  :: changed = events; moved = 0;');
  if (rules.memory > 0) say(`     i = 0; do :: i < ${rules.memory} -> was[i] = memo[i]; i++ :: else -> break od;`);
  say('     scan();');
  if (rules.memory > 0)
    say(
      `     i = 0; do :: i < ${rules.memory} -> if :: was[i] != memo[i] -> changed = 1 :: else fi; i++ :: else -> break od;`,
    );
  const pulses = program.declarations
    .filter(({ name, role }) => role === 'input' && /^(ask|tell)\./.test(name))
    .map(({ name }) => `${slotOf(name)} = 0;`);
  say(
    '     events = 0;',
    ...pulses.map((line) => `     ${line}`),
    ...rules.timers.map((_, i) => `     ends[${i}] = 0;`),
  );
  for (const t of trains.keys()) say(`     bind${t}();`);
  document.turnouts.forEach((turnout, t) => {
    const drive = slotOf(names.drive(turnout.name));
    const over = trains.flatMap((_, k) => {
      const numbers = where(k, (p) => p.over.includes(t));
      return numbers.length > 0 ? [among(k, numbers)] : [];
    });
    const under = over.length > 0 ? `; ${whenever(either(over), set('points moved under a train'))}` : '';
    say(`     if :: (lies${t} % 2) != ${drive} -> lies${t} = 2 + ${drive}; moved = 1${under} :: else fi;`);
  });
  say(
    '     if :: moved -> inputs() :: else -> if :: changed == 0 -> break :: else fi fi',
    '  od;',
    '  changed = 0; moved = 0; i = 0',
    '}',
  );
  /** The first of the steps in which a train that has moved is looked at beside each other train, and then bound anew. */
  const toLook = (t: number, binds: boolean) => 1 + t * 2 * (trains.length + 1) + (binds ? 1 : 0);
  const clear = `${HARM_IDS.map((harm) => `${harmFlag(harm)} = 0`).join('; ')}`;

  say('active proctype layout() {', '  d_step {');
  const since = new Set(compiled.timers.map((at) => at + 1));
  first.state.forEach((value, m) => {
    if (value !== 0 && m < rules.memory && !since.has(m)) say(`    memo[${m}] = ${value};`);
  });
  for (const slot of previous) if (first.before[slot]) say(`    before[${slot}] = ${first.before[slot]};`);
  say('    skip', '  };', 'end: do', '  :: work == 0 && todo == 0 && (HARM) -> assert(false)');

  /** One thing alone, or a second one within the same scan. */
  const begins = (id: number, pairs: boolean) =>
    pairs && model.on.has('one scan')
      ? `!ended && todo == 0 && (work == 0 || (work == 1 && events == 1 && who >= 0 && who != ${id}))`
      : '!ended && todo == 0 && work == 0';
  const takes = (id: number, pairs: boolean) =>
    `if :: work == 0 -> ${clear}; events = 0 :: else fi; events++; who = ${pairs ? id : -1}; work = 1`;
  let things = 0;
  for (const [t, train] of trains.entries()) {
    const id = things++;
    train.placements.forEach((placement, p) => {
      for (const advance of placement.advances) sayAdvance(t, p, placement, advance, id);
      for (const [choice, { to }] of placement.turns.entries()) {
        const told = train.tellings[p]![choice]!.map(({ stretch, input }) => {
          const shared = trains.flatMap((_, o) => {
            const numbers =
              o === t ? [] : where(o, (q) => q.blocks.some((b) => scheme.stretches.ofBlock[b] === stretch));
            return numbers.length > 0 ? [among(o, numbers)] : [];
          });
          return compiled.slots.has(input) ? whenever(`!(${either(shared)})`, `${slotOf(input)} = 1`) : 'skip';
        });
        const deed = [`at${t} = ${to}; past${t} = 0; counted${t} = 0; todo = ${toLook(t, false)}`, ...told].join('; ');
        say(`  :: d_step { ${begins(id, false)} && at${t} == ${p} -> ${takes(id, false)}; ${deed} }`);
      }
    });
    say(
      `  :: d_step { ${begins(id, false)} && past${t} > 0 -> ${clear}; past${t} = 0; counted${t} = 0; todo = ${toLook(t, true)} }`,
    );
  }
  function sayAdvance(t: number, p: number, { before }: Placement, advance: Advance, id: number): void {
    const { to, gates, passes, carry, turnouts, seen, offTheEnd } = advance;
    const may = [begins(id, seen), `at${t} == ${p}`];
    for (const gate of gates) {
      const { signal, over } = before[gate]!;
      const proceed = signal === END_OF_TRACK ? '' : ` || ${aspectOf(signal)} != 0`;
      may.push(`(past${t} > ${gate} || !${coming(over)}${proceed})`);
    }
    for (const { turnout, position, facing } of turnouts)
      if (facing) may.push(`(lies${turnout} > 1 || lies${turnout} == ${position})`);
    const deeds: string[] = [];
    for (const thing of passes)
      deeds.push(
        whenever(
          `${aspectOf(before[thing]!.signal)} == 0`,
          `if :: counted${t} & ${1 << thing} -> ${set('signal falls too late to stop')} :: else -> ${set('stop not announced in time')} fi`,
        ),
      );
    if (offTheEnd) {
      say(`  :: d_step { ${may.join(' && ')} -> ${clear}; ${set('off the end of the track')} }`);
      return;
    }
    for (const { turnout, position } of turnouts)
      deeds.push(whenever(`lies${turnout} != ${position}`, set('points lie wrong')));
    deeds.push(`at${t} = ${to}; past = 0; counted = 0`);
    carry.forEach((now, i) => {
      if (now < 0) return;
      deeds.push(whenever(`past${t} > ${i} && past < ${now + 1}`, `past = ${now + 1}`));
      deeds.push(whenever(`counted${t} & ${1 << i}`, `counted = counted | ${1 << now}`));
    });
    deeds.push(`past${t} = past; counted${t} = counted; past = 0; counted = 0; todo = ${toLook(t, !seen)}`);
    const after = seen ? takes(id, true) : `${clear}; skip`;
    say(`  :: d_step { ${may.join(' && ')} -> ${after}; ${deeds.join('; ')} }`);
  }
  rules.timers.forEach(({ word, ton }, i) => {
    const id = things++;
    const counts = ton ? `memo[${word}] == 1 && memo[${word + 2}] == 0` : `memo[${word + 2}] == 1`;
    say(`  :: d_step { ${begins(id, true)} && ${counts} -> ${takes(id, true)}; ends[${i}] = 1 }`);
  });
  document.turnouts.forEach((turnout, t) => {
    const [asked, moved] = [things++, things++];
    for (const [to, position] of [
      [0, 'straight'],
      [1, 'diverging'],
    ] as const) {
      const lies = model.on.has('throw back') ? `lies${t} % 2 != ${to}` : `lies${t} == ${1 - to}`;
      const ask = `${slotOf(names.ask(turnout.name, position))} = 1`;
      say(`  :: d_step { ${begins(asked, true)} && ${lies} -> ${takes(asked, true)}; ${ask} }`);
    }
    say(`  :: d_step { ${begins(moved, true)} && lies${t} > 1 -> ${takes(moved, true)}; lies${t} = lies${t} - 2 }`);
  });
  for (const slot of model.rules.wiring.holds)
    say(`  :: d_step { ${begins(things, false)} -> ${takes(things, false)}; value[${slot}] = 1 - value[${slot}] }`);
  for (const t of trains.keys())
    for (const binds of [false, true])
      for (let o = 0; o <= trains.length; o++) {
        const here = toLook(t, binds) + 2 * o;
        const look = o < trains.length ? (o === t ? 'skip' : `look${t}_${o}()`) : binds ? `bind${t}()` : 'skip';
        say(`  :: d_step { todo == ${here} -> ${look}; todo = ${o < trains.length ? here + 2 : 0} }`);
      }
  say('  :: d_step { todo == 0 && work == 1 && !ended -> settle(); work = 0; who = -1 }');
  say('  :: d_step { todo == 0 && work == 1 && ended -> work = 0; who = -1; events = 0 }');
  say('  od', '}', '');
  return lines.join('\n');
}
