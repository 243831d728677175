import { nanoid } from 'nanoid';
import { createHash, randomInt, timingSafeEqual } from 'node:crypto';
import { toAddress } from '../../core/identity';
import { compileCalendar, UnknownTimeZone, WEEKDAYS } from '../../core/calendar';
import type { BodyOf } from '../../contract/endpoint';
import type { api } from '../../contract';
import { WAITS } from '../../core/hours';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import { hashPassword, refuseWeak } from './sessions';

/** Whether nobody is there yet. */
export async function needsSetUp(listo: Listo): Promise<boolean> {
  const rows = await listo.db.select('SELECT 1 FROM people LIMIT 1');
  return rows.length === 0;
}

const CODE_SETTING = 'setUpCode';

/** The code that sets an empty Listo up, made once; null where it is set up. The start command prints it. */
export async function readSetUpCode(listo: Listo): Promise<string | null> {
  if (!(await needsSetUp(listo))) return null;
  const { run, tables } = listo.db;
  await run('INSERT IGNORE INTO settings (name, value) VALUES (:name, :value)', {
    name: CODE_SETTING,
    value: JSON.stringify(createCode()),
  });
  return (await tables.settings.findOne({ name: CODE_SETTING }))!.value as string;
}

const CODE_LETTERS = 'abcdefghjkmnpqrstuvwxyz23456789';

/** Twelve letters that are not mistaken for each other, in threes. @example 'k7m-x2q-p9r-w4t' */
function createCode(): string {
  const letters = Array.from({ length: 12 }, () => CODE_LETTERS[randomInt(CODE_LETTERS.length)]!);
  return letters.join('').replace(/(...)(?=.)/g, '$1-');
}

const isSame = (one: string, other: string): boolean => {
  const hash = (text: string): Buffer => createHash('sha256').update(text).digest();
  return timingSafeEqual(hash(one), hash(other));
};

/** Makes the first administrator, with one site, its office hours and one team to begin with. */
export async function setUp(listo: Listo, body: BodyOf<typeof api.session.setUp>): Promise<string> {
  const { db } = listo;
  const { organisation, name, password, timeZone } = body;
  const code = await readSetUpCode(listo);
  if (code === null) throw new ProblemError('alreadySetUp');
  if (!isSame(code, body.code.trim().toLowerCase())) throw new ProblemError('wrongCode');
  const email = toAddress(body.email);
  if (email === null)
    throw new ProblemError('fieldsNotValid', { fields: [{ field: 'email', code: 'malformed' }] });
  refuseWeak(password, [name, email, organisation]);
  const hours = [{ from: '09:00', to: '17:00' }];
  const weekly = Object.fromEntries(WEEKDAYS.slice(0, 5).map((day) => [day, hours]));
  const spec = { name: 'Office', timeZone, hoursPerDay: 8, weekly, exceptions: [] };
  try {
    compileCalendar(spec);
  } catch (error) {
    if (error instanceof UnknownTimeZone)
      throw new ProblemError('fieldsNotValid', { fields: [{ field: 'timeZone', code: 'malformed' }] });
    throw error;
  }
  const passwordHash = await hashPassword(password);
  const id = nanoid();
  await db.transaction(async (tx) => {
    if (await needsSetUp(listo)) {
      await db.tables.calendars.insert({ id: 'office', spec, version: 1 }, tx);
      await db.tables.sites.insert({ id: 'head', name: organisation, timeZone, calendarId: 'office' }, tx);
      const team = {
        id: 'desk',
        name: { en: 'Service desk', pt: 'Central de serviços' },
        isConfidential: false,
      };
      await db.tables.teams.insert({ ...team, calendarId: 'office', outOfHours: WAITS, version: 1 }, tx);
      await listo.ports.sessions.begun({ listo, tx }, team.id);
      await db.tables.settings.insert({ name: 'organisation', value: organisation }, tx);
      await db.tables.settings.remove({ name: CODE_SETTING }, tx);
      await listo.ports.teams.made({ listo, tx }, { ...team, calendarId: 'office' });
      await db.tables.people.insert(
        {
          id,
          name,
          email,
          phone: '',
          title: 'Administrator',
          department: '',
          siteId: 'head',
          costCentre: '',
          language: 'en',
          isAdministrator: true,
          mayAskForOthers: true,
          goesFirst: false,
          passwordHash,
          version: 1,
        },
        tx,
      );
      await db.tables.members.insert({ teamId: 'desk', personId: id, role: 'lead', groupId: null }, tx);
    } else throw new ProblemError('alreadySetUp');
  });
  return id;
}
