import type { Design } from '@/core/design';
import type { BlockId } from '@/core/detection';

/** The ids of blocks by their names. */
export const blockIds = ({ scheme }: Pick<Design, 'scheme'>, names: string[]): BlockId[] =>
  names.map((name) => scheme.partition.blocks.find((block) => block.name === name)!.id);
