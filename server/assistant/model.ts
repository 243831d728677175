import type { Sequelize } from 'sequelize';
import type { TurnView } from '../../contract/assistant';
import type { Likely, Matter, Talk, TalkOutcome } from '../../core/assistant';
import type { Language, LocalText } from '../../core/forms';
import { autoNumber, flag, id, instant, integer, json, Table, text } from '../database/table';

export type MatterRow = Matter & {
  name: LocalText;
  /** For colleagues. */
  note: string;
  question: LocalText;
  phrasings: { text: string; language: Language }[];
  isForAgents: boolean;
  isOn: boolean;
  version: number;
  changedAt: number;
};

/** A conversation with the assistant. `places` is how many turns there are. */
export type TalkRow = {
  id: string;
  personId: string;
  language: Language;
  startedAt: number;
  endedAt: number | null;
  state: Talk;
  places: number;
  matterId: string | null;
  /** The team that alone may read it: what it alone may know was offered, whatever it came to. */
  confidentialTeamId: string | null;
  outcome: TalkOutcome | null;
  ticketNumber: number | null;
  rating: number | null;
};

/** What was said, as it was shown. */
export type Said = Omit<TurnView, 'place' | 'at' | 'by' | 'likely'>;

export type TalkTurnRow = {
  talkId: string;
  place: number;
  at: number;
  isByPerson: boolean;
  said: Said;
  likely: Likely[] | null;
};

/** How someone put a matter, confirmed or refused by them, for its author to take over. */
export type HeardRow = {
  id: number;
  matterId: string;
  words: string;
  language: Language;
  isRight: boolean;
  at: number;
  state: 'new' | 'accepted' | 'refused';
};

export function createAssistantTables(sequelize: Sequelize) {
  return {
    matters: new Table<MatterRow>(sequelize, 'matters', {
      ...{ id, name: json, note: text(1000), question: json, phrasings: json, serviceId: id },
      ...{ isForAgents: flag, isOn: flag, steps: json, version: integer, changedAt: instant },
    }),
    talks: new Table<TalkRow>(sequelize, 'talks', {
      ...{ id, personId: id, language: text(2), startedAt: instant, endedAt: instant, state: json },
      ...{ places: integer, matterId: id, confidentialTeamId: id, outcome: text(12) },
      ...{ ticketNumber: integer, rating: integer },
    }),
    talkTurns: new Table<TalkTurnRow>(
      sequelize,
      'talk_turns',
      { talkId: id, place: integer, at: instant, isByPerson: flag, said: json, likely: json },
      ['talkId', 'place'],
    ),
    heard: new Table<HeardRow>(sequelize, 'phrasings_heard', {
      ...{ id: autoNumber, matterId: id, words: text(300), language: text(2), isRight: flag },
      ...{ at: instant, state: text(12) },
    }),
  };
}
