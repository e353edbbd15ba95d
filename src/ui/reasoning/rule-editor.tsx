'use client';
import { autocompletion, type CompletionContext, completionKeymap } from '@codemirror/autocomplete';
import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
import { codeFolding, foldGutter, foldKeymap } from '@codemirror/language';
import { type Diagnostic, linter, lintGutter, lintKeymap } from '@codemirror/lint';
import { Compartment, EditorState, type Extension, RangeSet, StateEffect, StateField } from '@codemirror/state';
import { EditorView, GutterMarker, gutter, hoverTooltip, keymap } from '@codemirror/view';
import { useEffect, useRef } from 'react';
import type { RulesAbout, RulesRead } from '@/core/design';
import { RESERVED } from '@/core/logic';
import { ruleLanguage } from './rule-grammar';

interface Props {
  about: RulesAbout;
  text: string;
  /** What the rules are now, by their names as written. */
  values: Readonly<Record<string, string>>;
  read: (text: string) => Promise<RulesRead>;
  onChange: (text: string) => void;
  onRead: (read: RulesRead) => void;
}

const LOOK = EditorView.theme({
  '&': { fontSize: '0.8rem', backgroundColor: 'var(--sheet)', border: '1px solid var(--line)', borderRadius: '6px' },
  '&.cm-focused': { outline: '2px solid var(--accent)' },
  '.cm-scroller': { fontFamily: 'var(--font-mono, monospace)', maxHeight: '46vh', overflow: 'auto' },
  '.cm-content': { caretColor: 'var(--ink)', color: 'var(--ink)' },
  '.cm-gutters': { backgroundColor: 'var(--sheet)', color: 'var(--ink2)', border: 'none' },
  '.cm-tooltip': {
    backgroundColor: 'var(--raised)',
    color: 'var(--ink)',
    border: '1px solid var(--line)',
    padding: '2px 6px',
  },
  '.cm-tooltip-autocomplete > ul > li[aria-selected]': { backgroundColor: 'var(--accent)', color: 'var(--on-accent)' },
  '.cm-value': { color: 'var(--accent)', fontWeight: '650', padding: '0 6px', whiteSpace: 'nowrap' },
  '.cm-cursor': { borderLeftColor: 'var(--ink)' },
});

class Value extends GutterMarker {
  constructor(readonly says: string) {
    super();
  }
  override eq(other: Value) {
    return other.says === this.says;
  }
  override toDOM() {
    const span = document.createElement('span');
    span.className = 'cm-value';
    span.textContent = this.says;
    return span;
  }
}
const putValues = StateEffect.define<Readonly<Record<string, string>>>();
/** The values that stand in the margin. */
const valuesNow = StateField.define<Readonly<Record<string, string>>>({
  create: () => ({}),
  update: (values, { effects }) => effects.find((effect) => effect.is(putValues))?.value ?? values,
});
const DECLARES = /^\s*(?:rule|output)\s+(\S+(?:\s[^:]*?)?)\s*:/;
const margin = gutter({
  class: 'cm-values',
  markers(view) {
    const values = view.state.field(valuesNow);
    const found = [];
    for (let n = 1; n <= view.state.doc.lines; n++) {
      const line = view.state.doc.line(n);
      const name = DECLARES.exec(line.text)?.[1]?.trim();
      const value = name && values[name];
      if (value) found.push(new Value(value).range(line.from));
    }
    return RangeSet.of(found);
  },
  lineMarkerChange: (update) =>
    update.transactions.some(({ effects }) => effects.some((effect) => effect.is(putValues))),
});

/** The word of the text around a place, dots and quotes included. */
function wordAt(text: string, at: number): { from: number; to: number } {
  const isPart = (i: number) => /[\w."#]/.test(text[i] ?? '');
  let [from, to] = [at, at];
  while (isPart(from - 1)) from -= 1;
  while (isPart(to)) to += 1;
  return { from, to };
}

/** Rules as text: with colours, completion, what a name means, folding, errors in place, and present values in the margin. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: the editor is set up once with all that it reports.
export function RuleEditor({ about, text, values, read, onChange, onRead }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView>(undefined);
  const latest = useRef({ about, read, onChange, onRead });
  latest.current = { about, read, onChange, onRead };
  // biome-ignore lint/correctness/useExhaustiveDependencies: it is made once, and told of changes below
  useEffect(() => {
    const complete = (context: CompletionContext) => {
      const word = context.matchBefore(/[\w."#]+/);
      if (!word && !context.explicit) return null;
      const { names } = latest.current.about;
      return {
        from: word?.from ?? context.pos,
        options: [
          ...names.map(({ label, type, says }) => ({ label, detail: type, info: says, type: 'variable' })),
          ...[...RESERVED].map((label) => ({ label, type: 'keyword' })),
        ],
      };
    };
    const meaning = hoverTooltip((editor, at) => {
      const whole = editor.state.doc.toString();
      const { from, to } = wordAt(whole, at);
      const found = latest.current.about.names.find(({ label }) => label === whole.slice(from, to));
      if (!found?.says) return null;
      return {
        pos: from,
        end: to,
        create: () => {
          const dom = document.createElement('div');
          dom.textContent = `${found.says} (${found.type})`;
          return { dom };
        },
      };
    });
    const judge = linter(
      async (editor): Promise<Diagnostic[]> => {
        const { faults, ...rest } = await latest.current.read(editor.state.doc.toString());
        latest.current.onRead({ faults, ...rest });
        const { length } = editor.state.doc;
        return faults.map(({ from, to, says, stops, offer }) => ({
          from: Math.min(from, length),
          to: Math.min(Math.max(to, from), length),
          severity: stops ? 'error' : 'warning',
          message: says,
          actions: offer
            ? [
                {
                  name: `Write ${offer}`,
                  apply: (in_, a, b) => in_.dispatch({ changes: { from: a, to: b, insert: offer } }),
                },
              ]
            : [],
        }));
      },
      { delay: 0 },
    );
    const extensions: Extension[] = [
      ruleLanguage(),
      history(),
      codeFolding(),
      foldGutter(),
      valuesNow,
      margin,
      lintGutter(),
      judge,
      meaning,
      autocompletion({ override: [complete] }),
      keymap.of([...completionKeymap, ...lintKeymap, ...foldKeymap, ...historyKeymap, ...defaultKeymap]),
      EditorView.lineWrapping,
      EditorView.contentAttributes.of({ 'aria-label': 'Rules as text' }),
      EditorView.updateListener.of((update) => {
        if (update.docChanged) latest.current.onChange(update.state.doc.toString());
      }),
      new Compartment().of(LOOK),
    ];
    const made = new EditorView({ state: EditorState.create({ doc: text, extensions }), parent: box.current! });
    view.current = made;
    return () => made.destroy();
  }, []);
  /** Set from outside: the generated rule, or a condition that was chosen. */
  useEffect(() => {
    const editor = view.current;
    if (editor && editor.state.doc.toString() !== text)
      editor.dispatch({ changes: { from: 0, to: editor.state.doc.length, insert: text } });
  }, [text]);
  useEffect(() => {
    view.current?.dispatch({ effects: putValues.of(values) });
  }, [values]);
  return <div ref={box} />;
}
