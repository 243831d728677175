import { Button } from '@mantine/core';
import type { CardAction } from '../../core/chat';
import classes from './Rooms.module.css';

type Props = { actions: CardAction[]; isActing: boolean; onAct(action: string): void };

/** What can be done from a message or its card. */
export function Acts({ actions, isActing, onAct }: Props) {
  if (actions.length === 0) return null;
  return (
    <div className={classes.acts}>
      {actions.map(({ id, name, isMain }) => (
        <Button
          key={id}
          size="compact-sm"
          variant={isMain ? 'filled' : 'default'}
          disabled={isActing}
          onClick={() => onAct(id)}
        >
          {name}
        </Button>
      ))}
    </div>
  );
}
