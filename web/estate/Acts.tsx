import { Button, Group, Modal } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useState } from 'react';
import type { Thing } from '../../contract/estate';
import { THING_ACTS, type ThingAct } from '../../core/estate';
import type { Named } from '../../core/forms';
import { useNow } from '../api/clock';
import { useMe } from '../api/queries';
import { PersonInput } from '../form/PersonInput';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { useProblems } from '../ui/useProblems';
import { zonedInstant } from '../ui/zonedInstant';
import { useAct } from './useThings';
import { DayInput } from '../ui/DayInput';

/** What has to be said: who gets it, and until when. */
const ASKS: Partial<Record<ThingAct, ('holder' | 'until')[]>> = {
  handOver: ['holder'],
  lend: ['holder', 'until'],
};
const DAY_MS = 86_400_000;
const A_WEEK = 7;

function Asked({ thing, act, onClose }: { thing: Thing; act: ThingAct; onClose(): void }) {
  const { t } = useWords();
  const { timeZone } = useMe();
  const now = useNow(60_000);
  const toProblems = useProblems();
  const [holder, setHolder] = useState<Named | null>(null);
  const [day, setDay] = useState(() => new Date(now + A_WEEK * DAY_MS).toISOString().slice(0, 10));
  const doIt = useAct(thing.id);
  const isLent = ASKS[act]!.includes('until');
  const problems = toProblems(doIt.error);
  return (
    <Modal opened onClose={onClose} title={`${t(`estate/acts/${act}`)}: ${thing.name}`}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          const lentUntil = isLent && day !== '' ? zonedInstant(`${day}T23:59`, timeZone) : null;
          const body = { version: thing.version, act, holderId: holder?.id ?? null, lentUntil };
          doIt.mutate(body, {
            onSuccess: () => {
              notifications.show({ message: t(`estate/done/${act}`) });
              onClose();
            },
          });
        }}
      >
        <PersonInput
          id="holder"
          label={t('estate/toWhom')}
          value={holder}
          error={problems.holderId}
          onChange={setHolder}
        />
        {isLent && (
          <DayInput
            mt="sm"
            label={t('estate/until')}
            value={day}
            error={problems.lentUntil}
            onChange={setDay}
          />
        )}
        {Object.keys(problems).length === 0 && <ProblemNote error={doIt.error} />}
        <Group mt="md">
          <Button type="submit" loading={doIt.isPending}>
            {t(`estate/acts/${act}`)}
          </Button>
          <Button variant="default" onClick={onClose}>
            {t('common/cancel')}
          </Button>
        </Group>
      </form>
    </Modal>
  );
}

/** What can be done with a thing now. What needs nothing more to be said is done at once; each has its way back. */
export function Acts({ thing }: { thing: Thing }) {
  const { t } = useWords();
  const [asked, setAsked] = useState<ThingAct | null>(null);
  const doIt = useAct(thing.id);
  const acts = THING_ACTS.filter((act) => thing.acts.includes(act));
  if (acts.length === 0) return null;
  return (
    <>
      <Group gap="xs" my="xs">
        {acts.map((act) => (
          <Button
            key={act}
            size="xs"
            variant="default"
            disabled={doIt.isPending}
            onClick={() =>
              ASKS[act]
                ? setAsked(act)
                : doIt.mutate(
                    { version: thing.version, act },
                    { onSuccess: () => notifications.show({ message: t(`estate/done/${act}`) }) },
                  )
            }
          >
            {t(`estate/acts/${act}`)}
          </Button>
        ))}
      </Group>
      <ProblemNote error={doIt.error} />
      {asked && <Asked thing={thing} act={asked} onClose={() => setAsked(null)} />}
    </>
  );
}
