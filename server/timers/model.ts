import type { Sequelize } from 'sequelize';
import { instant, integer, Table, text } from '../database/table';

export type TimerKind =
  | 'closeTicket'
  | 'resumeTicket'
  | 'remind'
  | 'dueByHand'
  | 'teamCloses'
  | 'planLook'
  | 'stepSend'
  | 'askSilent'
  | 'slipWord'
  | 'goesOn'
  | 'comesBack'
  | 'leaves'
  | 'talkSilent'
  | 'ruleSilent'
  | 'ruleTime'
  | 'tellNotice'
  | 'gatherFacts'
  | 'sealDay'
  | 'clearAway';

/** Something that falls due. The row is gone once it has been done. */
export type TimerRow = { ticketNumber: number; kind: TimerKind; ref: string; at: number };

/** What falls due: a timer, or a notice that a clock owes, which its own row holds. */
export type Due = Omit<TimerRow, 'kind'> & { kind: TimerKind | 'notice' };

export function createTimerTables(sequelize: Sequelize) {
  return {
    timers: new Table<TimerRow>(
      sequelize,
      'timers',
      { ticketNumber: integer, kind: text(20), ref: text(160), at: instant },
      ['ticketNumber', 'kind', 'ref'],
    ),
  };
}
