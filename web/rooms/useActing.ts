import { notifications } from '@mantine/notifications';
import { useMutation } from '@tanstack/react-query';
import { ApiProblem } from '../api/call';
import { useWords } from '../messages/useWords';
import { callRooms } from './callRooms';

export type Acting = {
  isActing: boolean;
  act(action: string, messageIds: string[]): void;
  reword(id: string, text: string): void;
  takeBack(id: string): void;
};

/** What one does with lines; what comes of it comes back by the live stream. */
export function useActing(): Acting {
  const { t } = useWords();
  const doing = useMutation({
    mutationFn: ({ method, path, body }: { method: string; path: string; body?: object }) =>
      callRooms(method, path, body),
    onError: (error) =>
      notifications.show({
        message: t(`problems/${error instanceof ApiProblem ? error.code : 'unexpected'}`),
      }),
  });
  return {
    isActing: doing.isPending,
    act: (action, messageIds) => doing.mutate({ method: 'POST', path: '/act', body: { action, messageIds } }),
    reword: (id, text) => doing.mutate({ method: 'PUT', path: `/messages/${id}`, body: { text } }),
    takeBack: (id) => doing.mutate({ method: 'DELETE', path: `/messages/${id}` }),
  };
}
