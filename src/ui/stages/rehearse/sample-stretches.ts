import { bisector } from 'd3';
import type { Sample } from '@/core/simulation';

/** Ten seconds. */
export const STRETCH_TICKS = 500;

/** How long a block read occupied, in ticks. */
export interface BlockSpan {
  block: number;
  from: number;
  to: number;
}

/** A part of a run for the graph. Its last sample is the first of the next part, so that lines join. */
export interface Stretch {
  key: number;
  samples: readonly Sample[];
  spans: readonly BlockSpan[];
}

const byTick = bisector((sample: Sample) => sample.tick);

/** Cuts samples into stretches that cover some ticks. A stretch in which nothing is new is the same object as `before`. */
export function cutStretches(
  samples: readonly Sample[],
  fromTick: number,
  toTick: number,
  before: readonly Stretch[] = [],
): Stretch[] {
  const kept = new Map(before.map((stretch) => [stretch.key, stretch]));
  const cut: Stretch[] = [];
  for (let key = Math.max(0, Math.floor(fromTick / STRETCH_TICKS)); key * STRETCH_TICKS <= toTick; key++) {
    const start = byTick.left(samples, key * STRETCH_TICKS);
    const end = byTick.right(samples, (key + 1) * STRETCH_TICKS);
    if (end - start < 2) continue;
    const old = kept.get(key)?.samples;
    const isOld = old?.length === end - start && old[0] === samples[start] && old[old.length - 1] === samples[end - 1];
    if (isOld) cut.push(kept.get(key)!);
    else {
      const part = samples.slice(start, end);
      cut.push({ key, samples: part, spans: spansIn(part) });
    }
  }
  return cut;
}

function spansIn(samples: readonly Sample[]): BlockSpan[] {
  const open = new Map<number, number>();
  const spans: BlockSpan[] = [];
  for (const { tick, occupied } of samples) {
    const now = new Set(occupied);
    for (const [block, from] of open) {
      if (now.has(block)) continue;
      spans.push({ block, from, to: tick });
      open.delete(block);
    }
    for (const block of occupied) if (!open.has(block)) open.set(block, tick);
  }
  const last = samples[samples.length - 1]!.tick;
  for (const [block, from] of open) spans.push({ block, from, to: last });
  return spans;
}

/** The spans of stretches in order, those that go on from one stretch to the next made one. */
export function joinSpans(stretches: readonly Stretch[]): BlockSpan[] {
  const latest = new Map<number, BlockSpan>();
  const joined: BlockSpan[] = [];
  for (const { spans } of stretches) {
    for (const span of spans) {
      const last = latest.get(span.block);
      if (last?.to === span.from) last.to = span.to;
      else {
        const own = { ...span };
        latest.set(span.block, own);
        joined.push(own);
      }
    }
  }
  return joined;
}
