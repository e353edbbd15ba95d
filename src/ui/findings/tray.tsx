'use client';
import { useRef } from 'react';
import type { TriedFixes } from '@/core/design';
import { type Finding, hazardOfFinding } from '@/core/findings';
import type { Edit } from '@/core/survey';
import { findingsNow } from '@/ui/state/findings-now';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { isProofOf } from '@/ui/state/verdict-line';
import { AcceptFinding } from './accept-finding';
import { sayBrought } from './say-brought';
import { useTriedFixes } from './use-tried-fixes';

const LABEL = { unsafe: 'unsafe', check: 'to check', note: 'note' } as const;
const TONE = { unsafe: 'bg-fail-tint text-fail', check: 'bg-warn-tint text-warn', note: 'bg-hair text-ink2' } as const;

const TEXT = { unsafe: 'font-semibold text-fail', check: 'font-semibold text-warn', note: 'text-ink2' } as const;

/** The line at the foot: how many findings, the first in words, and the list on request. */
export function Tray() {
  const store = useWorkbenchStore();
  const findings = useWorkbench(findingsNow);
  const stale = useWorkbench((s) => s.design?.document !== s.document);
  const open = useWorkbench((s) => s.trayOpen);
  const problem = useWorkbench((s) => s.problem);
  const counts = (['unsafe', 'check', 'note'] as const).map((severity) => ({
    severity,
    count: findings.filter((f) => f.severity === severity && f.accepted === undefined).length,
  }));
  const accepted = findings.filter((f) => f.accepted !== undefined).length;
  const first = findings[0];
  const empty = useWorkbench((s) => s.document.lines.length === 0);
  return (
    <footer className="shrink-0 border-t border-line bg-paper">
      {open && (
        <ul className="max-h-64 overflow-y-auto border-b border-line bg-sheet" aria-label="Findings">
          {findings.length === 0 && (
            <li className="px-4 py-2 text-ink2">Nothing was found. {empty ? 'There is no track yet.' : ''}</li>
          )}
          {findings.map((finding) => (
            <FindingRow key={finding.id} finding={finding} />
          ))}
        </ul>
      )}
      <div className="flex h-[34px] items-center gap-4 px-4">
        <button
          type="button"
          className="shrink-0 cursor-pointer rounded-sm font-semibold"
          aria-expanded={open}
          onClick={() => store.getState().set({ trayOpen: !open })}
        >
          {stale ? 'Checking …' : findings.length === 1 ? '1 finding' : `${findings.length} findings`}
        </button>
        {counts
          .filter((c) => c.count > 0)
          .map(({ severity, count }) => (
            <span key={severity} className={`shrink-0 ${TEXT[severity]}`}>
              {count} {severity === 'note' && count > 1 ? 'notes' : LABEL[severity]}
            </span>
          ))}
        {accepted > 0 && <span className="shrink-0 text-ink2">{accepted} accepted</span>}
        <span className="h-4 border-l border-line" />
        {problem ? (
          <span role="alert" className="truncate font-semibold text-fail">
            {problem}
          </span>
        ) : (
          <span className="truncate text-ink2">
            {first ? first.says : 'Every finding is listed here as soon as there is one.'}
          </span>
        )}
        <span className="grow" />
        <button type="button" className="button py-0.5" onClick={() => store.getState().set({ trayOpen: !open })}>
          {open ? 'Close' : 'Open'}
        </button>
      </div>
    </footer>
  );
}

function FindingRow({ finding }: { finding: Finding<Edit> }) {
  const store = useWorkbenchStore();
  const proof = useWorkbench((s) => {
    const hazard = hazardOfFinding(finding.kind);
    if (!hazard || !s.proved || !isProofOf(s)) return undefined;
    const verdict = s.proved.report.verdicts.find(({ property }) => property === hazard);
    if (verdict?.result === 'holds')
      return `Prove looked at every state of the trains as they start now, at ${s.proved.at}, and came to no such mishap; other trains, or another start, may.`;
    return verdict?.result === 'fails' ? 'Prove found how such a mishap happens.' : undefined;
  });
  const row = useRef<HTMLLIElement>(null);
  const tried = useTriedFixes(finding, row);
  return (
    <li ref={row} className="flex items-start gap-3 border-b border-hair px-4 py-2">
      <span
        className={`mt-px shrink-0 rounded-full px-2 text-[0.75rem] font-semibold ${TONE[finding.accepted === undefined ? finding.severity : 'note']}`}
      >
        {finding.accepted === undefined ? LABEL[finding.severity] : `${LABEL[finding.severity]}, accepted`}
      </span>
      <div className="grow">
        <button
          type="button"
          className="cursor-pointer text-left font-medium"
          onClick={() => store.getState().select(finding.subject)}
        >
          {finding.says}
        </button>
        <p className="text-ink2">
          {finding.figures.map((f) => `${f.name}: ${f.value}`).join(' · ')}
          {finding.figures.length > 0 && finding.advice ? '. ' : ''}
          {finding.advice}
        </p>
        <AcceptFinding finding={finding} />
        {proof && <p className="text-ink2">{proof}</p>}
        {tried?.withheld.map(({ says, brings }) => (
          <p key={says} className="text-ink2">
            Not offered: {says}. It mends this, and brings something as grave: {sayBrought(brings)}
          </p>
        ))}
        {tried && finding.fixes.length > 0 && tried.offered.length + tried.withheld.length === 0 && (
          <p className="text-ink2">Nothing that was tried mends it by itself.</p>
        )}
      </div>
      <Fixes tried={tried} />
    </li>
  );
}

/** What mends a finding, at a click, and what else there is to say then. */
function Fixes({ tried }: { tried: TriedFixes | undefined }) {
  const store = useWorkbenchStore();
  if (!tried) return <span className="shrink-0 text-ink3">Trying what mends it …</span>;
  return (
    <div className="flex max-w-[45%] shrink-0 flex-col items-stretch gap-1">
      {tried.offered.map(({ says, edit, brings }) => (
        <div key={says}>
          <button type="button" className="button w-full" onClick={() => store.getState().edit(edit)}>
            {says}
          </button>
          {brings.length > 0 && <p className="text-[0.75rem] text-ink2">Then: {sayBrought(brings)}</p>}
        </div>
      ))}
    </div>
  );
}
