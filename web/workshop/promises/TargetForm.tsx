import { Checkbox, Group, MultiSelect, NativeSelect, SegmentedControl, TextInput } from '@mantine/core';
import { useState } from 'react';
import {
  CANCELS,
  RESETS,
  STOPS,
  toIsoSpan,
  toTypedSpan,
  type LimitWords,
  type StartWords,
  type TargetSentence,
} from '../../../core/targets';
import { HELD_FOR, PRIORITIES, TICKET_KINDS } from '../../../core/tickets';
import { useAllServices, useTeams } from '../../api/queries';
import '../../messages/measuresWords';
import { useWords } from '../../messages/useWords';
import { useCalendarList } from '../queries';
import classes from './Promises.module.css';

type Props = {
  sentence: TargetSentence;
  onChange(sentence: TargetSentence): void;
  errors: Record<string, string>;
};
const TEAM = 'team';

/** A length of time as it is typed; what cannot be read stays to be mended. */
function Span({ label, iso, onChange }: { label: string; iso: string; onChange(iso: string): void }) {
  const { t } = useWords();
  const [typed, setTyped] = useState(toTypedSpan(iso));
  const isWrong = toIsoSpan(typed) === null;
  return (
    <TextInput
      size="xs"
      w={120}
      label={label}
      value={typed}
      error={isWrong ? t('measures/edit/notSpan') : undefined}
      onChange={({ target }) => {
        setTyped(target.value);
        onChange(toIsoSpan(target.value) ?? '');
      }}
    />
  );
}

function Limits({
  limits,
  onChange,
  error,
}: {
  limits: LimitWords;
  onChange(limits: LimitWords): void;
  error: string | undefined;
}) {
  const { t } = useWords();
  const isOne = 'all' in limits;
  return (
    <div className={classes.part}>
      <b>{t('measures/edit/within')}</b>
      <div>
        <SegmentedControl
          size="xs"
          value={isOne ? 'one' : 'byPriority'}
          data={['one', 'byPriority'].map((value) => ({ value, label: t(`measures/edit/${value}`) }))}
          onChange={(value) => {
            const usual = isOne ? limits.all : limits.P3;
            onChange(value === 'one' ? { all: usual } : { P1: usual, P2: usual, P3: usual, P4: usual });
          }}
        />
        <Group gap="sm" mt={6} align="flex-start">
          {isOne ? (
            <Span label={t('measures/edit/forAll')} iso={limits.all} onChange={(all) => onChange({ all })} />
          ) : (
            PRIORITIES.map((priority) => (
              <Span
                key={priority}
                label={priority === 'P4' ? t('measures/edit/rest', { priority }) : priority}
                iso={limits[priority]}
                onChange={(iso) => onChange({ ...limits, [priority]: iso })}
              />
            ))
          )}
        </Group>
        <small>{t('measures/edit/spanHelp')}</small>
        {error && <p className={classes.problem}>{error}</p>}
      </div>
    </div>
  );
}

function Work({ work, onChange }: { work: StartWords; onChange(work: StartWords): void }) {
  const { t, local } = useWords();
  const { data: teams = [] } = useTeams();
  const { data: services = [] } = useAllServices();
  const lists = [
    ['kinds', TICKET_KINDS.map((value) => ({ value, label: t(`measures/kinds/${value}`) }))],
    ['teamIds', teams.map(({ id, name }) => ({ value: id, label: local(name) }))],
    ['serviceIds', services.map(({ id, title }) => ({ value: id, label: local(title) }))],
    ['priorities', PRIORITIES.map((value) => ({ value, label: value }))],
  ] as const;
  const names = {
    kinds: 'kinds',
    teamIds: 'teams',
    serviceIds: 'services',
    priorities: 'priorities',
  } as const;
  return (
    <div className={classes.part}>
      <b>{t('measures/edit/of')}</b>
      <div>
        <NativeSelect
          size="xs"
          w={200}
          aria-label={t('measures/edit/of')}
          value={work.of}
          data={(['ticket', 'approval'] as const).map((value) => ({
            value,
            label: t(`measures/edit/ofNames/${value}`),
          }))}
          onChange={({ target }) => onChange({ ...work, of: target.value as StartWords['of'] })}
        />
        {work.of === 'ticket' && (
          <>
            <div className={classes.narrowed}>
              {lists.map(([name, data]) => (
                <MultiSelect
                  key={name}
                  size="xs"
                  searchable={data.length > 6}
                  label={t(`measures/edit/${names[name]}`)}
                  placeholder={work[name].length === 0 ? t(`measures/edit/${names[name]}All`) : ''}
                  data={data}
                  value={work[name]}
                  onChange={(value) => onChange({ ...work, [name]: value })}
                />
              ))}
            </div>
            <Checkbox
              mt={8}
              size="xs"
              label={t('measures/edit/withoutPlan')}
              checked={work.withoutPlan}
              onChange={({ target }) => onChange({ ...work, withoutPlan: target.checked })}
            />
          </>
        )}
      </div>
    </div>
  );
}

/** A promise as a sentence, part by part; a part by a rule of its own says so, and stays. */
export function TargetForm({ sentence, onChange, errors }: Props) {
  const { t } = useWords();
  const { data: calendars = [] } = useCalendarList();
  const set = (change: Partial<TargetSentence>): void => onChange({ ...sentence, ...change });
  const part = (
    name: string,
    names: string,
    value: string | null,
    values: readonly string[],
    take: (value: string) => void,
  ) => (
    <div className={classes.part}>
      <b>{t(`measures/edit/${name}`)}</b>
      {value === null ? (
        <span>{t('measures/edit/own')}</span>
      ) : (
        <div>
          <NativeSelect
            size="xs"
            maw={420}
            aria-label={t(`measures/edit/${name}`)}
            value={value}
            data={values.map((each) => ({ value: each, label: t(`measures/edit/${names}/${each}`) }))}
            onChange={({ target }) => take(target.value)}
          />
          {errors[name] && <p className={classes.problem}>{errors[name]}</p>}
        </div>
      )}
    </div>
  );
  const { work, limits, calendar, pauses } = sentence;
  return (
    <div className={classes.sentence}>
      {part(
        'kind',
        'kindNames',
        sentence.kind,
        ['serviceLevel', 'operationalLevel', 'supplierContract'],
        (kind) => set({ kind: kind as TargetSentence['kind'] }),
      )}
      {work ? (
        <>
          <Work work={work} onChange={(next) => set({ work: next })} />
          {part('when', 'whenNames', work.when, ['opened', 'approved', 'heldForSupplier'], (when) =>
            set({ work: { ...work, when: when as StartWords['when'] } }),
          )}
          {errors.startWhen && <p className={classes.problem}>{errors.startWhen}</p>}
        </>
      ) : (
        part('when', 'whenNames', null, [], () => undefined)
      )}
      {limits ? (
        <Limits limits={limits} error={errors.limits} onChange={(next) => set({ limits: next })} />
      ) : (
        part('within', '', null, [], () => undefined)
      )}
      <div className={classes.part}>
        <b>{t('measures/edit/calendar')}</b>
        {calendar === null ? (
          <span>{t('measures/edit/own')}</span>
        ) : (
          <NativeSelect
            size="xs"
            maw={420}
            aria-label={t('measures/edit/calendar')}
            value={'follows' in calendar ? TEAM : calendar.calendarId}
            data={[
              { value: TEAM, label: t('measures/edit/followsTeam') },
              ...calendars.map(({ id, spec }) => ({ value: id, label: spec.name })),
            ]}
            onChange={({ target }) =>
              set({ calendar: target.value === TEAM ? { follows: 'team' } : { calendarId: target.value } })
            }
          />
        )}
      </div>
      {part('countFrom', 'countFromNames', sentence.countFrom, ['start', 'opened'], (countFrom) =>
        set({ countFrom: countFrom as TargetSentence['countFrom'] }),
      )}
      {sentence.countFrom === 'opened' &&
        part(
          'earlier',
          'earlierNames',
          sentence.excludeEarlierPauses ? 'not' : 'counts',
          ['counts', 'not'],
          (value) => set({ excludeEarlierPauses: value === 'not' }),
        )}
      <div className={classes.part}>
        <b>{t('measures/edit/pauses')}</b>
        {pauses === null ? (
          <span>{t('measures/edit/own')}</span>
        ) : (
          <MultiSelect
            size="xs"
            maw={420}
            aria-label={t('measures/edit/pauses')}
            placeholder={pauses.heldFor.length === 0 ? t('measures/edit/pausesNone') : ''}
            data={HELD_FOR.map((value) => ({ value, label: t(`heldFor/${value}`) }))}
            value={pauses.heldFor}
            onChange={(heldFor) =>
              set({ pauses: { heldFor: HELD_FOR.filter((each) => heldFor.includes(each)) } })
            }
          />
        )}
      </div>
      {part('stops', 'stopNames', sentence.stops, Object.keys(STOPS), (stops) =>
        set({ stops: stops as TargetSentence['stops'] }),
      )}
      {part('resets', 'resetNames', sentence.resets, ['never', ...Object.keys(RESETS)], (resets) =>
        set({ resets: resets as TargetSentence['resets'] }),
      )}
      {part(
        'cancels',
        'cancelNames',
        sentence.cancels,
        ['never', 'startNoLongerHolds', ...Object.keys(CANCELS)],
        (cancels) => set({ cancels: cancels as TargetSentence['cancels'] }),
      )}
      {part('reopen', 'reopenNames', sentence.onReopen, ['resume', 'ignore'], (onReopen) =>
        set({ onReopen: onReopen as TargetSentence['onReopen'] }),
      )}
    </div>
  );
}
