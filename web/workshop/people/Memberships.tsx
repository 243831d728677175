import { ActionIcon, Group, Select, Text } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { IconX } from '@tabler/icons-react';
import { useMutation } from '@tanstack/react-query';
import type { KeptPerson } from '../../../contract/organisation';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useTeams } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import classes from '../Workshop.module.css';
import { useRenewPeople } from './usePeople';

type Membership = Pick<KeptPerson['teams'][number], 'teamId' | 'role' | 'groupId'>;
const ROLES = ['agent', 'lead', 'teamAdministrator'] as const;

function useMemberships(id: string) {
  const renew = useRenewPeople();
  const set = useMutation({
    mutationFn: ({ teamId, ...body }: Membership) =>
      call(api.organisation.setMember, { params: { id, teamId }, body }),
    onSettled: renew,
  });
  const remove = useMutation({
    mutationFn: (teamId: string) => call(api.organisation.removeMember, { params: { id, teamId } }),
    onSettled: renew,
  });
  return { set, remove };
}

/** The teams that someone works in, with what they are there. */
export function Memberships({ person: { id, teams: own, leftAt } }: { person: KeptPerson }) {
  const { t, local } = useWords();
  const { data: teams = [] } = useTeams();
  const { set, remove } = useMemberships(id);
  const others = teams.filter((team) => !own.some(({ teamId }) => teamId === team.id));
  const takeOut = (teamId: string, team: string): void =>
    remove.mutate(teamId, {
      onSuccess: () => void notifications.show({ message: t('people/takenOut', { team }) }),
    });
  return (
    <section className={classes.section} aria-labelledby="person-teams">
      <h2 id="person-teams">{t('people/teams')}</h2>
      {own.length === 0 && <Text size="sm">{t('people/inNone')}</Text>}
      {own.map(({ teamId, name, role, groupId }) => {
        const groups = teams.find((team) => team.id === teamId)?.groups ?? [];
        const team = local(name);
        return (
          <Group key={teamId} gap="sm" align="end" mb="xs" role="group" aria-label={team}>
            <Text size="sm" fw={600} w="100%">
              {team}
            </Text>
            <Select
              w={190}
              size="xs"
              allowDeselect={false}
              label={t('people/role')}
              data={ROLES.map((each) => ({ value: each, label: t(`people/memberRoles/${each}`) }))}
              value={role}
              onChange={(value) => set.mutate({ teamId, groupId, role: value as Membership['role'] })}
            />
            {groups.length > 0 && (
              <Select
                w={170}
                size="xs"
                clearable
                label={t('people/group')}
                placeholder={t('people/noGroup')}
                data={groups.map((group) => ({ value: group.id, label: group.name }))}
                value={groupId}
                onChange={(value) => set.mutate({ teamId, role, groupId: value })}
              />
            )}
            <ActionIcon
              size="lg"
              variant="subtle"
              color="gray"
              aria-label={t('people/takeOut', { team })}
              onClick={() => takeOut(teamId, team)}
            >
              <IconX size={16} />
            </ActionIcon>
          </Group>
        );
      })}
      {leftAt === null && others.length > 0 && (
        <Select
          w={260}
          mt="sm"
          searchable
          label={t('people/join')}
          data={others.map((team) => ({ value: team.id, label: local(team.name) }))}
          value={null}
          onChange={(teamId) => teamId && set.mutate({ teamId, role: 'agent', groupId: null })}
        />
      )}
      <ProblemNote error={set.error ?? remove.error} />
    </section>
  );
}
