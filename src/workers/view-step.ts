import type { DesignView } from '@/core/design';
import { type ListStep, listStep, takeListStep } from './list-step';

/** What of a view is other than in the one before; of its lists only what is new in them. A field that is not there is as it was. */
export interface ViewStep {
  /** The version of the document whose view it goes on from; 0 for none. */
  from: number;
  put: Partial<DesignView>;
  lists: Record<string, ListStep<unknown>>;
}

/** The views that were sent, as text: what is the same text is not sent again. */
export class SentView {
  private version = 0;
  private texts: Record<string, string | readonly string[]> = {};

  /** The step to a view, of a version of the document; everything where `afresh`. */
  step(view: DesignView, version: number, afresh: boolean): ViewStep {
    const put: Record<string, unknown> = {};
    const lists: ViewStep['lists'] = {};
    const texts: typeof this.texts = {};
    for (const [field, value] of Object.entries(view) as [string, unknown][]) {
      const was = afresh ? undefined : this.texts[field];
      if (!Array.isArray(value)) {
        const text = JSON.stringify(value);
        texts[field] = text;
        if (text !== was) put[field] = value;
        continue;
      }
      const now = value.map((one) => JSON.stringify(one));
      texts[field] = now;
      if (!Array.isArray(was)) put[field] = value;
      else if (was.length !== now.length || now.some((text, i) => text !== was[i])) {
        const textOf = new Map(value.map((one, i) => [one, now[i]!]));
        lists[field] = listStep(was, value as unknown[], (one) => textOf.get(one));
      }
    }
    const from = afresh ? 0 : this.version;
    this.version = version;
    this.texts = texts;
    return { from, put, lists };
  }
}

/** The next view: whatever is as it was is the same object. */
export function takeViewStep(before: DesignView | undefined, { put, lists }: ViewStep): DesignView {
  const old: Record<string, unknown> = { ...before };
  const stepped = Object.entries(lists).map(([field, step]) => [field, takeListStep(old[field] as unknown[], step)]);
  return { ...old, ...put, ...Object.fromEntries(stepped) } as unknown as DesignView;
}
