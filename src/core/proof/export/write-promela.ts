import { HAZARD_IDS, type HazardId } from '../../simulation';
import type { ProofModel } from '../model/model';
import { MOVE_IDS, MOVES } from '../moves';
import { WRITTEN } from './moves';
import { hazardFlag, PromelaText } from './promela-text';
import { plantFunctions } from './write-plant-functions';
import { plantTables } from './write-plant-tables';

/** The smallest type of Promela that holds numbers up to this. */
const typeFor = (most: number): string => (most < 256 ? 'byte' : most < 32_768 ? 'short' : 'int');

/**
 * Plant and rule program as a model for the Spin checker: the same steps as `ProofModel`, each kind of which is written by its own, with
 * the rules from their own expressions. What happens at once between two steps is written in C, which looks up tables of the placements: the text grows with
 * these, not with their pairs. A step sets the flag of each hazard it does; after one that ends things, the run ends.
 */
export function writePromela(model: ProofModel): string {
  const { trains } = model;
  const { previous } = model.rules;
  const { compiled } = model.rules.wiring;
  const text = new PromelaText(model);
  const { rules, say } = text;
  const first = { ...model.present, ...model.memoryNow() };
  const { powers } = model.rules.wiring;
  const some = (count: number) => Math.max(1, count);
  const pairs = (trains.length * (trains.length - 1)) / 2;
  const most = Math.max(0, ...trains.map(({ placements }) => placements.length));

  say('#ifndef HAZARD', `#define HAZARD ${hazardFlag(HAZARD_IDS[0]!)}`, '#endif');
  say('/* Plant and rule program of a layout. */');
  say('#define ALONE (!ended && todo == 0 && work == 0)');
  say(
    '#define SECOND(thing) (!ended && todo == 0 && (work == 0 || (work == 1 && events == 1 && who >= 0 && who != thing)))',
  );
  say(`byte value[${some(compiled.slotCount)}];`, `byte before[${some(compiled.slotCount)}];`);
  say(`byte memo[${some(rules.memory)}];`, `byte ends[${some(rules.timers.length)}];`);
  say('byte work = 1;', `${typeFor(model.system.sensors.length + 1)} extra;`, 'byte events; short todo; int who = -1;');
  const fromTheStart = (hazard: HazardId) => (model.startHazards.includes(hazard) ? 1 : 0);
  say(...HAZARD_IDS.map((hazard) => `bit ${hazardFlag(hazard)} = ${fromTheStart(hazard)};`), 'bit ended;');
  say(
    `${typeFor(most)} at[${some(trains.length)}]; short past[${some(trains.length)}]; int counted[${some(trains.length)}];`,
  );
  say(`byte lies[${some(model.motors.length)}]; byte dead[${some(powers.length)}]; byte order[${some(pairs)}];`);

  const { declared, joined } = plantTables(model);
  for (const declaration of declared) say(`c_decl { ${declaration} }`);
  for (const part of plantFunctions(rules, model.on.has('one scan'))) say('c_code {', part, '}');
  say(
    'active proctype layout() {',
    '  d_step {',
    ...(joined.length > 0 ? [`    c_code { ${joined.join(' ')} };`] : []),
  );
  const since = new Set(compiled.timers.map((at) => at + 1));
  first.state.forEach((value, m) => {
    if (value !== 0 && m < rules.memory && !since.has(m)) say(`    memo[${m}] = ${value};`);
  });
  for (const slot of previous) if (first.before[slot]) say(`    before[${slot}] = ${first.before[slot]};`);
  for (const t of trains.keys()) say(`    at[${t}] = ${first.at[t]};`);
  for (const m of model.motors.keys()) say(`    lies[${m}] = ${first.turnouts[m]};`);
  for (const p of powers.keys()) if (model.rules.isCutOff(model.ruleState, p)) say(`    dead[${p}] = 1;`);
  for (const [i, order] of first.orders.entries()) if (order !== 0) say(`    order[${i}] = ${order};`);
  say('    skip', '  };', 'end: do', '  :: work == 0 && todo == 0 && (HAZARD) -> assert(false)');

  for (const [kind, id] of MOVE_IDS.entries()) {
    const { needs } = MOVES[kind]!;
    if (!needs || model.on.has(needs)) WRITTEN[id](text);
  }
  for (const t of trains.keys())
    for (const binds of [false, true])
      for (let o = 0; o <= trains.length; o++) {
        const here = text.toLook(t, binds) + 2 * o;
        const after = binds ? `c_code { commit(${t}); over_a_train(); }` : 'skip';
        const looks = o === t ? 'skip' : `c_code { look(${t}, ${o}); }`;
        say(
          `  :: d_step { todo == ${here} -> ${o < trains.length ? looks : after}; todo = ${o < trains.length ? here + 2 : 0} }`,
        );
      }
  say('  :: d_step { todo == 0 && work == 1 && !ended -> c_code { settle(); }; work = 0; who = -1 }');
  say('  :: d_step { todo == 0 && work == 1 && ended -> work = 0; who = -1; events = 0 }');
  say('  od', '}', '');
  return text.lines.join('\n');
}
