import { isAgent } from '../../../core/rights';
import { useMe } from '../../api/queries';
import '../../messages/importsWords';
import { useWords } from '../../messages/useWords';
import { TableOf } from '../../tables/TableOf';
import classes from '../../tables/Tables.module.css';
import { Lost } from '../../ui/Lost';

const TICKETS = { kind: 'tickets', page: '/desk/import', written: '/desk/openedByMe' } as const;

/** Tickets from a table of another program. */
export function ImportPage() {
  const { t } = useWords();
  const me = useMe();
  if (!isAgent(me)) return <Lost />;
  return (
    <div className={classes.page}>
      <h1>{t('imports/title')}</h1>
      <p className={classes.lead}>{t('imports/lead')}</p>
      <TableOf at={TICKETS} />
    </div>
  );
}
