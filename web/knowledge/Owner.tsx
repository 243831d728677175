import { useWords } from '../messages/useWords';
import { PersonPicker } from '../ui/PersonPicker';

/** Who answers for an article: is asked when it is due for review. */
export function Owner({
  name,
  isFixed,
  onChange,
}: {
  name: string;
  isFixed: boolean;
  onChange(person: { id: string; name: string }): void;
}) {
  const { t } = useWords();
  if (isFixed)
    return (
      <div>
        <b>{t('knowledge/owner')}</b>
        <br />
        {name}
      </div>
    );
  return <PersonPicker size="xs" label={t('knowledge/owner')} placeholder={name} onPick={onChange} />;
}
