import { QueryTypes, type Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
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
    ],
    context: sequelize.getQueryInterface(),
    storage: new SequelizeStorage({ sequelize }),
    logger: undefined,
  });
}

/**
 * Brings the database's shape up to date; processes that start together take turns.
 * @param to the last step to be taken; absent: all
 */
export async function migrate(sequelize: Sequelize, to?: string): Promise<void> {
  await sequelize.transaction(async (transaction) => {
    await sequelize.query("SELECT GET_LOCK('listo-migrate', 120)", { type: QueryTypes.SELECT, transaction });
    try {
      await createUmzug(sequelize).up(to === undefined ? undefined : { to });
    } finally {
      await sequelize.query("SELECT RELEASE_LOCK('listo-migrate')", { type: QueryTypes.SELECT, transaction });
    }
  });
}

export async function isMigrated(sequelize: Sequelize): Promise<boolean> {
  return (await createUmzug(sequelize).pending()).length === 0;
}
