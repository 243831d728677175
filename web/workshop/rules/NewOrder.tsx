import { Button, Group } from '@mantine/core';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import classes from './Rules.module.css';
import { useOrderEffect, useOrderRules } from './useRules';

/** Another order, before it is kept: what it would have made otherwise over the last 30 days. */
export function NewOrder({ ids, before, onEnd }: { ids: string[]; before: string[]; onEnd(): void }) {
  const { t, local, count: say } = useWords();
  const { data, error } = useOrderEffect(ids);
  const order = useOrderRules(onEnd);
  return (
    <section className={classes.newOrder} aria-label={t('rules/newOrder/title')}>
      <p role="status">
        {!data && !error && t('rules/newOrder/looking')}
        {data &&
          (data.otherwise === 0
            ? t('rules/newOrder/nothing', { entries: say(data.entries) })
            : t('rules/newOrder/otherwise', { count: data.otherwise, entries: say(data.entries) }))}
        {data?.more.map(({ id, name, count }) => (
          <span key={`+${id}`}> {t('rules/newOrder/more', { name: local(name), count })}</span>
        ))}
        {data?.fewer.map(({ id, name, count }) => (
          <span key={`-${id}`}> {t('rules/newOrder/fewer', { name: local(name), count })}</span>
        ))}
      </p>
      <ProblemNote error={error ?? order.error} />
      <Group gap="xs">
        <Button size="xs" loading={order.isPending} onClick={() => order.mutate({ ids, before })}>
          {t('rules/newOrder/keep')}
        </Button>
        <Button size="xs" variant="default" onClick={onEnd}>
          {t('rules/newOrder/leave')}
        </Button>
      </Group>
    </section>
  );
}
