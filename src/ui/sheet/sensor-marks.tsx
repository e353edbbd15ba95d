import { memo } from 'react';
import { sensorKind } from '@/core/kinds';
import { placeThing } from '@/core/survey';
import { Pickable } from './pickable';
import type { AlongTheLines } from './placed-things';

/** Sensors that watch a place, each on the track with the mark of its kind; the frame is broken as long as it is tentative. */
export const SensorMarks = memo(function SensorMarks({ document, geometry, chosen, onSelect }: AlongTheLines) {
  return document.sensors.map((sensor) => {
    const { mark } = sensorKind(sensor.kind);
    const { x, y } = geometry.at(sensor.anchor.line, sensor.anchor.at.tenthUm);
    if (mark === '' || !geometry.isNear(x)) return null;
    const label = placeThing(document, 'sensors', sensor);
    const colour = chosen.has(sensor.id) ? 'var(--accent)' : 'var(--ink2)';
    return (
      <Pickable key={sensor.id} thing={sensor.id} label={label} onPick={onSelect && (() => onSelect(sensor.id))}>
        <title>{label}</title>
        <rect
          x={x - 8}
          y={y - 7}
          width="16"
          height="14"
          rx="3"
          fill="var(--sheet)"
          stroke={colour}
          strokeDasharray={sensor.certainty === 'tentative' ? '3 2' : undefined}
        />
        <path d={mark} transform={`translate(${x} ${y})`} stroke={colour} strokeWidth="1.5" fill="none" />
      </Pickable>
    );
  });
});
