/** Header fields by their names in small letters. */
export type MailHeaders = ReadonlyMap<string, string>;

const BULK = /^(?:bulk|junk|list|auto_reply)$/i;
const MACHINES = /^(?:mailer-daemon|postmaster|no-?reply|do-?not-?reply|bounces?)(?:[+-].*)?@/i;

/**
 * Whether no person wrote a message: what says so itself (RFC 3834, 5), reports on deliveries (RFC 3464), lists, and
 * senders that never read. Such a message is never answered.
 * @example isAutomatic(new Map([['auto-submitted', 'auto-replied']]), 'ana@solvarra.example') // true
 */
export function isAutomatic(headers: MailHeaders, from: string, envelopeFrom: string = from): boolean {
  const field = (name: string): string => headers.get(name)?.trim() ?? '';
  const submitted = field('auto-submitted')
    .toLowerCase()
    .split(/[\s;(]/)[0];
  if (submitted !== '' && submitted !== 'no') return true;
  if (envelopeFrom === '' || field('return-path') === '<>') return true;
  if (/^multipart\/report/i.test(field('content-type'))) return true;
  if (BULK.test(field('precedence')) || headers.has('list-id') || headers.has('list-unsubscribe'))
    return true;
  if (headers.has('x-autoreply') || headers.has('x-autorespond') || headers.has('x-auto-response-suppress'))
    return true;
  return MACHINES.test(from);
}
