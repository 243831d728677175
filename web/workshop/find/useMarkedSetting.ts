import { useEffect, useRef, type RefObject } from 'react';
import { useSearchParams } from 'react-router';
import { useWords } from '../../messages/useWords';
import { SETTINGS, type SettingId } from './settings';

/** A page has so long to bring what is marked, in ms. */
const MOST_WAIT_MS = 10_000;
const NAMED = 'label, legend, th, h1, h2, h3, button, a, summary, small, span, input, textarea, select';

/** What bears these words: the first whose text begins with them, or that is called so. */
function findNamed(page: HTMLElement, words: string): HTMLElement | undefined {
  const begin = words.replace(/[ …:]+$/u, '');
  return [...page.querySelectorAll<HTMLElement>(NAMED)].find(
    (element) =>
      element.textContent.trim().startsWith(begin) ||
      [element.getAttribute('aria-label'), element.getAttribute('placeholder')].some((name) =>
        name?.startsWith(begin),
      ),
  );
}

/** Brings the setting of the address into view and marks it, as soon as its page shows it. */
export function useMarkedSetting(): RefObject<HTMLDivElement | null> {
  const page = useRef<HTMLDivElement>(null);
  const { t } = useWords();
  const [params] = useSearchParams();
  const id = params.get('setting') as SettingId | null;
  const setting: { id: string; mark?: string } | undefined = SETTINGS.find((each) => each.id === id);
  const words = setting?.mark ? t(setting.mark) : '';
  useEffect(() => {
    const { current } = page;
    if (words === '' || !current) return;
    let marked: HTMLElement | undefined;
    const mark = (): void => {
      marked ??= findNamed(current, words);
      if (!marked) return;
      watch.disconnect();
      marked.dataset.marked = 'true';
      marked.scrollIntoView({ block: 'center' });
    };
    const watch = new MutationObserver(mark);
    watch.observe(current, { childList: true, subtree: true });
    mark();
    const end = setTimeout(() => watch.disconnect(), MOST_WAIT_MS);
    return () => {
      clearTimeout(end);
      watch.disconnect();
      if (marked) delete marked.dataset.marked;
    };
  }, [words, id]);
  return page;
}
