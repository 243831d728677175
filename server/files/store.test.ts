import { mkdir, mkdtemp, readdir, readFile, rm, stat, utimes, writeFile } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { FileStore } from './store';

let dataDir = '';
beforeEach(async () => {
  dataDir = await mkdtemp(path.join(os.tmpdir(), 'listo-store-'));
});
afterEach(() => rm(dataDir, { recursive: true, force: true }));

test('a start throws away what broke off long ago, not what is arriving at another process', async () => {
  const arriving = path.join(dataDir, 'files', 'arriving');
  await mkdir(arriving, { recursive: true });
  await writeFile(path.join(arriving, 'now'), 'half of it');
  await writeFile(path.join(arriving, 'left'), 'half of it');
  const yesterday = new Date(Date.now() - 86_400_000);
  await utimes(path.join(arriving, 'left'), yesterday, yesterday);
  await new FileStore(dataDir).open();
  expect(await readdir(arriving)).toEqual(['now']);
});

test('what has arrived whole is kept by its id, for this account alone, until it is taken away', async () => {
  const store = new FileStore(dataDir);
  await store.open();
  const arrived = path.join(store.arriving, 'upload');
  await writeFile(arrived, 'whole');
  await store.keep(arrived, 'abc');
  expect(await readFile(store.pathOf('abc'), 'utf8')).toBe('whole');
  expect((await stat(store.pathOf('abc'))).mode & 0o077).toBe(0);
  expect(await readdir(store.arriving)).toEqual([]);
  await store.remove('abc');
  await expect(readFile(store.pathOf('abc'))).rejects.toThrow('ENOENT');
  // Gone is gone.
  await store.remove('abc');
});
