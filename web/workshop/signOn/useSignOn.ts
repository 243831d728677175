import { notifications } from '@mantine/notifications';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { AnswerOf, BodyInputOf } from '../../../contract/endpoint';
import type { ProviderView } from '../../../contract/signOn';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useWords } from '../../messages/useWords';

const KEY = ['signOn'] as const;

/** How people sign in, as it is set. */
export type SignOnPage = AnswerOf<typeof api.signOn.get>;
export const useSignOn = () => useQuery({ queryKey: KEY, queryFn: () => call(api.signOn.get) });

/** Makes all that shows how people sign in be asked anew. */
export function useRenewSignOn(): () => Promise<unknown> {
  const client = useQueryClient();
  return () => client.invalidateQueries({ queryKey: KEY });
}

/** Keeps a provider or adds it; the draft goes once it is kept. */
export function useSaveProvider(provider: ProviderView | null, clear: () => void) {
  const { t } = useWords();
  const navigate = useNavigate();
  const renew = useRenewSignOn();
  const [key] = useState(() => nanoid());
  return useMutation({
    mutationFn: async (body: BodyInputOf<typeof api.signOn.create>) => {
      if (provider === null) return (await call(api.signOn.create, { body, key })).id;
      await call(api.signOn.update, {
        ...{ params: { id: provider.id }, body: { ...body, version: provider.version } },
      });
      return provider.id;
    },
    onSuccess: async (id, { name }) => {
      notifications.show({ message: t(provider === null ? 'signOn/made' : 'signOn/saved', { name }) });
      clear();
      await renew();
      if (provider === null) await navigate(`/workshop/signOn/${id}`, { replace: true });
    },
  });
}
