'use client';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { SurveyReading } from '@/core/walk';
import { useWorkbench } from '@/ui/state/store';

/** A text is read aside as it is typed: what it comes to, or how far the reading is. */
export function useReading(text: string): {
  /** Undefined until this very text is read. */
  now: SurveyReading | undefined;
  /** What share is read; undefined where that was stopped. */
  share: number | undefined;
  begin: () => void;
  stop: () => void;
} {
  const readText = useWorkbench((s) => s.readText);
  const stopReading = useWorkbench((s) => s.stopReading);
  const [read, setRead] = useState<{ text: string; reading: SurveyReading }>();
  const [share, setShare] = useState<number | undefined>(0);
  const leave = useRef<() => void>(undefined);
  const begin = useCallback(() => {
    let over = false;
    setShare(0);
    const reached = (now: number) => {
      if (!over) setShare(now);
    };
    void readText?.(text, reached).then((reading) => {
      if (over) return;
      if (reading) setRead({ text, reading });
      else setShare(undefined);
    });
    leave.current = () => {
      over = true;
    };
  }, [readText, text]);
  useEffect(() => {
    begin();
    return () => leave.current?.();
  }, [begin]);
  useEffect(() => stopReading, [stopReading]);
  return { now: read?.text === text ? read.reading : undefined, share, begin, stop: () => stopReading?.() };
}
