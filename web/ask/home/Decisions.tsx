import { Button } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useEffect, useState } from 'react';
import { useLocation } from 'react-router';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useAsks, useRenew } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { Decision } from './Decision';
import home from './Home.module.css';

/** What waits for one's decision, each with who asks, for what, what it costs and why it comes to one. */
export function Decisions() {
  const { t } = useWords();
  const renew = useRenew();
  const { data = [] } = useAsks();
  const { hash } = useLocation();
  const isThere = data.some(({ id }) => hash === `#ask-${id}`);
  // A mail leads to one of them.
  useEffect(() => {
    if (!isThere) return;
    const article = document.getElementById(hash.slice(1));
    article?.scrollIntoView({ block: 'center' });
    article?.focus({ preventScroll: true });
  }, [hash, isThere]);
  const [chosen, setChosen] = useState<string[]>([]);
  const together = data.filter(({ id }) => chosen.includes(id));
  const agree = useMutation({
    mutationFn: async () => {
      for (const { id } of together)
        await call(api.approvals.decide, {
          params: { id },
          body: { decision: 'approve', words: '' },
          key: nanoid(),
        });
      return together.length;
    },
    onSuccess: (count) => notifications.show({ message: t('approvals/agreed', { count }) }),
    onSettled: () => {
      setChosen([]);
      renew();
    },
  });
  if (data.length === 0) return null;
  return (
    <section aria-label={t('approvals/title')}>
      <h2 className={home.section}>
        {t('approvals/title')}
        {together.length > 0 && (
          <Button size="compact-sm" ml="md" loading={agree.isPending} onClick={() => agree.mutate()}>
            {t('approvals/agree', { count: together.length })}
          </Button>
        )}
      </h2>
      <ProblemNote error={agree.error} />
      {data.map((ask) => (
        <Decision
          key={ask.id}
          ask={ask}
          isChosen={chosen.includes(ask.id)}
          onChoose={
            data.length > 1
              ? (isChosen) => setChosen(isChosen ? [...chosen, ask.id] : chosen.filter((id) => id !== ask.id))
              : null
          }
        />
      ))}
    </section>
  );
}
