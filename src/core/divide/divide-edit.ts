import { divideTrack, middleOf } from '../detection';
import { applyEdit, asTyped, type Edit, type LayoutDocument } from '../survey';
import { compileTrack } from '../track';
import type { Suggestion } from './suggest-gaps';

/**
 * The edit that carries a suggestion out: its gaps, and a detector for each section that then has none, if that is wished for; areas that
 * are left whole need none.
 */
export function divideEdit(document: LayoutDocument, { cuts, without, open }: Suggestion, detectors: boolean): Edit {
  const typed = (at: number) => asTyped(at, document.shownUnit);
  const edit = {
    do: 'divide' as const,
    cuts: cuts.map(({ line, at }) => ({ line, at: typed(at) })),
    without,
    watch: [],
  };
  const done = detectors ? applyEdit(document, edit) : undefined;
  if (!done?.ok) return edit;
  const next = done.change.document;
  const partition = divideTrack(next, compileTrack(next));
  const watch = partition.sections
    .filter(({ sensors }) => sensors.length === 0)
    .map(({ blocks }) => {
      const all = blocks.map((b) => partition.blocks[b]!);
      const { line, at } = middleOf(
        partition,
        all.reduce((a, b) => (b.length > a.length ? b : a)),
      );
      return { line, at: typed(at) };
    })
    .filter(
      ({ line, at: { tenthUm } }) => !open.some((one) => one.line === line && tenthUm >= one.from && tenthUm <= one.to),
    );
  return { ...edit, watch };
}
