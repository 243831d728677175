import { Link } from 'react-router';
import type { Category, ServiceCard } from '../../../contract/catalogue';
import { useCategories, useServices } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { ServiceIcon } from '../../ui/ServiceIcon';
import classes from './Home.module.css';

type Props = { categories: Category[]; services: ServiceCard[]; parentId: string | null; suffix: string };

/** Whether anything stands in a subject, or below it. */
function isUsed(id: string, categories: Category[], services: ServiceCard[]): boolean {
  return (
    services.some(({ categoryId }) => categoryId === id) ||
    categories.some((category) => category.parentId === id && isUsed(category.id, categories, services))
  );
}

function Branch({ categories, services, parentId, suffix }: Props) {
  const { local } = useWords();
  const own = categories.filter(
    (each) => each.parentId === parentId && isUsed(each.id, categories, services),
  );
  return (
    <ul className={classes.branch}>
      {services
        .filter(({ categoryId }) => parentId !== null && categoryId === parentId)
        .map(({ id, title, icon }) => (
          <li key={id}>
            <Link to={`/ask/services/${id}${suffix}`}>
              <ServiceIcon name={icon} size={15} /> {local(title)}
            </Link>
          </li>
        ))}
      {own.map(({ id, name }) => (
        <li key={id}>
          <details open={parentId !== null}>
            <summary>{local(name)}</summary>
            <Branch {...{ categories, services, suffix }} parentId={id} />
          </details>
        </li>
      ))}
    </ul>
  );
}

/** The index by subject, in any depth. */
export function Subjects({ forPerson }: { forPerson: string | null }) {
  const { t } = useWords();
  const { data: categories = [] } = useCategories();
  const { data: services = [] } = useServices(forPerson);
  if (categories.length === 0 || services.length === 0) return null;
  return (
    <>
      <h2 className={classes.section}>{t('ask/bySubject')}</h2>
      <Branch {...{ categories, services }} parentId={null} suffix={forPerson ? `?for=${forPerson}` : ''} />
    </>
  );
}
