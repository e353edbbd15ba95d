import { holdsNothing } from '../patterns';
import { applyEdit, type Edit, type LayoutDocument, signalsOf } from '../survey';
import { type ProposedSignal, proposeSignals } from './propose-signals';

/** A way to protect the whole layout, drawn up from its track, its blocks and what was decided of its areas: from none of its signals. */
export interface OwnScheme {
  id: 'every end' | 'as areas ask' | 'least';
  name: string;
  says: string;
  /** What makes the layout so; undefined where it is so. */
  edit: Edit;
  document: LayoutDocument;
}

/**
 * Three schemes side by side: a signal at every end of a block in which trains wait, whatever was decided of areas; those that the areas ask for; and the
 * fewest that keep these safe. Signals that stand already are taken away in each, but for those that hold no train.
 */
export function ownSchemes(document: LayoutDocument): OwnScheme[] {
  const standing = signalsOf(document).filter((signal) => !holdsNothing(signal));
  const deletes = standing.map(({ id }) => ({ do: 'delete', id }) as const);
  const bare = done(document, { do: 'one after another', edits: deletes, says: 'Take all signals away' });
  const undecided: LayoutDocument = {
    ...bare,
    areas: bare.areas.map((area) => ({ ...area, admits: undefined, whenEmpty: undefined })),
  };
  const [every, asked] = [undecided, bare].map((one) => proposeSignals(one).signals);
  const schemes = [
    {
      id: 'every end',
      name: 'Every block end',
      says: 'A signal at every end of a block in which trains wait, whatever was decided of areas.',
      signals: every!,
    },
    {
      id: 'as areas ask',
      name: 'As the areas ask',
      says: 'A signal at every such end but into areas that were decided to do without.',
      signals: asked!,
    },
    {
      id: 'least',
      name: 'The least',
      says: 'Of these the fewest that guard points and edges, and keep the trains apart that there are.',
      signals: asked!.filter(({ needed }) => needed),
    },
  ] as const;
  return schemes.map(({ signals, ...scheme }): OwnScheme => {
    const edit: Edit = {
      do: 'one after another',
      edits: [
        ...deletes,
        ...(signals.length > 0 ? [{ do: 'add signals', signals: signals.map(placed) } as const] : []),
      ],
      says: `Signal the layout anew: ${scheme.name.toLowerCase()}`,
    };
    return { ...scheme, edit, document: done(document, edit) };
  });
}

const placed = ({ line, at, governs, system }: ProposedSignal) => ({ line, at, governs, system });

/** Throws an Error where it cannot be done: these edits always can. */
function done(document: LayoutDocument, edit: Edit): LayoutDocument {
  const result = applyEdit(document, edit);
  if (!result.ok) throw new Error(result.problem);
  return result.change.document;
}
