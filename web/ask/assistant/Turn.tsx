import { Button } from '@mantine/core';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import type { TalkInput, TurnView } from '../../../contract/assistant';
import { ArticleText } from '../../knowledge/ArticleText';
import { Passage } from '../../knowledge/Passage';
import '../../messages/assistantWords';
import '../../messages/knowledgeWords';
import { useWords } from '../../messages/useWords';
import classes from './Assistant.module.css';

type Props = {
  turn: TurnView;
  /** What the person came with, for the form. */
  title: string;
  /** Of the last turn alone: what can be answered to it. */
  onInput: ((input: TalkInput) => void) | null;
  /** Goes on, in a conversation of its own, with the other matter that was named. */
  onOther?: ((name: string) => void) | undefined;
};

function Choices({
  onInput,
  choices,
  kind,
}: {
  onInput: NonNullable<Props['onInput']>;
  choices: TurnView['choices'];
  kind: 'pick' | 'team' | 'words';
}) {
  return (choices ?? []).map(({ id, name }) => (
    <Button
      key={id}
      variant="outline"
      onClick={() => onInput(kind === 'words' ? { kind, text: name } : { kind, id })}
    >
      {name}
    </Button>
  ));
}

function Said({ turn, title, onInput, onOther }: Props) {
  const { t } = useWords();
  const { say, choices = [], articles = [], services = [], tickets = [], number } = turn;
  const [article] = articles;
  const neither = onInput && (
    <Button variant="default" onClick={() => onInput({ kind: 'none' })}>
      {t('assistant/neither')}
    </Button>
  );
  const straight = onInput && (
    <Button variant="default" onClick={() => onInput({ kind: 'person' })}>
      {t('assistant/straight')}
    </Button>
  );
  switch (say) {
    case 'greeting':
      return (
        <>
          <p>{turn.words ?? t('assistant/greeting', { name: turn.text })}</p>
          {articles.length + services.length > 0 && (
            <p className={classes.quiet}>
              {t('assistant/often')}{' '}
              {[
                ...articles.map(({ id, title }) => ({ to: `/ask/articles/${id}`, name: title })),
                ...services.map(({ id, name }) => ({ to: `/ask/services/${id}`, name })),
              ].map(({ to, name }, i) => (
                <span key={to}>
                  {i > 0 && ' · '}
                  <Link to={to}>{name}</Link>
                </span>
              ))}
            </p>
          )}
        </>
      );
    case 'confirm':
      return (
        <>
          <p>{turn.text ?? t('assistant/confirm')}</p>
          <div className={classes.choices}>
            {onInput ? <Choices kind="pick" {...{ onInput, choices }} /> : <b>{choices[0]?.name}</b>}
            {neither}
            {straight}
          </div>
        </>
      );
    case 'choose':
    case 'both':
      return (
        <>
          <p>{t(`assistant/${say}`)}</p>
          <div className={classes.choices}>
            {onInput ? (
              <Choices kind="pick" {...{ onInput, choices }} />
            ) : (
              <b>{choices.map(({ name }) => name).join(' · ')}</b>
            )}
            {neither}
            {straight}
          </div>
        </>
      );
    case 'other':
      return (
        <>
          <p>{t('assistant/other')}</p>
          <div className={classes.choices}>
            {choices.map(({ id, name }) =>
              onOther ? (
                <Button key={id} variant="outline" onClick={() => onOther(name)}>
                  {name}
                </Button>
              ) : (
                <b key={id}>{name}</b>
              ),
            )}
          </div>
        </>
      );
    case 'question':
      return (
        <>
          <p>{turn.text}</p>
          {onInput && choices.length > 0 && (
            <div className={classes.choices}>
              <Choices kind="words" {...{ onInput, choices }} />
            </div>
          )}
        </>
      );
    case 'article':
      return (
        <>
          <p>
            {article && article.judged > 0
              ? article.helped * 2 < article.judged
                ? t('assistant/articleMay')
                : t('assistant/articleHelped', { helped: article.helped, judged: article.judged })
              : t('assistant/article')}
          </p>
          <div className={classes.article}>
            <b>{article?.title}</b>
            <ArticleText body={turn.text ?? ''} />
          </div>
          {onInput && (
            <div className={classes.row}>
              <Button onClick={() => onInput({ kind: 'helped', helped: true })}>
                {t('knowledge/thatWasIt')}
              </Button>
              <Button variant="default" onClick={() => onInput({ kind: 'helped', helped: false })}>
                {t('knowledge/notForMe')}
              </Button>
            </div>
          )}
        </>
      );
    case 'passages':
      return (
        <>
          <p>{t(articles.length > 0 ? 'assistant/passages' : 'assistant/noPassages')}</p>
          {articles.map(({ id, title, passage }) => (
            <div key={id} className={classes.article}>
              <Link to={`/ask/articles/${id}`}>{title}</Link>
              <div>
                <Passage parts={passage} />
              </div>
            </div>
          ))}
          {onInput && (
            <div className={classes.row}>
              {articles.length > 0 && (
                <Button onClick={() => onInput({ kind: 'helped', helped: true })}>
                  {t('knowledge/thatWasIt')}
                </Button>
              )}
              <Button variant="default" onClick={() => onInput({ kind: 'none' })}>
                {t('knowledge/notForMe')}
              </Button>
            </div>
          )}
        </>
      );
    case 'teams':
      return (
        <>
          <p>{t('assistant/teams')}</p>
          {onInput && (
            <div className={classes.choices}>
              <Choices kind="team" {...{ onInput, choices }} />
            </div>
          )}
        </>
      );
    case 'form':
      return (
        <p>
          {t('assistant/formLine')}{' '}
          <Link to={`/ask/services/${turn.serviceId}?${new URLSearchParams({ title }).toString()}`}>
            {t('assistant/openForm')}
          </Link>
        </p>
      );
    case 'state':
      return (
        <>
          <p>{t(tickets.length > 0 ? 'assistant/stateLine' : 'assistant/stateNone')}</p>
          {tickets.map((ticket) => (
            <div key={ticket.number}>
              <Link to={`/ask/tickets/${ticket.number}`}>{ticket.title}</Link>
            </div>
          ))}
        </>
      );
    case 'ticket':
      return (
        <p>
          {turn.words ?? t(turn.isHandOver ? 'assistant/handedOver' : 'assistant/ticket', { number })}{' '}
          <Link to={`/ask/tickets/${number}`}>{turn.words ? `#${number}` : t('assistant/openTicket')}</Link>
        </p>
      );
    case 'followUp':
      return (
        <>
          <p>{turn.words ?? t('assistant/followUp')}</p>
          {onInput && (
            <div className={classes.row}>
              <Button onClick={() => onInput({ kind: 'helped', helped: true })}>
                {t('assistant/followUpYes')}
              </Button>
              {straight}
            </div>
          )}
        </>
      );
    case 'confidential':
      return (
        <p>
          <b>{t('assistant/confidential', { team: turn.text })}</b>
        </p>
      );
    case 'text':
      return <p>{turn.text}</p>;
    default:
      return <p>{turn.words ?? t(`assistant/${say}`)}</p>;
  }
}

/** One turn of a conversation: what the person said, or what was answered, with its choices while it is the last. */
export function Turn(props: Props & { foot?: ReactNode }) {
  const { t } = useWords();
  const { turn, foot } = props;
  if (turn.by === 'person')
    return (
      <div className={classes.own}>
        <bdi>{turn.say === 'words' ? turn.text : t(`assistant/said/${turn.say}`)}</bdi>
        {foot}
      </div>
    );
  return (
    <div className={classes.turn}>
      <small>{t('assistant/name')}</small>
      <Said {...props} />
    </div>
  );
}
