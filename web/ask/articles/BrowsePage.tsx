import { TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { PLACES } from '../../../contract/names';
import { foldText } from '../../../core/text';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useTeams } from '../../api/queries';
import '../../messages/knowledgeWords';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { Waiting } from '../../ui/Waiting';
import home from '../home/Home.module.css';
import classes from './Articles.module.css';

/** All articles that one may read, by where one is. */
export function BrowsePage() {
  const { t, local } = useWords();
  const [wanted, setWanted] = useState('');
  const { data: teams = [] } = useTeams();
  const { data, error, refetch } = useQuery({
    queryKey: ['articles'],
    queryFn: () => call(api.knowledge.browse),
  });
  const teamOf = (id: string): string => {
    const team = teams.find((each) => each.id === id);
    return team ? local(team.name) : '';
  };
  const found = data?.filter(({ title, labels, teamId }) =>
    foldText([title, ...labels, teamOf(teamId)].join(' ')).includes(foldText(wanted.trim())),
  );
  return (
    <div className={home.page}>
      <Link to="/ask">{t('common/back')}</Link>
      <h1 className={home.title}>{t('knowledge/browse')}</h1>
      <TextInput
        maw={420}
        label={t('knowledge/browseFind')}
        value={wanted}
        onChange={({ target }) => setWanted(target.value)}
      />
      {error && !data && <ProblemNote error={error} onRetry={() => void refetch()} />}
      {!data && !error && <Waiting />}
      {found?.length === 0 && <p className={home.quiet}>{t('knowledge/noneFits')}</p>}
      {PLACES.filter((place) => found?.some((article) => article.place === place)).map((place) => (
        <section key={place}>
          <h2 className={home.section}>{t(`ask/places/${place}`)}</h2>
          <ul className={classes.titles}>
            {found!
              .filter((article) => article.place === place)
              .map(({ id, title, teamId }) => (
                <li key={id}>
                  <Link to={`/ask/articles/${id}`}>{title}</Link>
                  <span className={home.quiet}>{teamOf(teamId)}</span>
                </li>
              ))}
          </ul>
        </section>
      ))}
    </div>
  );
}
