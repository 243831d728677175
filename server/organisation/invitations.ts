import type { api } from '../../contract';
import type { AnswerOf } from '../../contract/endpoint';
import { toAddress } from '../../core/identity';
import { FORGOTTEN_MS, INVITATION_MS, invitationState } from '../../core/people';
import { mayUsePassword } from '../../core/signOn';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { appendSetting } from '../journal/append';
import type { Listo } from '../listo';
import { isMailOn, queueMail } from '../mail/queue';
import { readSignOn } from '../sessions/access';
import { checkFactor } from '../sessions/factor';
import { hashPassword, refuseWeak } from '../sessions/sessions';
import { createToken, hashToken } from '../sessions/token';
import { forgetViewers } from '../sessions/viewer';
import type { Changing, UnitOfWork, WorkOfViewer } from '../unitOfWork';
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

/** Makes a link for someone, in the place of the one before. Its token is known here alone. */
async function makeLink(
  { listo, tx }: UnitOfWork,
  { personId, byId, lasts }: { personId: string; byId: string; lasts: number },
): Promise<{ at: number; endsAt: number; link: string }> {
  const { invitations } = listo.db.tables;
  const at = listo.clock.now();
  const token = createToken();
  const made = {
    id: hashToken(token),
    personId,
    byId,
    at,
    endsAt: at + lasts,
    usedAt: null,
    replacedAt: null,
  };
  await invitations.update({ personId, usedAt: null, replacedAt: null }, { replacedAt: at }, tx);
  await invitations.insert(made, tx);
  return { at, endsAt: made.endsAt, link: `${listo.address}/welcome/${token}` };
}

async function teamIdsOf({ listo, tx }: UnitOfWork, personId: string): Promise<string[]> {
  const members = await listo.db.tables.members.find({ personId }, { transaction: tx });
  return members.map(({ teamId }) => teamId);
}

/** Makes a link that lets someone in, and mails it. */
export async function inviteWithin({ listo, tx, viewer }: WorkOfViewer, personId: string): Promise<Invited> {
  const { tables } = listo.db;
  const person = await tables.people.findOne({ id: personId }, tx, true);
  if (!person || person.leftAt !== null) throw new ProblemError('notFound');
  const made = await makeLink({ listo, tx }, { personId, byId: viewer.id, lasts: INVITATION_MS });
  const by = (await tables.people.findOne({ id: viewer.id }, tx))!;
  const isMailed = await isMailOn(listo, tx);
  if (isMailed)
    await queueMail(
      { listo, tx },
      {
        ...{ template: 'invited', to: person, about: null },
        blanks: { who: by.name, title: await readOrganisation(listo), link: made.link },
      },
    );
  const data = { personId, teamIds: await teamIdsOf({ listo, tx }, personId) };
  await appendSetting({ listo, tx }, { by: viewer.id, type: 'personInvited', data });
  return { ...made, byName: by.name, isMailed };
}

/**
 * Mails a link for another password to whoever has this address and a password here. Nobody learns by it who is known:
 * it is done beside the answer, which is always the same.
 */
export async function sendForgotten(listo: Listo, email: string): Promise<void> {
  const { tables, transaction } = listo.db;
  const address = toAddress(email);
  if (address === null) return;
  await transaction(async (tx) => {
    const person = await tables.people.findOne({ email: address, leftAt: null }, tx, true);
    if (!person?.passwordHash || !(await isMailOn(listo, tx))) return;
    if (!mayUsePassword(await readSignOn(listo, tx), person.id)) return;
    const { id: personId } = person;
    const { link } = await makeLink({ listo, tx }, { personId, byId: personId, lasts: FORGOTTEN_MS });
    await queueMail(
      { listo, tx },
      {
        ...{ template: 'forgotten', to: person, about: null },
        blanks: { title: await readOrganisation(listo), link },
      },
    );
    const data = { personId, teamIds: await teamIdsOf({ listo, tx }, personId) };
    await appendSetting({ listo, tx }, { by: null, type: 'passwordForgotten', data });
  });
  listo.wake();
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

/**
 * Lets someone in by a link, with a password of their own, and a code where they have a second factor; it does so once.
 * @returns who
 */
export async function accept(
  listo: Listo,
  token: string,
  { password, code }: { password: string; code?: string | undefined },
): Promise<string> {
  const { tables, transaction } = listo.db;
  const known = await readInvitation(listo, token);
  if (known.state !== 'open') throw new ProblemError('invitationOver');
  refuseWeak(password, [known.name, known.email, known.organisation]);
  const { personId: whose } = (await tables.invitations.findOne({ id: hashToken(token) }))!;
  // Who reads somebody's mail has one factor alone.
  await checkFactor(listo, whose, code);
  const passwordHash = await hashPassword(password);
  const personId = await transaction(async (tx) => {
    const row = (await tables.invitations.findOne({ id: hashToken(token) }, tx, true))!;
    const now = listo.clock.now();
    if (invitationState(row, now) !== 'open') throw new ProblemError('invitationOver');
    if (!mayUsePassword(await readSignOn(listo, tx), row.personId)) throw new ProblemError('passwordsOff');
    await tables.invitations.update({ id: row.id }, { usedAt: now }, tx);
    const isThere = await tables.people.update({ id: row.personId, leftAt: null }, { passwordHash }, tx);
    if (isThere === 0) throw new ProblemError('notFound');
    // Whoever sits elsewhere with the old password has to sign in anew.
    await tables.sessions.remove({ personId: row.personId }, tx);
    const data = { personId: row.personId, teamIds: await teamIdsOf({ listo, tx }, row.personId) };
    await appendSetting({ listo, tx }, { by: row.personId, type: 'personArrived', data });
    return row.personId;
  });
  forgetViewers(listo);
  listo.wake();
  return personId;
}
