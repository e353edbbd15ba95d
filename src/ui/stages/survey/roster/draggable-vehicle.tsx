'use client';
import { useDraggable } from '@dnd-kit/core';
import { useSortable } from '@dnd-kit/sortable';
import { GripVertical } from 'lucide-react';
import type { CSSProperties } from 'react';
import { otherWayRound } from '@/core/detection';
import { mmOf } from '@/core/measure';
import type { LayoutDocument, Vehicle } from '@/core/survey';
import { heightOf, VehicleShape } from '@/ui/reasoning/vehicle-shape';

interface Shown {
  vehicle: Vehicle;
  scale: LayoutDocument['scale'];
  widthPx: number;
}

/** A pointer moves in pixels of the screen, what it drags in those of a page that may be shown larger. */
function moved(by: { x: number; y: number } | null): CSSProperties {
  if (!by) return {};
  const size = Number.parseFloat(getComputedStyle(document.documentElement).getPropertyValue('--size')) || 1;
  return { transform: `translate(${by.x / size}px, ${by.y / size}px)`, position: 'relative', zIndex: 1 };
}

function Drawing({ vehicle, scale, widthPx, backwards }: Shown & { backwards?: boolean }) {
  const long = mmOf(vehicle.length.tenthUm);
  const high = heightOf(scale);
  return (
    <svg
      aria-hidden
      viewBox={`-1 -1 ${long + 2} ${high + 2}`}
      style={{ width: widthPx, height: (widthPx * (high + 2)) / (long + 2) }}
    >
      <VehicleShape vehicle={backwards ? otherWayRound(vehicle) : vehicle} scale={scale} backwards={backwards} />
    </svg>
  );
}

/** A vehicle of a train: dragged to another place in it, or chosen. */
export function InTrain({
  place,
  vehicle,
  backwards,
  chosen,
  onChoose,
  ...shown
}: Shown & { place: number; backwards: boolean; chosen: boolean; onChoose: () => void }) {
  const { attributes, listeners, setNodeRef, transform, isDragging } = useSortable({
    id: `place ${place}`,
    data: { place, vehicle: vehicle.id },
  });
  return (
    <li ref={setNodeRef} style={moved(transform)} className={isDragging ? 'opacity-60' : ''}>
      <button
        type="button"
        {...attributes}
        {...listeners}
        aria-label={`${place + 1}: ${vehicle.name}${backwards ? ', turned' : ''}`}
        aria-pressed={chosen}
        title={vehicle.name}
        className={`flex min-w-9 cursor-grab touch-none flex-col items-center rounded-sm border px-px pt-1 ${chosen ? 'border-accent bg-accent-tint' : 'border-transparent hover:bg-accent-tint'}`}
        onClick={onChoose}
      >
        <Drawing vehicle={vehicle} backwards={backwards} {...shown} />
        <span className="text-ink3">{place === 0 ? '1, nose' : place + 1}</span>
      </button>
    </li>
  );
}

/** A vehicle of the roster: dragged into the train, or put on behind. */
export function InRoster({ vehicle, inTrain, onPut, ...shown }: Shown & { inTrain?: string; onPut: () => void }) {
  const { listeners, setNodeRef, transform, isDragging } = useDraggable({
    id: `roster ${vehicle.id}`,
    data: { vehicle: vehicle.id },
  });
  return (
    <li
      ref={setNodeRef}
      style={moved(transform)}
      className={`flex items-center gap-2 rounded-md border border-line bg-raised px-2 py-1 ${isDragging ? 'opacity-60' : ''}`}
    >
      <span {...listeners} aria-hidden className="flex cursor-grab touch-none items-center gap-2">
        <GripVertical size={14} className="text-ink3" />
        <Drawing vehicle={vehicle} {...shown} />
      </span>
      <span className="max-w-48 truncate" title={vehicle.name}>
        {vehicle.name}
        {inTrain && <span className="block truncate text-ink3">in {inTrain}</span>}
      </span>
      <button type="button" className="button px-1.5 py-0" aria-label={`Put on ${vehicle.name}`} onClick={onPut}>
        Put on
      </button>
    </li>
  );
}
