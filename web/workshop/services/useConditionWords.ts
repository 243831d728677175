import type { Condition } from '../../../core/conditions';
import type { FormField } from '../../../core/forms';
import { useWords } from '../../messages/useWords';

/** A condition in words, as far as one sentence can say it. */
export function useConditionWords(fields: FormField[]): (condition: Condition) => string {
  const { t, local } = useWords();
  return (condition) => {
    if (!('op' in condition)) return t('services/condition/complex');
    const field = fields.find(({ name }) => name === condition.field);
    const subject = field ? local(field.label) || field.name : condition.field;
    if (!('value' in condition)) return `“${subject}” ${t(`services/condition/${condition.op}`)}`;
    const { value } = condition;
    if (typeof value === 'boolean') return `“${subject}” ${t(`services/condition/${value ? 'yes' : 'no'}`)}`;
    const choice = field?.choices?.find((each) => each.value === value);
    return `“${subject}” ${t(`services/condition/${condition.op}`)} ${choice ? local(choice.label) : String(value)}`;
  };
}
