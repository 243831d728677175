import { Button, Modal } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { RuleOnTicket } from '../../../contract/rules';
import { call } from '../../api/call';
import { useNow } from '../../api/clock';
import { api } from '../../api/endpoints';
import '../../messages/listsWords';
import '../../messages/rulesWords';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { useFieldWords } from '../../ui/useFieldWords';
import { useTimes } from '../../ui/useTimes';
import { Waiting } from '../../ui/Waiting';
import classes from './RulesOf.module.css';

type Asked = RuleOnTicket['asked'][number];

/** What one rule did on a ticket, and each time that it did not. */
function OneRule({ rule, fired, asked }: RuleOnTicket) {
  const { t, local } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  const { toPhrase, valueWords } = useFieldWords();
  const sayWhy = ({ why }: Asked): string => {
    if (why.fired) return t('rules/onTicket/why/fired');
    if (why.because !== 'condition') return t(`rules/onTicket/why/${why.because}`);
    const { part, value } = why.unmet;
    if (!('field' in part)) return t('rules/onTicket/why/conditionGroup', { part: toPhrase(part) });
    const was = valueWords(part.field, value) || t('common/none');
    return t('rules/onTicket/why/condition', { part: toPhrase(part), value: was });
  };
  const sayDid = (did: RuleOnTicket['fired'][number]['did']): string =>
    did
      .map((each) => {
        const what = t(`entries/ruleDoes/${each.do}`);
        return each.problem === null
          ? what
          : t('rules/onTicket/could', { what, problem: t(`problems/${each.problem}`) });
      })
      .join(', ');
  // At what it fired upon, what it says now is no news.
  const others = asked.filter(
    ({ why, at }) => !why.fired || !fired.some((run) => Math.abs(run.at - at) < 60_000),
  );
  return (
    <li>
      <strong>{local(rule.name)}</strong>
      <ul>
        {fired.map(({ at, did }, i) => (
          <li key={`f${i}`}>{t('rules/onTicket/fired', { when: times.when(at, now), what: sayDid(did) })}</li>
        ))}
        {others.map((each) => (
          <li key={each.entryId} className={classes.quiet}>
            {t('rules/onTicket/asked', {
              when: times.when(each.at, now),
              event: t(`rules/events/${each.kind}`),
            })}
            : {sayWhy(each)}
          </li>
        ))}
      </ul>
    </li>
  );
}

function Explained({ number }: { number: number }) {
  const { t } = useWords();
  const { data, error, refetch } = useQuery({
    queryKey: ['rules', 'of', number],
    queryFn: () => call(api.rules.ofTicket, { params: { number } }),
  });
  if (error) return <ProblemNote error={error} onRetry={() => void refetch()} />;
  if (!data) return <Waiting />;
  if (data.length === 0) return <p>{t('rules/onTicket/none')}</p>;
  return (
    <ul className={classes.rules}>
      {data.map((each) => (
        <OneRule key={each.rule.id} {...each} />
      ))}
    </ul>
  );
}

/** Says which rules fired on a ticket, and why others did not. */
export function RulesOf({ number }: { number: number }) {
  const { t } = useWords();
  const [isOpen, setOpen] = useState(false);
  return (
    <>
      <Button size="compact-xs" variant="subtle" onClick={() => setOpen(true)}>
        {t('rules/onTicket/open')}
      </Button>
      <Modal opened={isOpen} onClose={() => setOpen(false)} title={t('rules/onTicket/title')} size="lg">
        {isOpen && <Explained number={number} />}
      </Modal>
    </>
  );
}
