import type { ReactNode } from 'react';
import { ErrorBoundary } from 'react-error-boundary';

interface OnlyThisProps {
  readonly children: ReactNode;
  /** what stands in its place */
  readonly broken: ReactNode;
}

/** What can't be shown breaks only itself: the rest of the page stands. */
export function OnlyThis({ children, broken }: OnlyThisProps) {
  return <ErrorBoundary fallback={broken}>{children}</ErrorBoundary>;
}
