import { Button, Checkbox, Group, Modal, NativeSelect, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { Board } from '../../../contract/measures';
import type { Condition } from '../../../core/conditions';
import {
  FACT_KINDS,
  listFactFields,
  reckonedBy,
  showsFor,
  type Chart,
  type FactKind,
  type Show,
  type Unit,
} from '../../../core/measures';
import { getListField } from '../../../core/worklist';
import { ConditionEditor, type ConditionScope } from '../../desk/worklist/ConditionEditor';
import { useWords } from '../../messages/useWords';
import classes from './Boards.module.css';
import { ChartCard } from './ChartCard';
import {
  fromAim,
  listAskable,
  listReckoned,
  listWhats,
  toAim,
  whatName,
  withFacts,
  withPart,
  withWhat,
  type WhatName,
} from './edit';
import { SHARES, shareName } from './shares';
import { STRETCHES, toStretch } from './stretches';
import { unitOf, useChartWords } from './useChartWords';

const UNITS: Unit[] = ['hour', 'day', 'week', 'month', 'quarter', 'year'];
const NONE = '';

type PartProps = { chart: Chart; onChange(chart: Chart): void };

/** Whether the editor of conditions knows all that a condition asks for. */
function isEditable(condition: Condition): boolean {
  if ('all' in condition) return condition.all.every(isEditable);
  if ('any' in condition) return condition.any.every(isEditable);
  if ('not' in condition) return isEditable(condition.not);
  return getListField(condition.field) !== null;
}

/** What is counted, and what is said of it. */
function WhatPart({ chart, onChange }: PartProps) {
  const { t } = useWords();
  const { fieldName } = useChartWords();
  const { of, at, what } = chart;
  const name = whatName(chart);
  const field = reckonedBy(chart);
  const shares = Object.keys(SHARES[of] ?? {});
  const isShare = what !== 'count' && 'share' in what;
  return (
    <>
      <NativeSelect
        label={t('boards/edit/of')}
        value={of}
        data={FACT_KINDS.map((value) => ({ value, label: t(`boards/of/${value}`) }))}
        onChange={({ target }) => onChange(withFacts(chart, target.value as FactKind))}
      />
      <NativeSelect
        label={t('boards/edit/what')}
        value={name}
        data={listWhats(of).map((value) => ({ value, label: t(`boards/whats/${value}`) }))}
        onChange={({ target }) => onChange(withWhat(chart, target.value as WhatName))}
      />
      {field !== null && (
        <NativeSelect
          label={t('boards/edit/field')}
          value={field}
          data={listReckoned(of).map((value) => ({ value, label: fieldName(value) }))}
          onChange={({ target }) =>
            onChange(withPart(chart, { what: { [name]: target.value } as Chart['what'], aim: null }))
          }
        />
      )}
      {isShare && (
        <NativeSelect
          label={t('boards/edit/share')}
          value={shareName(of, what.share) ?? 'own'}
          data={[...shares, ...(shareName(of, what.share) === null ? ['own'] : [])].map((value) => ({
            value,
            label: t(`boards/shares/${value}`),
          }))}
          onChange={({ target }) => {
            const share = SHARES[of]?.[target.value];
            if (share) onChange(withPart(chart, { what: { share } }));
          }}
        />
      )}
      <NativeSelect
        label={t('boards/edit/at')}
        value={at}
        data={listFactFields(of, 'instant').map((value) => ({ value, label: fieldName(value) }))}
        onChange={({ target }) => onChange(withPart(chart, { at: target.value }))}
      />
    </>
  );
}

/** By what it is parted, of which stretch, and how it is drawn. */
function ShapePart({ chart, onChange }: PartProps) {
  const { t } = useWords();
  const { fieldName, stretch: say } = useChartWords();
  const { of, by, every, show, stretch, isCompared, aim, title } = chart;
  const isLength = unitOf(chart) === 'length';
  const [typed, setTyped] = useState(() => fromAim(chart, isLength));
  return (
    <>
      <NativeSelect
        label={t('boards/edit/by')}
        value={by ?? NONE}
        data={[
          { value: NONE, label: t('boards/edit/byNothing') },
          ...listFactFields(of, 'split').map((value) => ({ value, label: fieldName(value) })),
        ]}
        onChange={({ target }) => onChange(withPart(chart, { by: target.value || null }))}
      />
      <NativeSelect
        label={t('boards/edit/every')}
        value={every ?? NONE}
        data={[
          { value: NONE, label: t('boards/edit/everyNothing') },
          ...UNITS.map((value) => ({ value, label: t(`boards/units/${value}`) })),
        ]}
        onChange={({ target }) => onChange(withPart(chart, { every: (target.value || null) as Unit | null }))}
      />
      <NativeSelect
        label={t('boards/edit/show')}
        value={show}
        data={showsFor(chart).map((value) => ({ value, label: t(`boards/shows/${value}`) }))}
        onChange={({ target }) => onChange(withPart(chart, { show: target.value as Show }))}
      />
      <NativeSelect
        label={t('boards/edit/stretch')}
        value={stretch ? `${stretch.last} ${stretch.unit}` : NONE}
        data={[
          { value: NONE, label: t('boards/ofBoard') },
          ...STRETCHES.map((each) => ({ value: `${each.last} ${each.unit}`, label: say(each) })),
        ]}
        onChange={({ target }) =>
          onChange(withPart(chart, { stretch: target.value ? toStretch(target.value) : null }))
        }
      />
      <TextInput
        label={t('boards/edit/aim')}
        description={t('boards/edit/aimHelp')}
        value={aim === null && typed.trim() === '' ? '' : typed}
        inputMode="decimal"
        onChange={({ target }) => {
          setTyped(target.value);
          onChange({ ...chart, aim: toAim(target.value, isLength) });
        }}
      />
      <TextInput
        label={t('boards/ownTitle')}
        value={title}
        maxLength={200}
        onChange={({ target }) => onChange({ ...chart, title: target.value })}
      />
      <Checkbox
        label={t('boards/edit/compare')}
        checked={isCompared}
        onChange={({ target }) => onChange({ ...chart, isCompared: target.checked })}
      />
    </>
  );
}

/** A chart put together as a sentence, and seen at once. */
export function ChartEditor({
  chart: first,
  board,
  onKeep,
  onClose,
}: {
  chart: Chart;
  board: Pick<Board, 'charts' | 'stretch'>;
  onKeep(chart: Chart): void;
  onClose(): void;
}) {
  const { t } = useWords();
  const { toPhrase } = useChartWords();
  const [chart, setChart] = useState(first);
  const askable = listAskable(chart.of);
  const scope: ConditionScope = {
    ...{ names: askable, withWords: false, firstGroup: ['priority', 'kind'] },
    lead: { none: 'lists/everythingThere', where: 'lists/workWhere' },
  };
  return (
    <Modal
      opened
      size="xl"
      title={t('boards/edit/title')}
      closeButtonProps={{ 'aria-label': t('common/close') }}
      onClose={onClose}
    >
      <div className={classes.editor}>
        <WhatPart chart={chart} onChange={setChart} />
        <ShapePart chart={chart} onChange={setChart} />
      </div>
      {askable.length > 0 && isEditable(chart.where) && (
        <ConditionEditor
          condition={chart.where}
          scope={scope}
          onChange={(where) => setChart({ ...chart, where })}
        />
      )}
      {!isEditable(chart.where) && (
        <p className={classes.said}>
          {t('boards/edit/where')} {toPhrase(chart.of, chart.where)}
        </p>
      )}
      <ChartCard
        chart={{ ...chart, width: 12 }}
        board={{ ...board, charts: [] }}
        chosen={{}}
        onChoose={() => undefined}
      />
      <Group mt="sm">
        <Button onClick={() => onKeep(chart)}>{t('boards/edit/keep')}</Button>
        <Button variant="default" onClick={onClose}>
          {t('common/cancel')}
        </Button>
      </Group>
    </Modal>
  );
}
