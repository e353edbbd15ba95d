import { takenOff } from '../detection';
import type { Finding } from '../findings';
import type { Aspect } from '../kinds';
import type { Scheme } from '../patterns';
import { faceToFace, footprintOf, inOneBlock, Plant, type PlantEvent } from '../plant';
import type { Edit } from '../survey';
import { plantParameters } from '../system';

/** How trains stand at the start, and circuits with no block to spare. */
export function startFindings({ document, partition, readings, trafficSections, aspects }: Scheme): Finding<Edit>[] {
  const findings: Finding<Edit>[] = [];
  const plant = new Plant(plantParameters(document), partition, readings, () => ({ speed: 0, startDelay: 0 }));
  for (const { train, problem } of plant.notPlaced)
    findings.push({
      id: `not-placed ${train}`,
      kind: 'train that cannot be placed',
      severity: 'unsafe',
      subject: train,
      says: problem,
      figures: [],
      advice: 'Give it another place to start, or take it off the track.',
      fixes: [],
    });
  const touching = touchingAtStart(plant, aspects[0]!);
  const standing = plant.trains.map((train) => ({
    id: train.figures.id,
    name: train.figures.name,
    footprint: footprintOf(partition, trafficSections, train.held()),
  }));
  standing.forEach((one, i) => {
    for (const two of standing.slice(i + 1)) {
      const facing = faceToFace(one.footprint, two.footprint);
      const isOneBlock = inOneBlock(one.footprint, two.footprint);
      const touch = touching.has(`${one.id} ${two.id}`);
      if (!facing && !isOneBlock && !touch) continue;
      const names = `${one.name} and ${two.name}`;
      const shared = one.footprint.blocks.find((block) => two.footprint.blocks.includes(block));
      findings.push({
        id: `start ${one.id} ${two.id}`,
        kind: 'trains in each other’s way at the start',
        severity: 'unsafe',
        subject: two.id,
        says: facing
          ? `${names} face each other at the start, with no points between them where one could get out of the way.`
          : isOneBlock
            ? `${names} start in one block, ${partition.blocks[shared!]!.name}.`
            : `${names} touch where they start.`,
        figures: [],
        advice: 'Give one of them another place to start.',
        fixes: [takenOff(one), takenOff(two)],
      });
    }
  });
  for (const trafficSection of trafficSections.all.filter(({ closed }) => closed)) {
    const trains = standing.filter(({ footprint }) =>
      footprint.blocks.some((block) => trafficSection.blocks.includes(block)),
    );
    if (trains.length === 0 || trains.length < trafficSection.blocks.length) continue;
    findings.push({
      id: `full-circuit ${trafficSection.name}`,
      kind: 'no block to spare on a circuit',
      severity: 'unsafe',
      subject: trains[0]!.id,
      says: `${trains.length} ${trains.length === 1 ? 'train' : 'trains'} on a circuit of ${trafficSection.blocks.length} ${trafficSection.blocks.length === 1 ? 'block' : 'blocks'}: nobody can ever move.`,
      figures: [
        { name: 'trains', value: String(trains.length) },
        { name: 'blocks', value: String(trafficSection.blocks.length) },
      ],
      advice: 'Take one train off, or cut one more gap.',
      fixes: trains.map(takenOff),
    });
  }
  return findings;
}

/** The trains that touch as they stand, by their ids, the earlier first. */
function touchingAtStart(plant: Plant, anything: Aspect): ReadonlySet<string> {
  const events: PlantEvent[] = [];
  for (const train of plant.trains) train.running = false;
  plant.step(
    (motor) => (plant.motors[motor]!.position === 'diverging' ? 'diverging' : 'straight'),
    () => anything,
    events,
  );
  const idOf = (nth: number) => plant.trains[nth]!.figures.id;
  return new Set(
    events.flatMap((event) => (event.kind === 'collision' ? [`${idOf(event.train)} ${idOf(event.other)}`] : [])),
  );
}
