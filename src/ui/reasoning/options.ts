import type { BlockView } from '@/core/design';
import type { Facing, LayoutDocument } from '@/core/survey';
import type { Option } from '@/ui/parts/choice';

/** The two directions of a line, in words and by the names that people here have for them. */
export const facingOptions = ({ directions }: LayoutDocument): Option<Facing>[] => [
  { value: 'up', says: `larger distances, ${directions.up}` },
  { value: 'down', says: `smaller distances, ${directions.down}` },
];

export const blockOptions = (blocks: BlockView[] = []): Option<string>[] =>
  blocks.map(({ id, name }) => ({ value: id, says: name }));

/** What an input reads, a signal shows and a section has when its wire or relay fails, and how that is wired. */
export const DETECTORS_BROKEN = [
  { value: 'occupied', says: 'read occupied: on while free' },
  { value: 'free', says: 'read free: on while occupied' },
] as const;
/** Looking the way that distances increase. */
export const sidesOf = (directions: { up: string }) =>
  [
    { value: 'left', says: `left of the track, looking ${directions.up}` },
    { value: 'right', says: `right of the track, looking ${directions.up}` },
  ] as const;
export const SIGNALS_BROKEN = [
  { value: 'stop', says: 'stop: energised to clear' },
  { value: 'clear', says: 'clear: energised to stop' },
] as const;
export const RELAYS_DEAD = [
  { value: 'off', says: 'off: fed by the open contact' },
  { value: 'fed', says: 'fed: by the closed rest contact' },
] as const;
