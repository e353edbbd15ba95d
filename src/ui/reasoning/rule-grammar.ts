import {
  foldInside,
  foldNodeProp,
  HighlightStyle,
  LanguageSupport,
  LRLanguage,
  syntaxHighlighting,
} from '@codemirror/language';
import { buildParser } from '@lezer/generator';
import { styleTags, tags } from '@lezer/highlight';

/** The words of the rule language as far as they are coloured, folded and completed; what is right is said by the core that reads it. */
const parser = buildParser(String.raw`
@top Rules { Declaration* }
Declaration { Role item+ }
item { Name | Value | Number | Keyword | Group | Sign }
Group { "(" item* ")" }
Role { @specialize<Name, "rule" | "output" | "input"> }
Keyword { @specialize<Name, "if" | "then" | "else" | "and" | "or" | "not" | "is" | "true" | "false" | "on" | "off" | "ms" | "PREVIOUS" | "SR" | "RS" | "TON" | "TOF" | "TP" | "R_TRIG" | "F_TRIG"> }
@skip { space | Comment }
@tokens {
  word { $[A-Za-z_] $[A-Za-z0-9_]* | '"' (![\\"\n] | "\\" _)* '"' }
  Name { word ("." word)* }
  Value { "#" word }
  Number { $[0-9]+ }
  Sign { $[:=,] }
  space { $[ \t\n\r]+ }
  Comment { "--" ![\n]* }
  "(" ")"
}
`);

const language = LRLanguage.define({
  name: 'rules',
  parser: parser.configure({
    props: [
      styleTags({
        Role: tags.definitionKeyword,
        Keyword: tags.keyword,
        Value: tags.atom,
        Number: tags.number,
        Comment: tags.comment,
      }),
      foldNodeProp.add({
        Group: foldInside,
        Declaration: (node, state) => ({ from: state.doc.lineAt(node.from).to, to: node.to }),
      }),
    ],
  }),
});

const look = HighlightStyle.define([
  { tag: tags.definitionKeyword, color: 'var(--accent)', fontWeight: '650' },
  { tag: tags.keyword, color: 'var(--accent)' },
  { tag: tags.atom, fontWeight: '650' },
  { tag: tags.comment, color: 'var(--ink3)', fontStyle: 'italic' },
]);

export const ruleLanguage = () => [new LanguageSupport(language), syntaxHighlighting(look)];
