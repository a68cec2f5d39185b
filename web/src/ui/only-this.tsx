import type { ReactNode } from 'react';
import { ErrorBoundary } from 'react-error-boundary';

interface OnlyThisProps {
  readonly children: ReactNode;
  /** what stands in its place */
  readonly broken: ReactNode;
}

/** Shows a note in place of what can't be drawn, so that one bad event does not take the whole page down. */
export function OnlyThis({ children, broken }: OnlyThisProps) {
  return <ErrorBoundary fallback={broken}>{children}</ErrorBoundary>;
}
