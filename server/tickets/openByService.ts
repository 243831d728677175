import { OPEN_STATES } from '../../core/tickets';
import type { CataloguePorts, OpenRequests } from '../catalogue/ports';
import { visibleTo } from './visibility';

/** Open requests by service and version, of those that the viewer may read. */
export const countOpen: CataloguePorts['countOpen'] = ({ db }, viewer, serviceId) => {
  const { sql, values } = visibleTo(viewer);
  return db.select<OpenRequests>(
    `SELECT t.serviceId, t.serviceVersion AS version, COUNT(*) AS count FROM tickets t
     WHERE t.state IN (:open) AND ${sql}
       ${serviceId === undefined ? '' : 'AND t.serviceId = :serviceId'} GROUP BY t.serviceId, t.serviceVersion`,
    { ...values, open: OPEN_STATES, ...(serviceId !== undefined && { serviceId }) },
  );
};
