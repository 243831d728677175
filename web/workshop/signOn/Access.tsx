import { Select, Text } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation } from '@tanstack/react-query';
import { FACTOR_ASKED_OF, type FactorAskedOf } from '../../../core/signOn';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import classes from '../Workshop.module.css';
import { useRenewSignOn, type SignOnPage } from './useSignOn';

const EVERYBODY = '';

/** Who may have a password, and of whom a code is asked beside it. */
export function Access({ page: { settings, emergency } }: { page: SignOnPage }) {
  const { t } = useWords();
  const renew = useRenewSignOn();
  const set = useMutation({
    mutationFn: (change: Partial<SignOnPage['settings']>) =>
      call(api.signOn.set, { body: { ...settings, ...change } }),
    onSuccess: () => notifications.show({ message: t('signOn/settingsSaved') }),
    onSettled: renew,
  });
  return (
    <section className={classes.section} aria-labelledby="sign-on-access">
      <h2 id="sign-on-access">{t('signOn/passwords')}</h2>
      <Select
        {...{ maw: 420, allowDeselect: false, disabled: set.isPending }}
        label={t('signOn/passwordsOf')}
        value={settings.passwordsOnlyOf ?? EVERYBODY}
        data={[
          { value: EVERYBODY, label: t('signOn/everybody') },
          ...emergency.map(({ id, name }) => ({ value: id, label: t('signOn/only', { name }) })),
        ]}
        onChange={(value) => set.mutate({ passwordsOnlyOf: value === EVERYBODY ? null : value })}
      />
      <Select
        {...{ maw: 420, mt: 'sm', allowDeselect: false, disabled: set.isPending }}
        label={t('signOn/askedOf')}
        value={settings.factorAskedOf}
        data={FACTOR_ASKED_OF.map((each) => ({ value: each, label: t(`signOn/asked/${each}`) }))}
        onChange={(value) => set.mutate({ factorAskedOf: value as FactorAskedOf })}
      />
      <Text size="sm" c="dimmed" mt={6}>
        {t('signOn/askedHelp')}
      </Text>
      <ProblemNote error={set.error} />
    </section>
  );
}
