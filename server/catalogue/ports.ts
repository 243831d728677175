import type { Viewer } from '../../core/rights';
import type { Listo } from '../listo';

/** Open requests on a version of a service. */
export type OpenRequests = { serviceId: string; version: number; count: number };

/** What the catalogue asks of the floors above. */
export type CataloguePorts = {
  /** Open requests by service and version, of those that someone may read; of one service where it is named. */
  countOpen(listo: Listo, viewer: Viewer, serviceId?: string): Promise<OpenRequests[]>;
};
