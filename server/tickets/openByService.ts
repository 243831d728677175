import { OPEN_STATES } from '../../core/tickets';
import type { CataloguePorts, OpenRequests } from '../catalogue/ports';
import { visibleTo } from './visibility';

/** Open requests by service and version, of those that the viewer may read. */
export const countOpen: CataloguePorts['countOpen'] = ({ db }, viewer) => {
  const { sql, values } = visibleTo(viewer);
  return db.select<OpenRequests>(
    `SELECT t.serviceId, t.serviceVersion AS version, COUNT(*) AS count FROM tickets t
     WHERE t.state IN (:open) AND ${sql} GROUP BY t.serviceId, t.serviceVersion`,
    { ...values, open: OPEN_STATES },
  );
};
