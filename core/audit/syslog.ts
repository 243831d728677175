import type { AuditEntry } from './line';
import { toLine } from './line';

/** Facility 13 (log audit), severity 5 (notice): RFC 5424, 6.2.1. */
const PRIORITY = 13 * 8 + 5;
/** The enterprise number that RFC 5612 sets aside for documents; an organisation's collector needs none of ours. */
const SD_ID = 'listo@32473';
const NOTHING = '-';
/** A byte order mark says that the message is UTF-8 (RFC 5424, 6.4). */
const BOM = '\ufeff';

/** A name in a header: printable ASCII without spaces, of at most so many characters (RFC 5424, 6). */
const toName = (words: string, longest: number): string =>
  words.replace(/[^\x21-\x7e]/g, '').slice(0, longest) || NOTHING;

/** A value of structured data with what has to be escaped (RFC 5424, 6.3.3). */
export const escapeValue = (words: string): string => words.replace(/["\\\]]/g, '\\$&');

/**
 * An entry as a syslog message (RFC 5424), without the length that goes before it on the wire.
 * @param host the name of the machine
 */
export function toSyslog(entry: AuditEntry, host: string): string {
  const { id, at, type, actorId, ticketNumber, keyId } = entry;
  const facts = { id, actor: actorId, key: keyId, ticket: ticketNumber };
  const params = Object.entries(facts)
    .filter(([, value]) => value !== null && value !== undefined)
    .map(([name, value]) => ` ${name}="${escapeValue(String(value))}"`);
  const header = [
    `<${PRIORITY}>1`,
    new Date(at).toISOString(),
    toName(host, 255),
    'listo',
    NOTHING,
    toName(type, 32),
  ];
  return `${header.join(' ')} [${SD_ID}${params.join('')}] ${BOM}${toLine(entry)}`;
}

/** A message as it goes over TLS: its length in bytes before it (RFC 5425, 4.3). */
export const toFrame = (message: string): string => `${new TextEncoder().encode(message).length} ${message}`;
