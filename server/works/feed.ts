import { createHash, randomBytes } from 'node:crypto';
import type { Router } from 'express';
import type { LocalText } from '../../core/forms';
import { readsDesk } from '../../core/rights';
import { toFeed } from '../../core/works';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import { findPersonAsViewer } from '../sessions/viewer';
import type { Changing } from '../unitOfWork';
import { readWorkCards } from './read';
import { readFreezes } from './reckon';

const DAY = 86_400_000;
/** What is so long past, or so far ahead, is not sent. */
const [BACK, AHEAD] = [30 * DAY, 200 * DAY];

const hashOf = (key: string): string => createHash('sha256').update(key).digest('hex');
const nameOf = (personId: string): string => `workFeed:${personId}`;

/** An address of the calendar to subscribe to. Only the hash of its key is kept; whoever makes a new one ends the old one. */
export function makeFeed({ listo, viewer, actor }: Changing): Promise<{ address: string }> {
  if (!readsDesk(viewer)) throw new ProblemError('forbidden');
  return change(listo, actor, async (tx) => {
    const key = randomBytes(24).toString('base64url');
    await listo.db.tables.settings.insertAll([{ name: nameOf(viewer.id), value: hashOf(key) }], tx, {
      updates: ['value'],
    });
    return { address: `${listo.address}/api/v1/open/works/${viewer.id}/${key}.ics` };
  });
}

const TENTATIVE = new Set(['draft', 'asked']);
const LEFT_OUT = new Set(['declined', 'withdrawn']);

async function writeFeed(listo: Listo, personId: string, key: string): Promise<string> {
  const setting = await listo.db.tables.settings.findOne({ name: nameOf(personId) });
  const viewer = setting?.value === hashOf(key) ? await findPersonAsViewer(listo, personId) : null;
  if (!viewer || !readsDesk(viewer)) throw new ProblemError('notFound');
  const now = listo.clock.now();
  const stretch = { from: now - BACK, to: now + AHEAD };
  const cards = await readWorkCards({ listo, viewer }, 'w.fromAt < :to AND w.toAt > :from', stretch);
  const freezes = await readFreezes(listo, stretch);
  const local = (text: LocalText): string => text[viewer.language];
  const works = cards
    .filter(({ stage }) => !LEFT_OUT.has(stage))
    .map(({ number, title, stage, fromAt, toAt, version, team }) => ({
      ...{
        uid: `work-${number}@listo`,
        summary: `${number} ${title}`,
        description: local(team),
        sequence: version,
      },
      ...{
        fromAt: fromAt!,
        toAt: toAt!,
        isTentative: TENTATIVE.has(stage),
        url: `${listo.address}/estate/works/${number}`,
      },
    }));
  const frozen = freezes.map(({ id, name, fromAt, toAt, version }) => ({
    ...{ uid: `freeze-${id}@listo`, summary: `✕ ${local(name)}`, description: '', sequence: version },
    ...{ fromAt, toAt, isTentative: false, url: `${listo.address}/estate/works` },
  }));
  return toFeed('Listo', [...works, ...frozen], now);
}

/** The calendar of work for programs that subscribe to it. */
export function feedRoute(router: Router, listo: Listo): void {
  router.get('/open/works/:person/:key.ics', async (request, response) => {
    const { person, key } = request.params;
    response.type('text/calendar; charset=utf-8').send(await writeFeed(listo, person, key));
  });
}
