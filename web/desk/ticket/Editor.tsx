import { useRef } from 'react';
import type { Ticket } from '../../../contract/tickets';
import { useDraft } from '../../api/useDraft';
import { useWords } from '../../messages/useWords';
import { getPromise } from '../../ui/clocks';
import { Composer } from '../../thread/Composer';
import { RichField } from '../../words/RichField';
import { Tools } from '../../words/Tools';
import { useKeys } from '../../ui/useKeys';
import { useTimes } from '../../ui/useTimes';
import classes from './DeskTicket.module.css';
import { ReadyTexts } from './ReadyTexts';

/** The one editor. Above it stands who reads it; it begins with the team. */
export function Editor({ ticket, now }: { ticket: Ticket; now: number }) {
  const { t } = useWords();
  const times = useTimes();
  const input = useRef<HTMLTextAreaElement>(null);
  const { number, requester, alsoTold, rights } = ticket;
  const mayAnswer = rights.includes('answer');
  const [readBy, setReadBy] = useDraft<'requester' | 'team'>(`readBy:${number}`, 'team');
  const isAnswer = readBy === 'requester' && mayAnswer;
  function writeTo(whom: 'requester' | 'team'): void {
    setReadBy(whom);
    input.current?.focus();
  }
  useKeys({ a: mayAnswer ? () => writeTo('requester') : undefined, n: () => writeTo('team') });
  const clock = getPromise(ticket.clocks);
  const isRunning = clock?.state === 'running' && clock.dueAt !== null;
  const first = requester.name.replace(/^Capt\. /, '').split(' ')[0]!;
  const others = alsoTold.length;
  const sendLabel = !isAnswer
    ? t('page/keep')
    : others > 0
      ? t('page/sendToOthers', { name: first, count: others })
      : t('page/sendTo', { name: first });
  return (
    <div className={classes.editor} data-read-by={isAnswer ? 'requester' : 'team'}>
      <span className={classes.dueAt}>
        {isRunning && (
          <>
            {times.when(clock.dueAt!, now)}
            <br />
            {t(clock.dueAt! > now ? 'page/due' : 'page/wasDue')}
          </>
        )}
      </span>
      <span
        className={`${classes.bar} ${classes.dueBar}`}
        data-mode={isRunning && clock.dueAt! > now ? 'left' : 'none'}
        data-tick={isRunning || undefined}
      />
      <div className={classes.write}>
        <div className={classes.readBy}>
          {t('page/readBy')}
          <span className={classes.chip} data-on={!isAnswer || undefined}>
            {t('page/team_')}
          </span>
          {mayAnswer && (
            <button
              type="button"
              className={classes.chip}
              aria-pressed={isAnswer}
              data-on={isAnswer || undefined}
              data-off={!isAnswer || undefined}
              onClick={() => writeTo(isAnswer ? 'team' : 'requester')}
            >
              {isAnswer ? `${requester.name} ×` : `+ ${t('page/bringIn', { name: first })}`}
            </button>
          )}
          {isAnswer && others > 0 && (
            <span className={classes.chip} data-on title={alsoTold.map(({ name }) => name).join(', ')}>
              {t('page/others', { count: others })}
            </span>
          )}
        </div>
        <Composer
          {...{ number, sendLabel, inputRef: input, readBy: isAnswer ? 'requester' : 'team' }}
          room={ticket.room?.name ?? null}
          label={isAnswer ? t('page/answerPlaceholder', { name: requester.name }) : t('page/notePlaceholder')}
          rich={RichField}
          tools={(written, insert) => (
            <>
              <Tools field={input} />
              <ReadyTexts {...{ number, written }} onInsert={insert} />
            </>
          )}
          placeholder={isAnswer ? t('page/answerPlaceholder', { name: first }) : t('page/notePlaceholder')}
        />
      </div>
    </div>
  );
}
