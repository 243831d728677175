import { ActionIcon, Tooltip } from '@mantine/core';
import { IconAt, IconBold, IconCheckbox, IconCode, IconItalic, IconList } from '@tabler/icons-react';
import type { RefObject } from 'react';
import { insertTextIntoField, wrapFieldSelection } from 'text-field-edit';
import { useWords } from '../messages/useWords';
import { prefixLines } from './prefixLines';

type Field = HTMLTextAreaElement;

export function beginLines(field: Field, mark: string): void {
  const { value, selectionStart, selectionEnd } = field;
  const change = prefixLines({ text: value, start: selectionStart, end: selectionEnd }, mark);
  field.setSelectionRange(change.start, change.end);
  insertTextIntoField(field, change.with);
}

const DEEDS = [
  ['bold', IconBold, 'B', (field: Field) => wrapFieldSelection(field, '**')],
  ['italic', IconItalic, 'I', (field: Field) => wrapFieldSelection(field, '_')],
  ['list', IconList, null, (field: Field) => beginLines(field, '- ')],
  ['checklist', IconCheckbox, null, (field: Field) => beginLines(field, '- [ ] ')],
  ['code', IconCode, null, (field: Field) => wrapFieldSelection(field, '`')],
  ['call', IconAt, null, (field: Field) => insertTextIntoField(field, '@')],
] as const;

/** What a key with Control does to the words, if anything. */
export function editByKey(event: React.KeyboardEvent<Field>): void {
  if (!event.ctrlKey && !event.metaKey) return;
  const deed = DEEDS.find(([, , key]) => key?.toLowerCase() === event.key.toLowerCase());
  if (!deed) return;
  event.preventDefault();
  deed[3](event.currentTarget);
}

/** Formatting, as buttons. */
export function Tools({ field }: { field: RefObject<Field | null> }) {
  const { t } = useWords();
  return (
    <span role="group" aria-label={t('words/formatting')} style={{ display: 'inline-flex' }}>
      {DEEDS.map(([name, Icon, key, run]) => (
        <Tooltip key={name} label={t(`words/${name}`) + (key ? ` (Ctrl ${key})` : '')}>
          <ActionIcon
            size={24}
            variant="subtle"
            color="gray"
            aria-label={t(`words/${name}`)}
            // The words keep the focus, and with it what is chosen in them.
            onMouseDown={(event) => event.preventDefault()}
            onClick={() => {
              if (!field.current) return;
              field.current.focus();
              run(field.current);
            }}
          >
            <Icon size={15} />
          </ActionIcon>
        </Tooltip>
      ))}
    </span>
  );
}
