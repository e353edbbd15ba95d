import { describe, expect, test } from 'vitest';
import { checkDesign } from '@/core/design';
import { type Command, hazardOfEvent, Rehearsal, type RehearsalEvent } from '@/core/simulation';
import { isKind, readDocument } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { Draw, randomLine } from './random-line';
import { ofSweep } from './sweep';

/** Whatever hazard may come; but a signal that an operator puts to stop before a train is passed. */
const hazard = (e: RehearsalEvent) => {
  const kind = hazardOfEvent(e);
  return kind !== undefined && kind !== 'signal drops in the face of a train';
};

describe('random single lines with loops, spurs and traffic both ways', () => {
  const seeds = Array.from({ length: 60 }, (_, i) => i + 1);

  test('are sound documents whose every point is protected', () => {
    for (const seed of seeds) {
      const d = randomLine(seed);
      const reading = readDocument(JSON.parse(JSON.stringify(d)));
      expect(reading.ok ? [] : reading.faults, `seed ${seed}`).toEqual([]);
      expect(
        checkDesign(d)
          .findings.filter((f) => f.severity === 'unsafe' && f.kind !== 'trains in each other’s way at the start')
          .map((f) => f.says),
        `seed ${seed}`,
      ).toEqual([]);
    }
  });

  test.each([0, 1, 2, 3])(
    'are never harmed by ten minutes of a careless operator (part %i of 4)',
    (part) => {
      let passed = 0;
      for (const seed of seeds.slice(0, ofSweep(seeds.length)).filter((s) => s % 4 === part)) {
        const d = randomLine(seed);
        const run = new Rehearsal(compileSystem(d), seed);
        const draw = new Draw(seed + 1000);
        const signals = d.features.filter(isKind('signal'));
        const twoWay = signals.some((s) => s.governs === 'down');
        const hazards: string[] = [];
        const told: Command[] = [];
        const tell = (command: Command) => {
          told.push(command);
          run.command(command);
        };
        for (let tick = 0; tick < 50 * 600; tick++) {
          if (tick % 100 === 0 && d.turnouts.length > 0)
            tell({ kind: 'throw', turnout: draw.pick(d.turnouts).id, to: draw.pick(['straight', 'diverging']) });
          if (tick % 700 === 0) tell({ kind: 'hold', signal: draw.pick(signals).id, on: true });
          if (tick % 900 === 450) for (const s of signals) tell({ kind: 'hold', signal: s.id, on: false });
          if (tick % 1500 === 0 && run.plant.trains.length > 0) {
            const rolling = draw.pick(run.plant.trains);
            if (draw.chance(0.5)) {
              if (!rolling.stranded) tell({ kind: 'run', train: rolling.figures.id, on: draw.chance(0.7) });
            } else if (twoWay && rolling.speed === 0 && !rolling.stranded)
              tell({ kind: 'turn back', train: rolling.figures.id });
          }
          if (tick % 500 === 250)
            for (const t of run.plant.trains) if (!t.stranded) tell({ kind: 'run', train: t.figures.id, on: true });
          run.step((event) => {
            if (hazard(event)) hazards.push(`${(run.tick * 0.02).toFixed(2)} s ${JSON.stringify(event)}`);
            if (event.kind === 'passes') passed += 1;
          });
        }
        expect(hazards, `seed ${seed}, ${d.trains.length} trains`).toEqual([]);
      }
      expect(passed).toBeGreaterThan(ofSweep(100));
    },
    120_000,
  );
});
