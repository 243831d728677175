import type { Reading } from '../../contract/imports';
import { readRow, type ImportedTicket, type Mapping } from '../../core/imports';
import { findService } from '../catalogue/services';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import { createTicket } from '../tickets/create';
import { writeWithin } from '../tickets/messages';
import type { Opened } from './kinds';
import { readLookups } from './lookups';
import type { ImportRow } from './model';

type Written = { line: number; ticket: ImportedTicket };

async function create(
  listo: Listo,
  { job, viewer }: { job: ImportRow; viewer: SignedIn },
  { line, ticket: { title, requesterId, serviceId, words, impact, urgency } }: Written,
): Promise<void> {
  const rules = await findService(listo, serviceId);
  const field = rules?.service.form.fields.find(({ kind }) => kind === 'longText');
  const answers = field && words !== '' ? { [field.name]: words } : {};
  const given = { ...(impact && { impact }), ...(urgency && { urgency }) };
  await createTicket(
    { listo, viewer, actor: { id: viewer.id, idempotencyKey: `import:${job.id}:${line}` } },
    { serviceId, requesterId, title, answers, via: 'table', alsoToldIds: [], fileIds: [] },
    {
      isLenient: true,
      ...given,
      // Where its form has no place for the words, they are kept beside it for the team.
      ...(!field &&
        words !== '' && {
          after: async (tx, number) => {
            await writeWithin({ listo, tx, viewer }, number, {
              ...{ text: words, readBy: 'team', links: [], fileIds: [] },
            });
          },
        }),
    },
  );
}

/** Tickets from a table: each row once, also after a process died. */
export async function openTickets(listo: Listo, reading: Reading): Promise<Opened> {
  const lookups = await readLookups(listo, reading);
  const mapping = reading.mapping as Mapping;
  const read = (cells: string[]) => readRow(cells, mapping, lookups);
  return {
    look: (cells) => read(cells).problems,
    nameOf: (cells) => read(cells).ticket?.title ?? '',
    async write(job, viewer, { line, cells }) {
      await create(listo, { job, viewer }, { line, ticket: read(cells).ticket! });
    },
  };
}
