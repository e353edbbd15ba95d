import { describe, expect, test } from 'vitest';
import { checkDesign, viewDesign } from '@/core/design';
import { applyChange, applyEdit, type Edit, type LayoutDocument, writeDocumentText } from '@/core/survey';
import { learningOval } from '@/demo/learning-oval';
import { type DocumentStep, FollowedDocument, stepBetween } from '@/workers/document-step';
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
        expect(Object.keys(step.put).length).toBeLessThan(4);
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
