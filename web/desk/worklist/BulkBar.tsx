import { Button, Group, Menu, Modal, Progress, Select, Stack, Textarea, TextInput } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { MOST_AT_ONCE, type Deed } from '../../../contract/bulk';
import { PRIORITIES, type MoveInput } from '../../../core/tickets';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useMe, useRenew, useTeams } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import type { Chosen } from './useChosen';
import type { SeenList } from './useList';
import classes from './Worklist.module.css';

type Props = { list: SeenList; chosen: Chosen; total: { count: number; isMore: boolean } | undefined };
type Asking = 'give' | 'hold' | 'finish' | 'priority' | 'answer' | 'note';

const LOOK_MS = 400;

/** What is asked before something is done to many. */
function DeedForm({
  asking,
  count,
  isBusy,
  error,
  onDo,
  onClose,
}: {
  asking: Asking;
  count: string;
  isBusy: boolean;
  error: unknown;
  onDo(deed: Deed): void;
  onClose(): void;
}) {
  const { t, local } = useWords();
  const me = useMe();
  const { data: teams = [] } = useTeams();
  const [text, setText] = useState('');
  const [choice, setChoice] = useState<string | null>(null);
  const own = teams.filter(({ members }) => members.some(({ id }) => id === me.id));
  const people = own.flatMap(({ id: teamId, members, name }) => [
    { value: `${teamId}:`, label: `${local(name)}: ${t('lists/nobody')}` },
    ...members.map(({ id, name: member }) => ({
      value: `${teamId}:${id}`,
      label: `${member}, ${local(name)}`,
    })),
  ]);
  const others = teams
    .filter((team) => !own.includes(team))
    .map(({ id, name }) => ({ value: `${id}:`, label: local(name) }));
  const move = (name: 'give' | 'hold' | 'finish', input: MoveInput): Deed => ({
    kind: 'move',
    name,
    input: input,
  });
  const toDeed = (): Deed | null => {
    switch (asking) {
      case 'give': {
        const [teamId, assigneeId] = (choice ?? '').split(':');
        return teamId ? move('give', { teamId, assigneeId: assigneeId || null, reason: text || null }) : null;
      }
      case 'hold':
        return text.trim() ? move('hold', { heldFor: 'requester', message: text }) : null;
      case 'finish':
        return text.trim() ? move('finish', { solution: text }) : null;
      case 'priority':
        return choice && text.trim()
          ? { kind: 'facts', facts: { priority: choice as 'P1', priorityReason: text } }
          : null;
      default:
        return text.trim()
          ? { kind: 'words', text, readBy: asking === 'answer' ? 'requester' : 'team' }
          : null;
    }
  };
  const deed = toDeed();
  return (
    <Modal opened onClose={onClose} title={t(`bulk/asking/${asking}`, { count })}>
      <Stack gap="sm">
        {asking === 'give' && (
          <Select
            data-autofocus
            searchable
            label={t('lists/giveTo')}
            data={[...people, ...others]}
            value={choice}
            onChange={setChoice}
          />
        )}
        {asking === 'priority' && (
          <Select
            data-autofocus
            label={t('conflict/fields/priority')}
            data={[...PRIORITIES]}
            value={choice}
            onChange={setChoice}
          />
        )}
        {asking === 'priority' || asking === 'give' ? (
          <TextInput
            label={t(asking === 'give' ? 'bulk/reasonOptional' : 'page/overrideReason')}
            value={text}
            onChange={({ target }) => setText(target.value)}
          />
        ) : (
          <Textarea
            data-autofocus
            autosize
            minRows={4}
            label={t(`bulk/text/${asking}`)}
            description={asking === 'answer' || asking === 'note' ? t('ready/blanks') : undefined}
            value={text}
            onChange={({ target }) => setText(target.value)}
          />
        )}
        <ProblemNote error={error} />
        <Group gap="xs">
          <Button disabled={!deed} loading={isBusy} onClick={() => deed && onDo(deed)}>
            {t('bulk/do', { count })}
          </Button>
          <Button variant="default" onClick={onClose}>
            {t('common/cancel')}
          </Button>
        </Group>
      </Stack>
    </Modal>
  );
}

/** How far something done to many is, what was refused and why, and the way back. */
function Job({ id, onUndone, onClose }: { id: string; onUndone(id: string): void; onClose(): void }) {
  const { t } = useWords();
  const renew = useRenew();
  const { data, error } = useQuery({
    queryKey: ['bulk', id],
    queryFn: () => call(api.bulk.get, { params: { id } }),
    refetchInterval: ({ state }) => (state.data && state.data.state !== 'running' ? false : LOOK_MS),
  });
  const stop = useMutation({ mutationFn: () => call(api.bulk.stop, { params: { id } }) });
  const undo = useMutation({
    mutationFn: () => call(api.bulk.undo, { params: { id }, key: nanoid() }),
    onSuccess: (made) => {
      renew();
      onUndone(made.id);
    },
  });
  if (error) return <ProblemNote error={error} />;
  if (!data) return null;
  const { state, total, done, refused, refusedCount, mayUndo } = data;
  const isRunning = state === 'running';
  return (
    <div className={classes.job} role="status">
      <span>
        {t(isRunning ? 'bulk/running' : data.deed.kind === 'undo' ? 'bulk/undone' : 'bulk/done', {
          done,
          total,
        })}
        {refusedCount > 0 && ` ${t('bulk/refused', { count: refusedCount })}`}
      </span>
      {isRunning && (
        <Progress value={(100 * (done + refusedCount)) / total} w={160} aria-label={t('bulk/progress')} />
      )}
      {isRunning && (
        <Button size="compact-sm" variant="default" onClick={() => stop.mutate()}>
          {t('bulk/stop')}
        </Button>
      )}
      {refused.length > 0 && (
        <Menu position="top-start">
          <Menu.Target>
            <Button size="compact-sm" variant="default">
              {t('bulk/which')}
            </Button>
          </Menu.Target>
          <Menu.Dropdown mah="50vh" style={{ overflowY: 'auto' }}>
            {refused.map(({ number, title, code }) => (
              <Menu.Item key={number} component="a" href={`/desk/everything/${number}`}>
                {number} <bdi>{title}</bdi>: {t(`bulk/why/${code}`, { defaultValue: t(`problems/${code}`) })}
              </Menu.Item>
            ))}
          </Menu.Dropdown>
        </Menu>
      )}
      {mayUndo && (
        <Button size="compact-sm" variant="default" loading={undo.isPending} onClick={() => undo.mutate()}>
          {t('common/undo')}
        </Button>
      )}
      {!isRunning && (
        <Button size="compact-sm" variant="subtle" onClick={onClose}>
          {t('common/close')}
        </Button>
      )}
    </div>
  );
}

/** What can be done to all that is chosen. */
export function BulkBar({ list, chosen, total }: Props) {
  const { t, count: writeCount } = useWords();
  const [asking, setAsking] = useState<Asking | null>(null);
  const [jobId, setJobId] = useState<string | null>(null);
  const start = useMutation({
    mutationFn: (deed: Deed) =>
      call(api.bulk.start, {
        params: { id: list.id },
        body: chosen.isAll
          ? { deed, ...(list.where && { where: JSON.stringify(list.where) }) }
          : { deed, numbers: chosen.numbers },
        key: nanoid(),
      }),
    onSuccess: ({ id }) => {
      setAsking(null);
      setJobId(id);
    },
  });
  const isTooMany = !chosen.isAll && chosen.count > MOST_AT_ONCE;
  const all = total ? writeCount(total.count, total.isMore) : '';
  const count = chosen.isAll ? all : writeCount(chosen.count);
  if (jobId)
    return (
      <div className={classes.foot}>
        <Job
          key={jobId}
          id={jobId}
          onUndone={setJobId}
          onClose={() => {
            setJobId(null);
            chosen.clear();
          }}
        />
      </div>
    );
  const ask = (what: Asking) => (
    <Button
      key={what}
      size="compact-sm"
      variant="default"
      disabled={isTooMany}
      onClick={() => {
        start.reset();
        setAsking(what);
      }}
    >
      {t(`bulk/ask/${what}`)}
    </Button>
  );
  return (
    <div className={classes.foot} role="toolbar" aria-label={t('bulk/title')}>
      <strong>{t('bulk/chosen', { count })}</strong>
      {isTooMany && <span role="status">{t('problems/tooManyAtOnce')}</span>}
      {!chosen.isAll && (
        <Button size="compact-sm" variant="subtle" onClick={chosen.chooseAll}>
          {t('bulk/all', { count: all })}
        </Button>
      )}
      <Button
        size="compact-sm"
        disabled={isTooMany}
        loading={start.isPending && asking === null}
        onClick={() => start.mutate({ kind: 'move', name: 'take', input: {} })}
      >
        {t('bulk/take')}
      </Button>
      {(['give', 'answer', 'note', 'hold', 'finish', 'priority'] as const).map(ask)}
      {asking === null && <ProblemNote error={start.error} />}
      <Button size="compact-sm" variant="subtle" onClick={chosen.clear}>
        {t('bulk/none')}
      </Button>
      {asking && (
        <DeedForm
          {...{ asking, count }}
          isBusy={start.isPending}
          error={start.error}
          onDo={start.mutate}
          onClose={() => {
            start.reset();
            setAsking(null);
          }}
        />
      )}
    </div>
  );
}
