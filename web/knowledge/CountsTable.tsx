import type { ReactNode } from 'react';
import { useWords } from '../messages/useWords';
import classes from './Knowledge.module.css';

/** What was counted, a row each: of articles, or of days. */
export function CountsTable<Count extends string>({
  first,
  counts,
  rows,
}: {
  /** What the rows are of. */
  first: string;
  counts: readonly Count[];
  rows: ({ key: string | number; name: ReactNode } & Record<Count, number>)[];
}) {
  const { t } = useWords();
  return (
    <table className={classes.rows}>
      <thead>
        <tr>
          <th>{first}</th>
          {counts.map((count) => (
            <th key={count} data-number>
              {t(`knowledge/counts/${count}`)}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={row.key}>
            <td>{row.name}</td>
            {counts.map((count) => (
              <td key={count} data-number>
                {row[count]}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
