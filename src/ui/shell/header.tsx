'use client';
import {
  CheckCircle2,
  CircleAlert,
  Download,
  History,
  Keyboard,
  LoaderCircle,
  Printer,
  Redo2,
  Search,
  Shield,
  ShieldAlert,
  ShieldCheck,
  Undo2,
} from 'lucide-react';
import type { ShownUnit } from '@/core/measure';
import { SCALES } from '@/core/measure';
import { writeDocumentText } from '@/core/survey';
import { Brand } from '@/ui/parts/brand';
import { IconButton } from '@/ui/parts/icon-button';
import { OneOf } from '@/ui/parts/one-of';
import { saveFile } from '@/ui/parts/save-file';
import { ThemeSwitch } from '@/ui/parts/theme-switch';
import { STAGES } from '@/ui/stages';
import type { Saving } from '@/ui/state/saving';
import { useWorkbench, useWorkbenchStore, type WorkbenchState } from '@/ui/state/store';
import { verdictLine } from '@/ui/state/verdict-line';

const SAYS: Record<Saving, string> = {
  opening: 'Opening …',
  saved: 'Saved',
  waiting: 'Not saved yet',
  saving: 'Saving …',
  failed: 'Not saved',
  conflict: 'Not saved: two versions',
};

const TONES = { ok: 'bg-ok-tint text-ok', fail: 'bg-fail-tint text-fail', plain: 'text-ink3' } as const;

const MARKS = { ok: ShieldCheck, fail: ShieldAlert, plain: Shield } as const;

/** The verdict on the whole layout; leads to the proof. Short while something more urgent has to be said beside it. */
function Verdict({ short }: { short: boolean }) {
  const store = useWorkbenchStore();
  const proved = useWorkbench((s) => s.proved);
  const document = useWorkbench((s) => s.document);
  const { says, tone } = verdictLine(proved, document);
  const Icon = MARKS[tone];
  return (
    <button
      type="button"
      aria-label={`Proof: ${says}`}
      title={says}
      className={`flex shrink-0 cursor-pointer items-center gap-1.5 whitespace-nowrap rounded-md px-2 py-1 @max-4xl:px-1 ${TONES[tone]}`}
      onClick={() => store.getState().set({ stage: STAGES.find(({ proves }) => proves)! })}
    >
      <Icon size={14} aria-hidden />
      <span className={short ? 'sr-only' : '@max-6xl:sr-only'}>{says}</span>
    </button>
  );
}

const UNITS: { value: ShownUnit; says: string }[] = [
  { value: 'cm', says: 'cm' },
  { value: 'inch', says: 'inch' },
];

export function Header() {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  const saving = useWorkbench((s) => s.saving);
  const last = useWorkbench((s) => s.past[s.past.length - 1]);
  const next = useWorkbench((s) => s.future[0]);
  const open = (window: WorkbenchState['window']) => store.getState().set({ window });
  const bad = saving === 'failed' || saving === 'conflict';
  const download = () =>
    saveFile(`${document.name.replaceAll('.', ' ')}.roblik.json`, writeDocumentText(document), 'application/json');
  return (
    <header className="@container isolate shrink-0 border-b border-line">
      <div className="flex h-[45px] items-center gap-3 px-4 @max-4xl:gap-2">
        <div className="w-[126px] @max-4xl:w-auto">
          <Brand />
        </div>
        <label className="flex min-w-24 shrink items-center gap-2">
          <span className="sr-only">Name of the layout</span>
          <input
            className="w-52 min-w-24 shrink rounded-md border border-transparent bg-transparent px-1.5 py-1 text-[0.95rem] font-semibold hover:border-edge focus:border-edge focus:bg-raised"
            defaultValue={document.name}
            key={document.name}
            onBlur={(e) => {
              if (e.target.value.trim() && e.target.value !== document.name)
                store.getState().edit({ do: 'rename layout', name: e.target.value });
            }}
            onKeyDown={(e) => {
              if (e.key === 'Enter') e.currentTarget.blur();
            }}
          />
        </label>
        <span
          className="shrink-0 text-ink3 @max-4xl:hidden"
          title={`${SCALES[document.scale].label}, ${document.power}`}
        >
          {SCALES[document.scale].label}
          <span className="@max-[1400px]:sr-only"> · {document.power}</span>
        </span>
        <OneOf
          joined
          label="Unit of length"
          value={document.shownUnit}
          options={UNITS}
          onChange={(unit) => store.getState().edit({ do: 'show unit', unit })}
        />
        <div className="grow" />
        <IconButton
          icon={Undo2}
          name={last ? `Undo: ${last.says}` : 'Nothing to undo'}
          title={`Undo: ${last?.says} (Ctrl+Z)`}
          disabled={!last}
          onClick={() => store.getState().undo()}
        />
        <IconButton
          icon={Redo2}
          name={next ? `Redo: ${next.says}` : 'Nothing to redo'}
          title={`Redo: ${next?.says} (Ctrl+Shift+Z)`}
          disabled={!next}
          onClick={() => store.getState().redo()}
        />
        <IconButton icon={Search} name="Find a thing or a command" title="Find (Ctrl+K)" onClick={() => open('find')} />
        <IconButton
          icon={Printer}
          name="Print the sheet, or save it as a drawing"
          title="Print, or save as a drawing"
          onClick={() => open('export')}
        />
        <IconButton icon={Keyboard} name="Keys" title="Keys (?)" onClick={() => open('keys')} />
        <button type="button" className="button" onClick={() => open('history')}>
          <History size={14} aria-hidden /> <span className="@max-6xl:sr-only">History</span>
        </button>
        <button type="button" className="button" onClick={download}>
          <Download size={14} aria-hidden /> <span className="@max-6xl:sr-only">Export</span>
        </button>
        <Verdict short={bad} />
        <output
          className={`flex min-w-28 items-center @max-4xl:min-w-0 gap-1.5 whitespace-nowrap rounded-md px-2 py-1 ${bad ? 'bg-fail-tint text-fail' : 'text-ink2'}`}
        >
          {bad ? (
            <CircleAlert size={14} aria-hidden className="shrink-0" />
          ) : saving === 'saved' ? (
            <CheckCircle2 size={14} aria-hidden className="shrink-0" />
          ) : (
            <LoaderCircle size={14} aria-hidden className="shrink-0" />
          )}
          {SAYS[saving]}
        </output>
        <ThemeSwitch />
      </div>
    </header>
  );
}
