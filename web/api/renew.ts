import { hashKey, type QueryClient, type QueryKey } from '@tanstack/react-query';
import { gather } from './gather';

const put = gather<string, { client: QueryClient; queryKey: QueryKey }>((wanted) =>
  Promise.all([...wanted.values()].map(({ client, queryKey }) => client.invalidateQueries({ queryKey }))),
);

/** Has queries asked again, as often as they can be answered; many wishes of the same are one. */
export function renewSoon(client: QueryClient, queryKey: QueryKey): void {
  put(hashKey(queryKey), { client, queryKey });
}
