import { Button, Checkbox, Select, Table } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { Team } from '../../../contract/people';
import type { Site } from '../../../contract/teams';
import type { OutOfHours } from '../../../core/hours';
import { PRIORITIES, type ProgressLabel } from '../../../core/tickets';
import { call } from '../../api/call';
import { useNow } from '../../api/clock';
import { api } from '../../api/endpoints';
import { useMe, useSites, useTeams } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { showUndo } from '../../ui/showUndo';
import { useTimes } from '../../ui/useTimes';
import { Waiting } from '../../ui/Waiting';
import { useCalendarList } from '../queries';
import classes from '../Workshop.module.css';
import { WorkshopFrame } from '../WorkshopFrame';
import { EffectDialog } from '../EffectDialog';
import { HoursForm } from './HoursForm';
import { Groups } from './Groups';
import { LabelsForm } from './LabelsForm';
import { NewSite } from './NewSite';
import { NewTeam } from './NewTeam';
import { OtherTeams } from './OtherTeams';

type Change = Partial<{
  calendarId: string;
  outOfHours: OutOfHours;
  progressLabels: ProgressLabel[];
  decidesInChat: boolean;
  answersMail: boolean;
  givenOnBy: string[] | null;
  readBy: string[] | null;
}>;

function useCalendarChoices() {
  const { data = [] } = useCalendarList();
  return data.map(({ id, spec }) => ({ value: id, label: spec.name }));
}

/** Saves a change of a team, with the way back. */
function useTeamUpdate(team: Team) {
  const { t } = useWords();
  const client = useQueryClient();
  const patch = async (version: number, change: Change): Promise<number> => {
    const saved = await call(api.teams.update, { params: { id: team.id }, body: { version, ...change } });
    await client.invalidateQueries({ queryKey: ['teams'] });
    await client.invalidateQueries({ queryKey: ['calendars'] });
    return saved.version;
  };
  return useMutation({
    mutationFn: (change: Change) => patch(team.version, change),
    onSuccess: (version, change) => {
      const before = Object.fromEntries(
        Object.keys(change).map((name) => [name, team[name as keyof Change]]),
      );
      showUndo(t('workshop/team/saved'), t('common/undo'), () => patch(version, before));
    },
  });
}

function TeamRow({ team, teams }: { team: Team; teams: Team[] }) {
  const { t, local } = useWords();
  const choices = useCalendarChoices();
  const update = useTeamUpdate(team);
  const [editing, setEditing] = useState<'hours' | 'labels' | null>(null);
  const [calendarId, setCalendarId] = useState<string | null>(null);
  const { goesTo, priorities, words } = team.outOfHours;
  const other = teams.find(({ id }) => id === goesTo);
  const rule = !other
    ? t('workshop/team/waits')
    : priorities.length === PRIORITIES.length
      ? t('workshop/team/all', { team: local(other.name) })
      : t('workshop/team/goes', { priorities: priorities.join(', '), team: local(other.name) });
  return (
    <Table.Tr>
      <Table.Td>
        <strong>{local(team.name)}</strong>
      </Table.Td>
      <Table.Td w={220}>
        <Select
          size="xs"
          allowDeselect={false}
          aria-label={t('workshop/team/calendar', { name: local(team.name) })}
          data={choices}
          value={team.calendarId}
          readOnly={!team.mayEdit}
          onChange={(calendarId) => calendarId && calendarId !== team.calendarId && setCalendarId(calendarId)}
        />
      </Table.Td>
      <Table.Td>
        {rule}
        {team.progressLabels.length > 0 && (
          <small
            className={classes.small}
          >{`${t('workshop/team/labels')}: ${team.progressLabels.map(({ name }) => local(name)).join(', ')}`}</small>
        )}
        {words && <small className={classes.small}>{`${t('workshop/team/word')}: “${local(words)}”`}</small>}
        <Checkbox
          mt={4}
          size="xs"
          label={t('workshop/team/decidesInChat')}
          aria-label={`${t('workshop/team/decidesInChat')}: ${local(team.name)}`}
          checked={team.decidesInChat}
          disabled={!team.mayEdit || update.isPending}
          onChange={({ target }) => update.mutate({ decidesInChat: target.checked })}
        />
        {!team.isConfidential && (
          <Checkbox
            mt={10}
            size="xs"
            label={t('workshop/team/answersMail')}
            aria-label={`${t('workshop/team/answersMail')}: ${local(team.name)}`}
            checked={team.answersMail}
            disabled={!team.mayEdit || update.isPending}
            onChange={({ target }) => update.mutate({ answersMail: target.checked })}
          />
        )}
        {!team.isConfidential &&
          (['readBy', 'givenOnBy'] as const).map((field) => (
            <OtherTeams
              key={field}
              {...{ team, teams, field, isBusy: update.isPending }}
              onChange={(value) => update.mutate({ [field]: value })}
            />
          ))}
        <Groups team={team} />
        <ProblemNote error={editing ? null : update.error} />
      </Table.Td>
      <Table.Td ta="right">
        {team.mayEdit && (
          <Button size="compact-sm" variant="subtle" onClick={() => setEditing('hours')}>
            {t('workshop/team/change')}
          </Button>
        )}
        {(team.mayEdit || team.mayLead) && (
          <Button size="compact-sm" variant="subtle" onClick={() => setEditing('labels')}>
            {t('workshop/team/labels')}
          </Button>
        )}
        {calendarId !== null && (
          <EffectDialog
            read={() => call(api.teams.effect, { params: { id: team.id }, body: { calendarId } })}
            isSaving={update.isPending}
            error={update.error}
            onSave={() => update.mutate({ calendarId }, { onSuccess: () => setCalendarId(null) })}
            onClose={() => setCalendarId(null)}
          />
        )}
        {editing === 'labels' && (
          <LabelsForm
            team={team}
            isSaving={update.isPending}
            error={update.error}
            onSave={(progressLabels) =>
              update.mutate({ progressLabels }, { onSuccess: () => setEditing(null) })
            }
            onClose={() => setEditing(null)}
          />
        )}
        {editing === 'hours' && (
          <HoursForm
            team={team}
            isSaving={update.isPending}
            error={update.error}
            onSave={(outOfHours) => update.mutate({ outOfHours }, { onSuccess: () => setEditing(null) })}
            onClose={() => setEditing(null)}
          />
        )}
      </Table.Td>
    </Table.Tr>
  );
}

function SiteRow({ site, now }: { site: Site; now: number }) {
  const { t } = useWords();
  const me = useMe();
  const times = useTimes();
  const choices = useCalendarChoices();
  const client = useQueryClient();
  const update = useMutation({
    mutationFn: (calendarId: string) =>
      call(api.teams.updateSite, { params: { id: site.id }, body: { calendarId } }),
    onSettled: () => client.invalidateQueries({ queryKey: ['sites'] }),
  });
  return (
    <Table.Tr>
      <Table.Td>{site.name}</Table.Td>
      <Table.Td w={220}>
        <Select
          size="xs"
          allowDeselect={false}
          aria-label={t('workshop/team/calendar', { name: site.name })}
          data={choices}
          value={site.calendarId}
          readOnly={!me.isAdministrator}
          onChange={(calendarId) => calendarId && update.mutate(calendarId)}
        />
        <ProblemNote error={update.error} />
      </Table.Td>
      <Table.Td>{site.timeZone}</Table.Td>
      <Table.Td>{times.hour(now, site.timeZone)}</Table.Td>
    </Table.Tr>
  );
}

/** When teams and sites work, and what happens to a team's work while it is off. */
export function HoursPage() {
  const { t } = useWords();
  const me = useMe();
  const now = useNow(30_000);
  const { data: teams, error, refetch } = useTeams();
  const { data: sites = [] } = useSites();
  const [isNew, setNew] = useState<'team' | 'site' | null>(null);
  const close = (): void => setNew(null);
  return (
    <WorkshopFrame lead={t('workshop/team/lead')}>
      {!teams && !error && <Waiting />}
      {error && <ProblemNote error={error} onRetry={() => void refetch()} />}
      {teams && (
        <>
          <Table verticalSpacing={6} className={classes.tall}>
            <Table.Tbody>
              {teams.map((team) => (
                <TeamRow key={team.id} {...{ team, teams }} />
              ))}
            </Table.Tbody>
          </Table>
          {me.isAdministrator && (
            <Button mt="sm" size="xs" variant="default" onClick={() => setNew('team')}>
              {t('workshop/team/new')}
            </Button>
          )}
          <section className={classes.section}>
            <h2>{t('workshop/team/sites')}</h2>
            <Table verticalSpacing={4}>
              <Table.Tbody>
                {sites.map((site) => (
                  <SiteRow key={site.id} {...{ site, now }} />
                ))}
              </Table.Tbody>
            </Table>
            {me.isAdministrator && (
              <Button mt="sm" size="xs" variant="default" onClick={() => setNew('site')}>
                {t('workshop/team/newSite')}
              </Button>
            )}
          </section>
        </>
      )}
      {isNew === 'team' && <NewTeam onClose={close} />}
      {isNew === 'site' && <NewSite onClose={close} />}
    </WorkshopFrame>
  );
}
