import { Button, Group, Progress } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Replay } from '../../contract/compliance';
import type { Target } from '../../contract/targets';
import { toDefinition, toSentence, type TargetDefinition } from '../../core/targets';
import { call } from '../api/call';
import { api } from '../api/endpoints';
import { useTeams } from '../api/queries';
import '../messages/measuresWords';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { Waiting } from '../ui/Waiting';
import { TargetForm } from '../workshop/promises/TargetForm';
import { useTargetErrors, useTeamCalendars } from '../workshop/promises/TargetPage';
import { useTargets } from '../workshop/queries';
import { Otherwise, UNCHANGED } from './Otherwise';
import { MeasuresFrame } from './Frame';
import workshop from '../workshop/Workshop.module.css';
import classes from './Measures.module.css';
import { Result } from './ReplayResult';
import { usePeriod } from './usePeriod';

const LOOK_MS = 400;

function Going({ replay, onStop }: { replay: Replay; onStop(): void }) {
  const { t } = useWords();
  if (replay.state === 'failed') return <p role="alert">{t('measures/failed')}</p>;
  if (replay.state === 'stopped') return <p role="status">{t('measures/stopped')}</p>;
  if (replay.result) return <Result result={replay.result} />;
  return (
    <div>
      <p role="status">{t('measures/going', { done: replay.done, total: replay.total })}</p>
      <Progress
        value={replay.total === 0 ? 0 : (100 * replay.done) / replay.total}
        aria-label={t('measures/run')}
      />
      <Button mt="sm" variant="default" onClick={onStop}>
        {t('measures/stop')}
      </Button>
    </div>
  );
}

type What = { target: Target; teamCalendars: TargetDefinition['calendars']; from: number; to: number };

function WhatIf({ target, teamCalendars, from, to }: What) {
  const { t } = useWords();
  const [sentence, setSentence] = useState(() => toSentence(target.definition, teamCalendars));
  const definition = toDefinition(sentence, target.definition, teamCalendars);
  const [other, setOther] = useState(UNCHANGED);
  const errors = useTargetErrors()(definition);
  const start = useMutation({
    mutationFn: () =>
      call(api.compliance.replay, {
        body: { from, to, targets: [{ id: target.id, definition }], ...other },
      }),
  });
  const id = start.data?.id;
  const { data: replay, refetch } = useQuery({
    queryKey: ['replay', id],
    enabled: id !== undefined,
    refetchInterval: ({ state }) => (state.data && state.data.state !== 'running' ? false : LOOK_MS),
    queryFn: () => call(api.compliance.replayOf, { params: { id: id! } }),
  });
  const stop = useMutation({
    mutationFn: () => call(api.compliance.stopReplay, { params: { id: id! } }),
    onSettled: () => refetch(),
  });
  return (
    <div className={classes.whatIf}>
      <div>
        <TargetForm sentence={sentence} errors={errors} onChange={setSentence} />
        <Otherwise other={other} onChange={setOther} />
      </div>
      <div className={classes.outcome} data-before={id === undefined || undefined}>
        <Group mb="md">
          <Button
            loading={start.isPending || replay?.state === 'running'}
            disabled={Object.keys(errors).length > 0}
            onClick={() => start.mutate()}
          >
            {t('measures/run')}
          </Button>
        </Group>
        <ProblemNote error={start.error} />
        {replay ? <Going replay={replay} onStop={() => stop.mutate()} /> : id !== undefined && <Waiting />}
        {id === undefined && <p className={workshop.lead}>{t('measures/beforeLook')}</p>}
      </div>
    </div>
  );
}

/** What would have become of the real tickets under another promise. */
export function ReplayPage() {
  const { t } = useWords();
  const period = usePeriod();
  const { data: targets, error } = useTargets();
  const { data: teams } = useTeams();
  const teamCalendars = useTeamCalendars();
  const target = targets?.find(({ id }) => id === period.targetId) ?? targets?.[0];
  const { from, to } = period;
  return (
    <MeasuresFrame period={period}>
      <p className={workshop.lead}>{t('measures/what')}</p>
      <ProblemNote error={error} />
      {(!target || !teams) && !error && <Waiting />}
      {target && teams && <WhatIf key={target.id} {...{ target, teamCalendars, from, to }} />}
    </MeasuresFrame>
  );
}
