import type { Language } from '../../core/forms';
import type { HeldFor, TicketState } from '../../core/tickets';

/** What Listo says in chat, in both languages; blanks in braces. */
const SAYS = {
  take: { en: 'Take it', pt: 'Ficar com ele' },
  write: { en: 'Write …', pt: 'Escrever …' },
  give: { en: 'Give …', pt: 'Passar …' },
  finish: { en: 'Done …', pt: 'Feito …' },
  urgency: { en: 'Priority …', pt: 'Prioridade …' },
  confirm: { en: 'It is done, thanks', pt: 'Está feito, obrigado' },
  reopen: { en: 'Not yet …', pt: 'Ainda não está …' },
  approve: { en: 'Yes', pt: 'Sim' },
  decline: { en: 'No …', pt: 'Não …' },
  ticket: { en: 'Make a ticket of this', pt: 'Fazer disto um pedido' },
  note: { en: 'Add a note …', pt: 'Juntar uma nota …' },
  nobody: { en: 'nobody has it yet', pt: 'ainda ninguém o tem' },
  readByTeam: { en: '{who}, read by the team: {words}', pt: '{who}, lido pela equipa: {words}' },
  says: { en: '{who}: {words}', pt: '{who}: {words}' },
  files: { en: '(files: {files})', pt: '(ficheiros: {files})' },
  madeYou: { en: 'It is written down as {number}. {link}', pt: 'Ficou registado como {number}. {link}' },
  written: {
    en: 'This is written on it: {title} {link}\nIf that does not answer it, write it again, beginning with “Listo,”.',
    pt: 'Está escrito sobre isto: {title} {link}\nSe não responder, escreva outra vez, a começar por “Listo,”.',
  },
  none: { en: 'That was none', pt: 'Não era nada' },
  takenBack: { en: 'Taken back: {number} is no more.', pt: 'Retirado: {number} já não existe.' },
  already: { en: 'That is {number} already. {link}', pt: 'Isso já é o {number}. {link}' },
  unknown: {
    en: 'Listo does not know you: your address in chat is in no account. Ask the service desk by phone or mail.',
    pt: 'O Listo não o conhece: o seu endereço no chat não está em nenhuma conta. Fale com o service desk por telefone ou correio.',
  },
  notYours: {
    en: 'This is for the team that has {number}. Nothing was changed.',
    pt: 'Isto é para a equipa que tem o {number}. Nada foi alterado.',
  },
  refused: {
    en: 'That could not be done with {number} now: look at it here. {link}',
    pt: 'Agora não se pode fazer isso com o {number}: veja-o aqui. {link}',
  },
  notDone: { en: 'That could not be done. Nothing was changed.', pt: 'Não foi possível. Nada foi alterado.' },
  agentsOnly: {
    en: 'Only agents make tickets for others here. For yourself: begin with “Listo,”.',
    pt: 'Aqui só os agentes fazem pedidos por outros. Para si: comece por “Listo,”.',
  },
  decided: { en: 'Noted, thank you.', pt: 'Registado, obrigado.' },
  stopped: {
    en: '{who} is here now and is no agent of the team: Listo writes nothing more into this room.',
    pt: '{who} está agora aqui e não é agente da equipa: o Listo não escreve mais nesta sala.',
  },
  ask: { en: '{who} asks for your decision: {title}', pt: '{who} pede a sua decisão: {title}' },
  taken: { en: '{who} has taken it on.', pt: '{who} ficou com ele.' },
  held: { en: 'It waits. {words}', pt: 'Está à espera. {words}' },
  givenOn: { en: 'It is with another team now.', pt: 'Está agora com outra equipa.' },
  doneTold: { en: 'It is done: {words}', pt: 'Está feito: {words}' },
  decidedTold: { en: '{who} has decided: {words}', pt: '{who} decidiu: {words}' },
  raisedFor: { en: '{who} wrote it down for you.', pt: '{who} registou-o por si.' },
  withdrawn: { en: 'It was withdrawn.', pt: 'Foi retirado.' },
  reopened: { en: 'It was opened again.', pt: 'Foi reaberto.' },
  slipTold: { en: 'It will be later than promised.', pt: 'Vai chegar mais tarde do que prometido.' },
  sameMatter: { en: 'Others have this too; you hear of it here.', pt: 'Outros têm o mesmo; aqui saberá.' },
  outOfHours: { en: 'The team is not at work now.', pt: 'A equipa não está agora ao serviço.' },
  questioned: { en: '{who} asks: {words}', pt: '{who} pergunta: {words}' },
  needs: {
    en: 'To go on, it needs to know:\n{words}\nFill it in there, or answer here.',
    pt: 'Para avançar, falta saber:\n{words}\nPreencha aí, ou responda aqui.',
  },
  fill: { en: 'Fill it in here', pt: 'Preencher aqui' },
  formNext: { en: 'Go on', pt: 'Continuar' },
  formSubmit: { en: 'Send', pt: 'Enviar' },
  title: { en: 'Title', pt: 'Título' },
  requester: { en: 'For whom', pt: 'Para quem' },
  service: { en: 'What it is', pt: 'O que é' },
  sure: { en: 'guessed, {percent} % sure', pt: 'suposto, com {percent} % de certeza' },
  guessed: { en: 'guessed', pt: 'suposto' },
  team: { en: 'Team', pt: 'Equipa' },
  teamGroup: { en: 'Team and group', pt: 'Equipa e grupo' },
  incident: { en: 'incident', pt: 'incidente' },
  request: { en: 'request', pt: 'pedido' },
  problem: { en: 'problem', pt: 'problema' },
  change: { en: 'change', pt: 'alteração' },
  teamOfService: { en: 'the one that the service says', pt: 'a que o serviço diz' },
  assignee: { en: 'Who does it', pt: 'Quem o faz' },
  priority: { en: 'How urgent', pt: 'Quão urgente' },
  words: { en: 'Words', pt: 'Palavras' },
  readBy: { en: 'Who reads it', pt: 'Quem o lê' },
  toRequester: { en: 'the requester', pt: 'quem pediu' },
  toTeam: { en: 'the team', pt: 'a equipa' },
  solution: { en: 'How it was done', pt: 'Como foi feito' },
  confirmForm: { en: 'It is done', pt: 'Está feito' },
  rating: { en: 'How was it?', pt: 'Como correu?' },
  ratingWord: { en: 'A word on it', pt: 'Uma palavra sobre isso' },
  rating1: { en: 'Bad', pt: 'Mau' },
  rating2: { en: 'Poor', pt: 'Fraco' },
  rating3: { en: 'All right', pt: 'Razoável' },
  rating4: { en: 'Good', pt: 'Bom' },
  rating5: { en: 'Very good', pt: 'Muito bom' },
  decidesElsewhere: {
    en: 'This team’s approvals are no longer decided in chat. Please decide here: {link}',
    pt: 'Os pedidos desta equipa já não se decidem no chat. Decida aqui, por favor: {link}',
  },
  stillBroken: { en: 'What is still wrong', pt: 'O que ainda não está bem' },
  reason: { en: 'Reason', pt: 'Motivo' },
  missing: { en: 'Please answer this.', pt: 'Responda a isto, por favor.' },
  badCharacter: {
    en: 'Has a character that cannot be kept.',
    pt: 'Tem um carácter que não se pode guardar.',
  },
  tooLong: { en: 'At most {limit} characters.', pt: 'No máximo {limit} caracteres.' },
  tooShort: { en: 'At least {limit} characters.', pt: 'Pelo menos {limit} caracteres.' },
  notANumber: { en: 'A number, please.', pt: 'Um número, por favor.' },
  tooSmall: { en: 'At least {limit}.', pt: 'Pelo menos {limit}.' },
  tooLarge: { en: 'At most {limit}.', pt: 'No máximo {limit}.' },
  tooFew: { en: 'At least {limit} of them.', pt: 'Pelo menos {limit}.' },
  tooMany: { en: 'At most {limit} of them.', pt: 'No máximo {limit}.' },
  notAChoice: { en: 'Choose one of the list.', pt: 'Escolha um da lista.' },
  notADate: { en: 'A date, please.', pt: 'Uma data, por favor.' },
  notATime: { en: 'A time, such as 14:30.', pt: 'Uma hora, como 14:30.' },
  endsTooSoon: { en: 'It ends before it begins.', pt: 'Acaba antes de começar.' },
  notALink: { en: 'An address, please.', pt: 'Um endereço, por favor.' },
  doesNotMatch: { en: 'It is not written as it should be.', pt: 'Não está escrito como devia.' },
  malformed: { en: 'This cannot be read.', pt: 'Não se consegue ler.' },
  trial: { en: '(a trial; nothing has happened) {words}', pt: '(um ensaio; nada aconteceu) {words}' },
} as const;
export type Saying = keyof typeof SAYS;

export function say(name: Saying, language: Language, blanks: Record<string, string> = {}): string {
  return SAYS[name][language].replace(/\{(\w+)\}/gu, (_, blank: string) => blanks[blank] ?? '').trim();
}

const STATES: Record<TicketState, Record<Language, string>> = {
  received: { en: 'received', pt: 'recebido' },
  inWork: { en: 'in work', pt: 'em curso' },
  held: { en: 'held', pt: 'em espera' },
  done: { en: 'done', pt: 'feito' },
  closed: { en: 'closed', pt: 'fechado' },
  withdrawn: { en: 'withdrawn', pt: 'retirado' },
};
const HELD: Record<HeldFor, Record<Language, string>> = {
  requester: { en: 'held for the requester', pt: 'à espera de quem pediu' },
  approval: { en: 'held for an approval', pt: 'à espera de aprovação' },
  supplier: { en: 'held for a supplier', pt: 'à espera de fornecedor' },
  date: { en: 'held for a date', pt: 'à espera de uma data' },
  ticket: { en: 'held for another ticket', pt: 'à espera de outro pedido' },
};

export function sayState(state: TicketState, heldFor: HeldFor | null, language: Language): string {
  return (state === 'held' && heldFor !== null ? HELD[heldFor] : STATES[state])[language];
}
