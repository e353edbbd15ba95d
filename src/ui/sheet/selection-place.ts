import type { BlockView } from '@/core/design';
import type { LayoutDocument } from '@/core/survey';
import { blockNameOf } from '@/ui/state/selection';

export interface Span {
  line: string;
  from: number;
  to: number;
}

/** The stretches of track that a selected thing takes up; a thing at one place takes up no length. */
export function spansOf(document: LayoutDocument, blocks: BlockView[], selected: string | undefined): Span[] {
  const block = blockNameOf(selected);
  if (block !== undefined) return blocks.find((b) => b.name === block)?.pieces ?? [];
  const feature = document.features.find((f) => f.id === selected);
  if (feature) {
    const from = feature.at.tenthUm;
    return [{ line: feature.line, from, to: 'to' in feature ? feature.to.tenthUm : from }];
  }
  const turnout = document.turnouts.find((t) => t.id === selected);
  if (turnout) return [{ line: turnout.line, from: turnout.at.tenthUm, to: turnout.at.tenthUm }];
  const start = document.trains.find((t) => t.id === selected)?.start;
  return start ? [{ line: start.line, from: start.at.tenthUm, to: start.at.tenthUm }] : [];
}

/** The place that distances to a thing are measured to: the thing itself, or the middle of a block. */
export function placeOf(
  document: LayoutDocument,
  blocks: BlockView[],
  selected: string | undefined,
): { line: string; at: number } | undefined {
  const block = blocks.find((b) => b.name === blockNameOf(selected));
  if (block) return block.middle;
  const [span] = spansOf(document, blocks, selected);
  return span && { line: span.line, at: (span.from + span.to) / 2 };
}
