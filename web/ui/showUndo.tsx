import { notifications } from '@mantine/notifications';
import { nanoid } from 'nanoid';
import { UndoNote } from './UndoNote';

/** Says what was done, with the way back beside it. */
export function showUndo(message: string, undo: string, onUndo: () => Promise<unknown>): void {
  const id = nanoid();
  notifications.show({
    id,
    autoClose: 12_000,
    message: (
      <UndoNote
        message={message}
        undo={undo}
        onUndo={() => {
          notifications.hide(id);
          void onUndo().catch(() => undefined);
        }}
      />
    ),
  });
}
