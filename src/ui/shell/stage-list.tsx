'use client';
import { memo, type ReactNode, useDeferredValue } from 'react';
import { isOpen, stageOfFinding } from '@/core/findings';
import { SENSOR_KIND_IDS, sensorKind } from '@/core/kinds';
import { chosenOutputs } from '@/core/patterns';
import { type LayoutDocument, LIST_NAMES, signalsOf, systemsFor, thingsOf } from '@/core/survey';
import { outputKey } from '@/ui/sheet/output-marks';
import { AspectLamps } from '@/ui/sheet/signal-head';
import { STAGES } from '@/ui/stages';
import { findingsNow } from '@/ui/state/findings-now';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';

/** The stages of the work, each with what is open in it. */
export function StageList() {
  const store = useWorkbenchStore();
  const stage = useWorkbench((s) => s.stage);
  const findings = useWorkbench(findingsNow);
  return (
    <nav aria-label="Stages" className="flex w-[158px] shrink-0 flex-col border-r border-line">
      <ol className="py-2">
        {STAGES.map((kind) => {
          const { id, name } = kind;
          const open = findings.filter((f) => stageOfFinding(f.kind) === kind.id && isOpen(f));
          const unsafe = open.some((f) => f.severity === 'unsafe');
          const here = stage.id === id;
          return (
            <li key={id}>
              <button
                type="button"
                aria-current={here ? 'step' : undefined}
                className={`flex h-[29px] w-full cursor-pointer items-center gap-3 border-y pl-4 pr-3 text-left ${here ? 'border-line bg-sheet font-semibold text-accent' : 'border-transparent hover:bg-accent-tint'}`}
                onClick={() => store.getState().set({ stage: kind })}
              >
                <svg width="16" height="20" viewBox="0 0 16 20" aria-hidden="true">
                  <path d="M8 0V20" stroke="var(--ink2)" strokeWidth="1.6" />
                  {here ? (
                    <circle cx="8" cy="10" r="5" fill="var(--accent)" stroke="var(--sheet)" strokeWidth="2" />
                  ) : (
                    <path d="M3 10H13" stroke="var(--ink2)" strokeWidth="1.6" />
                  )}
                </svg>
                <span className="grow">{name}</span>
                {open.length > 0 && (
                  <span
                    title={`${open.length} findings`}
                    className={`rounded-full px-1.5 text-[0.75rem] font-semibold ${unsafe ? 'bg-fail-tint text-fail' : 'bg-warn-tint text-warn'}`}
                  >
                    {open.length}
                  </span>
                )}
              </button>
            </li>
          );
        })}
      </ol>
      <div className="grow" />
      <Key />
    </nav>
  );
}

function Key() {
  return <KeyOf document={useDeferredValue(useWorkbench((s) => s.document))} />;
}

const hasIdeas = (document: LayoutDocument): boolean =>
  LIST_NAMES.some((list) => thingsOf(document, list).some(({ certainty }) => certainty === 'tentative'));

const KeyOf = memo(function KeyOf({ document }: { document: LayoutDocument }) {
  const used = new Set(signalsOf(document).map(({ system }) => system));
  const systems = systemsFor(document)
    .filter(({ id }, i) => used.has(id) || (used.size === 0 && i === 0))
    .map(({ system }) => system);
  const rows: [string, ReactNode][] = [
    ['Watched track', <path key="a" d="M0 8H30" stroke="var(--accent-tint)" strokeWidth="12" />],
    ['Gap in the rail', <path key="b" d="M0 8H12M18 8H30M15 1V15" stroke="var(--ink)" strokeWidth="1.8" />],
    ['Block mark', <path key="c" d="M0 8H30M15 1V15" stroke="var(--ink)" strokeWidth="1.8" strokeDasharray="3 2.5" />],
    ...(hasIdeas(document)
      ? [['Only an idea', <path key="i" d="M15 1V15" stroke="var(--ink3)" strokeWidth="1.2" />] as [string, ReactNode]]
      : []),
    ['Leg not set', <path key="d" d="M0 8H8M15 8H30" stroke="var(--ink)" strokeWidth="2.4" />],
    [
      'Locked turnout',
      <g key="e">
        <rect x="9" y="2" width="12" height="12" rx="2" fill="none" stroke="var(--ink)" />
        <circle cx="15" cy="8" r="3" fill="var(--ink)" />
      </g>,
    ],
    ...[...chosenOutputs(document)].flatMap(outputKey),
    ...SENSOR_KIND_IDS.filter(
      (id) => document.sensors.some(({ kind }) => kind === id) && sensorKind(id).mark !== '',
    ).map((id): [string, ReactNode] => [
      sensorKind(id).title,
      <g key={id} transform="translate(15 8)" fill="none" stroke="var(--ink2)">
        <rect x="-8" y="-7" width="16" height="14" rx="3" />
        <path d={sensorKind(id).mark} strokeWidth="1.5" />
      </g>,
    ]),
  ];
  return (
    <section className="border-t border-line px-4 py-3" aria-label="Key">
      <h2 className="mb-1.5 font-semibold">Key</h2>
      <ul>
        {rows.map(([name, picture]) => (
          <li key={name} className="flex items-center gap-2 py-0.5">
            <svg width="30" height="16" aria-hidden="true">
              {picture}
            </svg>
            {name}
          </li>
        ))}
        {systems.flatMap((system) => [
          ...(systems.length > 1
            ? [
                <li key={system.name} className="pt-1 text-ink2">
                  {system.name}
                </li>,
              ]
            : []),
          ...system.aspects.map((aspect) => (
            <li
              key={`${system.name} ${aspect.id}`}
              className="flex items-center gap-2 py-0.5"
              title={`${aspect.means} (${system.name})`}
            >
              <AspectLamps system={system} aspect={aspect} width={30} />
              {aspect.id}
            </li>
          )),
        ])}
      </ul>
    </section>
  );
});
