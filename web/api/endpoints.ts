import type { api as contract } from '../../contract';
import { paths } from '../../contract/paths';

/** The contracts' endpoints: their types whole, at run time only where and how to call. The schemas stay on the server. */
export const api = paths as unknown as typeof contract;
