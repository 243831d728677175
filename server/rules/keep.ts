import { claim } from '../database/claims';
import { nanoid } from 'nanoid';
import type { RuleBody } from '../../contract/rules';
import { completeText } from '../../core/forms';
import { checkProvided, checkRule, type Rule } from '../../core/rules';
import { maySetUp } from '../../core/rights';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { OK } from '../http/serve';
import { appendSetting } from '../journal/append';
import type { SignedIn } from '../sessions/viewer';
import type { Changing, UnitOfWork, WorkOfViewer } from '../unitOfWork';
import type { RuleRow } from './model';
import { armTime } from './silence';

/** A rule as it is kept: what is empty in one language is said as in the other. */
export function toKept({ name, teamId, trigger, provided, isLast, ...body }: RuleBody) {
  const effects = body.effects.map((effect) =>
    'words' in effect ? { ...effect, words: completeText(effect.words) } : effect,
  ) as Rule['effects'];
  return { name: completeText(name), teamId, definition: { trigger, provided, effects, isLast } };
}

const refuse = (field: string, code: string): ProblemError =>
  new ProblemError('fieldsNotValid', { fields: [{ field, code }] });

type Named = { field: string; isThere: () => Promise<unknown> };

/** What the effects of a rule name: each has to be there. */
function listNamed({ listo, tx }: UnitOfWork, { effects }: RuleBody): Named[] {
  const { teams, groups, members, people, chatRooms } = listo.db.tables;
  return effects.flatMap((effect, i): Named[] => {
    const named = (name: string, isThere: Named['isThere']): Named => ({
      field: `effects.${i}.${name}`,
      isThere,
    });
    switch (effect.do) {
      case 'give': {
        const { teamId, groupId, personId } = effect;
        return [
          named('teamId', () => teams.findOne({ id: teamId }, tx)),
          ...(groupId ? [named('groupId', () => groups.findOne({ id: groupId, teamId }, tx))] : []),
          ...(personId ? [named('personId', () => members.findOne({ personId, teamId }, tx))] : []),
        ];
      }
      case 'room':
        return [named('roomId', () => chatRooms.findOne({ roomId: effect.roomId }, tx))];
      case 'tell':
      case 'alsoTell':
        return (effect.personIds ?? []).map((id) =>
          named('personIds', () => people.findOne({ id, leftAt: null }, tx)),
        );
      default:
        return [];
    }
  });
}

/** Refuses a rule that cannot be kept as it is written. @throws ProblemError that says where and why */
export async function requireFit({ listo, tx, viewer }: WorkOfViewer, body: RuleBody): Promise<void> {
  if (!maySetUp(viewer, body.teamId)) throw new ProblemError('forbidden');
  const { name, teamId, definition } = toKept(body);
  if (name.en.trim() === '') throw refuse('name', 'missing');
  if (teamId !== null && !(await listo.db.tables.teams.findOne({ id: teamId }, tx)))
    throw refuse('teamId', 'notAChoice');
  const [fault] = checkRule({ id: '', order: 0, isOn: true, teamId, ...definition });
  if (fault) throw refuse('rule', fault);
  const [problem] = checkProvided(body.provided);
  if (problem) throw refuse(`provided.${problem.field}`, problem.code);
  const { trigger } = body;
  if (trigger.on === 'silence' && trigger.calendar !== null)
    if (!(await listo.db.tables.calendars.findOne({ id: trigger.calendar }, tx)))
      throw refuse('trigger.calendar', 'notAChoice');
  for (const { field, isThere } of listNamed({ listo, tx }, body))
    if (!(await isThere())) throw refuse(field, 'notAChoice');
}

async function requireOwn({ listo, tx, viewer }: WorkOfViewer, id: string): Promise<RuleRow> {
  const row = await listo.db.tables.rules.findOne({ id }, tx, true);
  if (!row) throw new ProblemError('notFound');
  if (!maySetUp(viewer, row.teamId)) throw new ProblemError('forbidden');
  return row;
}

/** Rules change one after the other, so that places stay their own. */
async function lockAll({ listo, tx }: UnitOfWork): Promise<RuleRow[]> {
  await listo.db.select('SELECT id FROM rules FOR UPDATE', {}, tx);
  await claim(listo.db.sequelize, ['rules'], tx);
  return listo.db.tables.rules.find({}, { order: ['position', 'id'], transaction: tx });
}

/** Makes a rule, last in order and switched off. */
export function createRule({ listo, viewer, actor }: Changing, body: RuleBody): Promise<{ id: string }> {
  return change(listo, actor, async (tx) => {
    await requireFit({ listo, tx, viewer }, body);
    const all = await lockAll({ listo, tx });
    const id = nanoid(12);
    await listo.db.tables.rules.insert(
      {
        ...{
          ...toKept(body),
          id,
          ownerId: viewer.id,
          position: (all.at(-1)?.position ?? 0) + 1,
          isOn: false,
        },
        ...{ version: 1, failures: 0, failedAt: null, failedWith: null, onSince: null },
        changedAt: listo.clock.now(),
      },
      tx,
    );
    await appendSetting(
      { listo, tx },
      { by: viewer.id, type: 'ruleMade', data: { ruleId: id, name: body.name.en } },
    );
    return { id };
  });
}

/** Changes what a rule says. It goes on being on or off; its failures are forgotten. */
export function updateRule(
  { listo, viewer, actor }: Changing,
  id: string,
  { version, ...body }: RuleBody & { version: number },
): Promise<{ version: number }> {
  return change(listo, actor, async (tx) => {
    const row = await requireOwn({ listo, tx, viewer }, id);
    if (row.version !== version)
      throw new ProblemError('stale', {
        differences: [{ field: 'rule', theirs: row.name, yours: body.name, by: null }],
      });
    await requireFit({ listo, tx, viewer }, body);
    const kept = { ...toKept(body), version: version + 1, failures: 0, failedAt: null, failedWith: null };
    await listo.db.tables.rules.update({ id }, { ...kept, changedAt: listo.clock.now() }, tx);
    await armTime({ listo, tx }, { ...row, ...kept });
    await appendSetting(
      { listo, tx },
      { by: viewer.id, type: 'ruleChanged', data: { ruleId: id, name: body.name.en } },
    );
    return { version: version + 1 };
  });
}

/** Switches a rule on or off. */
export function switchRule(
  { listo, viewer, actor }: Changing,
  id: string,
  { version, isOn }: { version: number; isOn: boolean },
): Promise<{ version: number }> {
  return change(listo, actor, async (tx) => {
    const row = await requireOwn({ listo, tx, viewer }, id);
    if (row.isOn === isOn) return { version: row.version };
    if (row.version !== version)
      throw new ProblemError('stale', {
        differences: [{ field: 'rule', theirs: row.isOn, yours: isOn, by: null }],
      });
    const now = listo.clock.now();
    const kept = { isOn, onSince: isOn ? now : null, failures: 0, version: version + 1, changedAt: now };
    await listo.db.tables.rules.update({ id }, kept, tx);
    await armTime({ listo, tx }, { ...row, ...kept });
    await appendSetting(
      { listo, tx },
      { by: viewer.id, type: 'ruleSwitched', data: { ruleId: id, name: row.name.en, isOn } },
    );
    return { version: version + 1 };
  });
}

/**
 * The places that rules have in another order. Those of whom somebody may set up only some change places among
 * themselves; the others stay where they are.
 * @returns the place of each rule that is theirs
 */
export function placesOf(viewer: SignedIn, all: RuleRow[], ids: string[]): Map<string, number> {
  const mine = all.filter(({ teamId }) => maySetUp(viewer, teamId));
  if (mine.length === 0) throw new ProblemError('forbidden');
  const wanted = ids.flatMap((id) => mine.find((rule) => rule.id === id) ?? []);
  const ordered = [...new Set([...wanted, ...mine])];
  return new Map(ordered.map(({ id }, i) => [id, mine[i]!.position]));
}

/** Puts rules in another order. */
export function orderRules({ listo, viewer, actor }: Changing, ids: string[]): Promise<{ ok: true }> {
  return change(listo, actor, async (tx) => {
    const all = await lockAll({ listo, tx });
    const changedAt = listo.clock.now();
    for (const [id, position] of placesOf(viewer, all, ids))
      if (all.find((rule) => rule.id === id)!.position !== position)
        await listo.db.tables.rules.update({ id }, { position, changedAt }, tx);
    await appendSetting({ listo, tx }, { by: viewer.id, type: 'rulesOrdered', data: { ruleIds: ids } });
    return OK;
  });
}

/** Does away with a rule. What it did stays, and says that it is gone. */
export function removeRule({ listo, viewer, actor }: Changing, id: string): Promise<{ ok: true }> {
  return change(listo, actor, async (tx) => {
    const row = await requireOwn({ listo, tx, viewer }, id);
    await listo.db.tables.rules.remove({ id }, tx);
    await armTime({ listo, tx }, { ...row, isOn: false });
    await appendSetting(
      { listo, tx },
      { by: viewer.id, type: 'ruleRemoved', data: { ruleId: id, name: row.name.en } },
    );
    return OK;
  });
}
