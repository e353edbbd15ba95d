import type { ComponentType } from 'react';
import type { StageTraits } from '@/ui/state/view';

/** A stage of the work: all that shell and sheet ask about it. */
export interface StageKind extends StageTraits {
  name: string;
  /** The sheet with what is over and under it, and the panel beside. */
  Main: ComponentType;
  /** What stands there while the layout has no line yet. */
  Empty?: ComponentType;
  /** It gives the verdict on the whole layout. */
  proves?: boolean;
  /** Single letters of its own on the sheet, as they are listed. */
  letters?: readonly [string, string][];
}
