import { describe, expect, test } from 'vitest';
import { checkDesign } from '@/core/design';
import { ProofRun, STANDARD_SWITCHES } from '@/core/proof';
import { hazardOfEvent, Rehearsal } from '@/core/simulation';
import { type LayoutDocument, readDocument } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { straighten } from '@/core/track';
import { ondrelValley } from '@/demo/ondrel-valley';

/** Sends a train to one block after another, with the others lifted off but for those named; where it stands at last, and every mishap. */
function errand(document: LayoutDocument, train: string, ...blocks: string[]) {
  const alone = { ...document, trains: document.trains.filter(({ name }) => name === train) };
  const run = new Rehearsal(compileSystem(alone), 3);
  const { id } = alone.trains[0]!;
  const mishaps: string[] = [];
  for (const block of blocks) {
    let done = false;
    const refused = run.command(
      block === 'turn back' ? { kind: 'turn back', train: id } : { kind: 'send', train: id, block },
    );
    if (refused) return { refused, mishaps };
    for (let i = 0; i < 50 * 400 && !done; i++)
      run.step((event) => {
        if (hazardOfEvent(event)) mishaps.push(event.kind);
        done ||= event.kind === 'done' || block === 'turn back';
      });
    if (!done) return { refused: `never came to ${block}`, mishaps };
  }
  const stands = run.plant.trains[0]!.standsOn().map(({ piece }) => run.system.partition.pieces[piece]!.block);
  return { stands: [...new Set(stands)].map((block) => run.system.partition.blocks[block]!.name), mishaps };
}

describe('the valley as it stands now', () => {
  test('can be read, and nothing is wrong with it but a block that spots alone tell of, and blocks that are shorter than the longest train', () => {
    const d = ondrelValley();
    const reading = readDocument(d);
    expect(reading.ok ? [] : reading.faults).toEqual([]);
    const kinds = checkDesign(d).findings.map(({ severity, kind }) => `${severity}: ${kind}`);
    expect([...new Set(kinds)].sort()).toEqual([
      'check: block inferred from spots alone',
      'note: block shorter than the longest train',
      'note: car too light for sure contact',
      'note: head where nobody sees it',
      'note: one head for several tracks',
    ]);
  });
  test('its loop is drawn as one, and nothing of it as if cut but the circuit', () => {
    const { lines } = straighten(ondrelValley());
    expect(lines.get('sk')!.roundAtEnd).toEqual({ x: lines.get('sl')!.xAtEnd, row: lines.get('sl')!.row });
    const cut = [...lines.values()].filter(({ cutAtStart, cutAtEnd }) => cutAtStart ?? cutAtEnd);
    expect(cut.map(({ line }) => line)).toEqual(['main']);
  });
  test('a train goes round the loop behind Skerrin and comes back facing the other way, without a mishap', () => {
    const { stands, mishaps, refused } = errand(ondrelValley(), 'Skerrin railcar', 'turn back', 'SKL', 'SK1', 'SB');
    expect({ stands, mishaps, refused }).toEqual({ stands: ['SB'], mishaps: [], refused: undefined });
  });
  test('a train takes the slip from Undercroft 3 to the shed', () => {
    const d = ondrelValley();
    const start = { line: 'us', at: { tenthUm: 11_000_000, typed: '110 cm' }, facing: 'down' as const };
    d.trains = d.trains.map((one) => (one.name === 'Skerrin railcar' ? { ...one, start } : one));
    expect(errand(d, 'Skerrin railcar', 'UC3')).toEqual({ stands: ['UC3'], mishaps: [] });
    expect(errand(d, 'Skerrin railcar', 'US1')).toEqual({ stands: ['US1'], mishaps: [] });
  });
  test('a train goes over the scissors to the other track, and by it to Fenhallow', () => {
    expect(errand(ondrelValley(), 'Morning stopper', 'MR', 'FM')).toEqual({ stands: ['FM'], mishaps: [] });
  });
  test('three hours with all trains bring no mishap, and trains go round', () => {
    const d = ondrelValley();
    for (const seed of [1, 2, 3]) {
      const run = new Rehearsal(compileSystem(d), seed);
      const mishaps: string[] = [];
      const far = d.trains.map(() => 0);
      for (let i = 0; i < 50 * 3600; i++) {
        run.step((event) => {
          if (hazardOfEvent(event)) mishaps.push(event.kind);
        });
        run.plant.trains.forEach((train, t) => {
          far[t] = far[t]! + Math.abs(train.speed) / 50;
        });
      }
      expect(mishaps).toEqual([]);
      expect(far.filter((mm) => mm > 100_000).length).toBeGreaterThanOrEqual(2);
    }
  });
  test('the first 60,000 states of its proof hold nothing that fails', () => {
    const run = new ProofRun(compileSystem(ondrelValley()), 60_000, new Set(STANDARD_SWITCHES));
    while (!run.step(2000));
    const { verdicts, finished } = run.result();
    expect(finished).toBe(false);
    expect(verdicts.map(({ result }) => result)).toEqual(verdicts.map(() => 'unfinished'));
  });
});
