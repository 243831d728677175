import { mkdir, open, readdir, rename, rm, stat } from 'node:fs/promises';
import path from 'node:path';

/** What has not grown for so long broke off. */
const BROKEN_OFF_MS = 3_600_000;

/** Where sent files lie: whole ones by id, arriving ones apart until they are complete. */
export class FileStore {
  readonly arriving: string;
  private readonly kept: string;

  constructor(dataDir: string) {
    this.arriving = path.join(dataDir, 'files', 'arriving');
    this.kept = path.join(dataDir, 'files', 'kept');
  }

  /** Makes the folders and throws away what broke off when the process last ended. */
  async open(): Promise<void> {
    await mkdir(this.arriving, { recursive: true, mode: 0o700 });
    await mkdir(this.kept, { recursive: true, mode: 0o700 });
    for (const name of await readdir(this.arriving)) {
      const file = path.join(this.arriving, name);
      // What is still arriving at another process stays.
      const { mtimeMs } = await stat(file).catch(() => ({ mtimeMs: Date.now() }));
      if (Date.now() - mtimeMs > BROKEN_OFF_MS) await rm(file, { force: true });
    }
  }

  pathOf(id: string): string {
    return path.join(this.kept, id);
  }

  /** Makes a complete file durable under its id. */
  async keep(arrived: string, id: string): Promise<void> {
    const handle = await open(arrived);
    await handle.chmod(0o600);
    await handle.sync();
    await handle.close();
    await rename(arrived, this.pathOf(id));
  }

  async remove(id: string): Promise<void> {
    await rm(this.pathOf(id), { force: true });
  }
}
