'use client';
import { useCallback, useEffect, useState } from 'react';
import type { RulesAbout, RulesRead } from '@/core/design';
import { names } from '@/core/patterns';
import { Choice } from '@/ui/parts/choice';
import { OneOf } from '@/ui/parts/one-of';
import { Window } from '@/ui/parts/window';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { GatesPicture } from './gates-picture';
import type { RuleEditor } from './rule-editor';

type Form = 'text' | 'words' | 'gates';
const FORMS = [
  { value: 'text', says: 'As text' },
  { value: 'words', says: 'In words' },
  { value: 'gates', says: 'As gates' },
] as const;

/** The rules of a thing in three forms; changed as text, or by choosing what else is asked for. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one screen in the order in which it is read; its fields share one state.
export function RuleWindow({ id, name, onClose }: { id: string; name: string; onClose: () => void }) {
  const store = useWorkbenchStore();
  const design = useWorkbench((s) => s.design);
  const tried = useWorkbench((s) => s.tried);
  const rulesAbout = useWorkbench((s) => s.rulesAbout);
  const readRules = useWorkbench((s) => s.readRules);
  const valuesAbout = useWorkbench((s) => s.valuesAbout);
  const [Editor, setEditor] = useState<{ Editor: typeof RuleEditor }>();
  const [about, setAbout] = useState<RulesAbout>();
  const { kept } = store.getState();
  const [text, setShown] = useState('');
  /** What was typed and not used is kept with what it was typed over: over other rules it is nothing. */
  const setText = useCallback(
    (next: string) => {
      kept.set(`rules ${id}`, { over: about?.text, typed: next });
      setShown(next);
    },
    [kept, id, about],
  );
  const [read, setRead] = useState<RulesRead>();
  const [values, setValues] = useState<Record<string, string>>({});
  const [form, setForm] = useState<Form>('text');
  const [problem, setProblem] = useState<string>();
  useEffect(() => {
    void import('./rule-editor').then(({ RuleEditor: loaded }) => setEditor({ Editor: loaded }));
  }, []);
  useEffect(() => {
    if (!design) return;
    let late = false;
    void rulesAbout?.(id).then((found) => {
      if (late) return;
      setAbout(found);
      const was = kept.get(`rules ${id}`) as { over: string; typed: string } | undefined;
      setShown(was?.over === found.text ? was.typed : found.text);
      setRead(undefined);
    });
    return () => {
      late = true;
    };
  }, [rulesAbout, id, design, kept]);
  useEffect(() => {
    if (!tried) return;
    let late = false;
    void valuesAbout?.(id).then((found) => !late && setValues(found));
    return () => {
      late = true;
    };
  }, [valuesAbout, id, tried]);
  const ask = useCallback((now: string) => readRules!(id, now), [readRules, id]);
  const own = about?.rules.filter((rule) => rule.own) ?? [];
  const replaced = own.filter(({ generated }) => generated !== undefined);
  const stops = read?.faults.filter((fault) => fault.stops) ?? [];
  const changes = (read?.put.length ?? 0) + (read?.drop.length ?? 0);
  const apply = (put: RulesRead['put'], drop: string[]) =>
    setProblem(store.getState().attempt({ do: 'own rules', put, drop, about: name }));
  return (
    <Window
      wide
      title={id === '' ? 'Rules of your own about no one thing' : `The rules of ${name}`}
      says="They decide what it does, every 20 ms. A rule that you change stands in the place of the generated one, is marked, and is proved like any other."
      onClose={onClose}
    >
      <div className="flex flex-wrap items-center gap-3 border-b border-line px-4 py-2">
        <OneOf joined label="Form" value={form} options={FORMS} onChange={setForm} />
        <output className="grow text-ink2">
          {!about
            ? ''
            : own.length > 0
              ? `${own.length} of ${about.rules.length} rules ${own.length === 1 ? 'is' : 'are'} your own`
              : 'All rules are as generated'}
        </output>
        <button
          type="button"
          className="button"
          onClick={() => {
            onClose();
            store.getState().set({ window: 'rules' });
          }}
        >
          All rules of your own
        </button>
        {own.length > 0 && (
          <button
            type="button"
            className="button"
            onClick={() =>
              apply(
                [],
                own.map((rule) => rule.name),
              )
            }
          >
            {replaced.length === own.length
              ? 'Put back what is generated'
              : replaced.length === 0
                ? 'Delete your own'
                : 'Put back what is generated, delete the rest'}
          </button>
        )}
        {form === 'text' && (
          <button
            type="button"
            className="button button-main"
            disabled={stops.length > 0 || changes === 0}
            title={stops.length > 0 ? 'Mend what is marked first' : changes === 0 ? 'Nothing has changed' : undefined}
            onClick={() => read && apply(read.put, read.drop)}
          >
            Use these rules
          </button>
        )}
      </div>
      <div tabIndex={0} className="min-h-[320px] flex-1 overflow-auto px-4 py-3">
        {problem && (
          <p role="alert" className="mb-2 font-semibold text-fail">
            {problem}
          </p>
        )}
        {!about || (form === 'text' && !Editor) ? (
          <p className="text-ink2">Looking up the rules …</p>
        ) : form === 'text' ? (
          <>
            {Editor && (
              <Editor.Editor about={about} text={text} values={values} read={ask} onChange={setText} onRead={setRead} />
            )}
            <div role="status" className="mt-2">
              {read?.faults.map(({ says, stops: hard, from }) => (
                <p key={`${from} ${says}`} className={hard ? 'text-fail' : 'text-warn'}>
                  {says}
                </p>
              ))}
              {(read === undefined || read.faults.length === 0) && (
                <p className="text-ink2">
                  {changes === 0
                    ? 'Nothing has changed.'
                    : `${changes} ${changes === 1 ? 'rule changes' : 'rules change'}.`}
                </p>
              )}
            </div>
            <AlsoAsk id={id} text={text} about={about} onText={setText} />
            {replaced.map((rule) => (
              <p key={rule.name} className="mt-2 text-ink2">
                <strong>{rule.written}</strong> as generated: <code className="font-mono">{rule.generated}</code>
              </p>
            ))}
          </>
        ) : form === 'words' ? (
          <ul>
            {about.rules.map(({ name: rule, written, says, pattern }) => (
              <li key={rule} className="border-b border-hair py-1">
                {says.replace('{}', 'what its conditions say') || written}{' '}
                <span className="text-ink3">
                  ({pattern}
                  {values[written] ? `; now ${values[written]}` : ''})
                </span>
              </li>
            ))}
          </ul>
        ) : (
          <div className="flex flex-col gap-6">
            {about.rules.map(({ name: rule, written, expr }) => (
              <GatesPicture key={rule} name={written} expr={expr} />
            ))}
          </div>
        )}
      </div>
    </Window>
  );
}

/** Adds a condition to the rule by which it may proceed, chosen in words. */
function AlsoAsk({
  id,
  text,
  about,
  onText,
}: {
  id: string;
  text: string;
  about: RulesAbout;
  onText: (text: string) => void;
}) {
  const [asked, setAsked] = useState<string>();
  const proceed = about.rules.find(({ name }) => name === names.proceed({ id }));
  if (!proceed) return null;
  const options = about.names.flatMap(({ label, type }) => {
    const [kind, ...rest] = label.split('.');
    const thing = rest.join('.').replaceAll('"', '');
    if (kind === 'occupied')
      return [
        { value: `not ${label}`, says: `${thing} is free` },
        { value: label, says: `${thing} is occupied` },
      ];
    if (kind === 'points')
      return ['straight', 'diverging'].map((lies) => ({
        value: `${label} is #${lies}`,
        says: `${thing} lies ${lies}`,
      }));
    if (kind === 'proceed' && label !== proceed.written)
      return [
        { value: label, says: `${thing} shows proceed` },
        { value: `not ${label}`, says: `${thing} is at stop` },
      ];
    return type === 'bool' && kind === 'manned' ? [{ value: label, says: `somebody is at the post of ${thing}` }] : [];
  });
  const add = () => {
    const head = `rule ${proceed.written} : bool = `;
    const from = text.indexOf(head);
    if (from < 0 || asked === undefined) return;
    const start = from + head.length;
    const end = text.indexOf('\n\n', start) < 0 ? text.length : text.indexOf('\n\n', start);
    onText(`${text.slice(0, start)}(${text.slice(start, end).trim()}) and ${asked}${text.slice(end)}`);
  };
  return (
    <div className="mt-3 flex flex-wrap items-end gap-2">
      <Choice
        label="It may proceed only while also"
        className="w-72"
        value={asked}
        placeholder="choose what"
        options={options}
        onChange={setAsked}
      />
      <button type="button" className="button" disabled={asked === undefined} onClick={add}>
        Add it to the text
      </button>
    </div>
  );
}
