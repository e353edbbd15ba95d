'use client';
import { useCallback, useEffect, useRef, useState } from 'react';
import { sharedText } from '@/core/design';
import type { Beat, Command, Member, Opening } from '@/core/simulation';
import type { LayoutDocument } from '@/core/survey';
import { askServer, sendServer } from '@/ui/parts/ask-server';

/** A run that several browsers share, as one of them sees it. */
export interface Shared {
  /** Who one is in it. */
  me: string;
  members: Member[];
  times: number;
}

/** What a run that is shared asks of the one that is rehearsed here. */
interface Rehearsed {
  layout: string;
  document: LayoutDocument;
  seed: number;
  /** Begins it anew, and returns the number of its course. */
  begin(seed: number): number;
  /** Goes on as far as was told; why something that was told here cannot be done. */
  follow(beat: Beat, by: string, course: number): Promise<string | undefined> | undefined;
  tellProblem(problem: string | undefined): void;
}

export interface Together {
  shared: Shared | undefined;
  /** Begins one, and takes part. */
  beginTogether(name: string): void;
  join(name: string): void;
  leave(): void;
  tell(what: { command: Command } | { times: number } | { handOver: { post: string; to: string } }): void;
}

/** Takes part in a run that the server owns: it has the clock and stamps what anybody tells, and every browser reckons the same run from that. */
export function useSharedRun(rehearsed: Rehearsed): Together {
  const [shared, setShared] = useState<Shared>();
  const now = useRef(rehearsed);
  now.current = rehearsed;
  const line = useRef<EventSource>(undefined);
  const path = `/api/layouts/${rehearsed.layout}/shared`;

  const leave = useCallback(() => {
    line.current?.close();
    line.current = undefined;
    setShared(undefined);
  }, []);
  useEffect(() => leave, [leave]);
  const me = shared?.me;
  useEffect(() => {
    if (me === undefined) return;
    const timer = setInterval(() => void sendServer('POST', `${path}/commands`, { member: me, alive: true }), ALIVE_MS);
    return () => clearInterval(timer);
  }, [me, path]);

  const join = (name: string) => {
    leave();
    now.current.tellProblem(undefined);
    const events = new EventSource(`${path}/events?name=${encodeURIComponent(name)}`);
    line.current = events;
    let member = '';
    let course = 0;
    const hear = (beat: Beat) => {
      setShared({ me: member, members: beat.members, times: beat.times });
      void now.current.follow(beat, member, course)?.then((problem) => problem && now.current.tellProblem(problem));
    };
    const end = (problem: string) => {
      events.close();
      if (line.current !== events) return;
      leave();
      now.current.tellProblem(problem);
    };
    events.addEventListener('opening', ({ data }: MessageEvent<string>) => {
      const opening = JSON.parse(data) as Opening;
      if (sharedText(now.current.document) !== opening.document) return end(OTHER);
      member = opening.member;
      course = now.current.begin(opening.seed);
      now.current.tellProblem(undefined);
      hear(opening);
    });
    events.addEventListener('beat', ({ data }: MessageEvent<string>) => hear(JSON.parse(data) as Beat));
    events.addEventListener('full', () => end('Twenty people take part in this run: no more can.'));
    events.onerror = () => {
      if (events.readyState === EventSource.CLOSED)
        end('The run that was shared is over, or the server does not answer.');
      else
        now.current.tellProblem(
          'The line to the server is lost. It is tried again; a post that you had is empty until then.',
        );
    };
  };

  return {
    shared,
    join,
    leave,
    beginTogether(name) {
      const { document, seed } = now.current;
      void sendServer('POST', path, { document, seed }).then((asked) =>
        asked.ok ? join(name) : now.current.tellProblem(asked.problem),
      );
    },
    tell(what) {
      void sendServer('POST', `${path}/commands`, { member: me, ...what }).then((asked) =>
        now.current.tellProblem(asked.ok ? undefined : asked.problem),
      );
    },
  };
}
/** So often it is told that one is still there. */
const ALIVE_MS = 10_000;
const OTHER =
  'This run is of another state of the layout than the one here: it was changed in one of the two. Open the layout anew, then join.';

/** Who shares a run of a layout now, asked for again and again; undefined while nobody does. */
export function useWhoShares(layout: string, isAsked: boolean): string[] | undefined {
  const [names, setNames] = useState<string[]>();
  useEffect(() => {
    if (!isAsked) return;
    let wanted = true;
    const ask = async () => {
      const asked = await askServer<{ isRunning: boolean; members: string[] }>(`/api/layouts/${layout}/shared`);
      if (wanted) setNames(asked.ok && asked.value.isRunning ? asked.value.members : undefined);
    };
    void ask();
    const timer = setInterval(() => void ask(), ASK_MS);
    return () => {
      wanted = false;
      clearInterval(timer);
    };
  }, [layout, isAsked]);
  return names;
}
const ASK_MS = 4000;
