import { Button, Group, NativeSelect, TextInput } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import type { Target } from '../../../contract/targets';
import {
  checkTarget,
  toDefinition,
  toSentence,
  type TargetDefinition,
  type TargetSentence,
} from '../../../core/targets';
import { call } from '../../api/call';
import { useNow } from '../../api/clock';
import { api } from '../../api/endpoints';
import { useMe, useTeams } from '../../api/queries';
import '../../messages/measuresWords';
import { useWords } from '../../messages/useWords';
import { Lost } from '../../ui/Lost';
import { ProblemNote } from '../../ui/ProblemNote';
import { showUndo } from '../../ui/showUndo';
import { useTimes } from '../../ui/useTimes';
import { Waiting } from '../../ui/Waiting';
import { EffectDialog } from '../EffectDialog';
import { useTargets } from '../queries';
import workshop from '../Workshop.module.css';
import { hearsTargets, RulesAbout } from '../rules/RulesAbout';
import { WorkshopFrame } from '../WorkshopFrame';
import { Preview } from './Preview';
import classes from './Promises.module.css';
import { Notices } from './Notices';
import { TargetForm } from './TargetForm';

const MEASURES = ['firstAnswer', 'takenUp', 'resolution', 'delivery', 'decision'] as const;

/** What following the team means: each team's calendar, as the promises there are have it; else by the teams themselves. */
export function useTeamCalendars(): TargetDefinition['calendars'] {
  const { data: targets = [] } = useTargets();
  const { data: teams = [] } = useTeams();
  const known = targets.find(({ definition }) => definition.calendars.length > 1)?.definition.calendars;
  return (
    known ??
    teams.map(({ id, calendarId }) => ({
      when: { field: 'teamId', op: 'is', value: id } as const,
      calendarId,
    }))
  );
}

/** What is wrong with it, said while it is edited, by part of the sentence. */
export function useTargetErrors(): (definition: TargetDefinition) => Record<string, string> {
  const { t } = useWords();
  const parts: Record<string, string> = { stopWhen: 'stops' };
  return (definition) =>
    Object.fromEntries(
      checkTarget(definition).map(({ field, code }) => [
        parts[field] ?? field,
        t(`workshop/target/problems/${code}`),
      ]),
    );
}

const emptyDefinition = (id: string): TargetDefinition => ({
  ...{
    id,
    name: '',
    kind: 'serviceLevel',
    countFrom: 'start',
    excludeEarlierPauses: false,
    onReopen: 'resume',
  },
  startWhen: { all: [{ field: 'work', op: 'is', value: 'ticket' }] },
  stopWhen: { field: 'state', op: 'in', value: ['done', 'closed', 'withdrawn'] },
  cancelWhen: 'never',
  limits: [{ duration: 'P1D' }],
  calendars: [{ calendarId: 'office' }],
  warnAtPercent: [],
});

function Editions({ id, onTake }: { id: string; onTake(definition: TargetDefinition): void }) {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  const { data } = useQuery({
    queryKey: ['targetEditions', id],
    queryFn: () => call(api.targets.editions, { params: { id } }),
  });
  if (!data) return null;
  return (
    <section className={workshop.section}>
      <h2>{t('measures/edit/editions')}</h2>
      <ul className={classes.editions}>
        {data.map(({ edition, at, by, going, isForOpen, definition }) => (
          <li key={edition}>
            <b>{t('measures/edit/edition', { edition })}</b>{' '}
            {at === null
              ? t('measures/edit/first')
              : t('measures/edit/byWhom', { who: by, when: times.when(at, now) })}
            {' · '}
            {t('measures/edit/runBy', { count: going })}
            {!isForOpen && ` · ${t('measures/edit/forNew')}`}{' '}
            <Button size="compact-xs" variant="subtle" onClick={() => onTake(definition)}>
              {t('measures/edit/takeUp')}
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}

type Wanted = {
  sentence: TargetSentence;
  measures: (typeof MEASURES)[number];
  teamId: string | null;
  isForOpen: boolean;
};

function Editor({
  target,
  id,
  teamCalendars,
}: {
  target: Target | null;
  id: string;
  teamCalendars: TargetDefinition['calendars'];
}) {
  const { t, local } = useWords();
  const me = useMe();
  const client = useQueryClient();
  const navigate = useNavigate();
  const { data: teams = [] } = useTeams();
  const own = teams.filter(({ mayEdit }) => mayEdit);
  const [before, setBefore] = useState(target?.definition ?? emptyDefinition(id));
  const [wanted, setWanted] = useState<Wanted>({
    sentence: toSentence(before, teamCalendars),
    measures: (target?.measures as Wanted['measures'] | undefined) ?? 'resolution',
    teamId: target ? target.teamId : me.isAdministrator ? null : (own[0]?.id ?? null),
    isForOpen: true,
  });
  const [isLooking, setLooking] = useState(false);
  const definition = toDefinition(wanted.sentence, before, teamCalendars);
  const errors = useTargetErrors()(definition);
  const define = (version: number, sent: TargetDefinition) =>
    call(api.targets.define, {
      params: { id },
      body: {
        ...{ version, measures: wanted.measures, teamId: wanted.teamId, isForOpen: wanted.isForOpen },
        definition: sent,
      },
    });
  const renew = async (): Promise<void> => {
    await client.invalidateQueries({ queryKey: ['targets'] });
    await client.invalidateQueries({ queryKey: ['targetEditions'] });
  };
  const save = useMutation({
    mutationFn: () => define(target?.version ?? 0, definition),
    onSuccess: async ({ version, edition }) => {
      setLooking(false);
      await renew();
      const message = t('measures/edit/saved', { edition });
      if (target) showUndo(message, t('common/undo'), () => define(version, target.definition).then(renew));
      else await navigate(`/workshop/promises/${id}`, { replace: true });
    },
  });
  const mayEdit = target ? target.mayEdit : me.isAdministrator || own.length > 0;
  const { sentence } = wanted;
  const names = (list: readonly string[], key: string) =>
    list.map((value) => ({ value, label: t(`measures/edit/${key}/${value}`) }));
  return (
    <>
      <p>
        <Link to="/workshop/promises">{t('workshop/promises')}</Link>
        {target && me.areas.includes('measures') && (
          <>
            {' · '}
            <Link to={`/measures/replay?target=${id}`}>{t('measures/replay')}</Link>
            {' · '}
            <Link to={`/measures/compliance?target=${id}`}>{t('measures/compliance')}</Link>
          </>
        )}
      </p>
      <div className={classes.define}>
        <fieldset disabled={!mayEdit}>
          <TextInput
            label={t('measures/edit/name')}
            value={sentence.name}
            onChange={({ target: input }) =>
              setWanted({ ...wanted, sentence: { ...sentence, name: input.value } })
            }
          />
          <div className={classes.part}>
            <b>{t('measures/edit/measures')}</b>
            <NativeSelect
              size="xs"
              maw={420}
              aria-label={t('measures/edit/measures')}
              value={wanted.measures}
              data={names(MEASURES, 'measure')}
              onChange={({ target: input }) =>
                setWanted({ ...wanted, measures: input.value as Wanted['measures'] })
              }
            />
          </div>
          <TargetForm
            key={JSON.stringify(before)}
            sentence={sentence}
            errors={errors}
            onChange={(next) => setWanted({ ...wanted, sentence: next })}
          />
          <div className={classes.part}>
            <b>{t('measures/edit/warns')}</b>
            <div>{target ? <Notices target={target} /> : <small>{t('measures/edit/warnsLater')}</small>}</div>
          </div>
          <div className={classes.part}>
            <b>{t('measures/edit/team')}</b>
            <NativeSelect
              size="xs"
              maw={420}
              aria-label={t('measures/edit/team')}
              value={wanted.teamId ?? ''}
              data={[
                ...(me.isAdministrator || wanted.teamId === null
                  ? [{ value: '', label: t('measures/edit/everyone') }]
                  : []),
                ...(me.isAdministrator ? teams : own).map((team) => ({
                  value: team.id,
                  label: local(team.name),
                })),
              ]}
              onChange={({ target: input }) => setWanted({ ...wanted, teamId: input.value || null })}
            />
          </div>
          <div className={classes.part}>
            <b>{t('measures/edit/open')}</b>
            <NativeSelect
              size="xs"
              maw={420}
              aria-label={t('measures/edit/open')}
              value={wanted.isForOpen ? 'all' : 'new'}
              data={names(['all', 'new'], 'openNames')}
              onChange={({ target: input }) => setWanted({ ...wanted, isForOpen: input.value === 'all' })}
            />
          </div>
          {!isLooking && <ProblemNote error={save.error} />}
          <Group mt="md">
            <Button
              disabled={Object.keys(errors).length > 0 || sentence.name.trim() === ''}
              onClick={() => setLooking(true)}
            >
              {t('measures/edit/see')}
            </Button>
          </Group>
        </fieldset>
        <Preview definition={definition} />
      </div>
      {target && (
        <Editions
          id={id}
          onTake={(former) => {
            setBefore({ ...former, warnAtPercent: before.warnAtPercent });
            setWanted({ ...wanted, sentence: toSentence(former, teamCalendars) });
          }}
        />
      )}
      {isLooking && (
        <EffectDialog
          read={() => call(api.targets.effect, { params: { id }, body: { definition } })}
          isSaving={save.isPending}
          error={save.error}
          onSave={() => save.mutate()}
          onClose={() => setLooking(false)}
        />
      )}
    </>
  );
}

/** One promise, as a sentence to be changed, beside a real ticket under it. */
export function TargetPage() {
  const { id = 'new' } = useParams();
  const { data, error } = useTargets();
  const [newId] = useState(() => nanoid(12));
  const teamCalendars = useTeamCalendars();
  const { data: teams } = useTeams();
  const target = data?.find((each) => each.id === id) ?? null;
  return (
    <WorkshopFrame>
      <ProblemNote error={error} />
      {(!data || !teams) && !error && <Waiting />}
      {data && teams && (target || id === 'new') && (
        <Editor
          key={`${id}:${target?.version ?? 0}`}
          target={target}
          id={target?.id ?? newId}
          teamCalendars={teamCalendars}
        />
      )}
      {data && teams && target && <RulesAbout what="target" isAbout={hearsTargets} />}
      {data && !target && id !== 'new' && <Lost />}
    </WorkshopFrame>
  );
}
