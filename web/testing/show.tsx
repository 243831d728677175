import { MantineProvider } from '@mantine/core';
import { Notifications, notifications } from '@mantine/notifications';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, render, type RenderResult } from '@testing-library/react';
import type { ReactElement } from 'react';
import { MemoryRouter } from 'react-router';
import type { Me } from '../../contract/session';
import type { Language } from '../../core/forms';
import { setLanguage } from '../messages/i18n';
import { WordsProvider } from '../messages/WordsProvider';

/** Someone of a team, in Lisbon. */
export const BIA: Me = {
  ...{ id: 'bia', name: 'Bia Rocha', title: 'Service desk agent', language: 'en', timeZone: 'Europe/Lisbon' },
  ...{
    calendarId: 'office',
    isAdministrator: false,
    mayAskForOthers: true,
    hasAssistant: true,
    wantsMail: true,
  },
  teams: [{ teamId: 'desk', role: 'agent' }],
  known: {},
  areas: ['ask', 'desk', 'rooms', 'knowledge', 'measures'],
  presence: 'available',
  carries: null,
};

/** What the server says of someone who is signed in at the demo. */
export const sessionWith = (me: Me) => ({
  ...{ me, isDemo: true, needsSetup: false, mustSetFactor: false, waysIn: null, now: Date.now() },
});

type Shown = RenderResult & { client: QueryClient };

/** Shows a component to someone who is signed in, in a language, at an address, with what the server has answered. */
export async function show(
  element: ReactElement,
  {
    me = BIA,
    language = 'en',
    address = '/',
    answers = [],
  }: { me?: Me; language?: Language; address?: string; answers?: [readonly unknown[], unknown][] } = {},
): Promise<Shown> {
  cleanup();
  // What was said by a test before is over.
  notifications.clean();
  await setLanguage(language);
  const client = new QueryClient({ defaultOptions: { queries: { retry: false, staleTime: Infinity } } });
  client.setQueryData(['session'], sessionWith(me));
  for (const [key, answer] of answers) client.setQueryData(key, answer);
  const shown = render(
    <WordsProvider>
      <MantineProvider env="test">
        <QueryClientProvider client={client}>
          <Notifications />
          <MemoryRouter initialEntries={[address]}>{element}</MemoryRouter>
        </QueryClientProvider>
      </MantineProvider>
    </WordsProvider>,
  );
  return { ...shown, client };
}
