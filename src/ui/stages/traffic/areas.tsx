'use client';
import { useState } from 'react';
import { ADMISSION_IDS, ADMISSIONS, EMPTY_POST_IDS, EMPTY_POSTS } from '@/core/kinds';
import { showLength, type TypedLength } from '@/core/measure';
import type { Area } from '@/core/survey';
import { Choice } from '@/ui/parts/choice';
import { CommitText } from '@/ui/parts/commit-text';
import { Fold } from '@/ui/parts/fold';
import { LengthField } from '@/ui/parts/length-field';
import { TextField } from '@/ui/parts/text-field';
import { NumberField } from '@/ui/reasoning/number-field';
import { PanelSection } from '@/ui/reasoning/panel';
import { useKept } from '@/ui/state/kept';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';

const MOST_PEOPLE = 50;

/** The parts of the layout that work by themselves: what comes in, who lets it in, and what is left out on purpose. */
export function Areas() {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  const { areas, people } = document;
  const undecided = areas.filter(({ admits }) => admits === undefined).length;
  const point = (area?: Area) =>
    store.getState().set({
      pointed: area && { line: area.line, at: area.from.tenthUm, to: area.to.tenthUm, says: area.name },
    });
  return (
    <PanelSection title="Areas">
      <p className="text-ink2">
        {areas.length === 0
          ? 'Say which parts of the layout work by themselves: a yard, a junction, a branch. For each you decide how trains come in, and what you leave out on purpose.'
          : undecided === 0
            ? `For each of ${areas.length} areas it is decided how trains come in.`
            : `For ${undecided} of ${areas.length} areas nobody has decided yet how trains come in.`}
      </p>
      <ul>
        {areas.map((area) => (
          <li
            key={area.id}
            className="border-b border-hair"
            onPointerEnter={() => point(area)}
            onPointerLeave={() => point()}
          >
            <Fold
              title={
                <span>
                  {area.name}
                  <span className="font-normal text-ink3">
                    {': '}
                    {area.admits ? ADMISSIONS[area.admits].says : 'not decided'}
                  </span>
                </span>
              }
            >
              <AreaFields area={area} />
            </Fold>
          </li>
        ))}
      </ul>
      <NewArea />
      <div className="mt-2">
        <NumberField
          key={people}
          label="People who run it at once"
          value={people ?? 1}
          least={1}
          most={MOST_PEOPLE}
          unit="people"
          digits={0}
          onCommit={(next) => store.getState().edit({ do: 'run by', people: Math.round(next) })}
        />
        <Posts />
      </div>
    </PanelSection>
  );
}

/** Whether there are enough people for the posts, and what holds where there are not. */
function Posts() {
  const { areas, people = 1 } = useWorkbench((s) => s.document);
  const posts = areas.filter(({ admits }) => admits && ADMISSIONS[admits].post);
  if (posts.length === 0) return null;
  const count = new Set(posts.map(({ name }) => name)).size;
  const empty = Math.max(0, count - people);
  const open = posts.filter(({ whenEmpty }) => whenEmpty === undefined);
  return (
    <p className={open.length > 0 ? 'mt-1 text-warn' : 'mt-1 text-ink2'}>
      {count === 1 ? 'There is 1 post' : `There are ${count} posts`}
      {empty > 0 ? `, of which ${empty} ${empty === 1 ? 'is' : 'are'} empty with ${people} at the layout.` : '.'}
      {open.length > 0 &&
        ` Choose what ${open.map(({ name }) => name).join(', ')} ${open.length === 1 ? 'shows' : 'show'} while nobody is there.`}
      {count < posts.length && ' Areas of one name are one area on several lines, with one post.'}
    </p>
  );
}

function AreaFields({ area }: { area: Area }) {
  const store = useWorkbenchStore();
  const unit = useWorkbench((s) => s.document.shownUnit);
  const scale = useWorkbench((s) => s.document.scale);
  const { id, admits } = area;
  const change = (part: Partial<Omit<Area, 'id'>>) => store.getState().edit({ do: 'change area', id, change: part });
  const attempt = (part: Partial<Omit<Area, 'id'>>) =>
    store.getState().attempt({ do: 'change area', id, change: part });
  return (
    <div className="flex flex-col gap-2 pb-3">
      <Choice
        label="Trains come in"
        value={admits}
        placeholder="not decided"
        options={ADMISSION_IDS.map((value) => ({ value, says: ADMISSIONS[value].says }))}
        onChange={(next) => change({ admits: next })}
      />
      {admits && <p className="text-ink3">{ADMISSIONS[admits].means}</p>}
      {admits && ADMISSIONS[admits].post && (
        <Choice
          label="With nobody at the post its signals show"
          value={area.whenEmpty}
          placeholder="not decided"
          options={EMPTY_POST_IDS.map((value) => ({ value, says: EMPTY_POSTS[value] }))}
          onChange={(whenEmpty) => change({ whenEmpty })}
        />
      )}
      <CommitText
        label="What may come in"
        value={area.comesIn ?? ''}
        onCommit={(text) => attempt({ comesIn: text || undefined })}
      />
      <CommitText
        label="Left out on purpose, and why"
        value={area.leavesOut ?? ''}
        onCommit={(text) => attempt({ leavesOut: text || undefined })}
      />
      <CommitText label="What it is for" value={area.purpose} onCommit={(purpose) => attempt({ purpose })} />
      <NumberField
        key={area.speedKmh}
        label="Fastest in it, km/h at full size (0: as elsewhere)"
        value={area.speedKmh ?? 0}
        least={0}
        most={1000}
        unit="km/h"
        digits={0}
        onCommit={(speed) => change({ speedKmh: speed > 0 ? speed : undefined })}
      />
      <div className="grid grid-cols-2 gap-2">
        <LengthField label="From" unit={unit} scale={scale} value={area.from} onCommit={(from) => change({ from })} />
        <LengthField label="To" unit={unit} scale={scale} value={area.to} onCommit={(to) => change({ to })} />
      </div>
      <CommitText label="Name" value={area.name} onCommit={(name) => attempt({ name })} />
      <button type="button" className="button self-start" onClick={() => store.getState().edit({ do: 'delete', id })}>
        Delete {area.name}
      </button>
    </div>
  );
}

/** A name, and from where to where on which line. */
function NewArea() {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  const [name, setName] = useKept('area name', '');
  const [on, setOn] = useState<string>();
  const [from, setFrom] = useKept<TypedLength | null>('area from', null);
  const [to, setTo] = useKept<TypedLength | null>('area to', null);
  const [problem, setProblem] = useState<string>();
  const line =
    document.lines.find(({ id }) => id === on) ?? document.lines.find(({ id }) => id === document.referenceLine);
  if (!line) return null;
  const add = () => {
    if (!name.trim()) return setProblem('An area needs a name.');
    if (!from || !to) return setProblem('Say from where to where: 120 and 300.');
    if (to.tenthUm <= from.tenthUm) return setProblem('It ends before it begins. Swap the two distances.');
    if (to.tenthUm > line.length.tenthUm)
      return setProblem(`${line.name} is only ${showLength(line.length.tenthUm, document.shownUnit)} long.`);
    const wrong = store
      .getState()
      .attempt({ do: 'add area', area: { name, line: line.id, from, to, purpose: '' } as Omit<Area, 'id'> });
    setProblem(wrong);
    if (wrong !== undefined) return;
    setName('');
    setFrom(null);
    setTo(null);
  };
  return (
    <Fold title="Add an area">
      <form
        className="flex flex-col gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          add();
        }}
      >
        <TextField label="Name of the area" value={name} onChange={(e) => setName(e.target.value)} />
        <Choice
          label="On the line"
          value={line.id}
          options={document.lines.map(({ id, name: called }) => ({ value: id, says: called }))}
          onChange={setOn}
        />
        <div className="grid grid-cols-2 gap-2">
          <LengthField
            label="It begins at"
            unit={document.shownUnit}
            scale={document.scale}
            value={from}
            onChange={setFrom}
          />
          <LengthField
            label="It ends at"
            unit={document.shownUnit}
            scale={document.scale}
            value={to}
            onChange={setTo}
          />
        </div>
        {problem && (
          <p role="alert" className="text-fail">
            {problem}
          </p>
        )}
        <button type="submit" className="button button-main self-start">
          Add the area
        </button>
      </form>
    </Fold>
  );
}
