import { notifications } from '@mantine/notifications';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { ProgramBody, ProgramView } from '../../../contract/programs';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useWords } from '../../messages/useWords';
import { useRenewPrograms } from './usePrograms';

/** Keeps an account or makes it; the draft goes once it is kept. */
export function useSaveProgram(program: ProgramView | null, clear: () => void) {
  const { t } = useWords();
  const navigate = useNavigate();
  const renew = useRenewPrograms();
  const [key] = useState(() => nanoid());
  return useMutation({
    mutationFn: async (body: ProgramBody) => {
      if (program === null) return (await call(api.programs.create, { body, key })).id;
      await call(api.programs.update, {
        ...{ params: { id: program.id }, body: { ...body, version: program.version } },
      });
      return program.id;
    },
    onSuccess: async (id, { name }) => {
      notifications.show({ message: t(program === null ? 'programs/made' : 'programs/saved', { name }) });
      clear();
      await renew();
      if (program === null) await navigate(`/workshop/programs/${id}`, { replace: true });
    },
  });
}
