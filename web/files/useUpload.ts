import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import type { FileRef } from '../../contract/files';
import { FILE_LIMIT } from '../../contract/names';
import { ApiProblem, call } from '../api/call';
import { api } from '../api/endpoints';
import { useWords } from '../messages/useWords';

function toForm(file: File): FormData {
  const form = new FormData();
  form.append('file', file, file.name || 'picture.png');
  return form;
}

/** Sends files as they are given; each is passed on when it is there. */
export function useUpload(onSent: (file: FileRef) => void) {
  const { t } = useWords();
  const [problem, setProblem] = useState<string | null>(null);
  const sending = useMutation({
    mutationFn: (file: File) => call(api.files.upload, { body: toForm(file) }),
    onError: (error, file) =>
      setProblem(`${file.name}: ${t(`problems/${error instanceof ApiProblem ? error.code : 'unexpected'}`)}`),
  });
  return {
    problem,
    /** The name of the one under way. */
    underWay: sending.isPending ? sending.variables.name : null,
    add(given: File[], then: (file: FileRef) => void = () => undefined): void {
      setProblem(null);
      for (const file of given)
        if (file.size > FILE_LIMIT) setProblem(`${file.name}: ${t('problems/fileTooLarge')}`);
        else
          void sending.mutateAsync(file).then(
            (sent) => {
              onSent(sent);
              then(sent);
            },
            () => undefined,
          );
    },
  };
}
