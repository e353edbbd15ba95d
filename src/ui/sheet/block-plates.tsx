import { memo } from 'react';
import type { BlockView } from '@/core/design';
import { leaderOf } from './draw-trains';
import { Pickable } from './pickable';
import type { Placed } from './plan-labels';

interface Props {
  blocks: BlockView[];
  placed: Placed;
  occupied: ReadonlySet<string>;
  chosen: ReadonlySet<string>;
  onSelect?: (id: string) => void;
  /** Blocks whose plates are drawn elsewhere: above the trains that are in them. */
  except?: ReadonlySet<string>;
}

/** The name of each block on its track, solid while it is occupied; one that finds no room shrinks to a mark. */
export const BlockPlates = memo(function BlockPlates({ blocks, placed, occupied, chosen, onSelect, except }: Props) {
  return blocks.map((block) => {
    const plate = placed.plates.get(block.id);
    const mark = placed.marks.get(block.id);
    const isSelected = chosen.has(block.id);
    const isOccupied = occupied.has(block.id);
    if (!plate && mark)
      return (
        <Pickable
          key={block.id}
          thing={block.id}
          label={`Block ${block.name}${isOccupied ? ', occupied' : ''}`}
          onPick={onSelect && (() => onSelect(block.id))}
        >
          <title>{block.name}</title>
          <rect
            x={mark.x - 4}
            y={mark.y - 4}
            width="8"
            height="8"
            rx="2"
            fill={isOccupied ? 'var(--accent)' : 'var(--raised)'}
            stroke={isSelected ? 'var(--accent)' : 'var(--edge)'}
            strokeWidth={isSelected ? 2 : 1}
          />
        </Pickable>
      );
    if (!plate || except?.has(block.id)) return null;
    return (
      <BlockPlate
        key={block.id}
        id={block.id}
        name={block.name}
        plate={plate}
        isOccupied={isOccupied}
        isSelected={isSelected}
        onPick={onSelect && (() => onSelect(block.id))}
      />
    );
  });
});

/** One block’s name on its plate, which may have stepped aside; what moves with that is marked as a part. */
export function BlockPlate({
  id,
  name,
  plate,
  shift,
  isOccupied,
  isSelected,
  onPick,
}: {
  id: string;
  name: string;
  plate: NonNullable<ReturnType<Placed['plates']['get']>>;
  /** How far it has stepped aside, where it may. */
  shift?: number;
  isOccupied: boolean;
  isSelected: boolean;
  onPick: (() => void) | undefined;
}) {
  const { x, y, width, from } = plate;
  const named = (
    <>
      <rect
        x={x - width / 2}
        y={y - 8.5}
        width={width}
        height="17"
        rx="3"
        fill={isOccupied ? 'var(--accent)' : 'var(--raised)'}
        stroke={isSelected ? 'var(--accent)' : 'var(--edge)'}
        strokeWidth={isSelected ? 2 : 1}
      />
      <text
        x={x}
        y={y + 4.2}
        textAnchor="middle"
        fontWeight="650"
        style={isOccupied ? { fill: 'var(--on-accent)', stroke: 'none' } : { stroke: 'none' }}
      >
        {name}
      </text>
    </>
  );
  return (
    <Pickable thing={id} label={`Block ${name}${isOccupied ? ', occupied' : ''}`} onPick={onPick}>
      {from && <path data-part="leader" d={leaderOf(plate, shift ?? 0)} stroke="var(--edge)" />}
      {shift === undefined ? (
        named
      ) : (
        <g data-part transform={`translate(${shift} 0)`}>
          {named}
        </g>
      )}
    </Pickable>
  );
}
