import { Combobox, Textarea, useCombobox } from '@mantine/core';
import { useEffect, type RefObject } from 'react';
import { insertTextIntoField } from 'text-field-edit';
import { useWords } from '../messages/useWords';
import type { FieldProps } from '../thread/Composer';
import { editByKey } from './Tools';
import { useCalls } from './useCalls';
import './wordsWords';

/** A field for words with formatting: an @ calls someone in, a pasted picture goes where the caret is. */
export function RichField({
  number,
  readBy,
  inputRef,
  onFiles,
  ...rest
}: FieldProps & { inputRef: RefObject<HTMLTextAreaElement | null> }) {
  const { t } = useWords();
  const calls = useCalls(number, readBy);
  const { choices } = calls;
  const isOpen = choices.length > 0;
  const combobox = useCombobox({ opened: isOpen });
  const { selectFirstOption } = combobox;
  useEffect(() => {
    if (choices.length > 0) selectFirstOption();
  }, [choices, selectFirstOption]);
  return (
    <Combobox
      store={combobox}
      position="top-start"
      width={320}
      onOptionSubmit={(value) => {
        const chosen = choices.find((each, i) => `${i}` === value);
        if (chosen) calls.put(inputRef.current!, chosen);
      }}
    >
      <Combobox.Target withKeyboardNavigation={isOpen} withAriaAttributes={isOpen}>
        <Textarea
          {...{ autosize: true, minRows: 2, maxRows: 10, ref: inputRef, 'aria-multiline': true, ...rest }}
          onChange={(event) => {
            rest.onChange(event);
            calls.look(event.currentTarget);
          }}
          onClick={({ currentTarget }) => calls.look(currentTarget)}
          onBlur={calls.stop}
          onKeyDown={(event) => {
            if (event.key === 'Escape' && isOpen) {
              event.stopPropagation();
              calls.stop();
            } else editByKey(event);
          }}
          onPaste={(event) => {
            const { clipboardData, currentTarget } = event;
            if (clipboardData.files.length === 0) return;
            event.preventDefault();
            onFiles([...clipboardData.files], (words) => insertTextIntoField(currentTarget, words));
          }}
        />
      </Combobox.Target>
      <Combobox.Dropdown>
        <Combobox.Options aria-label={t('words/whoToCall')}>
          {choices.map((each, i) => (
            <Combobox.Option key={i} value={`${i}`}>
              <b>{calls.nameOf(each)}</b> · {calls.detailOf(each)}
            </Combobox.Option>
          ))}
        </Combobox.Options>
      </Combobox.Dropdown>
    </Combobox>
  );
}
