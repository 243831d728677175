import { mkdtemp, readFile, rm, stat } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { randomBytes } from 'node:crypto';
import fc from 'fast-check';
import { NotSealedHere, seal, unseal } from './seal';

const withKey = (bytes = randomBytes(32)) => ({
  config: { LISTO_SEAL_KEY: bytes.toString('base64') } as never,
});

test('what is sealed opens again, and looks different each time', async () => {
  const listo = withKey();
  await fc.assert(
    fc.asyncProperty(fc.string({ unit: 'binary' }), async (secret) => {
      const [one, other] = [await seal(listo, 'x', secret), await seal(listo, 'x', secret)];
      expect(one).not.toBe(other);
      expect(await unseal(listo, 'x', one)).toBe(secret);
    }),
    { numRuns: 30 },
  );
});

test('with another key, for another row, or changed by one character it does not open', async () => {
  const listo = withKey();
  const sealed = await seal(listo, 'webhook a', 'whsec_abc');
  await expect(unseal(withKey(), 'webhook a', sealed)).rejects.toThrow(NotSealedHere);
  await expect(unseal(listo, 'webhook b', sealed)).rejects.toThrow(NotSealedHere);
  const last = sealed.lastIndexOf('.') + 1;
  const changed = sealed.slice(0, last) + (sealed[last] === 'A' ? 'B' : 'A') + sealed.slice(last + 1);
  await expect(unseal(listo, 'webhook a', changed)).rejects.toThrow(NotSealedHere);
  await expect(unseal(listo, 'webhook a', 'whsec_abc')).rejects.toThrow(NotSealedHere);
});

test('without a key in the environment one is made in the data folder, once, for its owner alone', async () => {
  const dir = await mkdtemp(path.join(os.tmpdir(), 'listo-seal-'));
  const listo = { config: { LISTO_DATA_DIR: path.join(dir, 'data') } as never };
  const sealed = await Promise.all(['a', 'b', 'c'].map((secret) => seal(listo, 'x', secret)));
  const file = path.join(dir, 'data', 'seal.key');
  expect((await stat(file)).mode & 0o077).toBe(0);
  const kept = { config: { LISTO_SEAL_KEY: (await readFile(file, 'utf8')).trim() } as never };
  expect(await Promise.all(sealed.map((each) => unseal(kept, 'x', each)))).toEqual(['a', 'b', 'c']);
  await rm(dir, { recursive: true });
});
