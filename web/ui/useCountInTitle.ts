import { useEffect } from 'react';

/** Puts a number before the title of the window, as long as there is something to count. */
export function useCountInTitle(count: number): void {
  useEffect(() => {
    if (count === 0) return;
    const { title } = document;
    document.title = `(${count}) ${title.replace(/^\(\d+\) /, '')}`;
    return () => {
      document.title = document.title.replace(/^\(\d+\) /, '');
    };
  }, [count]);
}
