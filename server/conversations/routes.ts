import type { Router } from 'express';
import { api } from '../../contract';
import { isAgent, readsDesk, maySetUp, mayLead } from '../../core/rights';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK, serve, type Call } from '../http/serve';
import { appendSetting } from '../journal/append';
import type { Listo } from '../listo';
import {
  acceptConversation,
  comeBack,
  declineConversation,
  endConversation,
  handOver,
  inviteTo,
  rateConversation,
  sayInConversation,
  startConversation,
  tieDevice,
  type By,
} from './deeds';
import { requireConversation } from './guard';
import { listLines, readAtDesk, readConversation, readMine } from './read';
import { offerAnew } from './offers';
import { readOverview } from './overview';
import { ticketOf } from './ticket';
import { readTranscript, writePdf } from './transcript';
import type { ConversationWire } from './wire';

const TITLES = { en: 'Conversation', pt: 'Conversa' };

export function conversationRoutes(router: Router, listo: Listo, wire: ConversationWire): void {
  const { conversations } = api;
  const { tables } = listo.db;
  const by = ({
    viewer,
    actor,
    params,
  }: Pick<Call<typeof conversations.end>, 'viewer' | 'actor' | 'params'>): By => ({
    ...{ listo, viewer, actor, id: params.id },
  });
  /** What is done is seen at once. */
  async function woken<T>(work: Promise<T>): Promise<T> {
    const answer = await work;
    wire.wake();
    return answer;
  }

  router.get('/conversations/live', async (request, response) => {
    if (!request.viewer) throw new ProblemError('notSignedIn');
    await wire.join(request.viewer, response, request.query.at === 'desk' && isAgent(request.viewer));
  });

  serve(router, conversations.lines, () => listLines(listo));
  serve(router, conversations.mine, ({ viewer }) => readMine(listo, viewer.id));
  serve(router, conversations.start, ({ viewer, actor, body }) =>
    woken(startConversation({ listo, viewer, actor }, body)),
  );
  serve(router, conversations.get, ({ viewer, params }) => readConversation(listo, viewer, params.id));
  serve(router, conversations.say, (call) => woken(sayInConversation(by(call), call.body)));
  serve(router, conversations.writing, async ({ viewer, params, body }) => {
    const { side } = await requireConversation({ listo, viewer }, params.id);
    const readBy = side === 'person' ? 'all' : body.readBy;
    await listo.db.run(
      `INSERT INTO conversation_writing (conversationId, personId, at, readBy) VALUES (:id, :personId, :at, :readBy)
       ON DUPLICATE KEY UPDATE at = VALUES(at), readBy = VALUES(readBy)`,
      { id: params.id, personId: viewer.id, at: listo.clock.now(), readBy },
    );
    return OK;
  });
  serve(router, conversations.end, (call) => woken(endConversation(by(call))));
  serve(router, conversations.comeBack, (call) => woken(comeBack(by(call))));
  serve(router, conversations.rate, (call) => rateConversation(by(call), call.body.rating, call.body.word));
  serve(router, conversations.accept, (call) => woken(acceptConversation(by(call))));
  serve(router, conversations.decline, (call) => woken(declineConversation(by(call))));
  serve(router, conversations.handOver, (call) => woken(handOver(by(call), call.body)));
  serve(router, conversations.invite, (call) => woken(inviteTo(by(call), call.body.personId)));
  serve(router, conversations.device, (call) => woken(tieDevice(by(call), call.body.tag)));
  serve(router, conversations.ticket, (call) => woken(ticketOf(by(call), call.body)));
  serve(router, conversations.overview, ({ viewer }) => readOverview(listo, viewer));

  serve(router, conversations.atDesk, ({ viewer }) => {
    if (!isAgent(viewer)) throw new ProblemError('forbidden');
    return readAtDesk(listo, viewer);
  });
  serve(router, conversations.setAgent, async ({ viewer, body }) => {
    if (!isAgent(viewer)) throw new ProblemError('forbidden');
    const known = await tables.chatAgents.findOne({ personId: viewer.id });
    const given = Object.fromEntries(Object.entries(body).filter(([, value]) => value !== undefined));
    const usual = { presence: 'away' as const, capacity: 3, alert: 'sound' as const, lastGivenAt: null };
    await tables.chatAgents.insertAll(
      [{ ...usual, ...known, ...given, personId: viewer.id, seenAt: listo.clock.now() }],
      undefined,
      { updates: ['presence', 'capacity', 'alert', 'seenAt'] },
    );
    // Who comes back to it may be offered once more what waits.
    if (body.presence === 'available' && known?.presence !== 'available') await offerAnew(listo, viewer.id);
    wire.wake();
    return OK;
  });

  serve(router, conversations.setUp, async ({ viewer }) => {
    if (!readsDesk(viewer)) throw new ProblemError('forbidden');
    const lines = await tables.chatLines.find({}, { order: ['position'] });
    return lines.map(({ position: _, ...line }) => ({
      ...line,
      mayEdit: maySetUp(viewer, line.teamId) || mayLead(viewer, line.teamId),
    }));
  });
  serve(router, conversations.saveLine, ({ viewer, actor, params, body: { version, ...body } }) => {
    if (!maySetUp(viewer, body.teamId) && !mayLead(viewer, body.teamId)) throw new ProblemError('forbidden');
    return change(listo, actor, async (tx) => {
      const row = await tables.chatLines.findOne({ id: params.id }, tx, true);
      if (row && !maySetUp(viewer, row.teamId) && !mayLead(viewer, row.teamId))
        throw new ProblemError('forbidden');
      if ((row?.version ?? 0) !== version)
        throw new ProblemError('stale', {
          differences: [{ field: 'name', theirs: row?.name.en, yours: body.name.en, by: null }],
        });
      const next = { ...body, version: version + 1 };
      if (row) await tables.chatLines.update({ id: params.id }, next, tx);
      else await tables.chatLines.insert({ ...next, id: params.id, position: 100 }, tx);
      await appendSetting({ listo, tx }, { by: viewer.id, type: 'chatLineSet', data: { line: params.id } });
      return { version: next.version };
    });
  });

  router.get('/conversations/:id/transcript', async (request, response) => {
    const { viewer } = request;
    if (!viewer) throw new ProblemError('notSignedIn');
    const { conversation } = await requireConversation({ listo, viewer }, request.params.id);
    const text = await readTranscript(listo, conversation, viewer.language);
    const name = `listo-${conversation.id}`;
    if (request.query.as === 'pdf')
      response
        .type('application/pdf')
        .set('Content-Disposition', `attachment; filename="${name}.pdf"`)
        .send(await writePdf(TITLES[viewer.language], text));
    else
      response
        .type('text/plain; charset=utf-8')
        .set('Content-Disposition', `attachment; filename="${name}.txt"`)
        .send(text);
  });
}
