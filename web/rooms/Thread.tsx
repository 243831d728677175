import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { Waiting } from '../ui/Waiting';
import { Line, type LineProps } from './Line';
import classes from './Rooms.module.css';
import { useLog } from './useRooms';
import { Writing } from './Writing';

/** The answers to one line, below it. */
export function Thread({ message, meId, meHandle, acting, messageActions }: LineProps) {
  const { t } = useWords();
  const { data, error } = useLog(message.roomId, message.id);
  if (error) return <ProblemNote error={error} />;
  if (!data) return <Waiting />;
  return (
    <div className={classes.thread}>
      <ol className={classes.log}>
        {data.messages.map((reply) => (
          <Line key={reply.id} message={reply} chosen={[]} {...{ meId, meHandle, acting, messageActions }} />
        ))}
      </ol>
      <Writing roomId={message.roomId} threadId={message.id} label={t('rooms/writeThread')} />
    </div>
  );
}
