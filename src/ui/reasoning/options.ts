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
