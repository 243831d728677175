const WIDTHS: Record<string, string> = {
  requester: '128px',
  who: '122px',
  priority: '66px',
  state: '104px',
  standing: '96px',
  team: '116px',
  group: '90px',
  site: '104px',
  service: '130px',
  created: '104px',
  changed: '104px',
  due: '110px',
  progress: '90px',
  door: '80px',
  mail: '190px',
  phone: '120px',
  department: '120px',
  estimate: '80px',
  spent: '80px',
};

/** The widths of a list's columns; the fuses keep theirs, so that they stay on the day line's scale. */
export function colsOf(columns: string[]): string {
  return `84px minmax(160px, 1fr) ${columns.map((column) => WIDTHS[column] ?? '100px').join(' ')} 44%`;
}
