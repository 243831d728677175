import { Button, NativeSelect, TextInput } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { ServiceLine } from '../../../contract/services';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useCategories, useMe, useTeams } from '../../api/queries';
import '../../messages/servicesWords';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { Waiting } from '../../ui/Waiting';
import { WorkshopFrame } from '../WorkshopFrame';
import { useCategoryPaths } from './AboutPart';
import { NewService } from './NewService';
import { SortableItem, SortableList } from '../../ui/Sortable';
import classes from './services.module.css';
import { Subjects } from './Subjects';

const KEY = ['serviceLines'];

function Line({ line }: { line: ServiceLine }) {
  const { t, local } = useWords();
  const { data: teams = [] } = useTeams();
  const { id, title, kind, teamId, version, isOn, hasDraft, openRequests, mayEdit } = line;
  const team = teams.find((each) => each.id === teamId);
  const state = [
    version > 0 ? t('services/published', { version }) : t('services/neverPublished'),
    version > 0 && !isOn && t('services/off'),
    hasDraft && version > 0 && t('services/draft'),
  ].filter(Boolean);
  return (
    <SortableItem
      id={id}
      className={classes.line}
      isFixed={!mayEdit}
      label={t('services/move', { name: local(title) })}
    >
      {(grip) => (
        <>
          {grip}
          <span>
            <Link to={`/workshop/services/${id}`}>{local(title) || id}</Link>{' '}
            <small>{t(`services/kinds/${kind}`)}</small>
          </span>
          <span>{team && local(team.name)}</span>
          <small>{state.join(' · ')}</small>
          <small>{openRequests > 0 && t('services/open', { count: openRequests })}</small>
        </>
      )}
    </SortableItem>
  );
}

/** The lines of each subject, in the order of the subjects; those of none last. */
function group(
  lines: ServiceLine[],
  paths: { value: string; label: string }[],
): { label: string; lines: ServiceLine[] }[] {
  const groups = [...paths, { value: '', label: '' }];
  return groups
    .map(({ value, label }) => ({
      label,
      lines: lines.filter(
        ({ categoryId }) => (paths.some((path) => path.value === categoryId) ? categoryId : '') === value,
      ),
    }))
    .filter((each) => each.lines.length > 0);
}

/** All services: found, put in order, begun. */
export function ServicesPage() {
  const { t, local } = useWords();
  const client = useQueryClient();
  const { data: teams = [] } = useTeams();
  const paths = useCategoryPaths();
  const [query, setQuery] = useState('');
  const [teamId, setTeamId] = useState('');
  const [isNew, setNew] = useState(false);
  const [areSubjectsOpen, setSubjectsOpen] = useState(false);
  const me = useMe();
  const { data: categories = [] } = useCategories();
  const { data: lines, error, refetch } = useQuery({ queryKey: KEY, queryFn: () => call(api.services.list) });
  const order = useMutation({
    mutationFn: (ids: string[]) => call(api.services.order, { body: { ids } }),
    onSettled: () => client.invalidateQueries({ queryKey: KEY }),
  });
  const move = (ids: string[]): void => {
    client.setQueryData<ServiceLine[]>(KEY, (before = []) => {
      const moved = ids.map((id) => before.find((line) => line.id === id)!);
      return [...before.filter(({ id }) => !ids.includes(id)), ...moved];
    });
    order.mutate(ids.filter((id) => lines?.find((line) => line.id === id)?.mayEdit));
  };
  const words = query.trim().toLowerCase();
  const fits = (line: ServiceLine): boolean =>
    (teamId === '' || line.teamId === teamId || (teamId === 'mine' && line.mayEdit)) &&
    (words === '' || local(line.title).toLowerCase().includes(words));
  const shown = (lines ?? []).filter(fits);
  return (
    <WorkshopFrame lead={t('services/lead')}>
      <div className={classes.tools}>
        <TextInput
          label={t('services/find')}
          value={query}
          onChange={({ target }) => setQuery(target.value)}
        />
        <NativeSelect
          label={t('services/team')}
          value={teamId}
          data={[
            { value: '', label: t('services/all') },
            { value: 'mine', label: t('services/mine') },
            ...teams.map(({ id, name }) => ({ value: id, label: local(name) })),
          ]}
          onChange={({ target }) => setTeamId(target.value)}
        />
        {teams.some(({ mayEdit }) => mayEdit) && (
          <Button onClick={() => setNew(true)}>{t('services/new')}</Button>
        )}
        {me.isAdministrator && (
          <Button variant="default" onClick={() => setSubjectsOpen(true)}>
            {t('services/subjects/open')}
          </Button>
        )}
      </div>
      {!lines && !error && <Waiting />}
      {error && <ProblemNote error={error} onRetry={() => void refetch()} />}
      <ProblemNote error={order.error} />
      {lines && shown.length === 0 && <p>{t('services/nothing')}</p>}
      {group(shown, paths).map(({ label, lines: own }) => (
        <section key={label} aria-label={label || t('services/about/noCategory')}>
          <h2 className={classes.subject}>{label || t('services/about/noCategory')}</h2>
          <SortableList ids={own.map(({ id }) => id)} onOrder={move}>
            <ul className={classes.lines}>
              {own.map((line) => (
                <Line key={line.id} line={line} />
              ))}
            </ul>
          </SortableList>
        </section>
      ))}
      {areSubjectsOpen && <Subjects before={categories} onClose={() => setSubjectsOpen(false)} />}
      {isNew && <NewService onClose={() => setNew(false)} />}
    </WorkshopFrame>
  );
}
