import { TextInput } from '@mantine/core';
import { PLACES, type Place } from '../../../contract/names';
import { type Impact, IMPACTS, TICKET_KINDS, URGENCIES, type Urgency } from '../../../core/tickets';
import { useCategories, useTeams } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { BothLanguages } from '../../ui/BothLanguages';
import { InlineRemove, InlineSelect, InlineText } from '../../ui/Inline';
import { PersonPicker } from '../../ui/PersonPicker';
import { SERVICE_ICONS, ServiceIcon } from '../../ui/ServiceIcon';
import type { Names } from './ApprovalsPart';
import classes from './services.module.css';
import type { PartProps } from './useService';

/** The names of the subjects above one, from the top. */
export function useCategoryPaths(): { value: string; label: string }[] {
  const { local } = useWords();
  const { data: categories = [] } = useCategories();
  const pathOf = (id: string | null): string => {
    const category = categories.find((each) => each.id === id);
    if (!category) return '';
    const above = pathOf(category.parentId);
    return above ? `${above} › ${local(category.name)}` : local(category.name);
  };
  return categories
    .map(({ id }) => ({ value: id, label: pathOf(id) }))
    .sort((a, b) => a.label.localeCompare(b.label));
}

/** What a service is, who does it, and where it is looked for. */
export function AboutPart({ definition, isFixed, change, names, onName }: PartProps & Names) {
  const { t, local } = useWords();
  const { data: teams = [] } = useTeams();
  const categories = useCategoryPaths();
  const { kind, teamId, groupId, ownerId, icon, place, categoryId, cost, impact, urgency } = definition;
  const team = teams.find(({ id }) => id === teamId);
  const mine = teams.filter(({ id, mayEdit }) => mayEdit || id === teamId);
  const both = { isFixed };
  const setCost = (text: string): void => {
    const euros = Number(text.replace(',', '.'));
    change({ cost: text.trim() === '' || !Number.isFinite(euros) ? null : Math.round(euros * 100) });
  };
  return (
    <div className={classes.details} style={{ padding: 0 }}>
      <BothLanguages
        {...both}
        label={t('services/about/name')}
        value={definition.title}
        onChange={(title) => change({ title })}
      />
      <BothLanguages
        {...both}
        label={t('services/about/description')}
        value={definition.description}
        onChange={(description) => change({ description })}
      />
      <BothLanguages
        {...both}
        label={t('services/about/otherWords')}
        value={definition.otherWords}
        onChange={(otherWords) => change({ otherWords })}
      />
      <p className={`${classes.sentence} ${classes.whole}`} style={{ margin: 0 }}>
        {t('services/about/kind')}{' '}
        <InlineSelect
          {...both}
          label={t('services/about/kind')}
          value={kind}
          options={TICKET_KINDS.map((value) => ({
            value,
            label: t(`services/kinds/${value}`),
          }))}
          onChange={(value) => change({ kind: value as typeof kind })}
        />
        . {t('services/about/team')}{' '}
        <InlineSelect
          {...both}
          label={t('services/about/team')}
          value={teamId}
          options={mine.map(({ id, name }) => ({ value: id, label: local(name) }))}
          onChange={(value) => change({ teamId: value, groupId: null })}
        />{' '}
        {team && team.groups.length > 0 && (
          <>
            {t('services/about/group')}{' '}
            <InlineSelect
              {...both}
              label={t('services/about/group')}
              value={groupId ?? ''}
              options={[
                { value: '', label: t('services/about/noGroup') },
                ...team.groups.map(({ id, name }) => ({ value: id, label: name })),
              ]}
              onChange={(value) => change({ groupId: value || null })}
            />
          </>
        )}
        . {t('services/about/place')}{' '}
        <InlineSelect
          {...both}
          label={t('services/about/place')}
          value={place}
          options={PLACES.map((value) => ({ value, label: t(`services/about/places/${value}`) }))}
          onChange={(value) => change({ place: value as Place })}
        />{' '}
        {t('services/about/category')}{' '}
        <InlineSelect
          {...both}
          label={t('services/about/category')}
          value={categoryId ?? ''}
          options={[{ value: '', label: t('services/about/noCategory') }, ...categories]}
          onChange={(value) => change({ categoryId: value || null })}
        />
        . {t('services/about/cost')}{' '}
        <InlineText
          {...both}
          isSmall
          label={t('services/about/cost')}
          value={cost === null ? '' : String(cost / 100)}
          onChange={setCost}
        />{' '}
        {t('services/about/costUnit')}. {t('services/about/impact')}:{' '}
        <InlineSelect
          {...both}
          label={t('services/about/impact')}
          value={impact}
          options={IMPACTS.map((value) => ({ value, label: t(`impacts/${value}`) }))}
          onChange={(value) => change({ impact: value as Impact })}
        />
        . {t('services/about/urgency')}:{' '}
        <InlineSelect
          {...both}
          label={t('services/about/urgency')}
          value={urgency}
          options={URGENCIES.map((value) => ({ value, label: t(`urgencies/${value}`) }))}
          onChange={(value) => change({ urgency: value as Urgency })}
        />
        .
      </p>
      <p className={`${classes.sentence} ${classes.whole}`} style={{ margin: 0 }}>
        {t('services/about/icon')}:{' '}
        <InlineSelect
          {...both}
          label={t('services/about/icon')}
          value={icon ?? ''}
          options={[
            { value: '', label: '–' },
            ...SERVICE_ICONS.map((value) => ({ value, label: t(`services/icons/${value}`) })),
          ]}
          onChange={(value) => change({ icon: value || null })}
        />{' '}
        <ServiceIcon name={icon} />. {t('services/about/owner')}:{' '}
        <strong>
          {ownerId === null ? t('services/about/ownerOfTeam') : (names.get(ownerId) ?? ownerId)}
        </strong>
        {ownerId !== null && !isFixed && (
          <InlineRemove name={t('services/about/owner')} onRemove={() => change({ ownerId: null })} />
        )}
      </p>
      {!isFixed && (
        <PersonPicker
          label={t('services/about/owner')}
          onPick={({ id, name }) => {
            onName(id, name);
            change({ ownerId: id });
          }}
        />
      )}
    </div>
  );
}

/** Words of a service's own for its states, and what helps first. */
export function HelpPart({ definition, isFixed, change }: PartProps) {
  const { t } = useWords();
  const { articleLabels } = definition;
  const choice = articleLabels === null ? 'any' : articleLabels.length === 0 ? 'none' : 'labels';
  const pick = (value: string): void =>
    change({ articleLabels: value === 'any' ? null : value === 'none' ? [] : ['help'] });
  return (
    <div className={classes.sentence}>
      <InlineSelect
        label={t('services/parts/help')}
        isFixed={isFixed}
        value={choice}
        options={(['any', 'none', 'labels'] as const).map((value) => ({
          value,
          label: t(`services/help/${value}`),
        }))}
        onChange={pick}
      />{' '}
      {choice === 'labels' && (
        <TextInput
          size="xs"
          aria-label={t('services/help/add')}
          placeholder={t('services/help/add')}
          defaultValue={articleLabels?.join(', ')}
          readOnly={isFixed}
          onBlur={({ target }) =>
            change({
              articleLabels: target.value
                .split(',')
                .map((label) => label.trim())
                .filter(Boolean),
            })
          }
        />
      )}
    </div>
  );
}
