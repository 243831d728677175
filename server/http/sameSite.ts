import type { RequestHandler } from 'express';
import { ProblemError } from './problems';

const SAFE = new Set(['GET', 'HEAD', 'OPTIONS']);

/**
 * Refuses what another site makes a browser send. Browsers say where a request comes from (Sec-Fetch-Site, Origin);
 * programs that send neither carry no cookies of ours.
 */
export const refuseOtherSites: RequestHandler = (request, _response, next) => {
  if (SAFE.has(request.method)) {
    next();
    return;
  }
  const site = request.get('Sec-Fetch-Site');
  const origin = request.get('Origin');
  const isOther =
    (site !== undefined && site !== 'same-origin' && site !== 'none') ||
    (origin !== undefined && URL.canParse(origin) && new URL(origin).host !== request.get('Host')) ||
    origin === 'null';
  if (isOther) throw new ProblemError('otherSite');
  next();
};
