import { notifications } from '@mantine/notifications';
import { nanoid } from 'nanoid';
import { useEffect, useRef } from 'react';
import { UndoNote } from './UndoNote';

/** So long something waits before it is done, and can be taken back. */
export const HELD_MS = 8_000;

type Held = { message: string; undo: string; onDo(): void; onUndo(): void };

/**
 * Does something a moment later, so that it can be taken back before anyone hears of it. What still waits when the page
 * is left is done at once: it was meant.
 */
export function useHeld(): (held: Held) => void {
  const waiting = useRef(new Map<string, () => void>());
  useEffect(() => {
    const all = waiting.current;
    const doAll = (): void => [...all.values()].forEach((act) => act());
    window.addEventListener('pagehide', doAll);
    return () => {
      window.removeEventListener('pagehide', doAll);
      doAll();
    };
  }, []);
  return ({ message, undo, onDo, onUndo }) => {
    const id = nanoid();
    const end = (): void => {
      clearTimeout(timer);
      waiting.current.delete(id);
      notifications.hide(id);
    };
    const act = (): void => {
      end();
      onDo();
    };
    const timer = setTimeout(act, HELD_MS);
    waiting.current.set(id, act);
    notifications.show({
      id,
      autoClose: false,
      withCloseButton: false,
      message: (
        <UndoNote
          message={message}
          undo={undo}
          onUndo={() => {
            end();
            onUndo();
          }}
        />
      ),
    });
  };
}
