import { Button } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { call } from '../api/call';
import { api } from '../api/endpoints';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { Waiting } from '../ui/Waiting';
import { KnowledgeFrame } from './KnowledgeFrame';
import { Period } from './Period';
import classes from './Knowledge.module.css';

/** What was asked and not answered: the list of articles worth writing. */
export function AskedPage() {
  const { t } = useWords();
  const [days, setDays] = useState(28);
  const { data, error, refetch } = useQuery({
    queryKey: ['knowledge', 'unanswered', days],
    queryFn: () => call(api.knowledge.unanswered, { query: { days } }),
  });
  const minutes = data?.minutesPerTicket ?? null;
  return (
    <KnowledgeFrame lead={t('knowledge/askedLead')}>
      <Period days={days} onChange={setDays} />
      {error && !data && <ProblemNote error={error} onRetry={() => void refetch()} />}
      {!data && !error && <Waiting />}
      {data?.groups.length === 0 && <p>{t('knowledge/nothingAsked')}</p>}
      {data && data.groups.length > 0 && (
        <table className={classes.rows}>
          <tbody>
            {data.groups.map(({ words, language, asked, tickets, others }) => (
              <tr key={`${language} ${words}`}>
                <td>
                  <strong lang={language}>{words}</strong>
                  {others.length > 0 && (
                    <div className={classes.quiet} lang={language}>
                      {t('knowledge/askedOthers', { words: others.join(' · ') })}
                    </div>
                  )}
                </td>
                <td data-number>{t('knowledge/askedLine', { count: asked })}</td>
                <td data-number>{t('knowledge/askedTickets', { count: tickets })}</td>
                <td data-number className={classes.quiet}>
                  {minutes !== null &&
                    tickets > 0 &&
                    t('knowledge/hours', { hours: ((tickets * minutes) / 60).toFixed(1) })}
                </td>
                <td data-number>
                  <Button
                    size="compact-sm"
                    variant="default"
                    component={Link}
                    to={`/knowledge/new?${new URLSearchParams({ title: words, language }).toString()}`}
                  >
                    {t('knowledge/writeIt')}
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {minutes !== null && (
        <p className={classes.quiet}>{t('knowledge/hoursHow', { minutes: Math.round(minutes) })}</p>
      )}
    </KnowledgeFrame>
  );
}
