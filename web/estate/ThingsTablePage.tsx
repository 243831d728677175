import '../messages/importsWords';
import { useWords } from '../messages/useWords';
import { TableOf } from '../tables/TableOf';
import { EstateFrame } from './EstateFrame';

const THINGS = { kind: 'things', page: '/estate/table', written: '/estate' } as const;

/** Things from a table: of an inventory, or of another program. */
export function ThingsTablePage() {
  const { t } = useWords();
  return (
    <EstateFrame title={t('imports/things/title')} lead={t('imports/things/lead')}>
      <TableOf at={THINGS} />
    </EstateFrame>
  );
}
