import type { Ticket } from '../../contract/tickets';
import type { AnswerLink } from '../../core/forms';
import { useWords } from '../messages/useWords';

/** What was answered to a question of the form. */
export function AnswerValue({ answer: { field, value } }: { answer: Ticket['answers'][number] }) {
  const { t, local } = useWords();
  if (typeof value === 'boolean') return t(value ? 'common/yes' : 'common/no');
  if (field.kind === 'links')
    return (value as AnswerLink[]).map(({ url, name }) => (
      <a key={url} href={url} target="_blank" rel="noreferrer noopener">
        {name || url}{' '}
      </a>
    ));
  const choice = field.choices?.find((each) => each.value === value);
  return <bdi style={{ whiteSpace: 'pre-wrap' }}>{choice ? local(choice.label) : String(value)}</bdi>;
}
