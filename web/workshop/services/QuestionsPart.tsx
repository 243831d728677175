import { Button, Menu } from '@mantine/core';
import { useState } from 'react';
import { FIELD_KINDS, type FieldKind, type FormField } from '../../../core/forms';
import { useWords } from '../../messages/useWords';
import { FormFile } from './FormFile';
import { QuestionEditor } from './QuestionEditor';
import { SortableItem, SortableList } from '../../ui/Sortable';
import classes from './services.module.css';
import type { PartProps } from './useService';
import { useConditionWords } from './useConditionWords';

/** A stored name that is free: q1, q2 … */
function freeName(fields: FormField[]): string {
  const names = new Set(fields.map(({ name }) => name));
  return Array.from({ length: fields.length + 1 }, (_, i) => `q${i + 1}`).find((name) => !names.has(name))!;
}

function newField(kind: FieldKind, name: string): FormField {
  const label = { en: '', pt: '' };
  return {
    ...{ name, kind, label, needed: kind !== 'heading' },
    ...((kind === 'choice' || kind === 'choices') && { choices: [{ value: 'a', label: { ...label } }] }),
    ...(kind === 'table' && { columns: [{ name: 'what', kind: 'text' as const, label: { ...label } }] }),
  };
}

/** The facts of a question in one line. */
function useFacts(fields: FormField[]): (field: FormField) => string {
  const { t } = useWords();
  const words = useConditionWords(fields);
  return ({ kind, needed, neededWhen, shownWhen, filledFrom, choices, startsPage }) =>
    [
      kind === 'choice'
        ? t('services/form/oneOf', { count: choices?.length ?? 0 })
        : t(`services/form/kinds/${kind}`),
      filledFrom && t('services/form/filled'),
      needed && kind !== 'heading' && t('services/form/required'),
      neededWhen && `${t('services/form/requiredIf')} ${words(neededWhen)}`,
      shownWhen && `${t('services/form/onlyIf')} ${words(shownWhen)}`,
      startsPage && t('services/form/page'),
    ]
      .filter(Boolean)
      .join(' · ');
}

/** The questions of a form: in order, each a line that opens. */
export function QuestionsPart({
  definition,
  isFixed,
  change,
}: Pick<PartProps, 'isFixed'> & {
  definition: Pick<PartProps['definition'], 'form'>;
  change(part: Pick<PartProps['definition'], 'form'>): void;
}) {
  const { t, local } = useWords();
  const [open, setOpen] = useState<number | null>(null);
  const fields = definition.form.fields as FormField[];
  const factsOf = useFacts(fields);
  const set = (next: FormField[]): void => change({ form: { fields: next } });
  const nameOf = (field: FormField): string => local(field.label) || field.name;
  return (
    <>
      <SortableList
        ids={fields.map(({ name }) => name)}
        onOrder={(names) => {
          setOpen(null);
          set(names.map((name) => fields.find((field) => field.name === name)!));
        }}
      >
        <ul className={classes.questions}>
          {fields.map((field, i) => (
            // The place is what stays while the stored name is being typed.
            <SortableItem
              key={i}
              id={field.name}
              className={classes.question}
              isFixed={isFixed}
              isOpen={open === i}
              label={t('services/form/move', { name: nameOf(field) })}
            >
              {(grip) => (
                <>
                  <div className={classes.row}>
                    {grip}
                    <button
                      type="button"
                      aria-expanded={open === i}
                      aria-label={t('services/form/edit', { name: nameOf(field) })}
                      onClick={() => setOpen(open === i ? null : i)}
                    >
                      {nameOf(field)}
                    </button>
                    <span className={classes.quiet}>{factsOf(field)}</span>
                    <span className={classes.quiet}>{t('services/form/storedAs', { name: field.name })}</span>
                  </div>
                  {open === i && (
                    <QuestionEditor
                      field={field}
                      before={fields.slice(0, i).filter(({ kind }) => kind !== 'heading')}
                      isFixed={isFixed}
                      onChange={(next) => set(fields.map((each, at) => (at === i ? next : each)))}
                      onRemove={() => {
                        setOpen(null);
                        set(fields.filter((_, at) => at !== i));
                      }}
                      onClose={() => setOpen(null)}
                    />
                  )}
                </>
              )}
            </SortableItem>
          ))}
        </ul>
      </SortableList>
      <div className={classes.leg}>
        {!isFixed && (
          <Menu position="bottom-start">
            <Menu.Target>
              <Button size="compact-sm" variant="subtle">
                {t('services/form/add')}
              </Button>
            </Menu.Target>
            <Menu.Dropdown aria-label={t('services/form/addKind')}>
              {FIELD_KINDS.map((kind) => (
                <Menu.Item
                  key={kind}
                  onClick={() => {
                    set([...fields, newField(kind, freeName(fields))]);
                    setOpen(fields.length);
                  }}
                >
                  {t(`services/form/kinds/${kind}`)}
                </Menu.Item>
              ))}
            </Menu.Dropdown>
          </Menu>
        )}
        <FormFile form={{ fields }} isFixed={isFixed} onRead={(form) => set(form.fields)} />
      </div>
    </>
  );
}
