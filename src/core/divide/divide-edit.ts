import { divideTrack, kindForSections, middleOf, type Partition, polarityFindings } from '../detection';
import { applyEdit, asTyped, type Edit, isKind, type LayoutDocument } from '../survey';
import { compileTrack } from '../track';
import type { Suggestion } from './suggest-gaps';

type Divide = Extract<Edit, { do: 'divide' }>;

/**
 * The edit that carries a suggestion out: its gaps, each in the rail in which it belongs, and a detector for each section that then has
 * none, if that is wished for; areas that are left whole need none.
 */
export function divideEdit(document: LayoutDocument, { cuts, without, open }: Suggestion, detectors: boolean): Edit {
  const typed = (at: number) => asTyped(at, document.shownUnit);
  const cut = inRightRails(document, {
    do: 'divide',
    cuts: cuts.map(({ line, at }) => ({ line, at: typed(at) })),
    without,
    watch: [],
  });
  const kind = kindForSections(document);
  const done = detectors && kind ? tried(document, cut) : undefined;
  if (!done) return cut;
  const { sections, blocks } = done.partition;
  const watch = sections
    .filter(({ sensors }) => sensors.length === 0)
    .map((section) => {
      const all = section.blocks.map((b) => blocks[b]!);
      const { line, at } = middleOf(
        done.partition,
        all.reduce((a, b) => (b.length > a.length ? b : a)),
      );
      return { line, at: typed(at) };
    })
    .filter(
      ({ line, at: { tenthUm } }) => !open.some((one) => one.line === line && tenthUm >= one.from && tenthUm <= one.to),
    );
  return { ...cut, watch, kind };
}

function tried(document: LayoutDocument, edit: Divide): { next: LayoutDocument; partition: Partition } | undefined {
  const done = applyEdit(document, edit);
  if (!done.ok) return undefined;
  const next = done.change.document;
  return { next, partition: divideTrack(next, compileTrack(next)) };
}

/** The gaps in the rails in which findings would have them: where rails meet the other way round in both, elsewhere all in one. */
function inRightRails(document: LayoutDocument, edit: Divide): Divide {
  const was = new Set(document.features.map(({ id }) => id));
  let better = edit;
  for (let round = 0; round <= edit.cuts.length; round++) {
    const done = tried(document, better);
    if (!done) return better;
    const made = done.next.features.filter(isKind('gap')).filter(({ id }) => !was.has(id));
    const numbers = new Map(made.map(({ id }, nth) => [id, nth]));
    const fix = polarityFindings(done.next, done.partition)
      .flatMap(({ fixes }) => fixes)
      .map((one) => one.edit)
      .find((one) => one.do === 'change features' && one.ids.every((id) => numbers.has(id)));
    if (fix?.do !== 'change features') return better;
    const { rail } = fix.change as { rail?: Divide['cuts'][number]['rail'] };
    if (!rail) return better;
    const turned = new Set(fix.ids.map((id) => numbers.get(id)));
    better = { ...better, cuts: better.cuts.map((one, nth) => (turned.has(nth) ? { ...one, rail } : one)) };
  }
  return better;
}
