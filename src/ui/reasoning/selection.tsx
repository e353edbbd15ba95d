'use client';
import { reasonBlock } from '@/core/design';
import { whyValue, writeDeclaration } from '@/core/logic';
import { STEPS, showLength, type TypedLength } from '@/core/measure';
import { names } from '@/core/patterns';
import {
  asTyped,
  callThing,
  FEATURES,
  type Gap,
  type LayoutDocument,
  LIST_NAMES,
  type Mark,
  type Signal,
  signalsOf,
  thingsOf,
} from '@/core/survey';
import { Caution } from '@/ui/parts/caution';
import { CheckBox } from '@/ui/parts/check-box';
import { LengthField } from '@/ui/parts/length-field';
import { Term } from '@/ui/parts/term';
import { shownDocument } from '@/ui/state/design';
import { blockKey, blockNameOf } from '@/ui/state/selection';
import { shownValues, useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { PanelSection, PanelTitle } from './panel';
import { ReasonTree } from './reason-tree';
import { Certainty, DeleteButton, Rename, useEdit } from './selection-parts';
import { TrainEditor } from './train-editor';
import { TurnoutSelection } from './turnout-selection';

/** The name of what is selected, for the head of the panel; undefined when it is gone. */
export function subjectOf(document: LayoutDocument, selected: string | undefined): string | undefined {
  const block = blockNameOf(selected);
  if (block !== undefined) return block;
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
  const block = blockNameOf(selected);
  if (block !== undefined) return <BlockSelection name={block} />;
  const feature = document.features.find((f) => f.id === selected);
  if (feature?.kind === 'signal') return <SignalSelection signal={feature} />;
  if (feature?.kind === 'gap' || feature?.kind === 'mark') return <CutSelection cut={feature} />;
  if (feature)
    return (
      <>
        <PanelTitle>{FEATURES[feature.kind].title}</PanelTitle>
        <p className="text-ink2">
          {'name' in feature ? `${feature.name}, ` : ''}
          {showLength(feature.at.tenthUm, document.shownUnit)}
          {'to' in feature ? ` to ${showLength(feature.to.tenthUm, document.shownUnit)}` : ''} on{' '}
          {document.lines.find((l) => l.id === feature.line)?.name}
        </p>
        <Certainty id={feature.id} certainty={feature.certainty} />
        <DeleteButton id={feature.id} what="it" />
      </>
    );
  const train = document.trains.find((t) => t.id === selected);
  if (train) return <TrainEditor train={train} />;
  const turnout = document.turnouts.find((t) => t.id === selected);
  if (turnout) return <TurnoutSelection turnout={turnout} />;
  return <p className="text-ink2">It is no longer there.</p>;
}

function CutSelection({ cut }: { cut: Gap | Mark }) {
  const document = useWorkbench((s) => s.document);
  const design = useWorkbench((s) => s.design);
  const edit = useEdit();
  const shown = (step: keyof typeof STEPS.cm) => showLength(STEPS[document.shownUnit][step], document.shownUnit);
  const line = document.lines.find((l) => l.id === cut.line);
  const beside =
    design?.blocks.filter((b) =>
      b.pieces.some((p) => p.line === cut.line && (p.from === cut.at.tenthUm || p.to === cut.at.tenthUm)),
    ) ?? [];
  return (
    <>
      <PanelTitle>
        {cut.kind === 'gap' ? <Term word="gap">Gap</Term> : <Term word="mark">Block mark</Term>} at{' '}
        {showLength(cut.at.tenthUm, document.shownUnit)}
      </PanelTitle>
      <p className="text-ink2">
        on {line?.name}
        {beside.length === 2
          ? `, between ${beside.map((b) => `${b.name} (${showLength(b.length, document.shownUnit)})`).join(' and ')}`
          : ''}
      </p>
      <div className="mt-3">
        <LengthField
          label={`Distance from the start of ${line?.name}`}
          unit={document.shownUnit}
          scale={document.scale}
          value={cut.at}
          onCommit={(at) => edit({ do: 'move', id: cut.id, at })}
        />
      </div>
      <p className="text-ink3">
        Or drag it, or use the arrow keys: {shown('arrow')}; with Shift {shown('coarse')}, with Alt {shown('fine')}.
        Signals at it move along.
      </p>
      {cut.kind === 'gap' && <Caution work="cutting" />}
      <Certainty id={cut.id} certainty={cut.certainty} />
      <DeleteButton id={cut.id} what={cut.kind === 'gap' ? 'the gap' : 'the block mark'} />
    </>
  );
}

function BlockSelection({ name }: { name: string }) {
  const document = useWorkbench(shownDocument);
  const design = useWorkbench((s) => s.design);
  const stage = useWorkbench((s) => s.stage);
  const trial = useWorkbench((s) => s.trial);
  const store = useWorkbenchStore();
  const edit = useEdit();
  const block = design?.blocks.find((b) => b.name === name);
  if (!block) return <p className="text-ink2">That block is no longer there: its boundaries have changed.</p>;
  const rename = (to: string) => {
    const anchor = {
      line: block.middle.line,
      at: asTyped(block.middle.at, document.shownUnit),
    };
    if (edit({ do: 'name block', id: block.named, anchor, name: to })) store.getState().select(blockKey(to));
  };
  const axleHere = trial.occupied.includes(name);
  return (
    <>
      <PanelTitle>
        <Term word="block">Block</Term> {name}, {showLength(block.length, document.shownUnit)}
      </PanelTitle>
      {stage.tries && (
        <div className="mb-2 rounded-md bg-accent-tint px-2 py-1">
          <CheckBox
            checked={axleHere}
            disabled={block.detectors.length === 0}
            onChange={() =>
              store.getState().set({
                trial: {
                  ...trial,
                  occupied: axleHere ? trial.occupied.filter((b) => b !== name) : [...trial.occupied, name],
                },
              })
            }
          >
            Set a <Term word="resistor">resistor axle</Term> down here
          </CheckBox>
          {block.detectors.length === 0 && <p className="text-ink2">No detector would see it: add one first.</p>}
        </div>
      )}
      <ReasonTree bare reason={reasonBlock(document, block)} />
      {block.detectors.length === 0 && (
        <button
          type="button"
          className="button mt-3"
          onClick={() =>
            edit({
              do: 'add detector',
              line: block.middle.line,
              at: asTyped(block.middle.at, document.shownUnit),
            })
          }
        >
          Add a current detector
        </button>
      )}
      {block.ends.length > 0 && stage.edits && (
        <PanelSection title="Signals at its ends">
          <ul className="flex flex-col gap-1">
            {block.ends.map((end, i) => {
              const place = showLength(end.at, document.shownUnit);
              const standing = signalsOf(document).find(
                (s) => s.line === end.line && s.at.tenthUm === end.at && s.governs === end.governs,
              );
              return (
                <li key={i}>
                  {standing ? (
                    <button type="button" className="button" onClick={() => store.getState().select(standing.id)}>
                      {standing.name} at {place}
                    </button>
                  ) : (
                    <button
                      type="button"
                      className="button"
                      onClick={() =>
                        edit({
                          do: 'add signal',
                          line: end.line,
                          at: asTyped(end.at, document.shownUnit),
                          governs: end.governs,
                        })
                      }
                    >
                      Place a signal at {place}
                    </button>
                  )}
                </li>
              );
            })}
          </ul>
        </PanelSection>
      )}
      {stage.names && (
        <>
          <Rename key={name} name={name} onRename={rename} />
          {block.detectors.map((id) => (
            <DeleteButton
              key={id}
              id={id}
              what={`detector ${document.detectors.find((d) => d.id === id)?.name ?? ''}`}
            />
          ))}
        </>
      )}
    </>
  );
}

function SignalSelection({ signal }: { signal: Signal }) {
  const document = useWorkbench((s) => s.document);
  const design = useWorkbench((s) => s.design);
  const values = useWorkbench(shownValues);
  const stage = useWorkbench((s) => s.stage);
  const edit = useEdit();
  const view = design?.signals.find((s) => s.id === signal.id);
  const rule = names.shows(signal.name);
  const value = values[rule];
  const aspect = value === undefined ? undefined : design?.program.enums.aspect?.[value];
  const known = design && value !== undefined;
  const own = design?.program.declarations.filter((d) => d.why?.about === signal.id && d.expr) ?? [];
  return (
    <>
      <PanelTitle>{known ? `${signal.name} shows ${aspect}` : signal.name}</PanelTitle>
      <p className="text-ink2">
        <Term word="signal">Signal</Term> at {showLength(signal.at.tenthUm, document.shownUnit)} on{' '}
        {document.lines.find((l) => l.id === signal.line)?.name}, read {document.directions[signal.governs]}, towards{' '}
        {signal.governs === 'up' ? 'larger' : 'smaller'} distances
        {view ? `, from ${view.rear}` : ''}.
      </p>
      {known && (
        <div className="mt-2">
          <ReasonTree bare key={`${signal.id} ${aspect}`} reason={whyValue(design.program, rule, (n) => values[n])} />
        </div>
      )}
      {view && (
        <PanelSection title="What it protects">
          {view.ways.length === 0 && <p className="text-ink2">Nothing: no track lies beyond it.</p>}
          {view.ways.map((way) => (
            <p key={way.to} className="border-t border-hair py-1 first:border-0">
              <strong>
                {signal.name} → {way.to}
              </strong>{' '}
              <span className="text-ink3">{showLength(way.length, document.shownUnit)}</span>
              <span className="block text-ink2">
                {way.points.length > 0 && `${way.points.map((p) => `${p.turnout} ${p.position}`).join(', ')}; `}
                {way.blocks.length > 0 ? `${way.blocks.join(', ')} free` : 'no block ahead'}
                {way.ending === 'end of track' && way.blocks.length > 0 ? '; then the track ends' : ''}
                {way.ending === 'end of detection' ? '; no detector there: stays at stop' : ''}
                {way.ending === 'circle' ? '; comes back to itself: stays at stop' : ''}
              </span>
            </p>
          ))}
        </PanelSection>
      )}
      {stage.edits && (
        <>
          <PanelSection title="Its rule as text">
            <pre
              tabIndex={0}
              className="max-h-64 overflow-auto whitespace-pre-wrap rounded-md border border-line bg-sheet p-2 font-mono text-[0.72rem] leading-4"
            >
              {own.map(writeDeclaration).join('\n\n')}
            </pre>
          </PanelSection>
          <PanelSection title="Change it">
            <LengthField
              label="Distance"
              unit={document.shownUnit}
              scale={document.scale}
              value={signal.at}
              onCommit={(at: TypedLength) => edit({ do: 'move', id: signal.id, at })}
            />
            <Rename
              key={signal.name}
              name={signal.name}
              onRename={(name) => edit({ do: 'rename', id: signal.id, name })}
            />
            <Certainty id={signal.id} certainty={signal.certainty} />
            <DeleteButton id={signal.id} what={signal.name} />
          </PanelSection>
        </>
      )}
    </>
  );
}
