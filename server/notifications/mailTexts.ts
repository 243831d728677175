import { DEFAULT_MAIL_TEXTS, type MailTemplate, type MailTexts } from '../../core/mail';
import type { Listo } from '../listo';
import type { Transaction } from 'sequelize';

/** A text as it is written now: the organisation's own, or the one to begin with. */
export async function readMailTexts(
  listo: Listo,
  template: MailTemplate,
  tx?: Transaction,
): Promise<MailTexts> {
  const own = await listo.db.tables.mailTexts.findOne({ template }, tx);
  return own?.texts ?? DEFAULT_MAIL_TEXTS[template];
}
