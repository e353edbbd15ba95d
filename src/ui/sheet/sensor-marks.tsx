import { memo } from 'react';
import { sensorKind } from '@/core/kinds';
import { placeThing } from '@/core/survey';
import { Pickable } from './pickable';
import type { AlongTheLines } from './placed-things';

/** Half the width of a mark with its frame, and the least of one that has to make room, in px. */
const [HALF, LEAST] = [8, 3];

/** How far the frame of each mark reaches to its left and right: as far as halfway to the next one, where that is near. */
function reaches(at: readonly { id: string; line: string; x: number }[]): Map<string, [number, number]> {
  const along = [...at].sort((a, b) => (a.line < b.line ? -1 : a.line > b.line ? 1 : a.x - b.x));
  const room = (one: number, two: number) => {
    const [a, b] = [along[one], along[two]];
    if (!a || !b || a.line !== b.line) return HALF;
    return Math.max(LEAST, Math.min(HALF, Math.abs(b.x - a.x) / 2));
  };
  return new Map(along.map(({ id }, i) => [id, [room(i, i - 1), room(i, i + 1)]]));
}

/** Sensors that watch a place, each on the track with the mark of its kind; the frame is broken as long as it is tentative. */
export const SensorMarks = memo(function SensorMarks({ document, geometry, chosen, onSelect }: AlongTheLines) {
  const marks = document.sensors.flatMap((sensor) => {
    const { mark } = sensorKind(sensor.kind);
    const { x, y } = geometry.at(sensor.anchor.line, sensor.anchor.at.tenthUm);
    return mark === '' || !geometry.isNear(x) ? [] : [{ id: sensor.id, line: sensor.anchor.line, x, y, mark, sensor }];
  });
  const reach = reaches(marks);
  return marks.map(({ sensor, x, y, mark }) => {
    const [left, right] = reach.get(sensor.id)!;
    const width = left + right;
    const label = placeThing(document, 'sensors', sensor);
    const colour = chosen.has(sensor.id) ? 'var(--accent)' : 'var(--ink2)';
    return (
      <Pickable key={sensor.id} thing={sensor.id} label={label} onPick={onSelect && (() => onSelect(sensor.id))}>
        <title>{label}</title>
        <rect
          x={x - left}
          y={y - 7}
          width={width}
          height="14"
          rx="3"
          fill="var(--sheet)"
          stroke={colour}
          strokeDasharray={sensor.certainty === 'tentative' ? '3 2' : undefined}
        />
        <path
          d={mark}
          transform={`translate(${x + (right - left) / 2} ${y}) scale(${Math.max(0.5, width / (2 * HALF))})`}
          stroke={colour}
          strokeWidth="1.5"
          fill="none"
        />
      </Pickable>
    );
  });
});
