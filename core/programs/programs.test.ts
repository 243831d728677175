import fc from 'fast-check';
import {
  bearerOf,
  findKeyProblem,
  isFrom,
  mayAddKey,
  parseApiKey,
  toApiKey,
  toNetwork,
  type ApiKey,
  type Program,
} from './index';

const program: Program = { isOn: true, endsAt: null, networks: [], mayChange: true, teams: [] };
const key: ApiKey = { endsAt: null, revokedAt: null };
const here = { address: '192.0.2.7', now: 1_000 };

test('a key is read back as it was written, and other words are no key', () => {
  const id = fc.string({ unit: fc.constantFrom('a', 'Z', '0', '9'), minLength: 10, maxLength: 10 });
  const secret = fc.string({
    unit: fc.constantFrom('a', 'Z', '0', '9', '_', '-'),
    minLength: 43,
    maxLength: 43,
  });
  fc.assert(
    fc.property(id, secret, (id, secret) => {
      expect(parseApiKey(toApiKey({ id, secret }))).toEqual({ id, secret });
      expect(parseApiKey(toApiKey({ id, secret }).slice(0, -1))).toBeNull();
      expect(bearerOf(`Bearer ${toApiKey({ id, secret })}`)).toBe(toApiKey({ id, secret }));
    }),
  );
  fc.assert(fc.property(fc.string(), (words) => expect(parseApiKey(words)).toBeNull()));
});

test('only a bearer field carries a key (RFC 6750, 2.1)', () => {
  expect(bearerOf('bearer abc')).toBe('abc');
  expect(bearerOf('Basic abc')).toBeNull();
  expect(bearerOf('Bearer')).toBeNull();
  expect(bearerOf(undefined)).toBeNull();
});

test.each<[string, Partial<Program>, Partial<ApiKey>, string | null]>([
  ['nothing is in the way', {}, {}, null],
  ['the key was taken back', {}, { revokedAt: 900 }, 'keyRevoked'],
  ['the key ends now', {}, { endsAt: 1_000 }, 'keyEnded'],
  ['the key ends in a moment', {}, { endsAt: 1_001 }, null],
  ['the program is switched off', { isOn: false }, {}, 'programOff'],
  ['the program ends now', { endsAt: 1_000 }, {}, 'programEnded'],
  ['it calls from elsewhere', { networks: ['198.51.100.0/24'] }, {}, 'keyNotFromThere'],
  ['it calls from its network', { networks: ['198.51.100.0/24', '192.0.2.0/28'] }, {}, null],
])('%s', (_, changed, of, problem) => {
  expect(findKeyProblem({ ...program, ...changed }, { ...key, ...of }, here)).toBe(problem);
});

test('of two keys that work none can be added; one that is taken back or has ended makes room', () => {
  expect(mayAddKey([key], 1_000)).toBe(true);
  expect(mayAddKey([key, key], 1_000)).toBe(false);
  expect(mayAddKey([key, { ...key, revokedAt: 5 }], 1_000)).toBe(true);
  expect(mayAddKey([key, { ...key, endsAt: 1_000 }], 1_000)).toBe(true);
});

// Addresses are those that RFC 5737 and RFC 3849 set aside for examples.
test.each([
  ['192.0.2.77/24', '192.0.2.0/24'],
  [' 192.0.2.7 ', '192.0.2.7'],
  ['2001:db8::1/32', '2001:db8::/32'],
  ['::ffff:192.0.2.7', '192.0.2.7'],
  ['192.0.2.7/33', null],
  ['example.org', null],
  ['', null],
])('%s as a network is %s', (words, network) => expect(toNetwork(words)).toBe(network));

test('an address counts by what it is, not by how it is written', () => {
  expect(isFrom(['192.0.2.0/24'], '::ffff:192.0.2.200')).toBe(true);
  expect(isFrom(['192.0.2.0/24'], '192.0.3.1')).toBe(false);
  expect(isFrom(['2001:db8::/32'], '2001:db8:1::5')).toBe(true);
  expect(isFrom(['2001:db8::/32'], '192.0.2.1')).toBe(false);
  expect(isFrom(['192.0.2.7'], '192.0.2.8')).toBe(false);
  expect(isFrom(['192.0.2.7'], 'nowhere')).toBe(false);
});

test('an address is in the network that is named after it, however long the name', () => {
  fc.assert(
    fc.property(fc.ipV4(), fc.integer({ min: 0, max: 32 }), (address, bits) => {
      expect(isFrom([toNetwork(`${address}/${bits}`)!], address)).toBe(true);
    }),
  );
});
