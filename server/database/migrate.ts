import { randomUUID } from 'node:crypto';
import { setTimeout as delay } from 'node:timers/promises';
import { QueryTypes, type Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import { isDeadlock } from './failures';
import { up as foundation } from './migrations/0001-foundation';
import { up as owedNotices } from './migrations/0002-owed-notices';
import { up as plans } from './migrations/0003-plans';
import { up as absences } from './migrations/0004-absences';
import { up as catalogue } from './migrations/0005-catalogue';
import { up as mail } from './migrations/0006-mail';
import { up as desk } from './migrations/0007-desk';
import { up as words } from './migrations/0008-words';
import { up as procedures } from './migrations/0009-procedures';
import { up as imports } from './migrations/0010-imports';
import { up as templates } from './migrations/0011-templates';
import { up as knowledge } from './migrations/0012-knowledge';
import { up as assistant } from './migrations/0013-assistant';
import { up as chat } from './migrations/0014-chat';
import { up as conversations } from './migrations/0015-conversations';
import { up as targetVersions } from './migrations/0016-target-versions';
import { up as groupsAndOwners } from './migrations/0017-groups-and-owners';
import { up as ranking } from './migrations/0018-ranking';
import { up as offeredTemplates } from './migrations/0019-offered-templates';
import { up as articlePictures } from './migrations/0020-article-pictures';
import { up as answersMail } from './migrations/0021-answers-mail';
import { up as heldFor } from './migrations/0022-held-for';
import { up as whoHasIt } from './migrations/0023-who-has-it';
import { up as answersInRooms } from './migrations/0024-answers-in-rooms';
import { up as takenUp } from './migrations/0025-taken-up';
import { up as sessionsAndKeys } from './migrations/0026-sessions-and-keys';
import { up as givenOnBy } from './migrations/0027-given-on-by';
import { up as offerSeconds } from './migrations/0028-offer-seconds';
import { up as linesInOrder } from './migrations/0029-lines-in-order';
import { up as invitations } from './migrations/0030-invitations';
import { up as rules } from './migrations/0031-rules';
import { up as tablesOfPeople } from './migrations/0032-tables-of-people';
import { up as estate } from './migrations/0033-estate';
import { up as noticesAndWorks } from './migrations/0034-notices-problems-changes';
import { up as factsAndBoards } from './migrations/0035-facts-and-boards';
import { up as programs } from './migrations/0036-programs';
import { up as webhooks } from './migrations/0037-webhooks';
import { up as records } from './migrations/0038-records';
import { up as privacy } from './migrations/0039-privacy';
import { up as claims } from './migrations/0040-claims';
import { up as clearing } from './migrations/0041-clearing';
import { up as opening } from './migrations/0042-opening';
import { up as answers } from './migrations/0043-answers';
import { up as signOn } from './migrations/0044-sign-on';
import { up as readBy } from './migrations/0045-read-by';

function createUmzug(sequelize: Sequelize) {
  return new Umzug({
    migrations: [
      { name: '0001-foundation', up: foundation },
      { name: '0002-owed-notices', up: owedNotices },
      { name: '0003-plans', up: plans },
      { name: '0004-absences', up: absences },
      { name: '0005-catalogue', up: catalogue },
      { name: '0006-mail', up: mail },
      { name: '0007-desk', up: desk },
      { name: '0008-words', up: words },
      { name: '0009-procedures', up: procedures },
      { name: '0010-imports', up: imports },
      { name: '0011-templates', up: templates },
      { name: '0012-knowledge', up: knowledge },
      { name: '0013-assistant', up: assistant },
      { name: '0014-chat', up: chat },
      { name: '0015-conversations', up: conversations },
      { name: '0016-target-versions', up: targetVersions },
      { name: '0017-groups-and-owners', up: groupsAndOwners },
      { name: '0018-ranking', up: ranking },
      { name: '0019-offered-templates', up: offeredTemplates },
      { name: '0020-article-pictures', up: articlePictures },
      { name: '0021-answers-mail', up: answersMail },
      { name: '0022-held-for', up: heldFor },
      { name: '0023-who-has-it', up: whoHasIt },
      { name: '0024-answers-in-rooms', up: answersInRooms },
      { name: '0025-taken-up', up: takenUp },
      { name: '0026-sessions-and-keys', up: sessionsAndKeys },
      { name: '0027-given-on-by', up: givenOnBy },
      { name: '0028-offer-seconds', up: offerSeconds },
      { name: '0029-lines-in-order', up: linesInOrder },
      { name: '0030-invitations', up: invitations },
      { name: '0031-rules', up: rules },
      { name: '0032-tables-of-people', up: tablesOfPeople },
      { name: '0033-estate', up: estate },
      { name: '0034-notices-problems-changes', up: noticesAndWorks },
      { name: '0035-facts-and-boards', up: factsAndBoards },
      { name: '0036-programs', up: programs },
      { name: '0037-webhooks', up: webhooks },
      { name: '0038-records', up: records },
      { name: '0039-privacy', up: privacy },
      { name: '0040-claims', up: claims },
      { name: '0041-clearing', up: clearing },
      { name: '0042-opening', up: opening },
      { name: '0043-answers', up: answers },
      { name: '0044-sign-on', up: signOn },
      { name: '0045-read-by', up: readBy },
    ],
    context: sequelize.getQueryInterface(),
    storage: new SequelizeStorage({ sequelize }),
    logger: undefined,
  });
}

/** Who brings the database's shape up to date says so again this often; who has not for so long is dead. */
const SAID_MS = 5_000;
const DEAD_S = 20;
const LOOK_MS = 200;

/**
 * Lets one process at a time do something, on whichever nodes of a cluster they are: a turn is a row that is committed
 * before anything is done. It goes by the database's clock, and by whoever has not been heard of for a while.
 */
async function inTurn(sequelize: Sequelize, work: () => Promise<void>): Promise<void> {
  const holder = randomUUID();
  const run = async (sql: string): Promise<number> => {
    for (let tries = 1; ; tries++)
      try {
        return await sequelize.query(sql, {
          type: QueryTypes.BULKUPDATE,
          replacements: { holder, dead: DEAD_S },
        });
      } catch (error) {
        // Another node made the table, or took its turn, at the same moment.
        if (!isDeadlock(error) || tries === 10) throw error;
        await delay(LOOK_MS * Math.random());
      }
  };
  await run(`CREATE TABLE IF NOT EXISTS turns (id TINYINT PRIMARY KEY, holder VARCHAR(40) CHARACTER SET ascii NOT NULL,
    saidAt DATETIME NOT NULL)`);
  await run("INSERT IGNORE INTO turns (id, holder, saidAt) VALUES (1, '', UTC_TIMESTAMP())");
  const take = `UPDATE turns SET holder = :holder, saidAt = UTC_TIMESTAMP()
    WHERE id = 1 AND (holder = '' OR holder = :holder OR saidAt < UTC_TIMESTAMP() - INTERVAL :dead SECOND)`;
  while ((await run(take)) === 0) await delay(LOOK_MS);
  const saying = setInterval(() => void run(take).catch(() => undefined), SAID_MS);
  try {
    await work();
  } finally {
    clearInterval(saying);
    await run("UPDATE turns SET holder = '' WHERE id = 1 AND holder = :holder");
  }
}

/**
 * Brings the database's shape up to date; processes that start together take turns.
 * @param to the last step to be taken; absent: all
 */
export async function migrate(sequelize: Sequelize, to?: string): Promise<void> {
  if (to === undefined && (await isMigrated(sequelize))) return;
  await inTurn(sequelize, async () => {
    await createUmzug(sequelize).up(to === undefined ? undefined : { to });
  });
}

export async function isMigrated(sequelize: Sequelize): Promise<boolean> {
  return (await createUmzug(sequelize).pending()).length === 0;
}
