import { Button, Group, Modal, MultiSelect, NumberInput, Select, TextInput } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import type { Ticket } from '../../contract/tickets';
import { call } from '../api/call';
import { api } from '../api/endpoints';
import { useRenew, useTeams } from '../api/queries';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { useProblems } from '../ui/useProblems';

function AddStep({ ticket, onClose }: { ticket: Ticket; onClose(): void }) {
  const { t, local } = useWords();
  const renew = useRenew();
  const { data: teams = [] } = useTeams();
  const legs = ticket.plan!.legs;
  // The part that is under way, else the last.
  const current = legs.find(({ steps }) => steps.some(({ state }) => state === 'active')) ?? legs.at(-1)!;
  const [name, setName] = useState('');
  const [legId, setLegId] = useState<string>(current.id);
  const [teamId, setTeamId] = useState<string>(ticket.team.id);
  const [hours, setHours] = useState(1);
  const [after, setAfter] = useState<string[]>([]);
  const [key] = useState(() => nanoid());
  const add = useMutation({
    mutationFn: () =>
      call(api.plans.add, {
        params: { number: ticket.number },
        body: { name, legId, teamId, hours, after },
        key,
      }),
    onSuccess: () => onClose(),
    onSettled: () => renew(ticket.number),
  });
  const problems = useProblems()(add.error);
  const beside = legs.find(({ id }) => id === legId)?.steps ?? [];
  return (
    <Modal opened onClose={onClose} title={t('plan/add')}>
      <TextInput
        data-autofocus
        label={t('plan/addName')}
        value={name}
        error={problems.name}
        onChange={({ target }) => setName(target.value)}
      />
      <Select
        mt="sm"
        allowDeselect={false}
        label={t('plan/addTeam')}
        data={teams.map(({ id, name: words }) => ({ value: id, label: local(words) }))}
        value={teamId}
        onChange={(value) => value && setTeamId(value)}
      />
      <Select
        mt="sm"
        allowDeselect={false}
        label={t('plan/addLeg')}
        data={legs.map(({ id, name: words }) => ({ value: id, label: local(words) }))}
        value={legId}
        onChange={(value) => {
          if (!value) return;
          setLegId(value);
          setAfter([]);
        }}
      />
      <MultiSelect
        mt="sm"
        label={t('plan/addAfter')}
        data={beside.map(({ id, name: words }) => ({ value: id, label: local(words) }))}
        value={after}
        onChange={setAfter}
      />
      <NumberInput
        mt="sm"
        label={t('plan/addHours')}
        min={0}
        value={hours}
        onChange={(value) => setHours(Number(value) || 0)}
      />
      {Object.keys(problems).length === 0 && <ProblemNote error={add.error} />}
      <Button mt="md" disabled={name.trim() === ''} loading={add.isPending} onClick={() => add.mutate()}>
        {t('plan/addNow')}
      </Button>
    </Modal>
  );
}

/** What can be done with a ticket's plan as a whole: one more step, and a word to the requester when it slips. */
export function PlanChanges({ ticket }: { ticket: Ticket }) {
  const { t } = useWords();
  const renew = useRenew();
  const [isAdding, setAdding] = useState(false);
  const { mayAdd, mayTellSlip } = ticket.plan!;
  const tell = useMutation({
    mutationFn: () => call(api.plans.tellSlip, { params: { number: ticket.number }, key: nanoid() }),
    onSuccess: () => notifications.show({ message: t('plan/slipTold', { name: ticket.requester.name }) }),
    onSettled: () => renew(ticket.number),
  });
  if (!mayAdd && !mayTellSlip) return null;
  return (
    <Group gap="xs" mt={8}>
      {mayTellSlip && (
        <Button size="compact-sm" variant="default" loading={tell.isPending} onClick={() => tell.mutate()}>
          {t('plan/tellSlip', { name: ticket.requester.name })}
        </Button>
      )}
      {mayAdd && (
        <Button size="compact-sm" variant="subtle" onClick={() => setAdding(true)}>
          {t('plan/add')}
        </Button>
      )}
      <ProblemNote error={tell.error} />
      {isAdding && <AddStep ticket={ticket} onClose={() => setAdding(false)} />}
    </Group>
  );
}
