'use client';
import { Notice } from '@/ui/parts/notice';

/** Shown in place of a page that broke. Edits are in this browser’s journal and come back with the page. */
export default function PageBroke({ reset }: { reset: () => void }) {
  return (
    <Notice title="This page broke">
      What you did last is kept in this browser.{' '}
      <button type="button" className="button mr-3" onClick={reset}>
        Open it again
      </button>
    </Notice>
  );
}
