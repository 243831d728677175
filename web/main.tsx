import '@fontsource-variable/atkinson-hyperlegible-next';
import '@mantine/core/styles.css';
import '@mantine/notifications/styles.css';
import '@mantine/spotlight/styles.css';
import './theme/colours.css';
import { MantineProvider } from '@mantine/core';
import { Notifications } from '@mantine/notifications';
import { QueryClientProvider } from '@tanstack/react-query';
import { createRoot } from 'react-dom/client';
import { RouterProvider } from 'react-router';
import { queryClient } from './api/client';
import { startMessages } from './messages/i18n';
import { WordsProvider } from './messages/WordsProvider';
import { router } from './routes';
import { theme } from './theme/theme';
import { variables } from './theme/variables';

await startMessages();
createRoot(document.getElementById('root')!).render(
  <WordsProvider>
    <MantineProvider theme={theme} defaultColorScheme="auto" cssVariablesResolver={variables}>
      <QueryClientProvider client={queryClient}>
        <Notifications position="bottom-left" autoClose={5_000} />
        <RouterProvider router={router} />
      </QueryClientProvider>
    </MantineProvider>
  </WordsProvider>,
);
