import { Alert, Button, FileButton, Group, NumberInput, Select, TextInput } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { Calendar } from '../../../contract/calendars';
import { checkCalendar, type CalendarSpec } from '../../../core/calendar';
import { ApiProblem, call } from '../../api/call';
import { useNow } from '../../api/clock';
import { api } from '../../api/endpoints';
import { useTeams } from '../../api/queries';
import { useDraft } from '../../api/useDraft';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { showUndo } from '../../ui/showUndo';
import { EffectDialog } from '../EffectDialog';
import classes from '../Workshop.module.css';
import { Holidays } from './Holidays';
import { TryOut } from './TryOut';
import { WeekGrid } from './WeekGrid';
import { YearStrip } from './YearStrip';
import { toZonedText } from '../../ui/zonedInstant';

const ZONES = Intl.supportedValuesOf('timeZone');
type Draft = { version: number; spec: CalendarSpec } | null;

/** Who keeps a calendar, in words. */
function useUsers(): (usedBy: Calendar['usedBy']) => string {
  const { t, local } = useWords();
  const { data: teams = [] } = useTeams();
  return ({ teams: ids, sites, targets }) =>
    [
      ...teams.filter(({ id }) => ids.includes(id)).map(({ name }) => local(name)),
      ...sites,
      ...(targets.length > 0 ? [t('workshop/calendar/promisesUse', { count: targets.length })] : []),
    ].join(', ');
}

/** Saves, with what was there before one click away. */
function useSave(calendar: Calendar, onSaved: () => void) {
  const { t } = useWords();
  const client = useQueryClient();
  const put = async (version: number, spec: CalendarSpec): Promise<number> => {
    const saved = await call(api.calendars.update, { params: { id: calendar.id }, body: { version, spec } });
    await client.invalidateQueries({ queryKey: ['calendars'] });
    return saved.version;
  };
  return useMutation({
    mutationFn: ({ version, spec }: NonNullable<Draft>) => put(version, spec),
    onSuccess: (version, { spec }) => {
      onSaved();
      showUndo(t('workshop/saved', { name: spec.name }), t('common/undo'), () => put(version, calendar.spec));
    },
  });
}

/** Reads an iCalendar file into the draft; what is wrong with it is said by line. */
function useFile(calendar: Calendar, spec: CalendarSpec, onSpec: (spec: CalendarSpec) => void) {
  return useMutation({
    mutationFn: async (file: File) =>
      call(api.calendars.read, { params: { id: calendar.id }, body: { text: await file.text(), spec } }),
    onSuccess: (read) => onSpec(read.spec),
  });
}

function FileNote({ file }: { file: ReturnType<typeof useFile> }) {
  const { t } = useWords();
  const facts = file.error instanceof ApiProblem ? file.error.problem?.facts : undefined;
  if (file.data)
    return (
      <Alert mt="xs" color="sea">
        {t('workshop/calendar/fileRead', { count: file.data.added, passedOver: file.data.passedOver })}
      </Alert>
    );
  if (!file.error) return null;
  return facts?.line === undefined ? (
    <ProblemNote error={file.error} />
  ) : (
    <p className={classes.error} role="alert">
      {t('workshop/calendar/fileFault', {
        line: facts.line,
        fault: t(`workshop/calendar/faults/${String(facts.fault)}`),
        text: facts.text,
      })}
    </p>
  );
}

/** One working calendar: its zone, its week, its year, and what a change of it would move. */
export function CalendarEditor({ calendar }: { calendar: Calendar }) {
  const { t } = useWords();
  const now = useNow(60_000);
  const users = useUsers();
  const [draft, setDraft, clearDraft] = useDraft<Draft>(`calendar-${calendar.id}`, null);
  const spec = draft?.spec ?? calendar.spec;
  const isLocked = !calendar.mayEdit;
  const isDirty = draft !== null && JSON.stringify(draft.spec) !== JSON.stringify(calendar.spec);
  const change = (part: Partial<CalendarSpec>): void =>
    setDraft({ version: draft?.version ?? calendar.version, spec: { ...spec, ...part } });
  const [isAsking, setAsking] = useState(false);
  const [isHolidays, setHolidays] = useState(false);
  const save = useSave(calendar, () => {
    clearDraft();
    setAsking(false);
  });
  const file = useFile(calendar, spec, (read) => change(read));
  const problems = Object.fromEntries(
    checkCalendar(spec, now).map(({ field, code }) => [field, t(`workshop/fields/${code}`)]),
  );
  const isStale = draft !== null && draft.version !== calendar.version;
  const used = users(calendar.usedBy);
  const firstFault = Object.entries(problems).find(
    ([field]) => field === 'weekly' || field.startsWith('exceptions'),
  );
  return (
    <div>
      {isLocked && <p className={classes.lead}>{t('workshop/lookOnly')}</p>}
      <Group align="flex-start" gap="sm">
        <TextInput
          label={t('workshop/calendar/name')}
          w={250}
          value={spec.name}
          readOnly={isLocked}
          onChange={({ target }) => change({ name: target.value })}
        />
        <Select
          searchable
          label={t('workshop/calendar/zone')}
          w={210}
          data={ZONES}
          value={spec.timeZone}
          readOnly={isLocked}
          allowDeselect={false}
          error={problems.timeZone}
          onChange={(timeZone) => timeZone && change({ timeZone })}
        />
        <NumberInput
          label={t('workshop/calendar/hoursPerDay')}
          w={190}
          min={0}
          max={24}
          step={0.5}
          value={spec.hoursPerDay}
          readOnly={isLocked}
          error={problems.hoursPerDay}
          onChange={(value) => change({ hoursPerDay: Number(value) })}
        />
      </Group>
      <p className={classes.small}>
        {used ? t('workshop/calendar/usedBy', { who: used }) : t('workshop/calendar/unused')}
      </p>

      <section className={classes.section}>
        <h2>{t('workshop/calendar/week')}</h2>
        <WeekGrid
          weekly={spec.weekly}
          {...{ isLocked, problems }}
          onChange={(weekly) => change({ weekly })}
        />
      </section>
      {firstFault && (
        <p className={classes.error} role="alert">
          {firstFault[1]}
        </p>
      )}

      <section className={classes.section}>
        <h2>{t('workshop/calendar/try')}</h2>
        <TryOut key={calendar.id} spec={spec} first={toZonedText(now, spec.timeZone)} />
      </section>

      <section className={classes.section}>
        <h2>{t('workshop/calendar/year')}</h2>
        <YearStrip
          key={calendar.id}
          {...{ spec, isLocked, firstYear: new Date(now).getUTCFullYear() }}
          onChange={(exceptions) => change({ exceptions })}
        />
        <Group mt="sm" gap="xs">
          {!isLocked && (
            <>
              <Button size="xs" variant="default" onClick={() => setHolidays(true)}>
                {t('workshop/calendar/holidays')}
              </Button>
              <FileButton accept=".ics,text/calendar" onChange={(chosen) => chosen && file.mutate(chosen)}>
                {(props) => (
                  <Button {...props} size="xs" variant="default" loading={file.isPending}>
                    {t('workshop/calendar/file')}
                  </Button>
                )}
              </FileButton>
            </>
          )}
          <Button
            size="xs"
            variant="default"
            component="a"
            href={`/api/v1/calendars/${calendar.id}/calendar.ics`}
            download
          >
            {t('workshop/calendar/fileOut')}
          </Button>
          {!isLocked && <Remove calendar={calendar} />}
        </Group>
        <FileNote file={file} />
      </section>

      {isDirty && (
        <div className={classes.bar} role="status">
          <strong>{isStale ? t('workshop/stale') : t('workshop/unsaved')}</strong>
          <Button variant="default" onClick={clearDraft}>
            {t(isStale ? 'workshop/takeTheirs' : 'workshop/throwAway')}
          </Button>
          {isStale ? (
            <Button onClick={() => setDraft({ version: calendar.version, spec })}>
              {t('conflict/putMine')}
            </Button>
          ) : (
            <Button disabled={Object.keys(problems).length > 0} onClick={() => setAsking(true)}>
              {t('workshop/save')}
            </Button>
          )}
        </div>
      )}
      {isAsking && draft && (
        <EffectDialog
          read={() => call(api.calendars.effect, { params: { id: calendar.id }, body: { spec } })}
          isSaving={save.isPending}
          error={save.error}
          onSave={() => save.mutate(draft)}
          onClose={() => setAsking(false)}
        />
      )}
      {isHolidays && (
        <Holidays
          year={new Date(now).getUTCFullYear()}
          onClose={() => setHolidays(false)}
          onAdd={(days) => {
            const added = new Set(days.map(({ date }) => date));
            const kept = spec.exceptions.filter(({ date }) => !added.has(date));
            const all = [...kept, ...days.map((day) => ({ ...day, windows: [] }))];
            change({ exceptions: all.sort((a, b) => (a.date < b.date ? -1 : 1)) });
            setHolidays(false);
          }}
        />
      )}
    </div>
  );
}

function Remove({ calendar }: { calendar: Calendar }) {
  const { t } = useWords();
  const client = useQueryClient();
  const navigate = useNavigate();
  const users = useUsers();
  const { id, spec } = calendar;
  const again = async (): Promise<void> => {
    await call(api.calendars.create, { body: { spec }, key: nanoid() });
    await client.invalidateQueries({ queryKey: ['calendars'] });
  };
  const remove = useMutation({
    mutationFn: () => call(api.calendars.remove, { params: { id } }),
    onSuccess: async () => {
      showUndo(t('workshop/removed', { name: spec.name }), t('common/undo'), again);
      await navigate('/workshop/calendars');
      await client.invalidateQueries({ queryKey: ['calendars'] });
    },
  });
  const facts = remove.error instanceof ApiProblem ? remove.error.problem?.facts : undefined;
  return (
    <>
      <Button size="xs" variant="subtle" loading={remove.isPending} onClick={() => remove.mutate()}>
        {t('workshop/calendar/remove')}
      </Button>
      {facts && (
        <span className={classes.error} role="alert">
          {t('workshop/calendar/inUse', { who: users(facts as Calendar['usedBy']) })}
        </span>
      )}
      {remove.error && !facts && <ProblemNote error={remove.error} />}
    </>
  );
}
