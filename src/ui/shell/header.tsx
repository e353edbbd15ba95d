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
import { scaleOf } from '@/core/measure';
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
  const design = useWorkbench((s) => s.design);
  const { says, tone } = verdictLine({ proved, design, document });
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

/** What was done last is taken back, or done again. */
function UndoRedo() {
  const store = useWorkbenchStore();
  const last = useWorkbench((s) => s.past[s.past.length - 1]?.says);
  const next = useWorkbench((s) => s.future[0]?.says);
  return (
    <>
      <IconButton
        icon={Undo2}
        name={last === undefined ? 'Nothing to undo' : `Undo: ${last}`}
        title={`Undo: ${last} (Ctrl+Z)`}
        disabled={last === undefined}
        onClick={() => store.getState().undo()}
      />
      <IconButton
        icon={Redo2}
        name={next === undefined ? 'Nothing to redo' : `Redo: ${next}`}
        title={`Redo: ${next} (Ctrl+Shift+Z)`}
        disabled={next === undefined}
        onClick={() => store.getState().redo()}
      />
    </>
  );
}

/** The verdict, and whether all is saved. */
function Standing() {
  const saving = useWorkbench((s) => s.saving);
  const bad = saving === 'failed' || saving === 'conflict';
  const Icon = bad ? CircleAlert : saving === 'saved' ? CheckCircle2 : LoaderCircle;
  return (
    <>
      <Verdict short={bad} />
      <output
        className={`flex min-w-28 items-center @max-4xl:min-w-0 gap-1.5 whitespace-nowrap rounded-md px-2 py-1 ${bad ? 'bg-fail-tint text-fail' : 'text-ink2'}`}
      >
        <Icon size={14} aria-hidden className="shrink-0" />
        {SAYS[saving]}
      </output>
    </>
  );
}

export function Header() {
  const store = useWorkbenchStore();
  const name = useWorkbench((s) => s.document.name);
  const scale = useWorkbench((s) => scaleOf(s.document.scale).label);
  const power = useWorkbench((s) => s.document.power);
  const unit = useWorkbench((s) => s.document.shownUnit);
  const open = (window: WorkbenchState['window']) => store.getState().set({ window });
  const download = () =>
    saveFile(
      `${name.replaceAll('.', ' ')}.roblik.json`,
      writeDocumentText(store.getState().document),
      'application/json',
    );
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
            defaultValue={name}
            key={name}
            onBlur={(e) => {
              if (e.target.value.trim() && e.target.value !== name)
                store.getState().edit({ do: 'rename layout', name: e.target.value });
            }}
            onKeyDown={(e) => {
              if (e.key === 'Enter') e.currentTarget.blur();
            }}
          />
        </label>
        <span className="shrink-0 text-ink3 @max-4xl:hidden" title={`${scale}, ${power}`}>
          {scale}
          <span className="@max-[1400px]:sr-only"> · {power}</span>
        </span>
        <OneOf
          joined
          label="Unit of length"
          value={unit}
          options={UNITS}
          onChange={(next) => store.getState().edit({ do: 'show unit', unit: next })}
        />
        <div className="grow" />
        <UndoRedo />
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
        <Standing />
        <ThemeSwitch />
      </div>
    </header>
  );
}
