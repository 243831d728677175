import { Button, Group, Select, Stack, Textarea, TextInput } from '@mantine/core';
import { useEffect, useRef, useState } from 'react';
import { getMoveFields, HELD_FOR, type MoveField, type MoveInput, type MoveName } from '../../core/tickets';
import { useMe, useTeams } from '../api/queries';
import { useDraft } from '../api/useDraft';
import { useWords } from '../messages/useWords';
import { Conflict } from './Conflict';
import { ProblemNote } from './ProblemNote';
import { Rating } from './Rating';
import { ReceiverSelect } from './ReceiverSelect';
import { newMove, useMove, type Movable } from './useMove';
import { useProblems } from './useProblems';
import { InstantInput } from './InstantInput';

type Props = {
  ticket: Movable;
  name: MoveName;
  by: 'requester' | 'agent';
  requesterName: string;
  /** What is known of the form already. */
  known?: MoveInput;
  /** Whether it was opened just now: then its first field has the focus. */
  takesFocus?: boolean;
  onClose(): void;
};
type FieldProps = {
  field: MoveField;
  input: MoveInput;
  set(change: MoveInput): void;
  error: string | undefined;
  name: MoveName;
  requesterName: string;
};

const LONG = new Set(['message', 'reason', 'solution', 'stillBroken', 'ratingWord']);

function useFieldLabel(): (field: MoveField, name: MoveName, requesterName: string) => string {
  const { t } = useWords();
  return ({ name: fieldName, needed }, move, requesterName) => {
    const key =
      fieldName === 'message' && move === 'hold'
        ? 'messageQuestion'
        : fieldName === 'reason' && move === 'withdraw'
          ? 'reasonWithdraw'
          : fieldName;
    const label = t(`moves/fields/${key}`, { name: requesterName });
    return needed ? label : `${label} (${t('common/ifYouCan')})`;
  };
}

function ReceiverField({ field, input, set, error, label }: FieldProps & { label: string }) {
  const { t } = useWords();
  const { data: teams = [] } = useTeams();
  const team = teams.find(({ id }) => id === input.teamId);
  const me = useMe();
  if (field.name === 'teamId')
    return (
      <ReceiverSelect
        {...{ label, error }}
        peopleOf={me.teams.map(({ teamId }) => teamId)}
        value={
          typeof input.teamId === 'string'
            ? {
                teamId: input.teamId,
                assigneeId: typeof input.assigneeId === 'string' ? input.assigneeId : null,
              }
            : null
        }
        onChange={(receiver) => set({ ...receiver, groupId: null })}
      />
    );
  const choices = {
    groupId: (team?.groups ?? []).map(({ id, name }) => ({ value: id, label: name })),
    assigneeId: (team?.members ?? []).map(({ id, name }) => ({ value: id, label: name })),
  }[field.name as 'groupId' | 'assigneeId'];
  if (choices.length === 0) return null;
  return (
    <Select
      {...{ label, error, data: choices, searchable: true, clearable: !field.needed }}
      placeholder={t('common/choose')}
      value={(input[field.name] as string | undefined) ?? null}
      onChange={(value) => set({ [field.name]: value })}
    />
  );
}

/** One field of a move, by its name. */
function MoveFieldInput(props: FieldProps) {
  const { field, input, set, error, name, requesterName } = props;
  const { t } = useWords();
  const label = useFieldLabel()(field, name, requesterName);
  const value = input[field.name];
  if (field.name === 'rating')
    return <Rating value={(value as number | null) ?? null} onChange={(rating) => set({ rating })} />;
  if (field.name === 'heldFor')
    return (
      <Select
        {...{ label, error, placeholder: t('common/choose') }}
        data={HELD_FOR.filter((whom) => whom !== 'approval').map((whom) => ({
          value: whom,
          label: t(`heldFor/${whom}`),
        }))}
        value={(value as string | undefined) ?? null}
        onChange={(heldFor) => set({ heldFor })}
      />
    );
  if (field.name === 'until')
    return (
      <InstantInput
        {...{ label, error }}
        value={typeof value === 'number' ? value : null}
        onChange={(until) => set({ until })}
      />
    );
  if (['teamId', 'groupId', 'assigneeId'].includes(field.name))
    return <ReceiverField {...props} label={label} />;
  const shared = {
    label,
    error,
    value: (value as string | undefined) ?? '',
    onChange: ({ target }: { target: { value: string } }) => set({ [field.name]: target.value }),
  };
  const description =
    field.name === 'message' && name === 'finish'
      ? t('moves/messageSame', { name: requesterName })
      : undefined;
  return LONG.has(field.name) ? (
    <Textarea autosize minRows={2} maxRows={8} description={description} {...shared} />
  ) : (
    <TextInput {...shared} />
  );
}

/** The one small form that a move asks for, wherever the move is made. What is typed is kept until it is sent. */
export function MoveForm({
  ticket,
  name,
  by,
  requesterName,
  known = {},
  takesFocus = false,
  onClose,
}: Props) {
  const { t } = useWords();
  const form = useRef<HTMLFormElement>(null);
  useEffect(() => {
    const first = form.current?.querySelector<HTMLElement>('input, textarea, select, [tabindex="0"]');
    // A dialog that holds the form gives it the focus by this.
    first?.setAttribute('data-autofocus', 'true');
    if (takesFocus) first?.focus();
  }, [takesFocus]);
  const [typed, setTyped, clear] = useDraft<MoveInput>(`move:${ticket.number}:${name}`, {});
  const input = { ...known, ...typed };
  const [key, setKey] = useState(() => newMove(ticket, name, by).key);
  const done = (): void => {
    clear();
    onClose();
  };
  const move = useMove(ticket, done);
  const problems = useProblems()(move.error);
  const send = (under: string): void => move.mutate({ ...newMove(ticket, name, by, input), key: under });
  /** Over what somebody else did is another request: it goes under a key of its own. */
  const sendAgain = (): void => {
    const { key: next } = newMove(ticket, name, by);
    setKey(next);
    send(next);
  };
  const isConflict = move.error !== null && Object.keys(problems).length === 0;
  return (
    <form
      ref={form}
      aria-label={t(`moves/${name}`)}
      onKeyDown={(event) => {
        if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) event.currentTarget.requestSubmit();
      }}
      onSubmit={(event) => {
        event.preventDefault();
        send(key);
      }}
    >
      <Stack gap="sm">
        {getMoveFields(name, by, input).map((field) => (
          <MoveFieldInput
            key={field.name}
            {...{ field, input, name, requesterName, error: problems[field.name] }}
            set={(change) => setTyped({ ...typed, ...change })}
          />
        ))}
        {isConflict && <ProblemNote error={move.error} />}
        <Group gap="xs">
          <Button type="submit" loading={move.isPending}>
            {t(`moves/${name}`).replace(' …', '')}
          </Button>
          <Button variant="default" onClick={onClose}>
            {t('common/cancel')}
          </Button>
        </Group>
      </Stack>
      <Conflict error={move.error} onKeepTheirs={done} onPutMine={sendAgain} />
    </form>
  );
}
