import { useMantineColorScheme } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import type { Presence } from '../../contract/names';
import { call } from '../api/call';
import { api } from '../api/endpoints';
import { setLanguage } from '../messages/i18n';
import { useWords } from '../messages/useWords';

/** What one sets for oneself, from wherever one is. */
export type OwnActs = {
  isDark: boolean;
  switchTheme(): void;
  switchLanguage(): void;
  setPresence(presence: Presence): void;
  wantMail(wantsMail: boolean): void;
  signOut(): void;
};

/** The acts of the person who is signed in, for their menu and for whoever types them. */
export function useOwnActs(): OwnActs {
  const { language } = useWords();
  const client = useQueryClient();
  const navigate = useNavigate();
  const { colorScheme, setColorScheme } = useMantineColorScheme();
  const isDark = colorScheme === 'dark';
  const renewMe = () => client.invalidateQueries({ queryKey: ['session'] });
  const setPresence = useMutation({
    mutationFn: (presence: Presence) => call(api.routing.setPresence, { body: { presence } }),
    onSettled: renewMe,
  });
  const wantMail = useMutation({
    mutationFn: (wantsMail: boolean) => call(api.mail.wanted, { body: { wantsMail } }),
    onSettled: renewMe,
  });
  const signOut = useMutation({
    mutationFn: () => call(api.session.signOut),
    onSettled: async (gone) => {
      // Where one came by a provider one leaves there too.
      if (gone?.goOnAt) {
        window.location.assign(gone.goOnAt);
        return;
      }
      await navigate('/');
      client.clear();
    },
  });
  async function switchLanguage(): Promise<void> {
    const other = language === 'en' ? 'pt' : 'en';
    await setLanguage(other);
    await call(api.session.setLanguage, { body: { language: other } });
    await client.invalidateQueries();
  }
  return {
    isDark,
    switchTheme: () => setColorScheme(isDark ? 'light' : 'dark'),
    switchLanguage: () => void switchLanguage(),
    setPresence: setPresence.mutate,
    wantMail: wantMail.mutate,
    signOut: () => signOut.mutate(),
  };
}
