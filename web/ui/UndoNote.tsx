import { Button, Group } from '@mantine/core';

/** What was done or is about to be, with the way back beside it. */
export function UndoNote({ message, undo, onUndo }: { message: string; undo: string; onUndo(): void }) {
  return (
    <Group justify="space-between" wrap="nowrap">
      <span>{message}</span>
      <Button size="compact-sm" variant="default" onClick={onUndo}>
        {undo}
      </Button>
    </Group>
  );
}
