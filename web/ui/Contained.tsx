import type { ReactNode } from 'react';
import { ErrorBoundary } from 'react-error-boundary';
import { useWords } from '../messages/useWords';

/** One of many on a page: where it cannot be shown it says so, and the others stay. */
export function Contained({ children }: { children: ReactNode }) {
  const { t } = useWords();
  return <ErrorBoundary fallback={<em>{t('entries/unreadable')}</em>}>{children}</ErrorBoundary>;
}
