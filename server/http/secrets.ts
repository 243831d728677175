import { randomBytes } from 'node:crypto';
import type { Listo } from '../listo';

/** A secret of this installation by its name, as Standard Webhooks write them: made when it is first asked for, and kept. */
export async function readSecret({ db }: Listo, name: string): Promise<string> {
  const kept = await db.tables.settings.findOne({ name });
  if (kept) return kept.value as string;
  const secret = `whsec_${randomBytes(24).toString('base64')}`;
  await db.run('INSERT IGNORE INTO settings (name, value) VALUES (:name, :value)', {
    name,
    value: JSON.stringify(secret),
  });
  return (await db.tables.settings.findOne({ name }))!.value as string;
}
