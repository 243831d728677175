import type { ChatEvent, ToldMessage } from '../../contract/rooms';
import type { TalkInput, TalkView, TurnView } from '../../contract/assistant';
import type { Language } from '../../core/forms';
import { composeText } from '../../core/words';
import { say as sayInTalk, startTalk } from '../assistant/talks';
import type { SignedIn } from '../sessions/viewer';
import type { Became } from './hear';
import type { Hearing } from './make';
import { idOf, queueChat } from './queue';
import { say as sayInChat } from './says';
import { isFilledInChat } from './serviceForm';

const TEXTS: Record<string, Record<Language, string>> = {
  greeting: { en: 'Good day. Tell me in your own words.', pt: 'Bom dia. Diga-me por palavras suas.' },
  confirm: { en: 'Is it this? Answer with its number.', pt: 'É isto? Responda com o número.' },
  choose: {
    en: 'It is one of these, I think. Answer with its number.',
    pt: 'Julgo que é um destes. Responda com o número.',
  },
  teams: {
    en: 'Who should have this? Answer with a number.',
    pt: 'Quem deve receber isto? Responda com um número.',
  },
  passages: { en: 'This is what is written on it:', pt: 'Isto é o que está escrito:' },
  article: { en: 'This usually helps:', pt: 'Isto costuma ajudar:' },
  helped: { en: 'Did it help? Answer yes or no.', pt: 'Ajudou? Responda sim ou não.' },
  reword: {
    en: 'I did not understand that. Could you say it in other words?',
    pt: 'Não percebi. Pode dizê-lo por outras palavras?',
  },
  both: {
    en: 'I read two things in this. Answer with the number of the one to begin with.',
    pt: 'Leio aqui duas coisas. Responda com o número daquela por que começamos.',
  },
  other: {
    en: 'You also wrote about this; write it here again to go on with it:',
    pt: 'Escreveu também sobre isto; volte a escrevê-lo aqui para continuar:',
  },
  hello: { en: 'Hello! What can I do for you?', pt: 'Olá! Em que posso ajudar?' },
  welcome: { en: 'You are welcome. Is there anything else?', pt: 'De nada. Precisa de mais alguma coisa?' },
  again: {
    en: 'Please choose one of these, or say it in other words.',
    pt: 'Escolha um destes, ou diga por outras palavras.',
  },
  glad: { en: 'Good. Nobody else has to do anything.', pt: 'Ótimo. Ninguém mais tem de fazer nada.' },
  toldMasked: {
    en: 'That looked like a password or a card number. I did not keep it.',
    pt: 'Parecia uma palavra-passe ou um cartão. Não o guardei.',
  },
  ticket: { en: 'It is written down:', pt: 'Ficou registado:' },
  form: { en: 'This is asked for with a form:', pt: 'Isto pede-se com um formulário:' },
  none: { en: 'none of these', pt: 'nenhum destes' },
  person: { en: 'to a person, please', pt: 'uma pessoa, por favor' },
};
const text = (name: string, language: Language): string => TEXTS[name]?.[language] ?? '';

/** A turn of the assistant as lines of chat; what can be chosen is numbered. */
function linesOf(turn: TurnView, language: Language, address: string): string[] {
  const { say, choices = [], articles = [], number } = turn;
  const isOver = say === 'other';
  const numbered = choices.map(({ name }, i) => (isOver ? name : `${i + 1}  ${name}`));
  if (choices.length > 0 && say !== 'question' && !isOver)
    numbered.push(
      `${choices.length + 1}  ${text('none', language)}`,
      `${choices.length + 2}  ${text('person', language)}`,
    );
  return [
    turn.words ?? (text(say, language) || turn.text || ''),
    ...(turn.text && text(say, language) && say !== 'greeting'
      ? [say === 'article' ? composeText(turn.text, address) : turn.text]
      : []),
    ...articles.map(({ id, title }) => `${title} ${address}/ask/articles/${id}`),
    ...(say === 'article' || (say === 'passages' && articles.length > 0) ? [text('helped', language)] : []),
    ...numbered,
    ...(say === 'form' && turn.serviceId ? [`${address}/ask/services/${turn.serviceId}`] : []),
    ...(number ? [`${number} ${address}/ask/tickets/${number}`] : []),
  ].filter(Boolean);
}

/** What an answer in words means where the last turn had choices or asked whether it helped. */
function toInput(last: TurnView | undefined, words: string): TalkInput {
  const said = words.trim().toLowerCase();
  const choices = last?.choices ?? [];
  const chosen = /^\d{1,2}$/.test(said) ? Number(said) : null;
  if (last && chosen !== null && choices.length > 0) {
    const picked = choices[chosen - 1];
    if (picked && last.say === 'question') return { kind: 'words', text: picked.name };
    if (picked) return { kind: last.say === 'teams' ? 'team' : 'pick', id: picked.id };
    return chosen === choices.length + 1 ? { kind: 'none' } : { kind: 'person' };
  }
  const asksHelped = last?.say === 'article' || last?.say === 'passages';
  if (asksHelped && /^(yes|sim|y|s)\b/.test(said)) return { kind: 'helped', helped: true };
  if (asksHelped && /^(no|não|nao|n)\b/.test(said)) return { kind: 'helped', helped: false };
  if (last?.say === 'confirm' && choices[0] && /^(yes|sim)\b/.test(said))
    return { kind: 'pick', id: choices[0].id };
  return { kind: 'words', text: words.slice(0, 2_000) };
}

/** The assistant answers in the direct talk with Listo, as it does in Ask. */
export async function talkInChat(
  { listo }: Hearing,
  viewer: SignedIn,
  { event, message }: { event: ChatEvent; message: ToldMessage },
): Promise<Became> {
  const actor = { id: viewer.id, idempotencyKey: `${event.id}s` };
  const before: TalkView = await startTalk({ listo, viewer, actor }, false);
  const input = toInput(
    before.turns.findLast(({ by }) => by === 'assistant'),
    message.text,
  );
  const talk = await sayInTalk(
    listo,
    { viewer, actor: { id: viewer.id, idempotencyKey: event.id }, id: before.id },
    { input },
  );
  const fresh = talk.turns.slice(before.turns.length).filter(({ by }) => by === 'assistant');
  const lines = fresh.flatMap((turn) => linesOf(turn, viewer.language, listo.address));
  const number = fresh.find((turn) => turn.number)?.number;
  const formOf = fresh.find((turn) => turn.say === 'form')?.serviceId;
  const actions =
    formOf && (await isFilledInChat(listo, formOf))
      ? [{ id: `fill:${formOf}`, name: sayInChat('fill', viewer.language) }]
      : [];
  if (lines.length > 0)
    await queueChat(listo, undefined, {
      body: { do: 'say', text: lines.join('\n'), forId: null, threadId: null, actions },
      to: { roomId: event.roomId, id: idOf('t', event.id) },
    });
  return { outcome: 'assistant', ...(number && { ticketNumber: number }) };
}
