import { Button, Select } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import type { Ticket } from '../../../contract/tickets';
import { ApiProblem, call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useRenew, useAllServices } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { Conflict } from '../../ui/Conflict';
import { PersonPicker } from '../../ui/PersonPicker';
import { ProblemNote } from '../../ui/ProblemNote';
import { useProblems } from '../../ui/useProblems';

/** What would be put in place of what is, as it is said on its way there. */
type Wanted = { id: string; key: string; version: number };

function useRefile(ticket: Ticket, send: (wanted: Wanted) => Promise<unknown>) {
  const renew = useRenew();
  const mutation = useMutation({ mutationFn: send, onSettled: () => renew(ticket.number) });
  const problems = useProblems()(mutation.error);
  const isStale = mutation.error instanceof ApiProblem && mutation.error.code === 'stale';
  const [problem] = Object.values(problems);
  return {
    problem,
    error: problem !== undefined || isStale ? null : mutation.error,
    put: (id: string) => mutation.mutate({ id, key: nanoid(), version: ticket.version }),
    conflict: (
      <Conflict
        error={mutation.error}
        onKeepTheirs={() => mutation.reset()}
        onPutMine={() => mutation.mutate({ ...mutation.variables!, key: nanoid(), version: ticket.version })}
      />
    ),
  };
}

/** The service under which it is filed, changed in place. */
export function ServiceFact({ ticket }: { ticket: Ticket }) {
  const { t, local } = useWords();
  const { data: services = [] } = useAllServices();
  const { put, problem, error, conflict } = useRefile(ticket, ({ id: serviceId, key, version }) =>
    call(api.tickets.changeService, {
      params: { number: ticket.number },
      body: { serviceId, version },
      key,
    }),
  );
  const { service } = ticket;
  const known = services.some(({ id }) => id === service.id)
    ? services
    : [{ id: service.id, title: service.title }, ...services];
  return (
    <div>
      <Select
        size="xs"
        mb={6}
        searchable
        allowDeselect={false}
        aria-label={t('conflict/fields/serviceId')}
        data={known.map(({ id, title }) => ({ value: id, label: local(title) }))}
        value={service.id}
        error={problem}
        onChange={(id) => {
          if (id !== null && id !== service.id) put(id);
        }}
      />
      <ProblemNote error={error} />
      {conflict}
    </div>
  );
}

/** Someone else in the place of the one who asks. */
export function OtherRequester({ ticket }: { ticket: Ticket }) {
  const { t } = useWords();
  const [isOpen, setOpen] = useState(false);
  const { put, problem, error, conflict } = useRefile(ticket, ({ id: requesterId, key, version }) =>
    call(api.tickets.changeRequester, {
      params: { number: ticket.number },
      body: { requesterId, version },
      key,
    }),
  );
  if (!isOpen)
    return (
      <div>
        <Button size="compact-xs" my={6} px={0} variant="subtle" onClick={() => setOpen(true)}>
          {t('page/otherRequester')}
        </Button>
      </div>
    );
  return (
    <div>
      <PersonPicker
        label={t('page/whoAsks')}
        description={t('page/whoAsksHelp')}
        onPick={({ id }) => put(id)}
      />
      {problem !== undefined && <p role="alert">{problem}</p>}
      <ProblemNote error={error} />
      {conflict}
    </div>
  );
}
