import type { ReactNode } from 'react';

/** One of several things to choose from. */
export interface Option<T extends string> {
  value: T;
  says: ReactNode;
}

/** What the list of a choice is told, whatever field opens it. */
export interface ChoiceListProps {
  name: { 'aria-label': string } | { 'aria-labelledby': string };
  value: string | undefined;
  options: readonly Option<string>[];
  placeholder?: string;
  disabled?: boolean;
  className: string;
  onChange: (value: string) => void;
  open: boolean;
}
