import { cm } from '@/core/measure';
import { type Facing, type LayoutDocument, newDocument } from '@/core/survey';
import { block, gap, signal, train, turnout, vehicle } from '@/demo/build';
import { Draw } from '../../tools/fuzz/draw';

export { Draw };

/**
 * A circuit or an open line of one to four stations, each with a loop on either side, some with a spur; one to three blocks
 * of plain line between stations; signals both ways everywhere, or one way only. Trains of random length and speed, all
 * of whose axles are seen.
 */
export function randomLine(seed: number): LayoutDocument {
  const draw = new Draw(seed);
  const d = newDocument(`Random ${seed}`);
  const circuit = draw.chance(0.6);
  const oneWay = circuit && draw.chance(0.25);
  const stations = 1 + draw.below(4);
  const up: [string, number][] = [];
  const down: [string, number][] = [];
  let at = 30;
  const plain = (name: string) => {
    const parts = 1 + draw.below(3);
    for (let i = 0; i < parts; i++) {
      const length = Math.round(draw.between(140, 260));
      block(d, `${name}${i}`, 'main', at + length / 2);
      at += length;
      d.features.push(gap(`g${name}${i}`, 'main', at));
      up.push(['main', at]);
      if (i + 1 < parts) down.push(['main', at]);
    }
  };
  d.referenceLine = 'main';
  d.lines.push({ id: 'main', name: 'Main', length: cm(0), drawing: undefined });
  d.features.push(gap('g0', 'main', at));
  if (circuit) block(d, 'Start', 'main', 15);
  plain('P');
  for (let n = 0; n < stations; n++) {
    const length = Math.round(draw.between(220, 320));
    const leg = `loop${n}`;
    const west = at + 15;
    const east = at + length + 35;
    down.push(['main', at]);
    d.lines.push({ id: leg, name: `Loop ${n}`, length: cm(east - west + 6), drawing: undefined });
    d.turnouts.push(
      turnout(`A${n}`, 'main', west, 'up', draw.pick(['left', 'right']), leg),
      turnout(`B${n}`, 'main', east, 'down', draw.pick(['left', 'right']), leg),
    );
    d.turnouts.at(-1)!.lies = [draw.pick(['straight', 'diverging'])];
    d.features.push(
      gap(`ga${n}`, 'main', west + 30),
      gap(`gb${n}`, 'main', east - 30),
      gap(`gc${n}`, leg, 30),
      gap(`gd${n}`, leg, east - west - 24),
      gap(`ge${n}`, 'main', east + 15),
    );
    block(d, `T${n}`, 'main', west + 5);
    block(d, `M${n}`, 'main', (west + east) / 2);
    block(d, `L${n}`, leg, (east - west) / 2);
    block(d, `U${n}`, 'main', east - 5);
    up.push(['main', east - 30], [leg, east - west - 24]);
    down.push(['main', west + 30], [leg, 30], ['main', east + 15]);
    if (!oneWay && draw.chance(0.4)) {
      const spur = `spur${n}`;
      d.lines.push({ id: spur, name: `Spur ${n}`, length: cm(120), drawing: undefined });
      d.turnouts.push(turnout(`S${n}`, 'main', west + 6, 'up', 'left', spur));
      d.features.push(gap(`gs${n}`, spur, 30));
      block(d, `Q${n}`, spur, 80);
      down.push([spur, 30]);
    }
    at = east + 15;
    plain(`N${n}x`);
  }
  at += 30;
  d.lines[0]!.length = cm(at);
  if (circuit) {
    d.joins.push({ id: 'j1', a: { line: 'main', end: 'end' }, b: { line: 'main', end: 'start' } });
    down.push(['main', 30]);
  } else {
    block(d, 'Start', 'main', 15);
    block(d, 'End', 'main', at - 15);
    down.push(['main', at - 30]);
  }
  const place =
    (facing: Facing) =>
    ([line, where]: [string, number]) => {
      const known = d.features.some(
        (f) => f.kind === 'signal' && f.line === line && f.at.tenthUm === cm(where).tenthUm && f.governs === facing,
      );
      if (!known) d.features.push(signal(`${facing === 'up' ? 'E' : 'W'}${d.features.length}`, line, where, facing));
    };
  for (const spot of up) place('up')(spot);
  if (!circuit) place('up')(['main', 30]);
  if (!oneWay) for (const spot of down) place('down')(spot);

  d.vehicles = [
    vehicle('v-engine', 'Engine', 14, [2, 5, 9, 12], () => true, 200),
    vehicle('v-coach', 'Coach', 18, [2, 5, 13, 16], () => true, 100, 'coach'),
  ];
  const homes = d.blocks.filter((b) => /^[MLPN]/.test(b.name));
  const count = 1 + draw.below(Math.min(4, homes.length - 1));
  for (let i = 0; i < count; i++) {
    const home = homes.splice(draw.below(homes.length), 1)[0]!;
    const coaches = Array<string>(1 + draw.below(4)).fill('v-coach');
    const facing = oneWay ? 'up' : draw.pick(['up', 'down'] as const);
    const nose = home.anchor.at.tenthUm / 1e5 + (facing === 'up' ? 45 : -45);
    d.trains.push(
      train(
        `tr${i}`,
        `Train ${i}`,
        ['v-engine', ...coaches],
        draw.between(30, 100),
        { line: home.anchor.line, at: Math.round(nose), facing },
        { up: draw.between(30, 120), down: draw.between(60, 140), delayMs: draw.below(1500), is: 'assumed' },
      ),
    );
  }
  return d;
}
