import { Button, Stack } from '@mantine/core';
import { useLocation } from 'react-router';
import { useWords } from '../messages/useWords';

export type Provider = { id: string; name: string; domains: string[] };
/** How one may come in. */
export type Ways = { providers: Provider[]; hasPasswords: boolean };

/** Where a browser goes to sign in at a provider, and to come back to the page that it is on. */
export function useAddressOf(): (id: string) => string {
  const { pathname, search } = useLocation();
  const params = new URLSearchParams(search);
  params.delete('signOn');
  const rest = params.toString();
  const back = `${pathname}${rest ? `?${rest}` : ''}`;
  return (id) => `/sign-on/${encodeURIComponent(id)}?back=${encodeURIComponent(back)}`;
}

/** A button for each provider at which one may sign in. */
export function Providers({ providers }: { providers: Provider[] }) {
  const { t } = useWords();
  const addressOf = useAddressOf();
  if (providers.length === 0) return null;
  return (
    <Stack gap="xs" mb="lg" align="flex-start">
      {providers.map(({ id, name }) => (
        <Button key={id} component="a" href={addressOf(id)}>
          {t('signOn/with', { provider: name })}
        </Button>
      ))}
    </Stack>
  );
}
