import { useState } from 'react';
import { readDuration } from '../../../core/calendar';
import type { Needs, Silence, StepApproverRef } from '../../../core/approvals';
import type { FormField } from '../../../core/forms';
import { useTeams } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { PersonPicker } from '../../ui/PersonPicker';
import { InlineRemove, InlineSelect, InlineText } from '../../ui/Inline';

/** Who agrees, and how many of them. */
export type Agreed = {
  refs: StepApproverRef[];
  needs: Needs;
  declineBy: 'any' | 'outOfReach';
  silence?: Silence | undefined;
};
type Props = {
  agreed: Agreed;
  fields: FormField[];
  names: Map<string, string>;
  isFixed: boolean;
  onName(id: string, name: string): void;
  onChange(part: Partial<Agreed>): void;
};

const NEEDS: Record<string, Needs> = {
  any: { kind: 'any' },
  all: { kind: 'all' },
  half: { kind: 'percent', percent: 50 },
  count: { kind: 'count', count: 2 },
};
const OWNED = ['service', 'costCentre', 'asset'] as const;

function useRefWords(names: Map<string, string>, fields: FormField[]): (ref: StepApproverRef) => string {
  const { t, local } = useWords();
  const { data: teams = [] } = useTeams();
  const teamName = (id: string): string =>
    local(teams.find((team) => team.id === id)?.name ?? { en: id, pt: id });
  return (ref) => {
    if ('person' in ref) return names.get(ref.person) ?? ref.person;
    if ('manager' in ref)
      return t(
        `services/approvals/refs/${ref.manager === 'ofRecipient' ? 'recipient' : ref.levels === 2 ? 'second' : 'manager'}`,
      );
    if ('team' in ref)
      return t(`services/approvals/refs/${ref.only ? 'leads' : 'team'}`, { name: teamName(ref.team) });
    if ('ownerOf' in ref) return t(`services/approvals/refs/owners/${ref.ownerOf}`);
    const field = fields.find(({ name }) => name === ref.headOfSite);
    return t('services/approvals/refs/head', { name: field ? local(field.label) : ref.headOfSite });
  };
}

/** The choices of who can be asked, each with what it is stored as. */
function useRefChoices(fields: FormField[]): Map<string, { label: string; ref: StepApproverRef }> {
  const { t, local } = useWords();
  const { data: teams = [] } = useTeams();
  const places = fields.filter(({ kind }) => kind === 'place' || kind === 'choice');
  return new Map<string, { label: string; ref: StepApproverRef }>([
    ['manager', { label: t('services/approvals/refs/manager'), ref: { manager: 'ofRequester' } }],
    ['second', { label: t('services/approvals/refs/second'), ref: { manager: 'ofRequester', levels: 2 } }],
    ['recipient', { label: t('services/approvals/refs/recipient'), ref: { manager: 'ofRecipient' } }],
    ...OWNED.filter((ownerOf) => ownerOf !== 'asset' || fields.some(({ kind }) => kind === 'asset')).map(
      (ownerOf) =>
        [
          `owner:${ownerOf}`,
          { label: t(`services/approvals/refs/owners/${ownerOf}`), ref: { ownerOf } },
        ] as const,
    ),
    ...teams.map(
      ({ id, name }) =>
        [
          `leads:${id}`,
          {
            label: t('services/approvals/refs/leads', { name: local(name) }),
            ref: { team: id, only: 'leads' as const },
          },
        ] as const,
    ),
    ...teams.map(
      ({ id, name }) =>
        [
          `team:${id}`,
          { label: t('services/approvals/refs/team', { name: local(name) }), ref: { team: id } },
        ] as const,
    ),
    ...places.map(
      ({ name, label }) =>
        [
          `head:${name}`,
          { label: t('services/approvals/refs/head', { name: local(label) }), ref: { headOfSite: name } },
        ] as const,
    ),
  ]);
}

/** “one of the requester's manager”, and what silence and a no do. */
export function Agreeing({ agreed, fields, names, isFixed, onName, onChange }: Props) {
  const { t } = useWords();
  const { refs, needs, declineBy, silence } = agreed;
  const wordOf = useRefWords(names, fields);
  const choices = useRefChoices(fields);
  const [isPicking, setPicking] = useState(false);
  const needsKey = needs.kind === 'percent' ? 'half' : needs.kind;
  const add = (key: string): void => {
    if (key === 'person') setPicking(true);
    else if (key !== '') onChange({ refs: [...refs, choices.get(key)!.ref] });
  };
  const span = readDuration(silence?.after ?? '');
  // Whole days are said as such.
  const days =
    span !== null && span.hours + span.minutes + span.seconds === 0 ? String(span.days) : undefined;
  return (
    <>
      <InlineSelect
        label={t('services/approvals/needsLabel')}
        isFixed={isFixed}
        value={needsKey}
        options={Object.keys(NEEDS).map((value) => ({
          value,
          label: t(`services/approvals/needs/${value}`, { count: needs.kind === 'count' ? needs.count : 2 }),
        }))}
        onChange={(value) => onChange({ needs: NEEDS[value]! })}
      />{' '}
      {needs.kind === 'count' && (
        <InlineText
          label={t('services/approvals/needsLabel')}
          isSmall
          isFixed={isFixed}
          value={String(needs.count)}
          onChange={(text) =>
            onChange({ needs: { kind: 'count', count: Math.max(1, Math.round(Number(text)) || 1) } })
          }
        />
      )}{' '}
      {refs.map((ref, i) => (
        <span key={i}>
          {i > 0 && ', '}
          <strong>{wordOf(ref)}</strong>
          {!isFixed && (
            <InlineRemove
              name={wordOf(ref)}
              onRemove={() => onChange({ refs: refs.filter((_, at) => at !== i) })}
            />
          )}
        </span>
      ))}{' '}
      {!isFixed && (
        <InlineSelect
          label={t('services/approvals/choose')}
          isFixed={false}
          value=""
          options={[
            { value: '', label: t('services/approvals/addAsker') },
            ...[...choices].map(([value, { label }]) => ({ value, label })),
            { value: 'person', label: t('services/approvals/aPerson') },
          ]}
          onChange={add}
        />
      )}
      {isPicking && (
        <PersonPicker
          label={t('services/approvals/choose')}
          onPick={({ id, name }) => {
            onName(id, name);
            onChange({ refs: [...refs, { person: id }] });
            setPicking(false);
          }}
        />
      )}
      <span>
        ;{' '}
        <InlineSelect
          label={t('services/approvals/needsLabel')}
          isFixed={isFixed}
          value={declineBy}
          options={(['any', 'outOfReach'] as const).map((value) => ({
            value,
            label: t(`services/approvals/declineBy/${value}`),
          }))}
          onChange={(value) => onChange({ declineBy: value as Agreed['declineBy'] })}
        />
        . {t('services/approvals/silent')}{' '}
        {silence && (
          <>
            <InlineText
              label={t('services/approvals/silent')}
              isSmall
              isFixed={isFixed || days === undefined}
              value={days ?? silence.after}
              onChange={(text) =>
                onChange({
                  silence: { ...silence, after: `P${Math.max(1, Math.round(Number(text)) || 1)}D` },
                })
              }
            />{' '}
            {days !== undefined && t('services/approvals/days')}:{' '}
          </>
        )}
        <InlineSelect
          label={t('services/approvals/silent')}
          isFixed={isFixed}
          value={silence?.then ?? 'none'}
          options={(['none', 'remind', 'passUp', 'approve', 'decline'] as const).map((value) => ({
            value,
            label: t(`services/approvals/silence/${value}`),
          }))}
          onChange={(then) =>
            onChange({
              silence:
                then === 'none'
                  ? undefined
                  : {
                      after: silence?.after ?? 'P2D',
                      then: then as Silence['then'],
                      ...(then === 'remind' && { most: 3 }),
                    },
            })
          }
        />
        .
      </span>
    </>
  );
}
