import { Fragment } from 'react';
import { Link } from 'react-router';
import { PLACES } from '../../../contract/names';
import { useServices } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import classes from './Home.module.css';

/** The index by where one is. */
export function Places({ forPerson }: { forPerson: string | null }) {
  const { t, local } = useWords();
  const { data: services = [] } = useServices(forPerson);
  const suffix = forPerson ? `?for=${forPerson}` : '';
  const used = PLACES.filter((place) => services.some((service) => service.place === place));
  return (
    <>
      <h2 className={classes.section}>{t('ask/startFromPlace')}</h2>
      <div className={classes.places}>
        {used.map((place) => (
          <div key={place} className={classes.place}>
            <strong>{t(`ask/places/${place}`)}</strong>
            {services
              .filter((service) => service.place === place)
              .map(({ id, title }, i) => (
                <Fragment key={id}>
                  {i > 0 && ' · '}
                  <Link to={`/ask/services/${id}${suffix}`}>{local(title)}</Link>
                </Fragment>
              ))}
          </div>
        ))}
      </div>
    </>
  );
}
