import { Button, Menu, Textarea } from '@mantine/core';
import { useState, type ReactNode } from 'react';
import type { MessageAction, RoomMessage } from '../../contract/rooms';
import { listCalled, MOST_LINES, splitCalls } from '../../core/chat';
import { useWords } from '../messages/useWords';
import { useTimes } from '../ui/useTimes';
import { Acts } from './Acts';
import { fileAddress } from './callRooms';
import { Card, toPath } from './Card';
import { Link } from 'react-router';
import classes from './Rooms.module.css';
import type { Acting } from './useActing';

type Props = {
  message: RoomMessage;
  meId: string;
  /** The name by which one is called. */
  meHandle: string;
  acting: Acting;
  messageActions: MessageAction[];
  /** Chosen lines of the log, in their order; what is done, is done with all of them. */
  chosen: string[];
  onChoose?: (id: string, isMore: boolean) => void;
  /** The lines before it that people said, the earliest first, as many as can be taken with it. */
  before?: string[];
  /** The answers to it, shown below it when it is opened. */
  thread?: ReactNode;
};

/** Words with their addresses to follow. */
function Words({ text }: { text: string }) {
  const parts = text.split(/(https?:\/\/\S+)/u);
  return (
    <bdi className={classes.words}>
      {parts.map((part, i) => {
        if (i % 2 === 0)
          return splitCalls(part).map((words, j) => (j % 2 === 1 ? <b key={j}>{words}</b> : words));
        const isOurs = part.startsWith(window.location.origin);
        return isOurs ? (
          <Link key={i} to={toPath(part)}>
            {toPath(part)}
          </Link>
        ) : (
          <a key={i} href={part} rel="noreferrer" target="_blank">
            {part}
          </a>
        );
      })}
    </bdi>
  );
}

function Reword({ message, acting, onClose }: { message: RoomMessage; acting: Acting; onClose(): void }) {
  const { t } = useWords();
  const [text, setText] = useState(message.text);
  return (
    <form
      className={classes.reword}
      onSubmit={(event) => {
        event.preventDefault();
        acting.reword(message.id, text);
        onClose();
      }}
    >
      <Textarea
        autosize
        aria-label={t('rooms/reword')}
        value={text}
        onChange={({ target }) => setText(target.value)}
      />
      <Button type="submit" size="compact-sm" disabled={text.trim() === ''}>
        {t('rooms/reword')}
      </Button>
      <Button size="compact-sm" variant="default" onClick={onClose}>
        {t('common/cancel')}
      </Button>
    </form>
  );
}

/** So many lines before it are offered to be taken along, as far as there are so many. */
const OFFERED_COUNTS = [2, 5, 10, 20, MOST_LINES - 1];

function listCounts(available: number): number[] {
  const within = OFFERED_COUNTS.filter((count) => count < available);
  return within.length === OFFERED_COUNTS.length ? within : [...within, available];
}

/** What one can do with a chosen line. */
function Deeds({
  message,
  meId,
  acting,
  messageActions,
  chosen,
  before = [],
  onThread,
  onReword,
}: Props & { onThread(): void; onReword(): void }) {
  const { t } = useWords();
  const isMine = message.by?.id === meId;
  return (
    <div className={classes.acts}>
      {message.by !== null &&
        messageActions.map(({ id, name }) => (
          <Button key={id} size="compact-sm" variant="outline" onClick={() => acting.act(id, chosen)}>
            {chosen.length > 1 ? t('rooms/these', { name, count: chosen.length }) : name}
          </Button>
        ))}
      {message.by !== null && chosen.length === 1 && before.length > 0 && messageActions[0] && (
        <Menu position="bottom-start">
          <Menu.Target>
            <Button size="compact-sm" variant="default">
              {t('rooms/before')}
            </Button>
          </Menu.Target>
          <Menu.Dropdown>
            {listCounts(before.length).map((count) => (
              <Menu.Item
                key={count}
                onClick={() => acting.act(messageActions[0]!.id, [...before.slice(-count), message.id])}
              >
                {t('rooms/beforeCount', { count })}
              </Menu.Item>
            ))}
          </Menu.Dropdown>
        </Menu>
      )}
      <Button size="compact-sm" variant="default" onClick={onThread}>
        {t('rooms/ownThread')}
      </Button>
      {isMine && message.deletedAt === null && (
        <>
          <Button size="compact-sm" variant="subtle" onClick={onReword}>
            {t('rooms/reword')}
          </Button>
          <Button size="compact-sm" variant="subtle" onClick={() => acting.takeBack(message.id)}>
            {t('rooms/takeBack')}
          </Button>
        </>
      )}
    </div>
  );
}

function Body({ message, acting }: Pick<Props, 'message' | 'acting'>) {
  const { t } = useWords();
  const { text, card, actions, files, forId, editedAt, deletedAt } = message;
  if (deletedAt !== null) return <i className={classes.quiet}>{t('rooms/takenBack')}</i>;
  const act = (action: string): void => acting.act(action, [message.id]);
  return (
    <>
      {forId !== null && <span className={classes.quiet}>{t('rooms/forYou')} </span>}
      {text !== '' && <Words text={text} />}
      {editedAt !== null && <small className={classes.quiet}> {t('rooms/reworded')}</small>}
      {card && <Card {...{ message, isActing: acting.isActing }} onAct={act} />}
      <Acts actions={actions} isActing={acting.isActing} onAct={act} />
      {files.map(({ id, name, type }) =>
        type.startsWith('image/') ? (
          <a key={id} href={fileAddress(id)} download={name}>
            <img className={classes.picture} src={fileAddress(id)} alt={name} />
          </a>
        ) : (
          <a key={id} className={classes.file} href={fileAddress(id)} download={name}>
            <bdi>{name}</bdi>
          </a>
        ),
      )}
    </>
  );
}

/** A line of the log: when, who, what; chosen by its time, it shows what can be done with it. */
export function Line(props: Props) {
  const { message, chosen, onChoose } = props;
  const { t } = useWords();
  const times = useTimes();
  const [isOpen, setOpen] = useState(false);
  const [isRewording, setRewording] = useState(false);
  const { id, by, at, replies, lastReplyAt } = message;
  const who = by?.name ?? 'Listo';
  const isChosen = chosen.includes(id);
  return (
    <li
      id={`line-${id}`}
      className={classes.line}
      data-chosen={isChosen}
      data-listo={by === null}
      data-called={listCalled(message.text).includes(props.meHandle) || undefined}
    >
      {onChoose ? (
        <button
          type="button"
          className={classes.time}
          aria-pressed={isChosen}
          aria-label={t('rooms/select', { who, at: times.hour(at) })}
          onClick={(event) => onChoose(id, event.shiftKey)}
        >
          {times.hour(at)}
        </button>
      ) : (
        <span className={classes.time}>{times.hour(at)}</span>
      )}
      <span className={classes.who}>{who}</span>
      <div className={classes.what}>
        {isRewording ? (
          <Reword {...props} onClose={() => setRewording(false)} />
        ) : (
          <Body message={message} acting={props.acting} />
        )}
        {isChosen && chosen.at(-1) === id && (
          <Deeds {...props} onThread={() => setOpen(true)} onReword={() => setRewording(true)} />
        )}
        {onChoose && (replies > 0 || isOpen) && (
          <button
            type="button"
            className={classes.threadLink}
            aria-expanded={isOpen}
            onClick={() => setOpen(!isOpen)}
          >
            {isOpen
              ? t('rooms/shut')
              : t('rooms/thread', { count: replies, at: times.hour(lastReplyAt ?? at) })}
          </button>
        )}
        {isOpen && props.thread}
      </div>
    </li>
  );
}

export type LineProps = Props;
