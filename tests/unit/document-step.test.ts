import { describe, expect, test } from 'vitest';
import { checkDesign, viewDesign } from '@/core/design';
import { applyChange, applyEdit, type Edit, type LayoutDocument, writeDocumentText } from '@/core/survey';
import { learningOval } from '@/demo/learning-oval';
import { type DocumentStep, FollowedDocument, stepBetween } from '@/workers/document-step';
import { SentView, takeViewStep } from '@/workers/view-step';
import { Draw } from '../../tools/fuzz/draw';

/** A page and a worker, with what crosses between them copied as it is there. */
function pair(first: LayoutDocument) {
  const followed = new FollowedDocument();
  let sent: { version: number; document: LayoutDocument } | undefined;
  let version = 0;
  return {
    followed,
    send(document: LayoutDocument): DocumentStep {
      const step = structuredClone(stepBetween(sent, document, ++version));
      expect(followed.take(step)).toBe(true);
      sent = { version, document };
      return step;
    },
    first,
  };
}

/** How many things of lists a step sends. */
const putIn = (lists: DocumentStep['lists']): number =>
  Object.values(lists)
    .flat()
    .reduce((sum, part) => sum + ('put' in part ? part.put.length : 0), 0);

/** Things of lists that are other objects than any in the same list before. */
const newThings = (before: LayoutDocument, now: LayoutDocument): number =>
  Object.entries(now).reduce((sum, [field, value]) => {
    const was = (before as unknown as Record<string, unknown>)[field];
    return sum + (Array.isArray(value) && Array.isArray(was) ? value.filter((one) => !was.includes(one)).length : 0);
  }, 0);

describe('the page and its worker have one document', () => {
  test('a setting that is taken back is gone in the worker too', () => {
    const d = learningOval();
    const { followed, send } = pair(d);
    send(d);
    const withPeople = { ...d, people: 3 } as LayoutDocument;
    send(withPeople);
    expect(followed.document!.people).toBe(3);
    const { people: _, ...without } = withPeople;
    const step = send(without as LayoutDocument);
    expect(step.gone).toEqual(['people']);
    expect('people' in followed.document!).toBe(false);
    expect(JSON.stringify(viewDesign(followed.document!))).toBe(JSON.stringify(viewDesign(without as LayoutDocument)));
  });
  test('after any edits, undone and done again, what the worker has is what the page has, and only what changed was sent', () => {
    const edits: ((draw: Draw, d: LayoutDocument) => Edit)[] = [
      (draw) => ({ do: 'show unit', unit: draw.chance(0.5) ? 'inch' : 'cm' }),
      (draw) => ({ do: 'turnouts in', turnoutsIn: draw.chance(0.5) ? 'routes' : 'blocks' }),
      (draw, d) => ({ do: 'rename', id: d.sensors[draw.below(d.sensors.length)]!.id, name: `N${draw.below(99)}` }),
      (draw, d) => ({ do: 'delete', id: d.features[draw.below(d.features.length)]?.id ?? '' }),
      (draw, d) => ({ do: 'change sensor', id: d.sensors[0]!.id, change: { holdMs: draw.below(3000) } }),
    ];
    for (let seed = 1; seed <= 30; seed++) {
      const draw = new Draw(seed);
      let document = learningOval();
      const { followed, send } = pair(document);
      send(document);
      let sentLast = document;
      const sentView = new SentView();
      let view = takeViewStep(undefined, structuredClone(sentView.step(viewDesign(followed.document!), 0, true)));
      const past: { patches: Parameters<typeof applyChange>[1]; inverse: Parameters<typeof applyChange>[1] }[] = [];
      for (let i = 0; i < 20; i++) {
        if (draw.chance(0.3) && past.length > 0) document = applyChange(document, past.pop()!.inverse);
        else {
          const result = applyEdit(document, edits[draw.below(edits.length)]!(draw, document));
          if (!result.ok) continue;
          past.push(result.change);
          document = result.change.document;
        }
        const step = send(document);
        const was = sentLast;
        sentLast = document;
        const now = viewDesign(followed.document!);
        const before = view;
        view = takeViewStep(view, structuredClone(sentView.step(now, i, false)));
        expect(view).toEqual(structuredClone(now));
        for (const block of view.blocks) {
          const was = before.blocks.find((one) => JSON.stringify(one) === JSON.stringify(block));
          if (was) expect(before.blocks).toContain(block);
        }
        expect(Object.keys(step.put).length).toBeLessThan(4);
        expect(putIn(step.lists)).toBe(newThings(was, document));
        expect(writeDocumentText(followed.document!)).toBe(writeDocumentText(document));
      }
    }
  });
  test('a step from a version that the worker does not have is not taken, and the whole is', () => {
    const d = learningOval();
    const followed = new FollowedDocument();
    const later = stepBetween({ version: 4, document: d }, { ...d, notes: 'later' }, 5);
    expect(followed.take(later)).toBe(false);
    expect(followed.document).toBeUndefined();
    expect(followed.take(stepBetween(undefined, { ...d, notes: 'later' }, 5))).toBe(true);
    expect(followed.document!.notes).toBe('later');
    expect(checkDesign(followed.document!).findings).toEqual(checkDesign(d).findings);
  });
});
