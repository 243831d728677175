import { Button, Group } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { nanoid } from 'nanoid';

/** Says what was done, with the way back beside it. */
export function showUndo(message: string, undo: string, onUndo: () => Promise<unknown>): void {
  const id = nanoid();
  notifications.show({
    id,
    autoClose: 12_000,
    message: (
      <Group justify="space-between" wrap="nowrap">
        <span>{message}</span>
        <Button
          size="compact-sm"
          variant="default"
          onClick={() => {
            notifications.hide(id);
            void onUndo().catch(() => undefined);
          }}
        >
          {undo}
        </Button>
      </Group>
    ),
  });
}
