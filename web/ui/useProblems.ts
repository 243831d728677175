import { ApiProblem } from '../api/call';
import { useWords } from '../messages/useWords';

/** The words of field errors, by field name. */
export function useProblems(): (error: unknown) => Record<string, string> {
  const { t } = useWords();
  return (error) => {
    if (!(error instanceof ApiProblem)) return {};
    const fields = error.problem?.fields ?? [];
    return Object.fromEntries(
      fields.map(({ field, code, limit }) => [field, t(`fields/${code}`, { limit })]),
    );
  };
}
