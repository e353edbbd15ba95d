'use client';
import { format } from 'date-fns';
import { useCallback, useEffect, useState } from 'react';
import type { LayoutDocument } from '@/core/survey';
import { askServer, sendServer } from '@/ui/parts/ask-server';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';

export interface Revision {
  number: number;
  at: string;
  note: string;
  name: string;
}

export const when = (at: string) => format(new Date(at), 'd MMM yyyy, HH:mm');
export const titleOf = ({ name, at }: Revision): string => `${name || 'Version'} of ${when(at)}`;

/** The versions of a layout that were kept, their documents as far as they are `wanted`, and what can be done with them. */
export function useRevisions(wanted: readonly number[]) {
  const store = useWorkbenchStore();
  const id = useWorkbench((s) => s.id);
  const [revisions, setRevisions] = useState<Revision[]>();
  const [problem, setProblem] = useState<string>();
  const [documents, setDocuments] = useState<Record<number, LayoutDocument>>({});

  const load = useCallback(async () => {
    const asked = await askServer<Revision[]>(`/api/layouts/${id}/revisions`);
    if (!asked.ok) return setProblem(asked.problem);
    setProblem(undefined);
    setRevisions(asked.value);
  }, [id]);
  useEffect(() => void load(), [load]);

  useEffect(() => {
    for (const number of wanted) {
      if (documents[number]) continue;
      void askServer<{ document: LayoutDocument }>(`/api/layouts/${id}/revisions/${number}`).then((asked) =>
        asked.ok ? setDocuments((all) => ({ ...all, [number]: asked.value.document })) : setProblem(asked.problem),
      );
    }
  }, [wanted, documents, id]);

  /** Keeps the present version under a name; true when it is kept. */
  const keep = async (name: string) => {
    const asked = await sendServer('POST', `/api/layouts/${id}/revisions`, { name });
    if (asked.ok) await load();
    else setProblem(asked.problem);
    return asked.ok;
  };
  /** Goes back to one whose document is there, the present one being kept before; true when that is done. */
  const goBack = async (revision: Revision) => {
    const document = documents[revision.number];
    if (!document) return false;
    const asked = await sendServer('POST', `/api/layouts/${id}/revisions`, {
      name: `Before going back to ${revision.name || when(revision.at)}`,
    });
    if (asked.ok) store.getState().replace(document, `Go back to ${titleOf(revision)}`);
    else setProblem(asked.problem);
    return asked.ok;
  };
  return { revisions, documents, problem, keep, goBack };
}
