import { ActionIcon, Button, Checkbox, Input, NativeSelect, TextInput } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import type { ReactNode } from 'react';
import type { Column, TableRow } from '../../core/forms';
import { useWords } from '../messages/useWords';
import classes from './form.module.css';

type Props = {
  id: string;
  label: ReactNode;
  description?: ReactNode;
  error?: ReactNode;
  columns: Column[];
  rows: TableRow[];
  onChange(rows: TableRow[]): void;
};

function Cell({
  column,
  value,
  label,
  onChange,
}: {
  column: Column;
  value: TableRow[string];
  label: string;
  onChange(value: TableRow[string]): void;
}) {
  const { local } = useWords();
  const text = typeof value === 'string' || typeof value === 'number' ? String(value) : '';
  switch (column.kind) {
    case 'yesNo':
      return (
        <Checkbox
          aria-label={label}
          checked={value === true}
          onChange={({ target }) => onChange(target.checked)}
        />
      );
    case 'choice':
      return (
        <NativeSelect
          aria-label={label}
          value={text}
          data={[
            '',
            ...(column.choices ?? []).map((choice) => ({ value: choice.value, label: local(choice.label) })),
          ]}
          onChange={({ target }) => onChange(target.value)}
        />
      );
    default:
      return (
        <TextInput
          aria-label={label}
          type={column.kind === 'date' ? 'date' : 'text'}
          {...(column.kind === 'number' && { inputMode: 'decimal' as const })}
          value={text}
          onChange={({ target }) => onChange(target.value)}
        />
      );
  }
}

/** Rows of the same few cells; one more empty one is always there to begin. */
export function TableInput({ id, label, description, error, columns, rows, onChange }: Props) {
  const { t, local } = useWords();
  const shown = rows.length === 0 ? [{}] : rows;
  const set = (i: number, row: TableRow): void => onChange(shown.map((each, at) => (at === i ? row : each)));
  return (
    <Input.Wrapper {...{ label, description, error }}>
      <table id={id} className={classes.table} tabIndex={-1}>
        <thead>
          <tr>
            {columns.map((column) => (
              <th key={column.name} scope="col">
                {local(column.label)}
              </th>
            ))}
            <td />
          </tr>
        </thead>
        <tbody>
          {shown.map((row, i) => (
            <tr key={i}>
              {columns.map((column) => (
                <td key={column.name}>
                  <Cell
                    column={column}
                    label={`${local(column.label)} ${i + 1}`}
                    value={row[column.name] ?? null}
                    onChange={(value) => set(i, { ...row, [column.name]: value })}
                  />
                </td>
              ))}
              <td>
                {rows.length > 0 && (
                  <ActionIcon
                    variant="subtle"
                    color="gray"
                    size="lg"
                    aria-label={t('form/removeRow', { row: i + 1 })}
                    onClick={() => onChange(rows.filter((_, at) => at !== i))}
                  >
                    <IconX size={16} />
                  </ActionIcon>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <Button size="compact-sm" variant="subtle" onClick={() => onChange([...shown, {}])}>
        {t('form/addRow')}
      </Button>
    </Input.Wrapper>
  );
}
