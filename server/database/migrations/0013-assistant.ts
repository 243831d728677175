import type { QueryInterface } from 'sequelize';

const key = 'VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin';
const word = 'VARCHAR(12) CHARACTER SET ascii COLLATE ascii_bin';

const statements = [
  `CREATE TABLE matters (id ${key} PRIMARY KEY, name JSON NOT NULL, note VARCHAR(1000) NOT NULL, question JSON NOT NULL,
    phrasings JSON NOT NULL, serviceId ${key} NOT NULL, isForAgents BOOLEAN NOT NULL, isOn BOOLEAN NOT NULL, steps JSON NOT NULL,
    version INT NOT NULL, changedAt BIGINT NOT NULL)`,
  `CREATE TABLE talks (id ${key} PRIMARY KEY, personId ${key} NOT NULL, language CHAR(2) NOT NULL, startedAt BIGINT NOT NULL,
    endedAt BIGINT, state JSON NOT NULL, places INT NOT NULL, matterId ${key}, confidentialTeamId ${key}, outcome ${word},
    ticketNumber BIGINT, rating INT,
    INDEX byPerson (personId, startedAt), INDEX byTime (startedAt))`,
  `CREATE TABLE talk_turns (talkId ${key}, place INT, at BIGINT NOT NULL, isByPerson BOOLEAN NOT NULL, said JSON NOT NULL,
    likely JSON, PRIMARY KEY (talkId, place))`,
  `CREATE TABLE phrasings_heard (id BIGINT PRIMARY KEY AUTO_INCREMENT, matterId ${key} NOT NULL, words VARCHAR(300) NOT NULL,
    language CHAR(2) NOT NULL, isRight BOOLEAN NOT NULL, at BIGINT NOT NULL, state ${word} NOT NULL, INDEX byState (state, at))`,
];

export async function up({ context }: { context: QueryInterface }): Promise<void> {
  for (const statement of statements) await context.sequelize.query(statement);
}
