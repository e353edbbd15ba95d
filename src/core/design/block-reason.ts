import { consistOf, INFERRED_BY } from '../detection';
import { fromMm, showLength } from '../measure';
import type { Reason } from '../reasoning';
import type { LayoutDocument } from '../survey';
import type { BlockView } from './design-view';

/** Why a block is as long as it is, and which trains it holds. Shown terms add up to the shown sum. */
export function reasonBlock(document: LayoutDocument, block: BlockView): Reason {
  const shown = (length: number) => showLength(length, document.shownUnit);
  const lineName = (id: string) => document.lines.find((l) => l.id === id)?.name ?? id;
  const whole = block.pieces.reduce((sum, p) => sum + p.to - p.from, 0);
  const parts = block.pieces.map(
    (p): Reason => ({
      says: `${lineName(p.line)}, from ${shown(p.from)} to ${shown(p.to)}`,
      value: shown(p.to - p.from),
      formula: `${shown(p.to)} − ${shown(p.from)}`,
      origin: 'typed',
      because: [],
    }),
  );
  const length: Reason =
    whole === block.length
      ? { says: 'Its length', value: shown(block.length), origin: 'computed', because: parts }
      : {
          says: 'Its longest way through',
          value: shown(block.length),
          formula: `of ${shown(whole)} of track in all`,
          origin: 'computed',
          because: parts,
        };
  const trains = document.trains.map((train): Reason => {
    const needed = fromMm(consistOf(document, train).lengthMm);
    const spare = block.length - needed;
    return {
      says: spare >= 0 ? `${train.name} fits` : `${train.name} is too long and occupies the block behind too`,
      value: `${spare >= 0 ? '+' : '−'}${shown(Math.abs(spare))}`,
      formula: `${shown(block.length)} − ${shown(needed)}`,
      origin: 'computed',
      because: [],
    };
  });
  const seen: Reason =
    block.detectors.length > 0
      ? {
          says: `It is watched by ${block.detectors.map((id) => document.sensors.find((s) => s.id === id)?.name ?? id).join(', ')}`,
          because: [],
        }
      : block.inferred
        ? { says: `It is ${INFERRED_BY[block.inferred]}; nothing watches it throughout`, because: [] }
        : { says: 'No detector watches it, so it counts as occupied', because: [] };
  return { says: `Block ${block.name}`, value: shown(block.length), because: [length, seen, ...trains] };
}
