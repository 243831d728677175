import { IconX } from '@tabler/icons-react';
import { useWords } from '../messages/useWords';
import classes from './Inline.module.css';

type Option = { value: string; label: string };
type SelectProps = {
  label: string;
  value: string;
  options: Option[];
  isFixed: boolean;
  onChange(value: string): void;
};

/** A blank in a sentence, filled by choosing. */
export function InlineSelect({ label, value, options, isFixed, onChange }: SelectProps) {
  return (
    <select
      className={classes.inline}
      aria-label={label}
      value={value}
      disabled={isFixed}
      onChange={({ target }) => onChange(target.value)}
    >
      {options.map((option) => (
        <option key={option.value} value={option.value}>
          {option.label}
        </option>
      ))}
    </select>
  );
}

type TextProps = {
  label: string;
  value: string;
  isFixed: boolean;
  isSmall?: boolean;
  onChange(value: string): void;
};

/** A blank in a sentence, filled by typing. */
export function InlineText({ label, value, isFixed, isSmall = false, onChange }: TextProps) {
  return (
    <input
      className={`${classes.inline} ${classes.typed} ${isSmall ? classes.small : ''}`}
      aria-label={label}
      value={value}
      disabled={isFixed}
      onChange={({ target }) => onChange(target.value)}
    />
  );
}

/** Takes one of a sentence's parts out. */
export function InlineRemove({ name, onRemove }: { name: string; onRemove(): void }) {
  const { t } = useWords();
  return (
    <button
      type="button"
      className={classes.remove}
      aria-label={t('common/remove', { name })}
      onClick={onRemove}
    >
      <IconX size={14} />
    </button>
  );
}
