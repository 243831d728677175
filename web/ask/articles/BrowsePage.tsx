import { NativeSelect, TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { Link } from 'react-router';
import { PLACES } from '../../../contract/names';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useTeams } from '../../api/queries';
import { isQuestion } from '../../knowledge/useKnowledge';
import '../../messages/knowledgeWords';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { Waiting } from '../../ui/Waiting';
import home from '../home/Home.module.css';
import classes from './Articles.module.css';
import { FoundList } from './FoundList';

/** All articles that one may read: by where one is, of a team, or by words. */
export function BrowsePage() {
  const { t, local } = useWords();
  const [wanted, setWanted] = useState('');
  const [teamId, setTeamId] = useState('');
  const { data: teams = [] } = useTeams();
  const { data, error, refetch } = useQuery({
    queryKey: ['articles'],
    queryFn: () => call(api.knowledge.browse),
  });
  const q = useDeferredValue(wanted.trim());
  const teamOf = (id: string): string => {
    const team = teams.find((each) => each.id === id);
    return team ? local(team.name) : '';
  };
  const shown = data?.filter((article) => teamId === '' || article.teamId === teamId);
  const writing = teams.filter(({ id }) => data?.some((article) => article.teamId === id));
  return (
    <div className={home.page}>
      <Link to="/ask">{t('common/back')}</Link>
      <h1 className={home.title}>{t('knowledge/browse')}</h1>
      <div className={classes.narrow}>
        <TextInput
          label={t('knowledge/browseFind')}
          value={wanted}
          onChange={({ target }) => setWanted(target.value)}
        />
        <NativeSelect
          label={t('knowledge/writtenBy')}
          value={teamId}
          onChange={({ target }) => setTeamId(target.value)}
          data={[
            { value: '', label: t('knowledge/anyTeam') },
            ...writing.map(({ id }) => ({ value: id, label: teamOf(id) })),
          ]}
        />
      </div>
      {error && !data && <ProblemNote error={error} onRetry={() => void refetch()} />}
      {!data && !error && <Waiting />}
      {data && isQuestion(q) && (
        <FoundList
          {...{ q, team: teamId }}
          writtenBy={(id) => teamOf(data.find((article) => article.id === id)?.teamId ?? '')}
        />
      )}
      {!isQuestion(q) &&
        PLACES.filter((place) => shown?.some((article) => article.place === place)).map((place) => (
          <section key={place}>
            <h2 className={home.section}>{t(`ask/places/${place}`)}</h2>
            <ul className={classes.titles}>
              {shown!
                .filter((article) => article.place === place)
                .map(({ id, title, teamId: writtenBy }) => (
                  <li key={id}>
                    <Link to={`/ask/articles/${id}`}>{title}</Link>
                    <span className={home.quiet}>{teamOf(writtenBy)}</span>
                  </li>
                ))}
            </ul>
          </section>
        ))}
    </div>
  );
}
