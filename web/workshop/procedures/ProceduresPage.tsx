import { Button } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { NavLink, useNavigate, useParams } from 'react-router';
import type { Procedure } from '../../../contract/procedures';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useMe, useAllServices, useTeams } from '../../api/queries';
import '../../messages/proceduresWords';
import '../../messages/servicesWords';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { Waiting } from '../../ui/Waiting';
import { WorkshopFrame } from '../WorkshopFrame';
import { ProcedureEditor } from './ProcedureEditor';
import classes from './Procedures.module.css';

/** How the teams do their work, written once. */
export function ProceduresPage() {
  const { t, local } = useWords();
  const me = useMe();
  const navigate = useNavigate();
  const { id } = useParams();
  const { data: teams = [] } = useTeams();
  const { data: services = [] } = useAllServices();
  const { data, error, refetch } = useQuery({
    queryKey: ['procedures'],
    queryFn: () => call(api.procedures.list),
  });
  const [newFor, setNewFor] = useState<string | null>(null);
  const writable = teams.filter((team) => team.mayEdit || team.mayLead);
  const chosen = data?.find((each) => each.id === id) ?? null;
  const nameOf = ({ serviceId, kind, name }: Procedure): [string, string] => [
    local(name),
    serviceId !== null
      ? local(services.find((each) => each.id === serviceId)?.title ?? { en: serviceId, pt: serviceId })
      : t(`procedures/${kind ?? 'request'}s`),
  ];
  return (
    <WorkshopFrame lead={t('procedures/lead')}>
      {error ? (
        <ProblemNote error={error} onRetry={() => void refetch()} />
      ) : !data ? (
        <Waiting />
      ) : (
        <div className={classes.page}>
          <nav aria-label={t('procedures/title')}>
            {data.length === 0 && <p>{t('procedures/none')}</p>}
            {teams
              .filter((team) => data.some(({ teamId }) => teamId === team.id))
              .map((team) => (
                <section key={team.id}>
                  <h2>{local(team.name)}</h2>
                  {data
                    .filter(({ teamId }) => teamId === team.id)
                    .map((each) => (
                      <NavLink
                        key={each.id}
                        to={`/workshop/procedures/${each.id}`}
                        onClick={() => setNewFor(null)}
                      >
                        {nameOf(each)[0]}
                        <small>{nameOf(each)[1]}</small>
                      </NavLink>
                    ))}
                </section>
              ))}
            {writable.length > 0 && (
              <Button
                size="xs"
                mt="sm"
                variant="default"
                onClick={() => {
                  const own = writable.find((team) => me.teams.some(({ teamId }) => teamId === team.id));
                  setNewFor((own ?? writable[0]!).id);
                  void navigate('/workshop/procedures');
                }}
              >
                {t('procedures/new')}
              </Button>
            )}
          </nav>
          <div>
            {newFor !== null && !chosen && (
              <>
                <label className={classes.team}>
                  {t('procedures/team')}{' '}
                  <select value={newFor} onChange={({ target }) => setNewFor(target.value)}>
                    {writable.map((team) => (
                      <option key={team.id} value={team.id}>
                        {local(team.name)}
                      </option>
                    ))}
                  </select>
                </label>
                <ProcedureEditor key={newFor} teamId={newFor} procedure={null} />
              </>
            )}
            {chosen && (
              <ProcedureEditor
                key={`${chosen.id}:${chosen.version}`}
                teamId={chosen.teamId}
                procedure={chosen}
              />
            )}
          </div>
        </div>
      )}
    </WorkshopFrame>
  );
}
