'use client';
import { showLength, type TypedLength } from '@/core/measure';
import { cutsOff, names } from '@/core/patterns';
import { type Signal, systemOf, systemsFor } from '@/core/survey';
import { Choice } from '@/ui/parts/choice';
import { Fold } from '@/ui/parts/fold';
import { LengthField } from '@/ui/parts/length-field';
import { Term } from '@/ui/parts/term';
import { AspectLamps, aspectOf } from '@/ui/sheet/signal-head';
import { useWorkbench } from '@/ui/state/store';
import { Answer } from './answer';
import { ItsRules } from './its-rules';
import { RELAYS_DEAD, SIGNALS_BROKEN } from './options';
import { PanelSection, PanelTitle } from './panel';
import { PatternChoices } from './pattern-choices';
import { PatternOptions } from './pattern-options';
import { Certainty, DeleteButton, Rename, useEdit } from './selection-parts';
import { SignalFacts } from './signal-facts';
import { useAsked } from './use-asked';

export function SignalSelection({ signal }: { signal: Signal }) {
  const document = useWorkbench((s) => s.document);
  const lookUp = useWorkbench((s) => s.lookUpSignal);
  const stage = useWorkbench((s) => s.stage);
  const edit = useEdit();
  const view = useAsked(lookUp, signal.id);
  const system = systemOf(document, signal.system);
  return (
    <>
      <Answer rule={names.shows(signal)} otherwise={<PanelTitle>{signal.name}</PanelTitle>} />
      <p className="mt-2 text-ink2">
        <Term word="signal">Signal</Term> at {showLength(signal.at.tenthUm, document.shownUnit)} on{' '}
        {document.lines.find((l) => l.id === signal.line)?.name}, read {document.directions[signal.governs]}, towards{' '}
        {signal.governs === 'up' ? 'larger' : 'smaller'} distances
        {view ? `, from ${view.rear}` : ''}.
      </p>
      {view && (
        <PanelSection title="What it protects, and shows">
          {view.proceeds !== undefined && (
            <p className="mb-1">
              A rule of your own decides whether it may proceed, whatever its routes say:{' '}
              <code className="font-mono">{view.proceeds}</code>
            </p>
          )}
          {view.routes.length === 0 && <p className="text-ink2">Nothing: no track lies beyond it.</p>}
          <p className="flex items-start gap-1.5">
            <AspectLamps system={system} aspect={aspectOf(system, view.stop)} />
            <span>
              <strong>{view.stop}</strong>
              <span className="text-ink2">: cleared for {view.routes.length > 1 ? 'none of these' : 'no route'}</span>
            </span>
          </p>
          {view.routes.map((route) => (
            <p key={route.id} className="border-t border-hair py-1 first:border-0">
              <strong>
                {signal.name} → {route.to}
              </strong>{' '}
              <span className="text-ink3">{showLength(route.length, document.shownUnit)}</span>
              <span className="block text-ink2">
                {route.points.length > 0 && `${route.points.map((p) => `${p.turnout} ${p.position}`).join(', ')}; `}
                {route.blocks.length > 0
                  ? `${route.blocks.join(', ')} ${route.watched ? 'free' : 'beyond, free or not'}`
                  : 'no block ahead'}
                {route.besides.map(({ says }) => `; or, whatever stands there, ${says}`)}
                {route.ending === 'end of track' && route.blocks.length > 0 ? '; then the track ends' : ''}
                {route.ending === 'end of detection' ? '; no detector there' : ''}
                {route.ending === 'circle' ? '; comes back to itself' : ''}
                {route.never ? ': never cleared for it' : ''}
              </span>
              {route.branches.map(({ aspect, when }) => (
                <span key={aspect} className="flex items-start gap-1.5">
                  <AspectLamps system={system} aspect={aspectOf(system, aspect)} />
                  <span>
                    <strong>{aspect}</strong>
                    {when.length > 0 && <span className="text-ink2">: {when.join(', or ')}</span>}
                  </span>
                </span>
              ))}
            </p>
          ))}
        </PanelSection>
      )}
      <SignalFacts signal={signal} />
      {stage.edits && (
        <PanelSection title="Change it">
          <LengthField
            label="Distance"
            unit={document.shownUnit}
            scale={document.scale}
            value={signal.at}
            onCommit={(at: TypedLength) => edit({ do: 'move', id: signal.id, at })}
          />
          <Choice
            label="What it can show"
            className="mt-2"
            value={signal.system}
            options={systemsFor(document).map(({ id, system }) => ({ value: id, says: system.name }))}
            onChange={(system) => edit({ do: 'signal by', ids: [signal.id], system })}
          />
          <PatternChoices at="signal" thing={signal} />
          {view && <PatternOptions id={signal.id} options={view.options} />}
          <Choice
            label="With its wire broken or its relay dead it shows"
            className="mt-2"
            value={signal.broken}
            placeholder="not said yet"
            options={SIGNALS_BROKEN}
            onChange={(signals) => edit({ do: 'wire', ids: [signal.id], wiring: { signals } })}
          />
          {cutsOff(signal) && (
            <Choice
              label="With that relay dead the section before it is"
              className="mt-2"
              value={signal.relay}
              placeholder="not said yet"
              options={RELAYS_DEAD}
              onChange={(relays) => edit({ do: 'wire', ids: [signal.id], wiring: { relays } })}
            />
          )}
          <Rename key={signal.name} name={signal.name} renaming={(name) => ({ do: 'rename', id: signal.id, name })} />
          <Certainty id={signal.id} certainty={signal.certainty} />
          <DeleteButton id={signal.id} what={signal.name} />
        </PanelSection>
      )}
      {view && view.routes.length > 0 && (
        <Fold title="What it waits for">
          {view.routes.map(({ to, needs, besides }) => (
            <div key={to} className="border-t border-hair py-1 first:border-0">
              {signal.name} is cleared to {to} when
              <ul className="ml-4 list-disc">
                {needs.map(({ says, pattern }) => (
                  <li key={says}>
                    {says} <span className="text-ink3">({pattern})</span>
                  </li>
                ))}
                {besides.map(({ says, pattern }) => (
                  <li key={says}>
                    or, whatever else is so, {says} <span className="text-ink3">({pattern})</span>
                  </li>
                ))}
              </ul>
            </div>
          ))}
        </Fold>
      )}
      {view && <ItsRules id={signal.id} name={signal.name} />}
    </>
  );
}
