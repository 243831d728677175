import { isAgent } from '../../core/rights';
import type { SignedIn } from './viewer';

/** For whom it is looked up: for another only by those who may ask for others. */
export function personOf(viewer: SignedIn, wanted: string | undefined): string {
  const mayAsk = viewer.mayAskForOthers || isAgent(viewer);
  return wanted !== undefined && mayAsk ? wanted : viewer.id;
}
