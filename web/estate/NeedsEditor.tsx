import { Button, Group, Modal, NumberInput, Pill } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import type { Hangs, Thing } from '../../contract/estate';
import { call } from '../api/call';
import { api } from '../api/endpoints';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { useProblems } from '../ui/useProblems';
import classes from './Estate.module.css';
import { ThingSelect } from './ThingSelect';
import { useRenewThings } from './useThings';

type Member = { id: string; name: string };
type Need = { key: string; atLeast: number; of: Member[] };

function NeedRow({
  need,
  number,
  thingId,
  onChange,
  onRemove,
}: {
  need: Need;
  number: number;
  thingId: string;
  onChange(need: Need): void;
  onRemove(): void;
}) {
  const { t } = useWords();
  const { of, atLeast } = need;
  return (
    <fieldset className={classes.section}>
      <legend>{t('estate/needRow', { number })}</legend>
      <Group align="end" wrap="nowrap">
        <NumberInput
          {...{ size: 'xs', w: 120, min: 0, max: Math.max(1, of.length) }}
          label={t('estate/needAtLeast')}
          value={atLeast}
          onChange={(value) => onChange({ ...need, atLeast: Number(value) })}
        />
        <div style={{ flex: 1 }}>
          <ThingSelect
            label={t('estate/needOf')}
            except={[thingId, ...of.map(({ id }) => id)]}
            onPick={({ id, name }) => onChange({ ...need, of: [...of, { id, name }] })}
          />
        </div>
        <Button
          size="xs"
          variant="default"
          aria-label={t('estate/removeNeed', { number })}
          onClick={onRemove}
        >
          ×
        </Button>
      </Group>
      <Group gap={6} mt={6}>
        {of.map(({ id, name }) => (
          <Pill
            key={id}
            withRemoveButton
            removeButtonProps={{ 'aria-label': t('common/remove', { name }) }}
            onRemove={() => onChange({ ...need, of: of.filter((each) => each.id !== id) })}
          >
            {name}
          </Pill>
        ))}
      </Group>
    </fieldset>
  );
}

/** Says what a thing needs: so many of these, so many of those. */
export function NeedsEditor({ thing, hangs, onClose }: { thing: Thing; hangs: Hangs; onClose(): void }) {
  const { t } = useWords();
  const renew = useRenewThings();
  const toProblems = useProblems();
  const [needs, setNeeds] = useState<Need[]>(() =>
    hangs.needs.map(({ atLeast, of }) => ({ key: nanoid(), atLeast, of })),
  );
  const save = useMutation({
    mutationFn: () =>
      call(api.estate.setNeeds, {
        params: { id: thing.id },
        body: {
          version: thing.version,
          needs: needs
            .filter(({ of }) => of.length > 0)
            .map(({ atLeast, of }) => ({ atLeast, of: of.map(({ id }) => id) })),
        },
        key: nanoid(),
      }),
    onSuccess: async () => {
      await renew();
      notifications.show({ message: t('estate/saved') });
      onClose();
    },
  });
  const said = toProblems(save.error).needs;
  return (
    <Modal opened onClose={onClose} size="lg" title={`${thing.name}: ${t('estate/needs')}`}>
      {needs.map((need, i) => (
        <NeedRow
          key={need.key}
          {...{ need, number: i + 1, thingId: thing.id }}
          onChange={(next) => setNeeds(needs.map((each) => (each.key === need.key ? next : each)))}
          onRemove={() => setNeeds(needs.filter((each) => each.key !== need.key))}
        />
      ))}
      <Button
        my="sm"
        size="xs"
        variant="default"
        onClick={() => setNeeds([...needs, { key: nanoid(), atLeast: 1, of: [] }])}
      >
        {t('estate/addNeed')}
      </Button>
      {needs.some(({ of }) => of.length > 1) && <p className={classes.quiet}>{t('estate/ringHint')}</p>}
      {said ? <p role="alert">{said}</p> : <ProblemNote error={save.error} />}
      <Group mt="md">
        <Button loading={save.isPending} onClick={() => save.mutate()}>
          {t('estate/save')}
        </Button>
        <Button variant="default" onClick={onClose}>
          {t('estate/cancel')}
        </Button>
      </Group>
    </Modal>
  );
}
