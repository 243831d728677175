import type { Ticket } from '../../contract/tickets';
import {
  sayDay,
  type AnswerLink,
  type Column,
  type DateRange,
  type Named,
  type TableRow,
} from '../../core/forms';
import { useWords } from '../messages/useWords';
import { useMoney } from './useMoney';

function Rows({ columns, rows }: { columns: Column[]; rows: TableRow[] }) {
  const { t, local, language } = useWords();
  const word = (column: Column, value: TableRow[string]): string => {
    if (typeof value === 'boolean') return t(value ? 'common/yes' : 'common/no');
    if (column.kind === 'date' && typeof value === 'string') return sayDay(value, language);
    const choice = column.choices?.find((each) => each.value === value);
    return choice ? local(choice.label) : String(value ?? '');
  };
  return (
    <table style={{ borderSpacing: '10px 2px', margin: '0 -10px' }}>
      <thead>
        <tr>
          {columns.map((column) => (
            <th key={column.name} style={{ textAlign: 'start', fontWeight: 400, color: 'var(--muted)' }}>
              {local(column.label)}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row, i) => (
          <tr key={i}>
            {columns.map((column) => (
              <td key={column.name}>
                <bdi>{word(column, row[column.name] ?? null)}</bdi>
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** What was answered to a question of the form. */
export function AnswerValue({ answer: { field, value } }: { answer: Ticket['answers'][number] }) {
  const { t, local, language } = useWords();
  const money = useMoney();
  if (typeof value === 'boolean') return t(value ? 'common/yes' : 'common/no');
  switch (field.kind) {
    case 'links':
      return (value as AnswerLink[]).map(({ url, name }) => (
        <a key={url} href={url} target="_blank" rel="noreferrer noopener">
          {name || url}{' '}
        </a>
      ));
    case 'table':
      return <Rows columns={(field.columns ?? []) as Column[]} rows={value as TableRow[]} />;
    case 'person':
    case 'asset':
      return <bdi>{(value as Named).name}</bdi>;
    case 'money':
      return money(value as number);
    case 'date':
      return sayDay(value as string, language);
    case 'dateRange': {
      const { from, to } = value as DateRange;
      return `${sayDay(from, language)} – ${sayDay(to, language)}`;
    }
    case 'choices': {
      const chosen = value as string[];
      return (field.choices ?? [])
        .filter((each) => chosen.includes(each.value))
        .map(({ label }) => local(label))
        .join(', ');
    }
    default: {
      const choice = field.choices?.find((each) => each.value === value);
      const unit = field.unit ? ` ${local(field.unit)}` : '';
      return (
        <bdi style={{ whiteSpace: 'pre-wrap' }}>
          {choice ? local(choice.label) : `${String(value)}${unit}`}
        </bdi>
      );
    }
  }
}
