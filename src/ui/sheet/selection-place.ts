import type { BlockView } from '@/core/design';
import { isBlockId } from '@/core/detection';
import { type LayoutDocument, type Span, spanOf } from '@/core/survey';

/** The stretches of track that a selected thing takes up; a thing at one place takes up no length. */
export function spansOf(document: LayoutDocument, blocks: BlockView[], selected: string | undefined): Span[] {
  if (isBlockId(selected)) return blocks.find(({ id }) => id === selected)?.pieces ?? [];
  const span = selected === undefined ? undefined : spanOf(document, selected);
  return span ? [span] : [];
}

/** The place that distances to a thing are measured to: the thing itself, or the middle of a block. */
export function placeOf(
  document: LayoutDocument,
  blocks: BlockView[],
  selected: string | undefined,
): { line: string; at: number } | undefined {
  const block = blocks.find(({ id }) => id === selected);
  if (block) return block.middle;
  const [span] = spansOf(document, blocks, selected);
  return span && { line: span.line, at: (span.from + span.to) / 2 };
}
