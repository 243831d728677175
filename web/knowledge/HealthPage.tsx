import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Fates } from '../../contract/knowledge';
import { inLanguage } from '../../core/knowledge';
import { call } from '../api/call';
import { api } from '../api/endpoints';
import { useAllServices } from '../api/queries';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { useTimes } from '../ui/useTimes';
import { Waiting } from '../ui/Waiting';
import { CountsTable } from './CountsTable';
import { KnowledgeFrame } from './KnowledgeFrame';
import { Period } from './Period';
import classes from './Knowledge.module.css';

const FATES = ['alone', 'shared', 'without'] as const;
const COUNTS = [
  'shown',
  'opened',
  'helped',
  'notHelped',
  'deflected',
  'shared',
  'doneWith',
  'ticketAllTheSame',
] as const;

/** Three sets that add up, as parts of one bar. */
function FatesBar({ fates, name }: { fates: Fates; name: string }) {
  const { t } = useWords();
  const all = fates.alone + fates.shared + fates.without;
  const said = FATES.map((fate) => `${fates[fate]} ${t(`knowledge/${fate}`)}`).join(', ');
  return (
    <div className={classes.fates} role="img" aria-label={`${name}: ${said}`} title={said}>
      {FATES.map((fate) => (
        <span key={fate} data-fate={fate} style={{ width: `${(100 * fates[fate]) / Math.max(1, all)}%` }} />
      ))}
    </div>
  );
}

function FateRows({ rows }: { rows: (Fates & { name: string })[] }) {
  const { t } = useWords();
  return (
    <table className={classes.rows}>
      <thead>
        <tr>
          <th />
          <th style={{ width: '30%' }} />
          {FATES.map((fate) => (
            <th key={fate} data-number>
              {t(`knowledge/${fate}`)}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map(({ name, ...fates }) => (
          <tr key={name}>
            <td>{name}</td>
            <td>
              <FatesBar fates={fates} name={name} />
            </td>
            {FATES.map((fate) => (
              <td key={fate} data-number>
                {fates[fate]}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Which articles work, which do not, and what became of matters with and without them. */
export function HealthPage() {
  const { t, local, language } = useWords();
  const times = useTimes();
  const [days, setDays] = useState(28);
  const { data: services = [] } = useAllServices();
  const { data, error, refetch } = useQuery({
    queryKey: ['knowledge', 'health', days],
    queryFn: () => call(api.knowledge.health, { query: { days } }),
  });
  if (error && !data)
    return (
      <KnowledgeFrame>
        <ProblemNote error={error} onRetry={() => void refetch()} />
      </KnowledgeFrame>
    );
  if (!data)
    return (
      <KnowledgeFrame>
        <Waiting />
      </KnowledgeFrame>
    );
  const { fates, byService, weeks, articles, needy, due } = data;
  const serviceName = (id: string): string => {
    const service = services.find((each) => each.id === id);
    return service ? local(service.title) : id;
  };
  return (
    <KnowledgeFrame>
      <Period days={days} onChange={setDays} />
      <section className={classes.section}>
        <h2>{t('knowledge/fates')}</h2>
        <FatesBar fates={fates} name={t('knowledge/fates')} />
        <div className={classes.legend}>
          {FATES.map((fate) => (
            <span key={fate}>
              <i data-fate={fate} />
              <b>{fates[fate]}</b> {t(`knowledge/${fate}`)}
            </span>
          ))}
          <span className={classes.quiet}>{t('knowledge/fatesHelp')}</span>
        </div>
      </section>
      <div className={classes.split}>
        <section className={classes.section}>
          <h2>{t('knowledge/needy')}</h2>
          <p className={classes.quiet}>{t('knowledge/needyHelp')}</p>
          {needy.length === 0 && <p>{t('knowledge/nothingNeedy')}</p>}
          <table className={classes.rows}>
            <tbody>
              {needy.map((id) => {
                const { title, helped, notHelped, opened } = articles.find((each) => each.id === id)!;
                return (
                  <tr key={id}>
                    <td>
                      <Link to={`/knowledge/articles/${id}`}>{inLanguage(title, language)}</Link>
                    </td>
                    <td className={classes.quiet}>
                      {t('knowledge/needyLine', { helped, judged: helped + notHelped, opened })}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </section>
        <section className={classes.section}>
          <h2>{t('knowledge/due')}</h2>
          {due.length === 0 && <p>{t('knowledge/nothingDue')}</p>}
          <table className={classes.rows}>
            <tbody>
              {due.slice(0, 10).map(({ id, title, reviewAt }) => (
                <tr key={id}>
                  <td>
                    <Link to={`/knowledge/articles/${id}`}>{inLanguage(title, language)}</Link>
                  </td>
                  <td data-number className={classes.quiet}>
                    {times.day(reviewAt)}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      </div>
      <div className={classes.split}>
        <section className={classes.section}>
          <h2>{t('knowledge/byService')}</h2>
          <FateRows
            rows={byService
              .slice(0, 12)
              .map(({ serviceId, ...each }) => ({ ...each, name: serviceName(serviceId) }))}
          />
        </section>
        <section className={classes.section}>
          <h2>{t('knowledge/byWeek')}</h2>
          <FateRows rows={weeks.map(({ from, ...each }) => ({ ...each, name: times.day(from) }))} />
        </section>
      </div>
      <section className={classes.section}>
        <h2>{t('knowledge/all')}</h2>
        <CountsTable
          first={t('knowledge/article')}
          counts={COUNTS}
          rows={articles
            .filter(({ shown, opened, shared }) => shown + opened + shared > 0)
            .map((article) => ({
              ...article,
              key: article.id,
              name: (
                <Link to={`/knowledge/articles/${article.id}`}>{inLanguage(article.title, language)}</Link>
              ),
            }))}
        />
      </section>
    </KnowledgeFrame>
  );
}
