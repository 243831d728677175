import { Button, Checkbox, TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { ArticleCard } from '../../contract/knowledge';
import { ARTICLE_STATES, inLanguage, type ArticleState } from '../../core/knowledge';
import { foldText } from '../../core/text';
import { call } from '../api/call';
import { useNow } from '../api/clock';
import { api } from '../api/endpoints';
import { useTeams } from '../api/queries';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { useTimes } from '../ui/useTimes';
import { Waiting } from '../ui/Waiting';
import { KnowledgeFrame } from './KnowledgeFrame';
import classes from './Knowledge.module.css';

const SHOWN = 100;

/** All articles for those who write them. */
export function ArticlesPage() {
  const { t, local, language } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  const [wanted, setWanted] = useState('');
  const [states, setStates] = useState<ArticleState[]>(['draft', 'review', 'published']);
  const [most, setMost] = useState(SHOWN);
  const { data: teams = [] } = useTeams();
  const { data, error, refetch } = useQuery({
    queryKey: ['knowledge', 'list'],
    queryFn: () => call(api.knowledge.list),
  });
  const teamOf = (id: string): string => {
    const team = teams.find((each) => each.id === id);
    return team ? local(team.name) : '';
  };
  const fits = ({ title, labels, teamId, state }: ArticleCard): boolean =>
    states.includes(state) &&
    foldText([title.en, title.pt, ...labels, teamOf(teamId)].join(' ')).includes(foldText(wanted.trim()));
  const found = data?.filter(fits) ?? [];
  return (
    <KnowledgeFrame>
      <div className={classes.bar}>
        <TextInput
          label={t('knowledge/find')}
          value={wanted}
          onChange={({ target }) => setWanted(target.value)}
        />
        <Checkbox.Group value={states} onChange={(value) => setStates(value)}>
          {ARTICLE_STATES.map((state) => (
            <Checkbox key={state} size="xs" my={4} value={state} label={t(`knowledge/states/${state}`)} />
          ))}
        </Checkbox.Group>
        <Button component={Link} to="/knowledge/new" ms="auto">
          {t('knowledge/new')}
        </Button>
      </div>
      {error && !data && <ProblemNote error={error} onRetry={() => void refetch()} />}
      {!data && !error && <Waiting />}
      {data && found.length === 0 && <p>{t(data.length === 0 ? 'knowledge/none' : 'knowledge/noneFits')}</p>}
      {found.length > 0 && (
        <table className={classes.rows}>
          <tbody>
            {found.slice(0, most).map((article) => (
              <tr key={article.id}>
                <td>
                  <Link to={`/knowledge/articles/${article.id}`}>{inLanguage(article.title, language)}</Link>
                  <br />
                  <span className={classes.quiet}>
                    {teamOf(article.teamId)} · {t(`ask/places/${article.place}`)} ·{' '}
                    {article.labels.join(', ')}
                  </span>
                </td>
                <td>
                  {t(`knowledge/states/${article.state}`)}
                  {article.hasChanges && `, ${t('knowledge/changed')}`}
                  <br />
                  <span className={classes.quiet}>
                    {t(
                      article.isOpen
                        ? 'knowledge/readersOpen'
                        : article.isForAll
                          ? 'knowledge/readersAll'
                          : 'knowledge/readersAgents',
                    )}
                  </span>
                </td>
                <td data-number className={classes.quiet}>
                  {article.reviewAt !== null && article.reviewAt < now
                    ? t('knowledge/dueSince', { when: times.day(article.reviewAt) })
                    : times.day(article.changedAt)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {found.length > most && (
        <Button mt="sm" variant="default" onClick={() => setMost(most + SHOWN)}>
          {t('common/more')}
        </Button>
      )}
    </KnowledgeFrame>
  );
}
