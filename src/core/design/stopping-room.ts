import { fromMm, layoutSpeedMmPerS, stoppingNeed, type TenthUm } from '../measure';
import type { Scheme } from '../patterns';
import { warningsOf } from '../signals';
import type { LayoutDocument, Train } from '../survey';

/** What a train needs from learning of a stop to standing before it (`stoppingNeed`). */
export const stoppingRoom = ({ scale }: Pick<LayoutDocument, 'scale'>, train: Train): TenthUm =>
  fromMm(stoppingNeed(layoutSpeedMmPerS(train.topSpeedKmh, scale), train.brakingMmPerS2).totalMm);

/** The room that trains have to stop at a signal, by the shortest way of learning of it. */
export interface StoppingRoom {
  signal: string;
  /** The signal that says so first, by name. */
  by: string;
  room: TenthUm;
  /** What the train that needs most needs, and which one that is. */
  needs: TenthUm;
  train: string;
}

/** Of every signal that is announced at all; none where there is no train. */
export function stoppingRooms({ document, readings }: Scheme): StoppingRoom[] {
  const needs = document.trains.map((train) => ({ train: train.name, needs: stoppingRoom(document, train) }));
  const most = needs.reduce((a, b) => (b.needs > a.needs ? b : a), needs[0]!);
  if (!most) return [];
  const shortest = new Map<number, ReturnType<typeof warningsOf>[number]>();
  for (const warning of warningsOf(document, readings)) {
    const known = shortest.get(warning.stop);
    if (!known || warning.length < known.length) shortest.set(warning.stop, warning);
  }
  return [...shortest.values()].map(({ stop, by, length }) => ({
    signal: readings[stop]!.signal.id,
    by: readings[by]!.signal.name,
    room: length,
    ...most,
  }));
}
