import type { ShownUnit, TenthUm } from '../measure';
import { asTyped, type Facing, type Train } from '../survey';
import type { BlockView } from './design-view';

/** A train put into a block stands with its nose this far from the end it faces: 5 cm. */
const BEFORE_THE_END: TenthUm = 500_000;

/** Where a train starts that is put into a block: on its longest piece, nose a little before the end it faces. */
export function startIn(block: BlockView, facing: Facing, unit: ShownUnit): NonNullable<Train['start']> {
  const piece = block.pieces.reduce((a, b) => (b.to - b.from > a.to - a.from ? b : a));
  const nose =
    facing === 'up'
      ? Math.max(piece.from + 1, piece.to - BEFORE_THE_END)
      : Math.min(piece.to - 1, piece.from + BEFORE_THE_END);
  return { line: piece.line, at: asTyped(nose, unit), facing };
}

/** The block in which a train starts, if it is on the track. */
export function blockOfStart(blocks: BlockView[], train: Train): BlockView | undefined {
  const { start } = train;
  return (
    start &&
    blocks.find((b) =>
      b.pieces.some((p) => p.line === start.line && start.at.tenthUm >= p.from && start.at.tenthUm <= p.to),
    )
  );
}

/** Where the part of a train stands that is left behind a length of it, if that is on the same line. */
export function startBehind({ start }: Train, length: TenthUm, lineLength: TenthUm, unit: ShownUnit): Train['start'] {
  if (!start) return undefined;
  const at = start.at.tenthUm + (start.facing === 'up' ? -length : length);
  return at < 0 || at > lineLength ? undefined : { ...start, at: asTyped(at, unit) };
}
