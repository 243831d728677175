import { mkdir, open, readdir, rename, rm } from 'node:fs/promises';
import path from 'node:path';

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
    await mkdir(this.arriving, { recursive: true });
    await mkdir(this.kept, { recursive: true });
    for (const name of await readdir(this.arriving))
      await rm(path.join(this.arriving, name), { force: true });
  }

  pathOf(id: string): string {
    return path.join(this.kept, id);
  }

  /** Makes a complete file durable under its id. */
  async keep(arrived: string, id: string): Promise<void> {
    const handle = await open(arrived);
    await handle.sync();
    await handle.close();
    await rename(arrived, this.pathOf(id));
  }

  async remove(id: string): Promise<void> {
    await rm(this.pathOf(id), { force: true });
  }
}
