import { Button, Popover, TextInput } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import { useState } from 'react';
import type { Condition } from '../../../core/conditions';
import { useWords } from '../../messages/useWords';
import { ConditionEditor } from './ConditionEditor';
import { useFieldWords } from '../../ui/useFieldWords';
import { narrow, partsOf, withoutPart } from './where';
import classes from './Worklist.module.css';

type Props = { where: Condition | null; onChange(where: Condition | null): void };

const QUICK: [key: string, condition: Condition][] = [
  ['waiting', { field: 'waitsSince', op: 'notEmpty' }],
  ['late', { field: 'isLate', op: 'is', value: true }],
  ['mine', { field: 'assigneeId', op: 'in', value: ['@me'] }],
  ['today', { field: 'isDueToday', op: 'is', value: true }],
  ['p1', { field: 'priority', op: 'in', value: ['P1', 'P2'] }],
];

/** What narrows a list just now, each part to be taken away; a few at hand, any by a sentence. */
export function Narrow({ where, onChange }: Props) {
  const { t } = useWords();
  const { toPhrase } = useFieldWords();
  const [words, setWords] = useState('');
  const add = (condition: Condition): void => onChange(narrow(where, condition));
  return (
    <>
      {partsOf(where).map((part, i) => (
        <button
          key={i}
          type="button"
          className={classes.part}
          aria-label={t('lists/widen', { what: toPhrase(part) })}
          onClick={() => onChange(withoutPart(where, part))}
        >
          {toPhrase(part)} <IconX size={12} />
        </button>
      ))}
      <Popover width={460} withArrow position="bottom-start" trapFocus>
        <Popover.Target>
          <button type="button">{t(where ? 'lists/narrowMore' : 'lists/narrow')}</button>
        </Popover.Target>
        <Popover.Dropdown>
          <form
            onSubmit={(event) => {
              event.preventDefault();
              if (words.trim() === '') return;
              add({ field: 'title', op: 'contains', value: words.trim() });
              setWords('');
            }}
          >
            <TextInput
              data-autofocus
              size="xs"
              label={t('lists/titleHas')}
              value={words}
              onChange={({ target }) => setWords(target.value)}
            />
          </form>
          <div className={classes.quick}>
            {QUICK.map(([key, condition]) => (
              <Button key={key} size="compact-xs" variant="default" onClick={() => add(condition)}>
                {t(`lists/quick/${key}`)}
              </Button>
            ))}
          </div>
          <ConditionEditor condition={where ?? { all: [] }} onChange={onChange} />
        </Popover.Dropdown>
      </Popover>
    </>
  );
}
