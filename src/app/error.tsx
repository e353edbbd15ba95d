'use client';
import { Notice } from '@/ui/parts/notice';

/** Shown in place of a page that broke. It is loaded anew, so that nothing of what it was first loaded with is shown again. */
export default function PageBroke() {
  return (
    <Notice title="This page broke">
      What you did last is kept in this browser.{' '}
      <button type="button" className="button mr-3" onClick={() => window.location.reload()}>
        Load it again
      </button>
    </Notice>
  );
}
