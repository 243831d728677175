import type { Router } from 'express';
import { nanoid } from 'nanoid';
import { readFile, rm, writeFile } from 'node:fs/promises';
import { api } from '../../contract';
import { IMPORT_KINDS, type Import, type ImportProblem } from '../../contract/imports';
import { guessDelimiter } from '../../core/imports';
import { receiveFile } from '../files/receive';
import type { FileStore } from '../files/store';
import { inTurn } from '../http/limits';
import { ProblemError } from '../http/problems';
import { OK, serve } from '../http/serve';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import { decode } from './decode';
import { mayBringIn, openTable } from './kinds';
import type { ImportRow } from './model';
import { refuseEndless, rowsOf, rowsWithoutHeadings } from './table';
import { isWorkbook, workbookToCsv } from './workbook';

const MOST_BYTES = 64_000_000;
const MOST_ROWS = 200_000;
const SAMPLE = 5;
const PROBLEMS_SHOWN = 500;
const SHOWN = 20;
/** A table that nobody wrote or went on with goes after so long, with its file. */
const KEPT_MS = 30 * 86_400_000;

const shown = ({ personId: _, reading: __, leaseUntil: ___, ...rest }: ImportRow): Import => rest;

async function requireOwn(listo: Listo, viewer: SignedIn, id: string): Promise<ImportRow> {
  const row = await listo.db.tables.imports.findOne({ id });
  if (row?.personId !== viewer.id) throw new ProblemError('notFound');
  return row;
}

async function forgetOld({ db, clock }: Listo, store: FileStore): Promise<void> {
  const old = await db.select<{ id: string }>(
    "SELECT id FROM imports WHERE state IN ('arrived', 'stopped') AND at < :before LIMIT 100",
    { before: clock.now() - KEPT_MS },
  );
  // Of one that is gone on with at this moment, the file stays.
  for (const { id } of old)
    if ((await db.tables.imports.remove({ id, state: ['arrived', 'stopped'] })) > 0) await store.remove(id);
}

/** Looks at a table that has arrived: its letters, its columns, how many rows. */
async function look(
  file: string,
): Promise<Pick<ImportRow, 'encoding' | 'delimiter' | 'headings' | 'sample' | 'rows'>> {
  let bytes: Buffer = await readFile(file);
  if (isWorkbook(bytes)) {
    bytes = await workbookToCsv(bytes);
    // From here on it is a table like others.
    await writeFile(file, bytes);
  }
  refuseEndless(bytes);
  const { text, encoding } = decode(bytes);
  if (text.trim() === '') throw new ProblemError('fileEmpty');
  const delimiter = guessDelimiter(text);
  let headings: string[] | null = null;
  const sample: string[][] = [];
  let rows = 0;
  for await (const { cells } of rowsOf(text, delimiter)) {
    if (headings === null) {
      headings = cells.map((cell) => cell.slice(0, 120));
      continue;
    }
    rows++;
    if (sample.length < SAMPLE) sample.push(cells.map((cell) => cell.slice(0, 200)));
    if (rows > MOST_ROWS) throw new ProblemError('tableTooLong');
  }
  if (rows === 0) throw new ProblemError('fileEmpty');
  return { encoding, delimiter, headings: headings!, sample, rows };
}

export function importRoutes(router: Router, listo: Listo, store: FileStore): void {
  const { imports } = api;
  const { tables } = listo.db;
  router.post(
    imports.upload.path,
    ({ viewer }, _response, next) => {
      // What a table is of is said in its address: who may send neither sends nothing.
      if (viewer && IMPORT_KINDS.every((kind) => !mayBringIn(kind, viewer)))
        throw new ProblemError('forbidden');
      next();
    },
    receiveFile(store, { most: MOST_BYTES, tooLarge: 'tableTooLong' }),
  );

  serve(router, imports.upload, async ({ request, viewer, query: { kind } }) => {
    const arrived = request.file;
    if (!mayBringIn(kind, viewer)) throw new ProblemError('forbidden');
    if (!arrived) throw new ProblemError('uploadBrokenOff');
    try {
      const seen = await inTurn(viewer.id, () => look(arrived.path));
      const id = nanoid(12);
      await store.keep(arrived.path, id);
      const row: ImportRow = {
        ...{ id, kind, personId: viewer.id, name: arrived.originalname.slice(-200), at: listo.clock.now() },
        ...{ ...seen, reading: null, state: 'arrived', done: 0, written: 0, refused: [], leaseUntil: 0 },
      };
      await tables.imports.insert(row);
      await forgetOld(listo, store);
      return shown(row);
    } finally {
      await rm(arrived.path, { force: true });
    }
  });

  serve(router, imports.mine, ({ viewer, query: { kind } }) =>
    tables.imports.find(
      { personId: viewer.id, kind },
      {
        attributes: ['id', 'name', 'at', 'state', 'rows', 'written'],
        order: [
          ['at', 'DESC'],
          ['id', 'DESC'],
        ],
        limit: SHOWN,
      },
    ),
  );

  serve(router, imports.goOn, async ({ viewer, params }) => {
    const { id, reading, leaseUntil } = await requireOwn(listo, viewer, params.id);
    if (reading === null) throw new ProblemError('moveNotAllowed');
    // Whoever writes it has not heard yet that it is stopped.
    if (leaseUntil > listo.clock.now()) throw new ProblemError('stale');
    const going = await tables.imports.update({ id, state: 'stopped' }, { state: 'running', leaseUntil: 0 });
    if (going === 0) throw new ProblemError('stale');
    listo.wake();
    return OK;
  });

  serve(router, imports.get, async ({ viewer, params }) => shown(await requireOwn(listo, viewer, params.id)));

  serve(router, imports.check, async ({ viewer, params, body }) => {
    const { id, delimiter, state, kind } = await requireOwn(listo, viewer, params.id);
    if (state === 'done') throw new ProblemError('stale');
    const rows = () => rowsWithoutHeadings(store.pathOf(id), delimiter);
    const counts = { good: 0, bad: 0 };
    const problems: ImportProblem[] = [];
    await inTurn(viewer.id, async () => {
      const { look: lookAt } = await openTable(listo, { kind, reading: body }, rows);
      for await (const { line, cells } of rows()) {
        const found = lookAt(cells);
        if (found.length === 0) counts.good++;
        else counts.bad++;
        for (const problem of found)
          if (problems.length < PROBLEMS_SHOWN) problems.push({ line, ...problem });
      }
    });
    return { ...counts, problems };
  });

  serve(router, imports.start, async ({ viewer, params, body }) => {
    const { id } = await requireOwn(listo, viewer, params.id);
    const started = await tables.imports.update(
      { id, state: ['arrived', 'stopped'] },
      {
        state: 'running',
        reading: body,
        leaseUntil: 0,
      },
    );
    if (started === 0) throw new ProblemError('stale');
    listo.wake();
    return OK;
  });

  serve(router, imports.stop, async ({ viewer, params }) => {
    const { id } = await requireOwn(listo, viewer, params.id);
    await tables.imports.update({ id, state: 'running' }, { state: 'stopped' });
    return OK;
  });
}
