import { isAgent } from '../../../core/rights';
import { useEffect, useRef, useState } from 'react';
import { useLocation, useNavigate } from 'react-router';
import { useMe } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import classes from '../conversations/Conversations.module.css';
import { keepPlace, notePlace, putBack, readKept, type Place } from './place';

/** One key for each of what one breaks off for; also while writing. */
const LEADS_TO: Record<string, string> = { F8: '/desk/raise', F9: '/desk/conversations' };
/** Until so long after coming back the page may still be building itself up, on a slow machine. */
const BUILDING_MS = 30_000;
const DOINGS = ['keydown', 'pointerdown', 'wheel'];

/** Puts someone back into the field that they left, as soon as it is there; not once they do something else. */
function usePuttingBack(): (place: Place) => void {
  const stop = useRef<() => void>(() => undefined);
  useEffect(() => () => stop.current(), []);
  return (place) => {
    stop.current();
    const end = performance.now() + BUILDING_MS;
    const observer = new MutationObserver(() => {
      if (putBack(place) || performance.now() > end) stop.current();
    });
    stop.current = () => {
      observer.disconnect();
      for (const doing of DOINGS) window.removeEventListener(doing, stop.current, true);
    };
    observer.observe(document.body, { childList: true, subtree: true });
    for (const doing of DOINGS) window.addEventListener(doing, stop.current, true);
  };
}

/** Breaking off what one is at for a call or a conversation, and coming back to it: the same key each way. */
export function BreakOff() {
  const { t } = useWords();
  const me = useMe();
  const navigate = useNavigate();
  const { pathname } = useLocation();
  const [kept, setKept] = useState(readKept);
  const putBackSoon = usePuttingBack();
  const keep = (place: Place | null): void => {
    keepPlace(place);
    setKept(place);
  };
  const goBack = (place: Place): void => {
    keep(null);
    putBackSoon(place);
    void navigate(place.address);
  };
  const act = (key: string): void => {
    const address = LEADS_TO[key]!;
    const isAtOther = Object.values(LEADS_TO).some(
      (other) => other !== address && pathname.startsWith(other),
    );
    if (kept && !isAtOther) {
      goBack(kept);
      return;
    }
    // From one of them to the other, what was broken off first is what one comes back to.
    if (!kept && !pathname.startsWith(address)) keep(notePlace());
    void navigate(address);
  };
  const current = useRef(act);
  useEffect(() => {
    current.current = act;
  });
  const works = isAgent(me);
  useEffect(() => {
    if (!works) return;
    const onKeyDown = (event: KeyboardEvent): void => {
      if (!(event.key in LEADS_TO) || event.ctrlKey || event.metaKey || event.altKey || event.shiftKey)
        return;
      event.preventDefault();
      current.current(event.key);
    };
    window.addEventListener('keydown', onKeyDown);
    return () => window.removeEventListener('keydown', onKeyDown);
  }, [works]);
  if (!works || !kept) return null;
  const key = pathname.startsWith(LEADS_TO.F9!) ? 'F9' : 'F8';
  return (
    <button type="button" className={classes.back} onClick={() => goBack(kept)}>
      {t('desk/backTo', { what: kept.title || t('desk/whatWas') })} <kbd>{key}</kbd>
    </button>
  );
}
