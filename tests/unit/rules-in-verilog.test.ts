import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from 'vitest';
import { compileProgram, Interpreter, type Program, writeProgram } from '@/core/logic';
import type { LayoutDocument } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { EXAMPLES, exampleLayout } from '@/demo/examples';
import { ondrelValley } from '@/demo/ondrel-valley';
import { Draw } from '../../tools/fuzz/draw';
import { randomLayout } from '../../tools/fuzz/random-layout';
import { withRandomPatterns } from '../../tools/fuzz/random-patterns';
import { withRandomSensors } from '../../tools/fuzz/random-sensors';
import { type Making, TextReader } from './rule-text-reader';
import { ruledLoops } from './ruled-loops';

/**
 * The whole program of a layout, its text made a Verilog module with a clock for each scan, against the compiled program: every value of every rule
 * after each scan, over random inputs that are held for random times. Timers are counters here, latches and edges registers; run by Icarus Verilog.
 */
const SCAN_MS = 20;
const SCANS = 2000;

interface Made {
  /** Statements that come before the rule that asks for them, and registers with what they hold at power-up. */
  lines: string[];
  registers: Map<string, number>;
}
const makingVerilog = ({ lines, registers }: Made): Making<string> => {
  const register = (name: string, starts: number) => {
    registers.set(name, starts);
    return name;
  };
  return {
    constant: (number) => `8'd${number}`,
    value: (slot) => `v${slot}`,
    before: (slot) => `b${slot}`,
    not: (of) => `(!(${of}))`,
    and: (of) => `(${of.join(' && ')})`,
    or: (of) => `(${of.join(' || ')})`,
    same: (one, two) => `(${one} == ${two})`,
    choose: (when, then, otherwise) => `(${when} ? ${then} : ${otherwise})`,
    latch(kind, at, set, reset, starts) {
      const m = register(`m${at}`, starts ? 1 : 0);
      lines.push(kind === 'SR' ? `${m} = ${set} || (!${reset} && ${m});` : `${m} = !${reset} && (${set} || ${m});`);
      return m;
    },
    timer(kind, at, ms, input, starts) {
      const q = register(`q${at}`, starts ? 1 : 0);
      const count = register(`c${at}`, 0);
      const i = register(`i${at}`, 0);
      const last = register(`l${at}`, 0);
      const whole = Math.ceil(ms / SCAN_MS);
      lines.push(`${i} = ${input};`);
      if (kind === 'TON')
        lines.push(`if (!${i}) ${count} = 0; ${q} = ${i} && ${count} >= ${whole}; if (${i}) ${count} = ${count} + 1;`);
      else if (kind === 'TOF')
        lines.push(
          `if (${i}) ${count} = 0; ${q} = ${i} || (${q} && ${count} < ${whole}); if (!${i}) ${count} = ${count} + 1;`,
        );
      else
        lines.push(
          `if (${q} && ${count} >= ${whole}) ${q} = 0; else if (!${q} && ${i} && !${last}) begin ${q} = 1; ${count} = 0; end`,
          `${count} = ${count} + 1; ${last} = ${i};`,
        );
      return q;
    },
    edge(kind, at, input, starts) {
      const [m, e] = [register(`m${at}`, starts ? 1 : 0), register(`e${at}`, 0)];
      lines.push(`i${at} = ${input};`);
      register(`i${at}`, 0);
      lines.push(`${e} = ${kind === 'R_TRIG' ? `i${at} && !${m}` : `!i${at} && ${m}`}; ${m} = i${at};`);
      return e;
    },
  };
};

/** Inputs by chance, each held for a while, and now and then all at rest; a line of numbers for each scan. */
function stimulusFor({ declarations, enums }: Program, scans: number, seed: number): number[][] {
  const draw = new Draw(seed, 99);
  const inputs = declarations.filter(({ role }) => role === 'input');
  const now = inputs.map(() => 0);
  const left = inputs.map(() => 0);
  return Array.from({ length: scans }, () =>
    inputs.map(({ type }, i) => {
      if (left[i]! > 0) left[i]! -= 1;
      else {
        now[i] = type === 'bool' ? (draw.chance(0.3) ? 1 : 0) : draw.below(enums[type]!.length);
        left[i] = draw.pick([0, 1, 5, 40, 200, 700]);
      }
      return now[i]!;
    }),
  );
}

function differences(document: LayoutDocument, scans: number, seed: number) {
  const { program } = compileSystem(document);
  const compiled = compileProgram(program);
  const made: Made = { lines: [], registers: new Map() };
  const reader = new TextReader(writeProgram({ ...program, called: {} }), compiled.slots, makingVerilog(made));
  const body: string[] = [];
  for (const { name } of compiled.order) {
    const value = reader.term(name);
    body.push(...made.lines.splice(0), `v${compiled.slots.get(name)} = ${value};`);
  }
  const slots = [...compiled.slots.values()];
  const inputs = program.declarations
    .filter(({ role }) => role === 'input')
    .map(({ name }) => compiled.slots.get(name)!);
  const stimulus = stimulusFor(program, scans, seed);
  const verilog = [
    'module rules;',
    ...slots.map((slot) => `reg [7:0] v${slot} = 0; reg [7:0] b${slot} = 0;`),
    ...[...made.registers].map(([name, starts]) => `integer ${name} = ${starts};`),
    `integer scan; integer file; integer got;`,
    'initial begin',
    '  file = $fopen("stimulus.txt", "r");',
    `  for (scan = 0; scan < ${scans}; scan = scan + 1) begin`,
    ...inputs.map((slot) => `    got = $fscanf(file, "%d", v${slot});`),
    ...body.map((line) => `    ${line}`),
    ...slots.map((slot) => `    b${slot} = v${slot};`),
    `    $display("${slots.map(() => '%0d').join(' ')}", ${slots.map((slot) => `v${slot}`).join(', ')});`,
    '  end',
    '  $finish;',
    'end',
    'endmodule',
  ].join('\n');
  const folder = mkdtempSync(join(tmpdir(), 'roblik-rules-'));
  try {
    writeFileSync(join(folder, 'stimulus.txt'), stimulus.map((line) => line.join(' ')).join('\n'));
    writeFileSync(join(folder, 'rules.v'), verilog);
    execFileSync('iverilog', ['-g2012', '-o', 'rules', 'rules.v'], { cwd: folder });
    const theirs = execFileSync('vvp', ['-n', 'rules'], { cwd: folder, encoding: 'utf8', maxBuffer: 1 << 30 })
      .split('\n')
      .filter((line) => /^[\d ]+$/.test(line));
    const ours = new Interpreter(compiled);
    const changed = new Set<string>();
    const names = new Map([...compiled.slots].map(([name, slot]) => [slot, name]));
    const wrong: string[] = [];
    let before: string[] = [];
    stimulus.forEach((line, scan) => {
      for (const [i, slot] of inputs.entries()) ours.setInput(slot, line[i]!);
      ours.scan(scan * SCAN_MS);
      const said = theirs[scan]!.split(' ');
      slots.forEach((slot, i) => {
        if (scan > 0 && said[i] !== before[i]) changed.add(names.get(slot)!);
        if (Number(said[i]) !== ours.values[slot] && wrong.length < 5)
          wrong.push(`scan ${scan}: ${names.get(slot)} is ${said[i]}, and ${ours.values[slot]} by us`);
      });
      before = said;
    });
    return { wrong, scans: theirs.length, changed: changed.size, names: slots.length };
  } finally {
    rmSync(folder, { recursive: true });
  }
}

const LAYOUTS: [string, LayoutDocument][] = [
  ...EXAMPLES.map((example): [string, LayoutDocument] => [example.name, exampleLayout(example)]),
  ['Ondrel Valley', ondrelValley()],
  ['throw rules', ruledLoops()],
  ...Array.from({ length: 8 }, (_, seed): [string, LayoutDocument] => [
    `ways of working by chance, ${seed}`,
    withRandomSensors(withRandomPatterns(randomLayout(seed), seed), seed),
  ]),
];
test.each(LAYOUTS)('%s: every rule has the same value after each scan', (_, document) => {
  const { wrong, scans, changed, names } = differences(document, SCANS, 11);
  expect(wrong).toEqual([]);
  expect(scans).toBe(SCANS);
  /** Enough of what there is moves, so that there is something to compare. */
  expect(changed).toBeGreaterThan(names * 0.3);
});
