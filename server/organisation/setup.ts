import type { SetupCount, SetupFacts } from '../../core/setup';
import type { Listo } from '../listo';

/** Mail that has to do with no ticket in confidence: of such a one nothing is counted. */
const OF_ALL = 'NOT EXISTS (SELECT 1 FROM tickets t WHERE t.number = m.ticketNumber AND t.isConfidential)';

/** How each number of the path is counted. Only what is kept for setting up is read, so that it costs little. */
const COUNTED: Record<SetupCount, string> = {
  calendars: 'SELECT COUNT(*) FROM calendars',
  sites: 'SELECT COUNT(*) FROM sites',
  people: 'SELECT COUNT(*) FROM people WHERE leftAt IS NULL',
  peopleWithoutWayIn: `SELECT COUNT(*) FROM people p WHERE p.leftAt IS NULL AND p.passwordHash IS NULL
    AND NOT EXISTS (SELECT 1 FROM sign_on_subjects o WHERE o.personId = p.id) AND NOT EXISTS
    (SELECT 1 FROM invitations i WHERE i.personId = p.id AND i.usedAt IS NULL AND i.replacedAt IS NULL AND i.endsAt > :now)`,
  administrators: 'SELECT COUNT(*) FROM people WHERE leftAt IS NULL AND isAdministrator',
  teams: 'SELECT COUNT(*) FROM teams',
  teamsWithoutAgents: `SELECT COUNT(*) FROM teams t WHERE NOT EXISTS (SELECT 1 FROM team_members m JOIN people p
    ON p.id = m.personId AND p.leftAt IS NULL WHERE m.teamId = t.id)`,
  teamsWithoutLead: `SELECT COUNT(*) FROM teams t WHERE NOT EXISTS (SELECT 1 FROM team_members m JOIN people p
    ON p.id = m.personId AND p.leftAt IS NULL WHERE m.teamId = t.id AND m.role <> 'agent')`,
  teamsByHand: `SELECT COUNT(*) FROM teams WHERE COALESCE(JSON_VALUE(routing, '$.way'), 'byHand') = 'byHand'`,
  teamsGivenOut: `SELECT COUNT(*) FROM teams WHERE JSON_VALUE(routing, '$.way') <> 'byHand'`,
  services: 'SELECT COUNT(*) FROM services',
  servicesOff: 'SELECT COUNT(*) FROM services WHERE NOT isOn',
  drafts: 'SELECT COUNT(*) FROM service_drafts',
  targets: 'SELECT COUNT(*) FROM targets',
  targetsOff: 'SELECT COUNT(*) FROM targets WHERE NOT isOn',
  procedures: 'SELECT COUNT(*) FROM procedures',
  kinds: 'SELECT COUNT(*) FROM thing_kinds',
  things: `SELECT COUNT(*) FROM things WHERE state <> 'retired'`,
  mailSent: `SELECT COUNT(*) FROM (SELECT 1 FROM mail_out m WHERE m.state = 'sent' AND ${OF_ALL} LIMIT 1) one`,
  mailFailed: `SELECT COUNT(*) FROM mail_out m WHERE m.state = 'failed' AND ${OF_ALL}`,
  mailboxes: 'SELECT COUNT(*) FROM teams WHERE mailbox IS NOT NULL',
  rooms: 'SELECT COUNT(*) FROM chat_rooms',
  roomsLost: `SELECT COUNT(*) FROM chat_rooms WHERE state = 'stopped'`,
  lines: 'SELECT COUNT(*) FROM chat_lines',
  linesOff: 'SELECT COUNT(*) FROM chat_lines WHERE NOT isOn',
  articles: `SELECT COUNT(*) FROM articles WHERE state = 'published'`,
  articleDrafts: `SELECT COUNT(*) FROM articles WHERE state = 'draft'`,
  matters: 'SELECT COUNT(*) FROM matters',
  mattersOff: 'SELECT COUNT(*) FROM matters WHERE NOT isOn',
  rules: 'SELECT COUNT(*) FROM rules',
  rulesFailing: 'SELECT COUNT(*) FROM rules WHERE failures > 0',
  programs: 'SELECT COUNT(*) FROM programs WHERE isOn',
  webhooks: 'SELECT COUNT(*) FROM webhooks WHERE isOn',
  webhooksFailing: `SELECT COUNT(DISTINCT d.webhookId) FROM webhook_deliveries d WHERE d.state = 'undelivered'`,
  seals: 'SELECT COUNT(*) FROM audit_seals',
};

/** How much there is of all that is set up. */
export async function countSetup({ db, clock }: Listo): Promise<SetupFacts> {
  const columns = Object.entries(COUNTED).map(([name, sql]) => `(${sql}) AS \`${name}\``);
  const [row] = await db.select<Record<SetupCount, number | string>>(`SELECT ${columns.join(', ')}`, {
    now: clock.now(),
  });
  return Object.fromEntries(
    Object.entries(row!).map(([name, number]) => [name, Number(number)]),
  ) as SetupFacts;
}
