import { POWER_LEVELS, sensorKind } from '../../kinds';
import { conflictsOf, END_OF_TRACK, standsOn } from '../../signals';
import { HAZARD_IDS, hazardsDisplayed, hazardsOfFootprints } from '../../simulation';
import type { ProofModel } from '../model/model';
import type { Before } from '../model/placements';
import { ORDERS, touchOf, twoOf } from '../model/touch';
import { MOVE_IDS, MOVES } from '../moves';
import { WRITTEN } from './moves';
import { hazardFlag, PromelaText } from './promela-text';

/**
 * Plant and rule program as a model for the Spin checker: the same steps as `ProofModel`, each kind of which writes its own, with
 * the rules from their own expressions. A step sets the flag of each hazard it does; after one that ends things, the run ends.
 */
export function writePromela(model: ProofModel): string {
  const { system, trains } = model;
  const { previous } = model.rules;
  const { compiled } = model.rules.wiring;
  const text = new PromelaText(model);
  const { rules, say, terminal, isAtStop, promisesFree, stopsIn, among, where, either, whenever, set, does } = text;
  const first = { ...model.present, ...model.memoryNow() };
  const numberOf = (a: number, b: number) => twoOf(Math.min(a, b), Math.max(a, b));

  say(`#ifndef HAZARD`, `#define HAZARD ${hazardFlag(HAZARD_IDS[0]!)}`, `#endif`);
  say('/* Plant and rule program of a layout. */');
  say(`byte value[${compiled.slotCount}];`, `byte before[${compiled.slotCount}];`);
  say(`bit memo[${Math.max(1, rules.memory)}];`, `hidden byte temp[${Math.max(1, rules.temporary)}];`);
  say(`bit ends[${Math.max(1, rules.timers.length)}];`, `hidden byte was[${Math.max(1, rules.memory)}];`);
  say('hidden byte changed; hidden byte moved; hidden byte i; hidden byte stop; hidden byte known; hidden byte next;');
  say('hidden int past; hidden int counted; byte work = 1; byte extra; byte events; byte todo; int who = -1;');
  say(...HAZARD_IDS.map((hazard) => `bit ${hazardFlag(hazard)};`), 'bit ended;');
  for (const t of trains.keys()) say(`byte at${t} = ${first.at[t]};`, `short past${t}; int counted${t};`);
  for (const t of model.motors.keys()) say(`byte lies${t} = ${first.turnouts[t]};`);
  const { powers } = model.rules.wiring;
  for (const p of powers.keys()) say(`bit dead${p} = ${model.rules.isCutOff(model.ruleState, p) ? 1 : 0};`);
  for (const i of first.orders.keys()) say(`byte order${i} = ${first.orders[i]};`);

  say('inline inputs() {');
  system.sensors.forEach((_, s) => {
    const field = system.partition.fields.ofSensor[s]!;
    const seen = trains.flatMap((_, t) => {
      const numbers = where(t, (p) => p.detected.includes(field));
      return numbers.length > 0 ? [among(t, numbers)] : [];
    });
    const fed = powers.findIndex(({ detects }) => detects.includes(s));
    say(`  ${terminal('detector', s)} = ${fed < 0 ? either(seen) : `(dead${fed} -> 0 : ${either(seen)})`};`);
  });
  for (const t of model.motors.keys()) say(`  ${terminal('contact', t)} = (lies${t} > 1 -> 2 : lies${t});`);
  say('  skip', '}');
  say('inline scan() {', ...rules.scan.map((line) => `  ${line}`));
  for (const slot of previous)
    say(`  if :: before[${slot}] != value[${slot}] -> before[${slot}] = value[${slot}]; changed = 1 :: else fi;`);
  say('  skip', '}');

  /** Bound past everything before what a train must stop at now. */
  const commit = (t: number, before: Before[]): string => {
    const count = before.length;
    const looks = before.map(({ signal, over }, k) => {
      const moving = over.map(({ motor }) => `lies${motor} > 1`);
      const lie = over.map(({ motor, position }) => `lies${motor} == ${position}`);
      const meets =
        signal === END_OF_TRACK
          ? `stop = ${k}`
          : `if :: next == 0 -> next = ${stopsIn(signal)} :: else -> next-- fi; ${whenever('next == 1', `stop = ${k}`)}`;
      return [
        moving.length > 0 ? `${whenever(moving.join(' || '), 'known = 0')}; ` : '',
        whenever(['known', `stop == ${count}`, ...lie].join(' && '), meets),
      ].join('');
    });
    const counts = before.flatMap(({ signal }, k) =>
      signal === END_OF_TRACK
        ? []
        : [whenever(`past${t} > ${k} && !${isAtStop(signal)}`, `counted${t} = counted${t} | ${1 << k}`)],
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
      if (before.length > 0) say(`  :: at${t} == ${p} -> ${commit(t, before)}`);
    });
    say(`  :: else -> past${t} = 0; counted${t} = 0`, '  fi', '}');
  }

  /** The hazards that lie in where trains are, once one of them has come to a placement. */
  for (const [t, train] of trains.entries()) {
    for (const [o, other] of trains.entries()) {
      if (o === t) continue;
      say(`inline look${t}_${o}() {`);
      const pairs = (holds: (p: number, q: number) => boolean) =>
        train.placements.flatMap((_, p) => {
          const numbers = where(o, (__, q) => holds(p, q));
          return numbers.length > 0 ? [`(at${t} == ${p} && ${among(o, numbers)})`] : [];
        });
      for (const hazard of HAZARD_IDS) {
        const so = pairs((p, q) => hazardsOfFootprints(train.footprints[p]!, other.footprints[q]!).includes(hazard));
        if (so.length > 0) say(`  ${whenever(either(so), set(hazard))};`);
      }
      const order = `order${numberOf(t, o)}`;
      say('  if');
      train.placements.forEach((_, p) => {
        /** The placements of the other train by what comes of them: a model may not have too long a text in one place. */
        const alike = new Map<string, number[]>();
        other.placements.forEach((__, q) => {
          const outcomes = Array.from({ length: ORDERS }, (___, was) =>
            t < o ? touchOf(train, p, other, q, was, true) : touchOf(other, q, train, p, was, false),
          );
          if (outcomes.every(({ order: now, possible }) => now === 0 && !possible)) return;
          outcomes.forEach(({ order: now, possible, certain }, was) => {
            const hazard = `${possible ? `; ${does('touches')}` : ''}${certain ? '; ended = 1' : ''}`;
            const deed = `${order} == ${was} -> ${order} = ${now}${hazard}`;
            alike.set(deed, [...(alike.get(deed) ?? []), q]);
          });
        });
        for (const [deed, numbers] of alike) say(`  :: at${t} == ${p} && ${among(o, numbers)} && ${deed}`);
      });
      say(`  :: else -> ${order} = 0`, '  fi;', '  skip', '}');
    }
  }

  /** Once all is settled, and when a train has gone on without being noticed. */
  const over = model.ofSignals.overATrain.routes.flatMap((way) => {
    const stands = trains.flatMap((_, t) => {
      const numbers = where(t, ({ heldIn }) => heldIn.some((held) => standsOn(way, held)));
      return numbers.length > 0 ? [among(t, numbers)] : [];
    });
    const lie = way.lies.map(({ motor, position }) => `lies${motor} == ${position === 'straight' ? 0 : 1}`);
    const so = [promisesFree(way.signal), ...lie, either(stands)].join(' && ');
    return stands.length > 0 ? hazardsDisplayed('over a train').map((hazard) => `  ${whenever(so, set(hazard))};`) : [];
  });
  say('inline over() {', ...over, '  skip', '}');

  /** Two at once are a hazard even for one scan. */
  const conflicting: string[] = [];
  for (const { one, two, lies } of conflictsOf(system.readings)) {
    const lie = lies.map(({ motor, position }) => `lies${motor} == ${position === 'straight' ? 0 : 1}`);
    const both = [`!${isAtStop(one)}`, `!${isAtStop(two)}`, ...lie].join(' && ');
    for (const hazard of hazardsDisplayed('two at once')) conflicting.push(`     ${whenever(both, set(hazard))};`);
  }
  say('inline settle() {', '  inputs();', '  do', '  :: changed = events; moved = 0;');
  if (rules.memory > 0) say(`     i = 0; do :: i < ${rules.memory} -> was[i] = memo[i]; i++ :: else -> break od;`);
  const pulsing = model.on.has('false pulses') && system.sensors.some(({ kind }) => sensorKind(kind).pulses);
  if (pulsing)
    for (const [s, sensor] of system.sensors.entries())
      if (sensorKind(sensor.kind).pulses)
        say(`     if :: extra == ${s + 1} -> ${terminal('detector', s)} = 1 :: else fi;`);
  say('     scan();', ...conflicting);
  if (rules.memory > 0)
    say(
      `     i = 0; do :: i < ${rules.memory} -> if :: was[i] != memo[i] -> changed = 1 :: else fi; i++ :: else -> break od;`,
    );
  const pulses = system.terminals.all.flatMap(({ momentary, slot }) => (momentary ? [`value[${slot}] = 0;`] : []));
  say(
    '     events = 0;',
    ...(pulsing ? ['     if :: extra -> extra = 0; inputs() :: else fi;'] : []),
    ...pulses.map((line) => `     ${line}`),
    ...rules.timers.map((_, i) => `     ends[${i}] = 0;`),
  );
  for (const t of trains.keys()) say(`     bind${t}();`);
  model.motors.forEach((_, t) => {
    const drive = terminal('drive', t);
    const over = trains.flatMap((_, k) => {
      const numbers = where(k, (p) => p.over.includes(t));
      return numbers.length > 0 ? [among(k, numbers)] : [];
    });
    const under = over.length > 0 ? `; ${whenever(either(over), does('points move under it'))}` : '';
    say(`     if :: (lies${t} % 2) != ${drive} -> lies${t} = 2 + ${drive}; moved = 1${under} :: else fi;`);
  });
  for (const [p, { slot }] of powers.entries()) {
    const off = POWER_LEVELS.flatMap(({ feeds }, level) => (feeds ? [] : [`value[${slot}] == ${level}`])).join(' || ');
    say(`     if :: (${off}) != dead${p} -> dead${p} = 1 - dead${p}; moved = 1 :: else fi;`);
  }
  say(
    '     if :: moved -> inputs() :: else -> if :: changed == 0 -> break :: else fi fi',
    '  od;',
    '  over();',
    '  changed = 0; moved = 0; i = 0',
    '}',
  );
  say('active proctype layout() {', '  d_step {');
  const since = new Set(compiled.timers.map((at) => at + 1));
  first.state.forEach((value, m) => {
    if (value !== 0 && m < rules.memory && !since.has(m)) say(`    memo[${m}] = ${value};`);
  });
  for (const slot of previous) if (first.before[slot]) say(`    before[${slot}] = ${first.before[slot]};`);
  say('    skip', '  };', 'end: do', '  :: work == 0 && todo == 0 && (HAZARD) -> assert(false)');

  for (const [kind, id] of MOVE_IDS.entries()) {
    const { needs } = MOVES[kind]!;
    if (!needs || model.on.has(needs)) WRITTEN[id](text);
  }
  for (const t of trains.keys())
    for (const binds of [false, true])
      for (let o = 0; o <= trains.length; o++) {
        const here = text.toLook(t, binds) + 2 * o;
        const look = o < trains.length ? (o === t ? 'skip' : `look${t}_${o}()`) : binds ? `bind${t}(); over()` : 'skip';
        say(`  :: d_step { todo == ${here} -> ${look}; todo = ${o < trains.length ? here + 2 : 0} }`);
      }
  say('  :: d_step { todo == 0 && work == 1 && !ended -> settle(); work = 0; who = -1 }');
  say('  :: d_step { todo == 0 && work == 1 && ended -> work = 0; who = -1; events = 0 }');
  say('  od', '}', '');
  return text.lines.join('\n');
}
