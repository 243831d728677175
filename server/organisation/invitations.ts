import type { api } from '../../contract';
import type { AnswerOf } from '../../contract/endpoint';
import { INVITATION_MS, invitationState } from '../../core/people';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { appendSetting } from '../journal/append';
import type { Listo } from '../listo';
import { isMailOn, queueMail } from '../mail/queue';
import { hashPassword, refuseWeak } from '../sessions/sessions';
import { createToken, hashToken } from '../sessions/token';
import type { Changing, WorkOfViewer } from '../unitOfWork';
import type { InvitationRow } from './model';

type Invited = AnswerOf<typeof api.organisation.invite>;

/** The organisation's name as it was given when Listo was set up. */
export async function readOrganisation({ db }: Listo): Promise<string> {
  const setting = await db.tables.settings.findOne({ name: 'organisation' });
  return typeof setting?.value === 'string' ? setting.value : 'Listo';
}

/** The invitation that waits for someone. */
export async function findInvitation(listo: Listo, personId: string): Promise<InvitationRow | null> {
  const rows = await listo.db.tables.invitations.find({ personId, usedAt: null, replacedAt: null });
  return rows.find((row) => invitationState(row, listo.clock.now()) === 'open') ?? null;
}

/** Makes a link for someone, in the place of the one before, and mails it. The link is known here alone. */
export async function inviteWithin({ listo, tx, viewer }: WorkOfViewer, personId: string): Promise<Invited> {
  const { tables } = listo.db;
  const person = await tables.people.findOne({ id: personId }, tx, true);
  if (!person || person.leftAt !== null) throw new ProblemError('notFound');
  const now = listo.clock.now();
  const token = createToken();
  const endsAt = now + INVITATION_MS;
  await tables.invitations.update({ personId, usedAt: null, replacedAt: null }, { replacedAt: now }, tx);
  await tables.invitations.insert(
    { id: hashToken(token), personId, byId: viewer.id, at: now, endsAt, usedAt: null, replacedAt: null },
    tx,
  );
  const by = (await tables.people.findOne({ id: viewer.id }, tx))!;
  const link = `${listo.address}/welcome/${token}`;
  const { id, name, email, language } = person;
  const isMailed = await isMailOn(listo, tx);
  if (isMailed)
    await queueMail(
      { listo, tx },
      {
        ...{ template: 'invited', to: { id, name, email, language }, about: null },
        blanks: { who: by.name, title: await readOrganisation(listo), link },
      },
    );
  const teamIds = (await tables.members.find({ personId }, { transaction: tx })).map(({ teamId }) => teamId);
  await appendSetting({ listo, tx }, { by: viewer.id, type: 'personInvited', data: { personId, teamIds } });
  return { at: now, endsAt, byName: by.name, link, isMailed };
}

/** Invites someone who is there. */
export function invite({ listo, viewer, actor }: Changing, personId: string): Promise<Invited> {
  // What is answered holds a link: it is not kept for a request that comes again, which makes a new one.
  return change(listo, { id: actor.id }, (tx) => inviteWithin({ listo, tx, viewer }, personId));
}

/** Whom a link is for, and whether it still lets them in. One that was never made is not there. */
export async function readInvitation(
  listo: Listo,
  token: string,
): Promise<AnswerOf<typeof api.organisation.invitation>> {
  const { tables } = listo.db;
  const row = await tables.invitations.findOne({ id: hashToken(token) });
  const person = row && (await tables.people.findOne({ id: row.personId, leftAt: null }));
  if (!row || !person) throw new ProblemError('notFound');
  const state = invitationState(row, listo.clock.now());
  const isOpen = state === 'open';
  // A link that is over says nothing of anyone.
  const [name, email] = isOpen ? [person.name, person.email] : ['', ''];
  return { state, name, email, organisation: await readOrganisation(listo) };
}

/** Lets someone in by a link, with a password of their own; it does so once. @returns who */
export async function accept(listo: Listo, token: string, password: string): Promise<string> {
  const { tables, transaction } = listo.db;
  const known = await readInvitation(listo, token);
  if (known.state !== 'open') throw new ProblemError('invitationOver');
  refuseWeak(password, [known.name, known.email, known.organisation]);
  const passwordHash = await hashPassword(password);
  const personId = await transaction(async (tx) => {
    const row = (await tables.invitations.findOne({ id: hashToken(token) }, tx, true))!;
    const now = listo.clock.now();
    if (invitationState(row, now) !== 'open') throw new ProblemError('invitationOver');
    await tables.invitations.update({ id: row.id }, { usedAt: now }, tx);
    const isThere = await tables.people.update({ id: row.personId, leftAt: null }, { passwordHash }, tx);
    if (isThere === 0) throw new ProblemError('notFound');
    const teamIds = (await tables.members.find({ personId: row.personId }, { transaction: tx })).map(
      ({ teamId }) => teamId,
    );
    const data = { personId: row.personId, teamIds };
    await appendSetting({ listo, tx }, { by: row.personId, type: 'personArrived', data });
    return row.personId;
  });
  listo.wake();
  return personId;
}
