import type { ProviderRow } from '../server/signOn/model';

/** Where the demo's people sign in: the stand-in, which is named by its path and needs no secret. */
export const PROVIDER: ProviderRow = {
  ...{ id: 'solvarra', name: 'Solvarra account', issuer: '/stand-in/provider', clientId: 'listo' },
  ...{ sealedSecret: null, domains: ['solvarra.example'], isOn: true, makesPeople: false, siteId: 'head' },
  ...{ groupsClaim: '', groupTable: [], endsThere: true, version: 1 },
};
