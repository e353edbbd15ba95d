import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { compileProgram, Interpreter, readProgram } from '@/core/logic';

/** Runs one rule over an input signal given as a list of on/off, one a scan of 10 ms. */
function trace(expr: string, inputs: Record<string, number[]>): number[] {
  const declared = Object.keys(inputs).map((n) => `input ${n} : bool`);
  const compiled = compileProgram(readProgram(['scan 10 ms', ...declared, `output q : bool = ${expr}`].join('\n')));
  const run = new Interpreter(compiled);
  const length = Math.max(...Object.values(inputs).map((i) => i.length));
  return Array.from({ length }, (_, scan) => {
    for (const [name, values] of Object.entries(inputs)) run.setInput(compiled.slots.get(name)!, values[scan] ?? 0);
    run.scan(scan * 10);
    return run.valueOf('q');
  });
}

const signal = (on: [number, number][], length = 70) =>
  Array.from({ length }, (_, i) => (on.some(([from, to]) => i * 10 >= from && i * 10 < to) ? 1 : 0));

/** Input on, and when Q is on; PT 100 ms. Source: timing diagrams of IEC 61131-3, worked through by hand. */
const TIMERS: [string, [number, number][], [number, number][]][] = [
  [
    'TON',
    [
      [100, 160],
      [190, 400],
    ],
    [[290, 400]],
  ],
  [
    'TON',
    [
      [100, 300],
      [360, 500],
    ],
    [
      [200, 300],
      [460, 500],
    ],
  ],
  ['TON', [[0, 30]], []],
  [
    'TOF',
    [
      [100, 160],
      [190, 400],
    ],
    [[100, 500]],
  ],
  [
    'TOF',
    [
      [100, 300],
      [360, 500],
    ],
    [[100, 600]],
  ],
  ['TOF', [[0, 30]], [[0, 130]]],
  [
    'TP',
    [
      [100, 160],
      [190, 400],
    ],
    [[100, 200]],
  ],
  [
    'TP',
    [
      [100, 300],
      [360, 500],
    ],
    [
      [100, 200],
      [360, 460],
    ],
  ],
  ['TP', [[0, 30]], [[0, 100]]],
];

describe('IEC 61131-3 function blocks', () => {
  test.each(TIMERS)('%s, input on %j: Q on %j', (block, input, q) => {
    expect(trace(`${block}(a, 100 ms, off)`, { a: signal(input) })).toEqual(signal(q));
  });
  test('SR: set dominates; RS: reset dominates', () => {
    const s = [0, 1, 0, 1, 0, 0];
    const r = [0, 0, 0, 1, 1, 0];
    expect(trace('SR(a, b, off)', { a: s, b: r })).toEqual([0, 1, 1, 1, 0, 0]);
    expect(trace('RS(a, b, off)', { a: s, b: r })).toEqual([0, 1, 1, 0, 0, 0]);
  });
  test('R_TRIG fires at the first call when its input is on and its memory starts off', () => {
    expect(trace('R_TRIG(a, off)', { a: [1, 1, 0, 1] })).toEqual([1, 0, 0, 1]);
  });
  test('started on, a standing input is no edge', () => {
    expect(trace('R_TRIG(a, on)', { a: [1, 1, 0, 1] })).toEqual([0, 0, 0, 1]);
    expect(trace('F_TRIG(a, off)', { a: [0, 1, 0, 0] })).toEqual([0, 0, 1, 0]);
  });
  test('a TOF that starts on holds for its whole time after power-up', () => {
    expect(trace('TOF(a, 30 ms, on)', { a: [0, 0, 0, 0, 0] })).toEqual([1, 1, 1, 0, 0]);
  });
});

/** The same blocks written in Verilog, one clock a scan, times in scans. */
const VERILOG = `
module blocks(input clk, input a, input b, output reg sr, output reg rs, output reg ton, output reg tof, output reg tp, output reg rt, output reg ft);
  parameter PT = 10;
  reg m, mf, last; integer on, off, pulse; reg busy;
  initial begin sr=0; rs=0; ton=0; tof=0; tp=0; rt=0; ft=0; m=0; mf=0; last=0; on=0; off=PT; pulse=0; busy=0; end
  always @(posedge clk) begin
    sr <= a | (sr & ~b);
    rs <= ~b & (a | rs);
    if (!a) begin ton <= 0; on <= 0; end else begin ton <= (on >= PT); on <= on + 1; end
    if (a) begin tof <= 1; off <= 0; end else begin tof <= (off < PT) & tof; off <= off + 1; end
    if (busy) begin
      if (pulse >= PT) begin busy <= 0; tp <= 0; end else begin pulse <= pulse + 1; tp <= 1; end
    end else if (a & ~last) begin busy <= 1; pulse <= 1; tp <= 1; end else tp <= 0;
    rt <= a & ~m; m <= a;
    ft <= ~a & mf; mf <= a;
    last <= a;
  end
endmodule
module bench;
  reg clk = 0; reg a, b; wire sr, rs, ton, tof, tp, rt, ft; integer i; reg [1:0] stimulus [0:LAST];
  blocks dut(clk, a, b, sr, rs, ton, tof, tp, rt, ft);
  initial begin
    $readmemb("stimulus.txt", stimulus);
    for (i = 0; i <= LAST; i = i + 1) begin
      {a, b} = stimulus[i]; #1 clk = 1; #1 clk = 0; #1 $display("%b%b%b%b%b%b%b", sr, rs, ton, tof, tp, rt, ft);
    end
  end
endmodule
`;

describe('against Icarus Verilog', () => {
  test('latches, timers and edges agree over 4000 scans of seeded input', () => {
    const folder = mkdtempSync(join(tmpdir(), 'roblik-verilog-'));
    try {
      const bits = fc.sample(
        fc.array(fc.tuple(fc.nat({ max: 24 }), fc.boolean(), fc.boolean()), { minLength: 600, maxLength: 600 }),
        { seed: 7, numRuns: 1 },
      )[0]!;
      const stimulus = bits
        .flatMap(([hold, a, b]) => Array.from({ length: hold + 1 }, () => [a ? 1 : 0, b ? 1 : 0] as const))
        .slice(0, 4000);
      expect(stimulus.length).toBe(4000);
      writeFileSync(join(folder, 'stimulus.txt'), stimulus.map(([a, b]) => `${a}${b}`).join('\n'));
      writeFileSync(join(folder, 'blocks.v'), VERILOG.replaceAll('LAST', String(stimulus.length - 1)));
      execFileSync('iverilog', ['-g2012', '-o', 'blocks', 'blocks.v'], { cwd: folder });
      const lines = execFileSync('vvp', ['-n', 'blocks'], { cwd: folder, encoding: 'utf8' })
        .trim()
        .split('\n')
        .filter((l) => /^[01]{7}$/.test(l));
      expect(lines.length).toBe(4000);
      const [a, b] = [stimulus.map((s) => s[0]), stimulus.map((s) => s[1])];
      const ours = [
        'SR(a, b, off)',
        'RS(a, b, off)',
        'TON(a, 100 ms, off)',
        'TOF(a, 100 ms, off)',
        'TP(a, 100 ms, off)',
        'R_TRIG(a, off)',
        'F_TRIG(a, off)',
      ].map((expr) => trace(expr, { a, b }));
      const theirs = ours.map((_, column) => lines.map((l) => Number(l[column])));
      for (const [column, values] of ours.entries()) expect(values, `column ${column}`).toEqual(theirs[column]);
    } finally {
      rmSync(folder, { recursive: true });
    }
  });
});
