import { useEffect, useRef } from 'react';

const KEY = 'listo-single-keys';

/** Whether single keys act; each person may switch them off. */
export function hasSingleKeys(): boolean {
  return localStorage.getItem(KEY) !== 'off';
}

export function setSingleKeys(isOn: boolean): void {
  localStorage.setItem(KEY, isOn ? 'on' : 'off');
}

function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))
  );
}

/** Acts on single keys while nobody is typing and no dialog is open; Escape leaves what one types into. Names are those of KeyboardEvent.key, lower case. */
export function useKeys(actions: Record<string, (() => void) | undefined>): void {
  const current = useRef(actions);
  useEffect(() => {
    current.current = actions;
  });
  useEffect(() => {
    // A key that closes a dialog is the dialog's: by the time it comes here, the dialog may be gone.
    let isOfDialog = false;
    function onCapture(): void {
      isOfDialog = document.querySelector('[role="dialog"]') !== null;
    }
    function onKeyDown(event: KeyboardEvent): void {
      const { key, ctrlKey, metaKey, altKey, target } = event;
      // The first Escape leaves a field, with its words; the next one is the page's.
      if (key === 'Escape' && isTyping(target) && !isOfDialog && !event.defaultPrevented) {
        (target as HTMLElement).blur();
        return;
      }
      if (ctrlKey || metaKey || altKey || isTyping(target) || isOfDialog) return;
      const isNamed = key.length > 1;
      if (!isNamed && !hasSingleKeys()) return;
      // Enter belongs to a button or link that has the focus.
      if (key === 'Enter' && target instanceof HTMLElement && /^(BUTTON|A)$/.test(target.tagName)) return;
      const action = current.current[key.toLowerCase()];
      if (!action) return;
      event.preventDefault();
      action();
    }
    window.addEventListener('keydown', onCapture, true);
    window.addEventListener('keydown', onKeyDown);
    return () => {
      window.removeEventListener('keydown', onCapture, true);
      window.removeEventListener('keydown', onKeyDown);
    };
  }, []);
}
