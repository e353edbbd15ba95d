'use client';
import { type FormEvent, useEffect, useState } from 'react';
import { cm, showLength, TENTH_UM_PER_CM, TENTH_UM_PER_MM, type TypedLength } from '@/core/measure';
import { asTyped, type Facing, type LeadsTo } from '@/core/survey';
import { Caution } from '@/ui/parts/caution';
import { Choice, type Option } from '@/ui/parts/choice';
import { Fold } from '@/ui/parts/fold';
import { LengthField } from '@/ui/parts/length-field';
import { OneOf } from '@/ui/parts/one-of';
import { Term } from '@/ui/parts/term';
import { TextField } from '@/ui/parts/text-field';
import { facingOptions } from '@/ui/reasoning/options';
import { PanelSection } from '@/ui/reasoning/panel';
import { Rename } from '@/ui/reasoning/selection-parts';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';

type What = 'gap' | 'mark' | 'signal' | 'detector' | 'turnout';
const WHATS: { value: What; says: string }[] = [
  { value: 'gap', says: 'Gap' },
  { value: 'mark', says: 'Block mark' },
  { value: 'signal', says: 'Signal' },
  { value: 'detector', says: 'Detector' },
  { value: 'turnout', says: 'Turnout' },
];
const HANDS: Option<'left' | 'right'>[] = [
  { value: 'right', says: 'right' },
  { value: 'left', says: 'left' },
];
const LEADS: Option<LeadsTo['kind']>[] = [
  { value: 'back', says: 'comes back' },
  { value: 'dead end', says: 'ends blind' },
];
/** From blade tips to the clearance point where nothing was measured; an assumption that the form lets people change. */
const ASSUMED_CLEARANCE = cm(20);
const THROW_MS = 1500;

/** Adding things by typing a distance, or by pointing at the track. */
export function AddPanel() {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  const pointed = useWorkbench((s) => s.pointed);
  const design = useWorkbench((s) => s.design);
  const [what, setWhat] = useState<What>('gap');
  const [line, setLine] = useState(document.referenceLine);
  const [at, setAt] = useState<TypedLength>();
  const [given, setGiven] = useState<TypedLength>();
  const [facing, setFacing] = useState<Facing>('up');
  const [added, setAdded] = useState('');

  useEffect(() => {
    if (!pointed) return;
    const step = document.shownUnit === 'cm' ? TENTH_UM_PER_MM * 5 : 15_875;
    const rounded = Math.round(pointed.at / step) * step;
    const value =
      document.shownUnit === 'cm' ? asTyped(rounded) : { tenthUm: rounded, typed: showLength(rounded, 'inch') };
    setLine(pointed.line);
    setAt(value);
    setGiven(value);
  }, [pointed, document.shownUnit]);
  const known = document.lines.some((l) => l.id === line) ? line : document.referenceLine;

  const done = (ok: boolean) => {
    setAdded(ok ? `Added. Ctrl+Z takes it back.` : '');
    if (ok) {
      setGiven(undefined);
      setAt(undefined);
      store.getState().set({ pointed: undefined });
    }
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!at || what === 'turnout') return;
    const { edit } = store.getState();
    if (what === 'signal') {
      const ends =
        design?.blocks.flatMap((b) => b.pieces.filter((p) => p.line === known).flatMap((p) => [p.from, p.to])) ?? [];
      const near = ends
        .filter((end) => Math.abs(end - at.tenthUm) <= 15 * TENTH_UM_PER_CM)
        .sort((a, b) => Math.abs(a - at.tenthUm) - Math.abs(b - at.tenthUm))[0];
      done(
        edit({
          do: 'add signal',
          line: known,
          at: near === undefined || near === at.tenthUm ? at : asTyped(near),
          governs: facing,
        }),
      );
    } else if (what === 'detector') done(edit({ do: 'add detector', line: known, at }));
    else done(edit({ do: 'add cut', kind: what, line: known, at }));
  };

  return (
    <>
      <p className="mb-3 text-ink2">
        Point at the track, or type a distance from the start of its line. Lengths are read as you say them: 96 cm, 38
        1/2", 3 ft 2 in, 40 scale ft.
      </p>
      <form onSubmit={submit} className="flex flex-col gap-2">
        <OneOf label="What to add" value={what} options={WHATS} onChange={setWhat} />
        <Choice
          label="On line"
          value={known}
          options={document.lines.map((l) => ({
            value: l.id,
            says: `${l.name}, ${showLength(l.length.tenthUm, document.shownUnit)}`,
          }))}
          onChange={setLine}
        />
        <LengthField
          label={what === 'turnout' ? 'Blade tips at' : 'At'}
          unit={document.shownUnit}
          scale={document.scale}
          value={given}
          onChange={setAt}
        />
        {(what === 'signal' || what === 'turnout') && (
          <Choice
            label={what === 'signal' ? 'Read by trains towards' : 'Its legs spread towards'}
            value={facing}
            options={facingOptions(document)}
            onChange={setFacing}
          />
        )}
        {what === 'turnout' ? (
          <TurnoutFields line={known} at={at} facing={facing} onDone={done} />
        ) : (
          <button type="submit" className="button button-main self-start" disabled={!at}>
            Add the {WHATS.find(({ value }) => value === what)!.says.toLowerCase()}
          </button>
        )}
        {what === 'detector' && <Caution work="wiring" />}
        <p aria-live="polite" className="text-ok">
          {added}
        </p>
      </form>
      <LineFields key={known} line={known} />
      <Standing />
    </>
  );
}

function TurnoutFields({
  line,
  at,
  facing,
  onDone,
}: {
  line: string;
  at: TypedLength | undefined;
  facing: Facing;
  onDone: (ok: boolean) => void;
}) {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  const [hand, setHand] = useState<'left' | 'right'>('right');
  const [kind, setKind] = useState<LeadsTo['kind']>('back');
  const [name, setName] = useState('');
  const [length, setLength] = useState<TypedLength>();
  const [back, setBack] = useState<TypedLength>();
  const [clearance, setClearance] = useState<TypedLength | undefined>(ASSUMED_CLEARANCE);
  const ready = at && length && clearance && (kind === 'dead end' || back);
  const add = () => {
    if (!at || !length || !clearance) return;
    const trackName = name.trim() || (kind === 'back' ? 'Loop' : 'Siding');
    const leads: LeadsTo =
      kind === 'back' ? { kind, name: trackName, length, at: back! } : { kind, name: trackName, length };
    const turnout = {
      line,
      at,
      facing,
      hand,
      straight: undefined,
      clearance,
      motor: 'hand' as const,
      throwMs: THROW_MS,
      spareContacts: 0,
      lies: 'straight' as const,
      throwsWith: undefined,
      certainty: 'tentative' as const,
    };
    onDone(store.getState().edit({ do: 'add turnout', turnout, leads }));
  };
  return (
    <>
      <div className="flex gap-2">
        <Choice label="Hand" className="grow" value={hand} options={HANDS} onChange={setHand} />
        <Choice label="Its track" className="grow" value={kind} options={LEADS} onChange={setKind} />
      </div>
      <TextField
        label="Name of that track"
        value={name}
        onChange={(e) => setName(e.target.value)}
        placeholder={kind === 'back' ? 'Loop' : 'Siding'}
      />
      <LengthField label="Length of that track" unit={document.shownUnit} scale={document.scale} onChange={setLength} />
      {kind === 'back' && (
        <LengthField
          label="Blade tips of the second turnout at"
          unit={document.shownUnit}
          scale={document.scale}
          onChange={setBack}
        />
      )}
      <LengthField
        label="From blade tips to the clearance point"
        unit={document.shownUnit}
        scale={document.scale}
        value={ASSUMED_CLEARANCE}
        onChange={setClearance}
      />
      <p className="text-ink3">20 cm is assumed until you measure it.</p>
      <button type="button" className="button button-main self-start" disabled={!ready} onClick={add}>
        Add the turnout
      </button>
    </>
  );
}

/** What stands on the lines, as a list: each entry leads to its thing. */
function Standing() {
  const document = useWorkbench((s) => s.document);
  const store = useWorkbenchStore();
  const cuts = document.features.filter((f) => f.kind === 'gap' || f.kind === 'mark');
  const lines = new Map(document.lines.map(({ id, name }, order) => [id, { name, order }]));
  const orderOf = (cut: { line: string }) => lines.get(cut.line)!.order;
  return (
    <PanelSection title={`${cuts.length} ${cuts.length === 1 ? 'boundary' : 'boundaries'} between blocks`}>
      {cuts.length === 0 && (
        <p className="text-ink2">
          None yet. Cut a <Term word="gap">gap</Term> where one block shall end and the next begin.
        </p>
      )}
      <ul className="max-h-56 overflow-y-auto">
        {[...cuts]
          .sort((a, b) => orderOf(a) - orderOf(b) || a.at.tenthUm - b.at.tenthUm)
          .map((cut) => (
            <li key={cut.id}>
              <button
                type="button"
                className="flex w-full cursor-pointer justify-between rounded-sm px-1 py-0.5 text-left hover:bg-accent-tint"
                onClick={() => store.getState().select(cut.id)}
              >
                <span>
                  {cut.kind === 'gap' ? 'Gap' : 'Mark'}, {lines.get(cut.line)!.name}
                </span>
                <span>{showLength(cut.at.tenthUm, document.shownUnit)}</span>
              </button>
            </li>
          ))}
      </ul>
    </PanelSection>
  );
}

/** A taped length that turns out wrong, and the name of the line. */
function LineFields({ line }: { line: string }) {
  const document = useWorkbench((s) => s.document);
  const store = useWorkbenchStore();
  const found = document.lines.find((l) => l.id === line);
  if (!found) return null;
  return (
    <Fold title={`Correct ${found.name}`}>
      <LengthField
        label="Its length by tape"
        unit={document.shownUnit}
        scale={document.scale}
        value={found.length}
        onCommit={(length) => store.getState().edit({ do: 'change line', id: line, length })}
      />
      <Rename name={found.name} onRename={(name) => store.getState().edit({ do: 'rename', id: line, name })} />
    </Fold>
  );
}
