import type { Language, LocalText } from '../forms';
import { fillBlanks } from '../text';

/** Everything that Listo writes by mail. */
export const MAIL_TEMPLATES = [
  'ask',
  'askAgain',
  'raisedFor',
  'answered',
  'held',
  'decided',
  'done',
  'reopened',
  'withdrawn',
  'questioned',
  'late',
  'slipTold',
  'noticeTold',
  'problemSolved',
  'received',
  'mayAnswer',
  'leftOpen',
  'unclear',
  'alreadyDecided',
  'refused',
  'notProven',
  'invited',
  'forgotten',
] as const;
/** A mail that leaves by itself. */
export type MailTemplate = (typeof MAIL_TEMPLATES)[number];

/** A subject and a text, with blanks in braces. */
export type MailText = { subject: string; text: string };
/** The same mail in every language. */
export type MailTexts = Record<Language, MailText>;

/** What may stand in the blanks. */
export const MAIL_BLANKS = [
  'number',
  'title',
  'who',
  'words',
  'service',
  'requester',
  'facts',
  'cost',
  'promised',
  'link',
  'name',
] as const;
/** What the blanks of a mail are filled with. */
export type MailBlanks = Partial<Record<(typeof MAIL_BLANKS)[number], string>>;

const t = (subject: LocalText, en: string, pt: string): MailTexts => ({
  en: { subject: subject.en, text: en },
  pt: { subject: subject.pt, text: pt },
});
const same = (subject: string): LocalText => ({ en: subject, pt: subject });

/** The texts that there are to begin with; each can be written anew. */
export const DEFAULT_MAIL_TEXTS: Record<MailTemplate, MailTexts> = {
  ask: t(
    { en: '[{number}] Please decide: {title}', pt: '[{number}] Por favor decida: {title}' },
    'Hello {name},\n\n{requester} asks for “{service}”: {title}\n\n{facts}\n{cost}\n\nAnswer this mail with “yes”, or with “no” and why. Or decide here:\n{link}',
    'Olá {name},\n\n{requester} pede “{service}”: {title}\n\n{facts}\n{cost}\n\nResponda a este correio com “sim”, ou com “não” e porquê. Ou decida aqui:\n{link}',
  ),
  askAgain: t(
    {
      en: '[{number}] Still waits for your decision: {title}',
      pt: '[{number}] Ainda espera pela sua decisão: {title}',
    },
    'Hello {name},\n\na reminder: {requester} asks for “{service}”, and it waits for your word: {title}\n\n{facts}\n{cost}\n\nAnswer this mail with “yes”, or with “no” and why. Or decide here:\n{link}',
    'Olá {name},\n\num lembrete: {requester} pede “{service}”, e espera pela sua palavra: {title}\n\n{facts}\n{cost}\n\nResponda a este correio com “sim”, ou com “não” e porquê. Ou decida aqui:\n{link}',
  ),
  raisedFor: t(
    same('[{number}] {title}'),
    'Hello {name},\n\n{who} has raised this for you. It is number {number}.\n\n{link}',
    'Olá {name},\n\n{who} pediu isto em seu nome. É o número {number}.\n\n{link}',
  ),
  answered: t(
    same('[{number}] {title}'),
    '{who} writes:\n\n{words}\n\nAnswer this mail, or here:\n{link}',
    '{who} escreve:\n\n{words}\n\nResponda a este correio, ou aqui:\n{link}',
  ),
  held: t(
    same('[{number}] {title}'),
    'Your request waits.\n\n{words}\n\nAnswer this mail, or here:\n{link}',
    'O seu pedido espera.\n\n{words}\n\nResponda a este correio, ou aqui:\n{link}',
  ),
  decided: t(
    same('[{number}] {title}'),
    '{who} has decided: {words}\n\n{link}',
    '{who} decidiu: {words}\n\n{link}',
  ),
  done: t(
    same('[{number}] {title}'),
    'It is done. {words}\n\nIs it as it should be? Say so here, or answer this mail if it is not:\n{link}',
    'Está feito. {words}\n\nEstá como deve ser? Diga-o aqui, ou responda a este correio se não estiver:\n{link}',
  ),
  reopened: t(
    same('[{number}] {title}'),
    'It has been opened again.\n\n{link}',
    'Foi aberto de novo.\n\n{link}',
  ),
  withdrawn: t(
    same('[{number}] {title}'),
    '{who} has withdrawn it. {words}\n\n{link}',
    '{who} retirou-o. {words}\n\n{link}',
  ),
  questioned: t(
    same('[{number}] {title}'),
    '{who} would like to know, before deciding:\n\n{words}\n\nAnswer this mail, or here:\n{link}',
    '{who} gostaria de saber, antes de decidir:\n\n{words}\n\nResponda a este correio, ou aqui:\n{link}',
  ),
  late: t(
    { en: '[{number}] Past due: {title}', pt: '[{number}] Fora do prazo: {title}' },
    '“{title}” is past due: {words}\n\n{link}',
    '“{title}” passou do prazo: {words}\n\n{link}',
  ),
  slipTold: t(
    { en: '[{number}] Later than promised: {title}', pt: '[{number}] Mais tarde do que prometido: {title}' },
    'Hello {name},\n\nthis will be done later than we promised. As things stand now: {promised}.\n\n{link}',
    'Olá {name},\n\nisto fica pronto mais tarde do que prometemos. Como está agora: {promised}.\n\n{link}',
  ),
  noticeTold: t(
    same('{title}'),
    'Hello {name},\n\n{words}\n\n{link}\n\nYou read this because you have told us of it or follow it. There is nothing to do.',
    'Olá {name},\n\n{words}\n\n{link}\n\nRecebe isto porque nos avisou ou porque segue este assunto. Nada tem de fazer.',
  ),
  problemSolved: t(
    same('[{number}] {title}'),
    'Hello {name},\n\nthe cause of what you reported has been found and mended. {words}\n\n{link}',
    'Olá {name},\n\na causa do que nos comunicou foi encontrada e resolvida. {words}\n\n{link}',
  ),
  received: t(
    same('[{number}] {title}'),
    'Hello {name},\n\nthank you. Your message is number {number}; you read here how it goes on:\n{link}',
    'Olá {name},\n\nobrigado. A sua mensagem tem o número {number}; aqui vê como continua:\n{link}',
  ),
  unclear: t(
    { en: '[{number}] Yes or no? {title}', pt: '[{number}] Sim ou não? {title}' },
    'Hello {name},\n\nwe could not tell from your answer whether you agree, so nothing is decided. What you wrote stands on the request as a question.\n\nPlease write “yes” alone, or “no” followed by why, above this line. Or decide here:\n{link}',
    'Olá {name},\n\nnão percebemos pela sua resposta se concorda, por isso nada está decidido. O que escreveu ficou no pedido como pergunta.\n\nEscreva só “sim”, ou “não” seguido do porquê, acima desta linha. Ou decida aqui:\n{link}',
  ),
  alreadyDecided: t(
    { en: '[{number}] Already decided: {title}', pt: '[{number}] Já decidido: {title}' },
    'Hello {name},\n\nthis has been decided already: {words}\nYour answer has changed nothing.\n\n{link}',
    'Olá {name},\n\nisto já foi decidido: {words}\nA sua resposta não mudou nada.\n\n{link}',
  ),
  leftOpen: t(
    { en: 'Did you find what you needed?', pt: 'Encontrou o que precisava?' },
    'Hello {name},\n\nAn hour ago you left a conversation with the assistant open. Say there whether it helped, or go on where you were:\n{link}\n\nWithout a word it closes in an hour.',
    'Olá {name},\n\nHá uma hora deixou aberta uma conversa com o assistente. Diga lá se ajudou, ou continue onde estava:\n{link}\n\nSem uma palavra, fecha dentro de uma hora.',
  ),
  mayAnswer: t(
    same('[{number}] {title}'),
    'Hello {name},\n\nthis is number {number}, and people look at it. It may be answered at once by what we have written on it:\n\n{facts}\n\nIf that was it, answer this mail with “solved”, and nobody has to look any more. Otherwise there is nothing to do.\n\n{link}\n\n(Found by Listo’s assistant.)',
    'Olá {name},\n\nisto é o número {number}, e há quem esteja a vê-lo. Talvez o que temos escrito sobre isto já responda:\n\n{facts}\n\nSe era isso, responda a este correio com “resolvido”, e ninguém precisa de continuar. Se não, nada tem de fazer.\n\n{link}\n\n(Encontrado pelo assistente da Listo.)',
  ),
  notProven: t(
    { en: '[{number}] Please say it there: {title}', pt: '[{number}] Por favor diga-o lá: {title}' },
    'Hello {name},\n\nan answer has come from your address, and we cannot tell whether it is from you. Nothing is decided. Please decide here:\n{link}',
    'Olá {name},\n\nchegou uma resposta do seu endereço, e não sabemos se é sua. Nada está decidido. Por favor decida aqui:\n{link}',
  ),
  invited: t(
    { en: 'Come in: {title}', pt: 'Pode entrar: {title}' },
    'Hello {name},\n\n{who} has made a place for you at {title}. Choose a password of your own here, and you are in:\n{link}\n\nThe link is for you alone, works once and ends after seven days.',
    'Olá {name},\n\n{who} abriu-lhe lugar em {title}. Escolha aqui a sua palavra-passe, e está dentro:\n{link}\n\nA ligação é só para si, serve uma vez e acaba ao fim de sete dias.',
  ),
  forgotten: t(
    { en: 'Another password for {title}', pt: 'Outra palavra-passe para {title}' },
    'Hello {name},\n\nsomebody has said that you forgot your password. If that was you, choose another one here:\n{link}\n\nThe link works once and ends after an hour. If it was not you, there is nothing to do: your password is still good.',
    'Olá {name},\n\nalguém disse que se esqueceu da palavra-passe. Se foi você, escolha aqui outra:\n{link}\n\nA ligação serve uma vez e acaba ao fim de uma hora. Se não foi, nada tem de fazer: a sua palavra-passe continua a servir.',
  ),
  refused: t(
    { en: 'Not taken in: {title}', pt: 'Não recebido: {title}' },
    'Hello {name},\n\nyour message could not be taken in: {words}\n\n{link}',
    'Olá {name},\n\na sua mensagem não pôde ser recebida: {words}\n\n{link}',
  ),
};

/** Lines whose blanks are empty say nothing: they go, and so do the gaps that they leave. */
function tidy(text: string): string {
  return text
    .replace(/[ \t]+$/gm, '')
    .replace(/\n{3,}/g, '\n\n')
    .trim();
}

/**
 * A mail in someone's language with its blanks filled. What is not known leaves nothing behind; a line break in a
 * subject becomes a space.
 */
export function writeMail(texts: MailTexts, language: Language, blanks: MailBlanks): MailText {
  const filled = { ...Object.fromEntries(MAIL_BLANKS.map((name) => [name, ''])), ...blanks };
  const { subject, text } = texts[language];
  return {
    subject: fillBlanks(subject, filled).replace(/\s+/g, ' ').trim().slice(0, 200),
    text: tidy(fillBlanks(text, filled)),
  };
}

const ESCAPES: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
const escapeHtml = (text: string): string => text.replace(/[&<>"]/g, (sign) => ESCAPES[sign]!);

/** The same mail for programs that show HTML: paragraphs, and addresses that lead somewhere. */
export function toHtml(text: string): string {
  const paragraphs = text.split(/\n{2,}/).map((paragraph) =>
    escapeHtml(paragraph)
      .replace(/https?:\/\/[^\s<]+/g, (url) => `<a href="${url}">${url}</a>`)
      .replace(/\n/g, '<br>'),
  );
  const body = paragraphs.map((paragraph) => `<p>${paragraph}</p>`).join('\n');
  return `<!doctype html><html><body style="font-family: sans-serif; color: #1b2430">\n${body}\n</body></html>`;
}
