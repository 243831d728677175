import { MultiSelect } from '@mantine/core';
import type { RuleBody } from '../../../contract/rules';
import { HEARD_KINDS, RULE_FIELDS, SET_FIELDS, type EventKind } from '../../../core/rules';
import { useMe } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { useFieldWords } from '../../ui/useFieldWords';
import { InlineSelect, InlineText } from '../../ui/Inline';
import { useCalendarList } from '../queries';
import { readRecurrence, readSpan, RHYTHMS, toRecurrence, toSpan, type Rhythm } from './rhythm';
import classes from './Rules.module.css';
import { TimeInput } from '../../ui/TimeInput';

type Trigger = RuleBody['trigger'];
type Of<On extends string> = Extract<Trigger, { on: On }>;
type Props<T> = { trigger: T; isFixed: boolean; onChange(trigger: Trigger): void };
type Option = { value: string; label: string };

/** What changes of itself as work goes on, beside what rules set. */
const CHANGING = RULE_FIELDS.filter((name) =>
  [...SET_FIELDS, 'state', 'heldFor', 'teamId', 'groupId', 'assigneeId', 'rating', 'serviceId'].some(
    (each) => each === name,
  ),
);
const ANY = '@any';
const DEFAULT_TIME = '08:00';

/** A fact that changes: which, from what, to what. */
function FieldBlanks({ trigger, isFixed, onChange }: Props<Trigger>) {
  const { t } = useWords();
  const { fieldName, optionsOf } = useFieldWords();
  const field = 'field' in trigger ? trigger.field : ANY;
  const { from, to } = trigger as { from?: string | null; to?: string | null };
  const options: Option[] = [
    { value: ANY, label: t('rules/anyValue') },
    ...optionsOf(field).filter(({ value }) => !value.startsWith('@')),
  ];
  const write = (change: { from?: string; to?: string }): void => {
    const { from: oldFrom, to: oldTo } = { from: from ?? undefined, to: to ?? undefined };
    const next = { from: oldFrom, to: oldTo, ...change };
    onChange({
      ...{ on: 'fieldChanged', field },
      ...(next.from !== undefined && next.from !== ANY && { from: next.from }),
      ...(next.to !== undefined && next.to !== ANY && { to: next.to }),
    });
  };
  return (
    <>
      {' '}
      <InlineSelect
        {...{ label: t('rules/field'), isFixed, value: field }}
        options={[
          { value: ANY, label: t('rules/anyField') },
          ...CHANGING.map((value) => ({ value, label: fieldName(value) })),
        ]}
        onChange={(next) =>
          onChange(next === ANY ? { on: 'fieldChanged' } : { on: 'fieldChanged', field: next })
        }
      />
      {field !== ANY && options.length > 1 && (
        <>
          {' '}
          {t('rules/from')}{' '}
          <InlineSelect
            {...{ label: t('rules/from'), isFixed, value: from ?? ANY, options }}
            onChange={(value) => write({ from: value })}
          />{' '}
          {t('rules/to')}{' '}
          <InlineSelect
            {...{ label: t('rules/to'), isFixed, value: to ?? ANY, options }}
            onChange={(value) => write({ to: value })}
          />
        </>
      )}
    </>
  );
}

/** Silence: for how long, since what, unless what. */
function SilenceBlanks({ trigger, isFixed, onChange }: Props<Of<'silence'>>) {
  const { t } = useWords();
  const { data: calendars = [] } = useCalendarList();
  const span = readSpan(trigger.after) ?? { amount: 0, unit: 'D' as const };
  const events = HEARD_KINDS.map((kind) => ({ value: kind, label: t(`rules/events/${kind}`) }));
  const set = (change: Partial<Of<'silence'>>): void => onChange({ ...trigger, ...change });
  return (
    <>
      {' '}
      {t('rules/silenceFor')}{' '}
      <InlineText
        {...{ label: t('rules/amount'), isFixed, isSmall: true, value: String(span.amount || '') }}
        onChange={(text) => set({ after: toSpan(Number(text) || 0, span.unit) })}
      />{' '}
      <InlineSelect
        {...{ label: t('rules/unit'), isFixed, value: span.unit }}
        options={(['H', 'D'] as const).map((value) => ({ value, label: t(`rules/units/${value}`) }))}
        onChange={(unit) => set({ after: toSpan(span.amount, unit as 'H' | 'D') })}
      />{' '}
      {t('rules/since')}{' '}
      <InlineSelect
        {...{ label: t('rules/sinceWhat'), isFixed, value: trigger.since, options: events }}
        onChange={(since) => set({ since: since as EventKind })}
      />{' '}
      {t('rules/unless')}{' '}
      <MultiSelect
        className={classes.values}
        size="xs"
        aria-label={t('rules/unlessWhat')}
        hidePickedOptions
        readOnly={isFixed}
        data={events}
        value={trigger.unless}
        onChange={(unless) => set({ unless: unless })}
      />{' '}
      {t('rules/inHours')}{' '}
      <InlineSelect
        {...{ label: t('rules/calendar'), isFixed, value: trigger.calendar ?? '' }}
        options={[
          { value: '', label: t('rules/wallTime') },
          ...calendars.map(({ id, spec }) => ({ value: id, label: spec.name })),
        ]}
        onChange={(calendar) => set({ calendar: calendar || null })}
      />
    </>
  );
}

/** Times of day that come back. */
function TimeBlanks({ trigger, isFixed, onChange }: Props<Of<'time'>>) {
  const { t } = useWords();
  const read = readRecurrence(trigger.every);
  const set = (every: string): void => onChange({ ...trigger, every });
  return (
    <>
      {' '}
      <InlineSelect
        {...{ label: t('rules/rhythm'), isFixed, value: read?.rhythm ?? 'own' }}
        options={[...RHYTHMS, 'own'].map((value) => ({ value, label: t(`rules/rhythms/${value}`) }))}
        onChange={(rhythm) =>
          set(rhythm === 'own' ? 'FREQ=' : toRecurrence(rhythm as Rhythm, read?.time ?? DEFAULT_TIME))
        }
      />{' '}
      {read ? (
        <>
          {t('rules/at')}{' '}
          <TimeInput
            size="xs"
            className={classes.time}
            clearable={false}
            aria-label={t('rules/timeOfDay')}
            disabled={isFixed}
            value={read.time}
            onChange={(time) => time && set(toRecurrence(read.rhythm, time))}
          />
        </>
      ) : (
        <InlineText {...{ label: t('rules/recurrence'), isFixed, value: trigger.every, onChange: set }} />
      )}{' '}
      ({trigger.zone}), {t('rules/eachOpen')}
    </>
  );
}

/** What sets a rule off, as a sentence with blanks. */
export function TriggerSentence({ trigger, isFixed, onChange }: Props<Trigger>) {
  const { t } = useWords();
  const { timeZone } = useMe();
  const begin: Record<string, Trigger> = {
    silence: { on: 'silence', since: 'held', unless: ['wroteBack', 'resumed'], after: 'P3D', calendar: null },
    time: { on: 'time', every: toRecurrence('DAILY', DEFAULT_TIME), zone: timeZone },
  };
  return (
    <p className={classes.sentence}>
      {t('rules/asSoonAs')}{' '}
      <InlineSelect
        {...{ label: t('rules/trigger'), isFixed, value: trigger.on }}
        options={[
          ...HEARD_KINDS.map((value) => ({ value: value, label: t(`rules/events/${value}`) })),
          { value: 'silence', label: t('rules/silence') },
          { value: 'time', label: t('rules/every') },
        ]}
        onChange={(on) => onChange(begin[on] ?? ({ on } as Trigger))}
      />
      {trigger.on === 'fieldChanged' && <FieldBlanks {...{ trigger, isFixed, onChange }} />}
      {trigger.on === 'silence' && <SilenceBlanks {...{ trigger, isFixed, onChange }} />}
      {trigger.on === 'time' && <TimeBlanks {...{ trigger, isFixed, onChange }} />}
    </p>
  );
}
