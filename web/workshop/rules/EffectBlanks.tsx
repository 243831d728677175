import { MultiSelect, Pill } from '@mantine/core';
import type { RuleEffect } from '../../../contract/rules';
import { SET_FIELDS, type SetField } from '../../../core/rules';
import { useTeams } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { useFieldWords } from '../../ui/useFieldWords';
import { InlineSelect, InlineText } from '../../ui/Inline';
import { PersonPicker } from '../../ui/PersonPicker';
import { useChatRooms } from '../chat/Connections';
import { BothLanguages } from '../../ui/BothLanguages';
import { readSpan, toSpan } from './rhythm';
import classes from './Rules.module.css';

type Of<Do extends string> = Extract<RuleEffect, { do: Do }>;
type Props<T> = { effect: T; isFixed: boolean; onChange(effect: RuleEffect): void };

const READERS = ['requester', 'alsoTold', 'assignee', 'team', 'approver', 'lead'] as const;

function SetBlanks({ effect, isFixed, onChange }: Props<Of<'set'>>) {
  const { t } = useWords();
  const { fieldName, optionsOf } = useFieldWords();
  const options = optionsOf(effect.field);
  const first = (field: string): string => optionsOf(field).at(0)?.value ?? '';
  const set = (to: string): void => onChange({ ...effect, to: to === '' && options.length > 0 ? null : to });
  const { to } = effect;
  return (
    <>
      <InlineSelect
        {...{ label: t('rules/field'), isFixed, value: effect.field }}
        options={SET_FIELDS.map((value) => ({ value, label: fieldName(value) }))}
        onChange={(field) => onChange({ do: 'set', field: field as SetField, to: first(field) })}
      />{' '}
      {t('rules/to')}{' '}
      {options.length > 0 ? (
        <InlineSelect
          {...{ label: t('rules/value'), isFixed, value: String(to ?? ''), options, onChange: set }}
        />
      ) : (
        <InlineText {...{ label: t('rules/value'), isFixed, value: String(to ?? ''), onChange: set }} />
      )}
    </>
  );
}

function GiveBlanks({ effect, isFixed, onChange }: Props<Of<'give'>>) {
  const { t, local } = useWords();
  const { data: teams = [] } = useTeams();
  const team = teams.find(({ id }) => id === effect.teamId);
  const { teamId, groupId, personId } = effect;
  return (
    <>
      <InlineSelect
        {...{ label: t('rules/team'), isFixed, value: teamId }}
        options={[
          ...(team ? [] : [{ value: teamId, label: t('common/choose') }]),
          ...teams.map(({ id, name }) => ({ value: id, label: local(name) })),
        ]}
        onChange={(next) => onChange({ do: 'give', teamId: next })}
      />
      {team && team.groups.length > 0 && (
        <>
          {', '}
          <InlineSelect
            {...{ label: t('rules/group'), isFixed, value: groupId ?? '' }}
            options={[
              { value: '', label: t('rules/anyGroup') },
              ...team.groups.map(({ id, name }) => ({ value: id, label: name })),
            ]}
            onChange={(next) =>
              onChange({ do: 'give', teamId, ...(personId && { personId }), ...(next && { groupId: next }) })
            }
          />
        </>
      )}
      {team && (
        <>
          {', '}
          <InlineSelect
            {...{ label: t('rules/person'), isFixed, value: personId ?? '' }}
            options={[
              { value: '', label: t('rules/anyPerson') },
              ...team.members.map(({ id, name }) => ({ value: id, label: name })),
            ]}
            onChange={(next) =>
              onChange({ do: 'give', teamId, ...(groupId && { groupId }), ...(next && { personId: next }) })
            }
          />
        </>
      )}
    </>
  );
}

function HoldBlanks({ effect, isFixed, onChange }: Props<Of<'hold'>>) {
  const { t } = useWords();
  const span = effect.until === undefined ? null : readSpan(effect.until);
  const set = (days: number): void =>
    onChange({ do: 'hold', for: effect.for, ...(days > 0 && { until: toSpan(days, 'D') }) });
  return (
    <>
      <InlineSelect
        {...{ label: t('rules/heldFor'), isFixed, value: effect.for }}
        options={(['requester', 'supplier', 'date'] as const).map((value) => ({
          value,
          label: t(`heldFor/${value}`),
        }))}
        onChange={(next) => onChange({ ...effect, for: next as Of<'hold'>['for'] })}
      />{' '}
      {t('rules/until')}{' '}
      <InlineText
        {...{ label: t('rules/amount'), isFixed, isSmall: true, value: String(span?.amount ?? '') }}
        onChange={(text) => set(Number(text) || 0)}
      />{' '}
      {span ? t('rules/units/D') : t('rules/untilNone')}
    </>
  );
}

/** People by name, put together one by one. */
function PeopleBlanks({
  ids,
  isFixed,
  onChange,
}: {
  ids: string[];
  isFixed: boolean;
  onChange(ids: string[]): void;
}) {
  const { t } = useWords();
  const { valueWords } = useFieldWords();
  return (
    <span className={classes.people}>
      {ids.map((id) => (
        <Pill
          key={id}
          withRemoveButton={!isFixed}
          removeButtonProps={{ 'aria-label': t('common/remove', { name: valueWords('requesterId', id) }) }}
          onRemove={() => onChange(ids.filter((each) => each !== id))}
        >
          {valueWords('requesterId', id)}
        </Pill>
      ))}
      {!isFixed && (
        <PersonPicker
          size="xs"
          label={t('rules/addPerson')}
          onPick={({ id }) => onChange([...new Set([...ids, id])])}
        />
      )}
    </span>
  );
}

function TellBlanks({ effect, isFixed, onChange }: Props<Of<'tell'>>) {
  const { t } = useWords();
  return (
    <>
      <MultiSelect
        className={classes.values}
        size="xs"
        aria-label={t('rules/whom')}
        hidePickedOptions
        readOnly={isFixed}
        data={READERS.map((value) => ({ value, label: t(`rules/readers/${value}`) }))}
        value={effect.whom}
        onChange={(whom) => onChange({ ...effect, whom: whom })}
      />{' '}
      <PeopleBlanks
        {...{ isFixed, ids: effect.personIds ?? [] }}
        onChange={(personIds) => onChange({ ...effect, personIds })}
      />
    </>
  );
}

function RoomBlanks({ effect, isFixed, onChange }: Props<Of<'room'>>) {
  const { t } = useWords();
  const { data: rooms = [] } = useChatRooms();
  const connected = rooms.filter(({ job }) => job !== null);
  if (connected.length === 0) return <em>{t('rules/noRooms')}</em>;
  return (
    <InlineSelect
      {...{ label: t('rules/room'), isFixed, value: effect.roomId }}
      options={[
        ...(connected.some(({ roomId }) => roomId === effect.roomId)
          ? []
          : [{ value: effect.roomId, label: t('common/choose') }]),
        ...connected.map(({ roomId, name }) => ({ value: roomId, label: name })),
      ]}
      onChange={(roomId) => onChange({ ...effect, roomId })}
    />
  );
}

function EndBlanks({ effect, isFixed, onChange }: Props<Of<'end'>>) {
  const { t } = useWords();
  return (
    <InlineSelect
      {...{ label: t('rules/kinds/end'), isFixed, value: effect.as }}
      options={(['done', 'withdrawn'] as const).map((value) => ({ value, label: t(`rules/ends/${value}`) }))}
      onChange={(as) => onChange({ ...effect, as: as as Of<'end'>['as'] })}
    />
  );
}

/** What one thing that a rule does is done with: the rest of its sentence, and its words. */
export function EffectBlanks({ effect, isFixed, onChange }: Props<RuleEffect>) {
  const { t } = useWords();
  const common = { isFixed, onChange };
  return (
    <>
      {effect.do === 'set' && <SetBlanks {...{ effect, ...common }} />}
      {effect.do === 'give' && <GiveBlanks {...{ effect, ...common }} />}
      {effect.do === 'hold' && <HoldBlanks {...{ effect, ...common }} />}
      {effect.do === 'tell' && <TellBlanks {...{ effect, ...common }} />}
      {effect.do === 'alsoTell' && (
        <PeopleBlanks
          {...{ isFixed, ids: effect.personIds }}
          onChange={(personIds) => onChange({ ...effect, personIds })}
        />
      )}
      {effect.do === 'room' && <RoomBlanks {...{ effect, ...common }} />}
      {effect.do === 'end' && <EndBlanks {...{ effect, ...common }} />}
      {'words' in effect && (
        <BothLanguages
          isLong
          label={t('rules/words')}
          value={effect.words}
          isFixed={isFixed}
          onChange={(words) => onChange({ ...effect, words })}
        />
      )}
    </>
  );
}
