'use client';
import { ArrowDown, ArrowUp, Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { type AspectSystem, LAMP_COLOURS, LAMP_SHAPES } from '@/core/kinds';
import { type OwnAspectSystem, readSpeedLimit, saySpeedLimit } from '@/core/survey';
import { CheckBox } from '@/ui/parts/check-box';
import { Choice } from '@/ui/parts/choice';
import { CommitText } from '@/ui/parts/commit-text';
import { Fold } from '@/ui/parts/fold';
import { IconButton } from '@/ui/parts/icon-button';
import { HeadPicture } from '@/ui/sheet/head-picture';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';

type OwnAspect = OwnAspectSystem['aspects'][number];

const STOPS = [
  { value: '0', says: 'before this signal' },
  { value: '1', says: 'before the next' },
  { value: '2', says: 'before the second from here' },
  { value: 'none', says: 'before none' },
] as const;
const WAYS = [
  { value: 'all', says: 'all routes' },
  { value: 'straight', says: 'routes straight on' },
  { value: 'aside', says: 'routes that diverge' },
] as const;
const HEADS = ['top', 'second', 'third', 'fourth'];

/** A system of the layout’s own, with everything of it to be changed. Each change is a step that can be undone. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one screen in the order in which it is read; its fields share one state.
export function OwnSystem({ own, system }: { own: OwnAspectSystem; system: AspectSystem }) {
  const store = useWorkbenchStore();
  /** What stands in the way of the last change that was no text. */
  const [problem, setProblem] = useState<string>();
  const put = (part: Partial<OwnAspectSystem>): string | undefined => {
    const { id, ...rest } = { ...own, ...part };
    return store.getState().attempt({ do: 'put aspect system', id, system: rest });
  };
  const change = (part: Partial<OwnAspectSystem>) => setProblem(put(part));
  const putAspect = (at: number, part: Partial<OwnAspect>) =>
    put({ aspects: own.aspects.map((aspect, i) => (i === at ? { ...aspect, ...part } : aspect)) });
  const changeAspect = (at: number, part: Partial<OwnAspect>) => setProblem(putAspect(at, part));
  const move = (at: number, by: number) => {
    const aspects = [...own.aspects];
    aspects.splice(at + by, 0, ...aspects.splice(at, 1));
    change({ aspects });
  };
  const withoutLamp = (lamp: number) => {
    const rest = (list: number[]) => list.filter((i) => i !== lamp).map((i) => (i > lamp ? i - 1 : i));
    change({
      lamps: own.lamps.filter((_, i) => i !== lamp),
      aspects: own.aspects.map((a) => ({ ...a, lit: rest(a.lit), flashing: a.flashing && rest(a.flashing) })),
    });
  };
  const fresh = Array.from({ length: 20 }, (_, n) => `aspect ${n + 1}`).find(
    (name) => !own.aspects.some(({ id }) => id === name),
  )!;
  return (
    <>
      {problem && (
        <p role="alert" className="mb-2 font-semibold text-[var(--danger)]">
          {problem}
        </p>
      )}
      <CommitText label="Name of the system" value={own.name} onCommit={(name) => put({ name })} />
      <Fold title={`Lamps and arms: ${own.lamps.length}`}>
        <ul className="flex flex-col gap-2">
          {own.lamps.map((lamp, i) => (
            <li key={i} className="flex flex-wrap items-end gap-2">
              <Choice
                label={`Lamp ${i + 1}`}
                className="w-32"
                value={lamp.shape}
                options={LAMP_SHAPES.map((value) => ({ value, says: value }))}
                onChange={(shape) => change({ lamps: own.lamps.map((l, k) => (k === i ? { ...l, shape } : l)) })}
              />
              <Choice
                label="Colour"
                className="w-32"
                value={lamp.colour}
                options={LAMP_COLOURS.map((value) => ({ value, says: COLOURS[value] }))}
                onChange={(colour) => change({ lamps: own.lamps.map((l, k) => (k === i ? { ...l, colour } : l)) })}
              />
              <Choice
                label="In which head"
                className="w-32"
                value={String(lamp.head ?? 0)}
                options={HEADS.map((says, head) => ({ value: String(head), says }))}
                onChange={(head) =>
                  change({ lamps: own.lamps.map((l, k) => (k === i ? { ...l, head: Number(head) } : l)) })
                }
              />
              {own.lamps.length > 1 && (
                <IconButton icon={Trash2} name={`Delete lamp ${i + 1}`} onClick={() => withoutLamp(i)} />
              )}
            </li>
          ))}
        </ul>
        <button
          type="button"
          className="button mt-2"
          onClick={() => change({ lamps: [...own.lamps, { shape: 'circle', colour: 'white', head: 0 }] })}
        >
          <Plus size={15} aria-hidden /> Add a lamp
        </button>
      </Fold>
      <p className="mt-3 text-ink2">From the most restrictive to the least. The first is the one for stop.</p>
      <ol aria-label={`Aspects of ${own.name}`}>
        {own.aspects.map((aspect, i) => (
          <li key={`${i} ${aspect.id}`} className="flex gap-4 border-t border-hair py-3">
            <HeadPicture system={system} aspect={system.aspects[i]!} />
            <div className="min-w-0 grow">
              <AspectFields
                aspect={aspect}
                own={own}
                onPut={(part) => putAspect(i, part)}
                onChange={(part) => changeAspect(i, part)}
              />
            </div>
            <div className="flex flex-col gap-1">
              {i > 1 && (
                <IconButton icon={ArrowUp} name={`Make ${aspect.id} more restrictive`} onClick={() => move(i, -1)} />
              )}
              {i > 0 && i < own.aspects.length - 1 && (
                <IconButton icon={ArrowDown} name={`Make ${aspect.id} less restrictive`} onClick={() => move(i, 1)} />
              )}
              {i > 0 && own.aspects.length > 2 && (
                <IconButton
                  icon={Trash2}
                  name={`Delete ${aspect.id}`}
                  onClick={() => change({ aspects: own.aspects.filter((_, k) => k !== i) })}
                />
              )}
            </div>
          </li>
        ))}
      </ol>
      <div className="flex flex-wrap gap-2 border-t border-hair pt-3">
        <button
          type="button"
          className="button"
          onClick={() =>
            change({
              aspects: [
                ...own.aspects,
                {
                  ...own.aspects.at(-1)!,
                  id: fresh,
                  means: 'Say what it means.',
                },
              ],
            })
          }
        >
          <Plus size={15} aria-hidden /> Add an aspect
        </button>
        <button type="button" className="button" onClick={() => store.getState().edit({ do: 'delete', id: own.id })}>
          Delete {own.name}
        </button>
      </div>
    </>
  );
}

const COLOURS: Record<(typeof LAMP_COLOURS)[number], string> = {
  stop: 'red',
  caution: 'yellow',
  clear: 'green',
  white: 'white',
};

function AspectFields({
  aspect,
  own,
  onPut,
  onChange,
}: {
  aspect: OwnAspect;
  own: OwnAspectSystem;
  /** What stands in the way is told beside the field. */
  onPut: (part: Partial<OwnAspect>) => string | undefined;
  onChange: (part: Partial<OwnAspect>) => void;
}) {
  const unit = useWorkbench((s) => s.document.shownUnit);
  const scale = useWorkbench((s) => s.document.scale);
  const isStop = own.aspects[0] === aspect;
  const light = (lamp: number, on: boolean) => {
    const lit = on ? [...aspect.lit, lamp].sort((a, b) => a - b) : aspect.lit.filter((i) => i !== lamp);
    onChange({ lit, flashing: aspect.flashing?.filter((i) => lit.includes(i)) });
  };
  const flash = (lamp: number, on: boolean) =>
    onChange({ flashing: on ? [...(aspect.flashing ?? []), lamp] : aspect.flashing?.filter((i) => i !== lamp) });
  const limit = (field: 'speed' | 'speedAtNext') => (text: string) => {
    const read = readSpeedLimit(text, unit, scale);
    return read.ok ? onPut({ [field]: read.limit && { share: read.limit.share, kmh: read.limit.kmh } }) : read.problem;
  };
  return (
    <div className="grid grid-cols-2 gap-x-3 gap-y-2">
      <CommitText label="Name" value={aspect.id} onCommit={(id) => onPut({ id })} />
      <CommitText
        label="Whom the crew calls, if anybody"
        value={aspect.calls ?? ''}
        onCommit={(calls) => onPut({ calls: calls || undefined })}
      />
      <div className="col-span-2">
        <CommitText label="What it means, in a sentence" value={aspect.means} onCommit={(means) => onPut({ means })} />
      </div>
      {!isStop && (
        <>
          <Choice
            label="Ready to stop"
            value={aspect.stopsIn === undefined ? 'none' : String(aspect.stopsIn)}
            options={STOPS.filter(({ value }) => value !== '0')}
            onChange={(value) => onChange({ stopsIn: value === 'none' ? undefined : Number(value) })}
          />
          <Choice
            label="Shown for"
            value={aspect.leads ?? 'all'}
            options={WAYS}
            onChange={(value) => onChange({ leads: value === 'all' ? undefined : value })}
          />
          <CommitText
            label="Speed: half, 50 %, 48 km/h"
            value={saySpeedLimit(aspect.speed, unit)}
            onCommit={limit('speed')}
          />
          <CommitText
            label="Speed past the next signal"
            value={saySpeedLimit(aspect.speedAtNext, unit)}
            onCommit={limit('speedAtNext')}
          />
        </>
      )}
      {!isStop && (
        <div className="col-span-2">
          <CheckBox
            checked={aspect.onSight ?? false}
            onChange={(onSight) => onChange({ onSight: onSight || undefined })}
          >
            on sight: it says nothing of what stands on the route
          </CheckBox>
        </div>
      )}
      <fieldset className="col-span-2 flex flex-wrap gap-x-4 gap-y-1">
        <legend className="text-ink2">Lit</legend>
        {own.lamps.map((lamp, i) => (
          <span key={i} className="flex items-center gap-2">
            <CheckBox checked={aspect.lit.includes(i)} onChange={(on) => light(i, on)}>
              {i + 1}: {COLOURS[lamp.colour]} {lamp.shape}
            </CheckBox>
            {aspect.lit.includes(i) && (
              <CheckBox checked={aspect.flashing?.includes(i) ?? false} onChange={(on) => flash(i, on)}>
                flashes
              </CheckBox>
            )}
          </span>
        ))}
      </fieldset>
    </div>
  );
}
