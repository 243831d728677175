import { Anchor } from '@mantine/core';
import { Link } from 'react-router';
import { useMe } from '../../api/queries';
import '../../messages/importsWords';
import '../../messages/peopleWords';
import { useWords } from '../../messages/useWords';
import { TableOf } from '../../tables/TableOf';
import { Lost } from '../../ui/Lost';
import { WorkshopFrame } from '../WorkshopFrame';

const PEOPLE = { kind: 'people', page: '/workshop/people/table', written: '/workshop/people' } as const;

/** People from a table: of a payroll, a directory, or another program. */
export function PeopleTablePage() {
  const { t } = useWords();
  const me = useMe();
  if (!me.isAdministrator) return <Lost />;
  return (
    <WorkshopFrame lead={t('imports/people/lead')}>
      <Anchor component={Link} to="/workshop/people" size="sm">
        {t('people/all')}
      </Anchor>
      <h2>{t('imports/people/title')}</h2>
      <TableOf at={PEOPLE} />
    </WorkshopFrame>
  );
}
