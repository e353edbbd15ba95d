'use client';
import { Component, type ReactNode } from 'react';
import { Notice } from '@/ui/parts/notice';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';

interface Props {
  children: ReactNode;
  /** What to show in place of a part that cannot be drawn; `again` draws it anew. */
  instead: (again: () => void) => ReactNode;
}

class Boundary extends Component<Props, { broken: boolean }> {
  override state = { broken: false };
  static getDerivedStateFromError() {
    return { broken: true };
  }
  override render() {
    return this.state.broken ? this.props.instead(() => this.setState({ broken: false })) : this.props.children;
  }
}

/**
 * Stands around the open layout. When it cannot be drawn the layout itself is still here, with every edit and the way back:
 * it can be drawn anew, or as it was before the newest edit where that one is what breaks it.
 */
export function Unbroken({ children }: { children: ReactNode }) {
  return <Boundary instead={(again) => <Broken again={again} />}>{children}</Boundary>;
}

function Broken({ again }: { again: () => void }) {
  const store = useWorkbenchStore();
  const last = useWorkbench((s) => s.past[s.past.length - 1]);
  return (
    <Notice title="This page broke">
      The layout is here with everything you did.{' '}
      <button type="button" className="button mr-3" onClick={again}>
        Open it again
      </button>
      {last && (
        <>
          If it breaks again, the newest edit is what breaks it.{' '}
          <button
            type="button"
            className="button mr-3"
            onClick={() => {
              store.getState().undo();
              again();
            }}
          >
            Open it without “{last.says}”
          </button>
        </>
      )}
    </Notice>
  );
}
