import { Combobox, TextInput, useCombobox } from '@mantine/core';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useMe } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { listSubjects } from './subjects';
import classes from './Find.module.css';
import { listFound } from './listFound';

/** Goes to a page of the Workshop, or to a setting by its name, by other words for it, or by a worry. */
export function SettingFinder({ isLarge = false }: { isLarge?: boolean }) {
  const words = useWords();
  const { t } = words;
  const me = useMe();
  const navigate = useNavigate();
  const [asked, setAsked] = useState('');
  const found = listFound(words, me, asked);
  const combobox = useCombobox({
    onDropdownClose: () => combobox.resetSelectedOption(),
    onDropdownOpen: () => combobox.resetSelectedOption(),
  });
  const pages = listSubjects(me).map((subject) => ({
    to: `/workshop/${subject}`,
    name: t(`workshop/${subject}`),
  }));
  const isAsked = asked.trim() !== '';
  return (
    <Combobox
      store={combobox}
      onOptionSubmit={(to) => {
        setAsked('');
        combobox.closeDropdown();
        void navigate(to);
      }}
    >
      <Combobox.Target>
        <TextInput
          className={isLarge ? classes.large : classes.small}
          size={isLarge ? 'md' : 'xs'}
          aria-label={t('setup/findOne')}
          placeholder={t('setup/find')}
          value={asked}
          onFocus={() => combobox.openDropdown()}
          onClick={() => combobox.openDropdown()}
          onBlur={() => combobox.closeDropdown()}
          onChange={({ target }) => {
            setAsked(target.value);
            combobox.openDropdown();
            combobox.updateSelectedOptionIndex();
          }}
        />
      </Combobox.Target>
      <Combobox.Dropdown>
        <Combobox.Options mah={420} style={{ overflowY: 'auto' }} aria-label={t('setup/findOne')}>
          {isAsked && found.length === 0 && <Combobox.Empty>{t('setup/nothing')}</Combobox.Empty>}
          {found.map(({ id, name, help, to }) => (
            <Combobox.Option key={id} value={to}>
              {name}
              <small className={classes.help}>{help}</small>
            </Combobox.Option>
          ))}
          {!isAsked &&
            pages.map(({ to, name }) => (
              <Combobox.Option key={to} value={to}>
                {name}
              </Combobox.Option>
            ))}
        </Combobox.Options>
      </Combobox.Dropdown>
    </Combobox>
  );
}
