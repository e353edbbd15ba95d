import { type Facing, giveOwnVehicles, type LayoutDocument } from '@/core/survey';
import { train, vehicle } from './build';
import { generatedLine } from './generated';

/**
 * A single line round to itself with one crossing loop, signalled both ways: small enough that every state of it can be looked
 * at. Trains stand in the loop’s two roads, and, with a third, on the single line.
 */
export function passingLoop(facings: Facing[]): LayoutDocument {
  const d = generatedLine(5);
  d.name = 'Passing loop';
  d.vehicles = [vehicle('v-railcar', 'Railcar', 22, [2, 5, 17, 20], () => true, 200, 'railcar')];
  const places: Record<Facing, { line: string; at: number }[]> = {
    up: [
      { line: 'main', at: 395 },
      { line: 'loop0', at: 205 },
      { line: 'main', at: 160 },
    ],
    down: [
      { line: 'main', at: 255 },
      { line: 'loop0', at: 55 },
      { line: 'main', at: 80 },
    ],
  };
  facings.forEach((facing, i) => {
    d.trains.push(
      train(
        `tr${i + 1}`,
        `${['First', 'Second', 'Third'][i]} railcar`,
        ['v-railcar'],
        50 + 10 * i,
        {
          ...places[facing][i]!,
          facing,
        },
        { up: 80, down: 150, delayMs: 300, is: 'assumed' },
      ),
    );
  });
  giveOwnVehicles(d);
  return d;
}
