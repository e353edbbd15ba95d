'use client';
import type { BlockView } from '@/core/design';
import { isBlockId } from '@/core/detection';
import { callThing, type LayoutDocument, LIST_NAMES, thingsOf } from '@/core/survey';
import { useWorkbench } from '@/ui/state/store';
import { BlockSelection } from './block-selection';
import { CrossingSelection } from './crossing-selection';
import { CutSelection } from './cut-selection';
import { FeatureSelection } from './feature-selection';
import { SensorSelection } from './sensor-selection';
import { SeveralSelection } from './several-selection';
import { SignalSelection } from './signal-selection';
import { TrainEditor } from './train-editor';
import { TurnoutSelection } from './turnout-selection';

/** The name of what is selected, for the head of the panel; undefined when it is gone. */
export function subjectOf(
  document: LayoutDocument,
  blocks: BlockView[] | undefined,
  selected: string | undefined,
): string | undefined {
  if (isBlockId(selected)) return blocks?.find(({ id }) => id === selected)?.name ?? 'Block';
  for (const list of LIST_NAMES) {
    const thing = thingsOf(document, list).find(({ id }) => id === selected);
    if (thing) return typeof thing.name === 'string' ? thing.name : callThing(list, thing, document.shownUnit);
  }
  return undefined;
}

/** What is known of the selected thing, why, and what can be changed about it. Used by every stage. */
export function Selection() {
  const document = useWorkbench((s) => s.document);
  const selected = useWorkbench((s) => s.selected);
  const also = useWorkbench((s) => s.also);
  if (isBlockId(selected)) return <BlockSelection id={selected} />;
  const feature = document.features.find((f) => f.id === selected);
  if (selected !== undefined && also.length > 0) return <SeveralSelection ids={[selected, ...also]} />;
  if (feature?.kind === 'signal') return <SignalSelection signal={feature} />;
  if (feature?.kind === 'gap' || feature?.kind === 'mark') return <CutSelection cut={feature} />;
  if (feature) return <FeatureSelection feature={feature} />;
  const train = document.trains.find((t) => t.id === selected);
  if (train) return <TrainEditor train={train} />;
  const sensor = document.sensors.find((s) => s.id === selected);
  if (sensor) return <SensorSelection sensor={sensor} />;
  const turnout = document.turnouts.find((t) => t.id === selected);
  if (turnout) return <TurnoutSelection turnout={turnout} />;
  const crossing = document.crossings.find((c) => c.id === selected);
  if (crossing) return <CrossingSelection crossing={crossing} />;
  return <p className="text-ink2">It is no longer there.</p>;
}
