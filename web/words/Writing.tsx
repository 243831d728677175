import { useWriting } from '../api/writing';
import { useWords } from '../messages/useWords';
import './wordsWords';

/** Who is writing on a ticket right now. */
export function Writing({ number }: { number: number }) {
  const { t } = useWords();
  const names = useWriting(number);
  return (
    <span role="status" style={{ color: 'var(--muted)', fontSize: 13 }}>
      {names.length > 0 && t('words/writing', { names: names.join(', '), count: names.length })}
    </span>
  );
}
