import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { TOLD_EVENTS } from '../../core/telling';
import { PROBLEMS } from '../../server/http/problems';
import { en } from './en';
import { pt } from './pt';
import { movingEn } from './moving.en';
import { movingPt } from './moving.pt';
import { planEn } from './plan.en';
import { planPt } from './plan.pt';
import { mailEn } from './mail.en';
import { mailPt } from './mail.pt';
import { listsEn } from './lists.en';
import { listsPt } from './lists.pt';
import { deskWordsEn } from './desk.en';
import { deskWordsPt } from './desk.pt';
import { wordsEn } from './words.en';
import { wordsPt } from './words.pt';
import { assistantEn } from './assistant.en';
import { assistantPt } from './assistant.pt';
import { knowledgeEn } from './knowledge.en';
import { knowledgePt } from './knowledge.pt';
import { proceduresEn } from './procedures.en';
import { proceduresPt } from './procedures.pt';
import { importsEn } from './imports.en';
import { importsPt } from './imports.pt';
import { todayEn } from './today.en';
import { todayPt } from './today.pt';
import { roomsEn } from './rooms.en';
import { roomsPt } from './rooms.pt';
import { talkEn } from './talk.en';
import { talkPt } from './talk.pt';
import { measuresEn } from './measures.en';
import { measuresPt } from './measures.pt';
import { servicesEn } from './services.en';
import { servicesPt } from './services.pt';
import { noticesEn } from './notices.en';
import { noticesPt } from './notices.pt';
import { boardsEn } from './boards.en';
import { boardsPt } from './boards.pt';
import { worksEn } from './works.en';
import { worksPt } from './works.pt';
import { causesEn } from './causes.en';
import { causesPt } from './causes.pt';
import { estateEn } from './estate.en';
import { estatePt } from './estate.pt';
import { rulesEn } from './rules.en';
import { rulesPt } from './rules.pt';
import { setupEn } from './setup.en';
import { setupPt } from './setup.pt';
import { signOnEn } from './signOn.en';
import { signOnPt } from './signOn.pt';
import { peopleEn } from './people.en';
import { peoplePt } from './people.pt';
import { programsEn } from './programs.en';
import { runningEn } from './running.en';
import { runningPt } from './running.pt';
import { programsPt } from './programs.pt';
import { recordsEn } from './records.en';
import { recordsPt } from './records.pt';
import { workshopEn } from './workshop.en';
import { workshopPt } from './workshop.pt';

type Tree = { [key: string]: string | Tree };

function flatten(tree: Tree, prefix = ''): Map<string, string> {
  return new Map(
    Object.entries(tree).flatMap(([key, value]) =>
      typeof value === 'string'
        ? [[`${prefix}${key}`, value] as const]
        : [...flatten(value, `${prefix}${key}/`)],
    ),
  );
}
const english = flatten({
  ...en,
  people: peopleEn,
  setup: setupEn,
  rules: rulesEn,
  programs: programsEn,
  signOn: signOnEn,
  running: runningEn,
  records: recordsEn,
  estate: estateEn,
  notices: noticesEn,
  boards: boardsEn,
  works: worksEn,
  causes: causesEn,
  workshop: workshopEn,
  moving: movingEn,
  plan: planEn,
  services: servicesEn,
  mail: mailEn,
  lists: listsEn,
  today: todayEn,
  imports: importsEn,
  assistant: assistantEn,
  knowledge: knowledgeEn,
  procedures: proceduresEn,
  words: wordsEn,
  rooms: roomsEn,
  measures: measuresEn,
  talk: talkEn,
  ...deskWordsEn,
});
const portuguese = flatten({
  ...pt,
  people: peoplePt,
  setup: setupPt,
  rules: rulesPt,
  programs: programsPt,
  signOn: signOnPt,
  running: runningPt,
  records: recordsPt,
  estate: estatePt,
  notices: noticesPt,
  boards: boardsPt,
  works: worksPt,
  causes: causesPt,
  workshop: workshopPt,
  moving: movingPt,
  plan: planPt,
  services: servicesPt,
  mail: mailPt,
  lists: listsPt,
  today: todayPt,
  imports: importsPt,
  assistant: assistantPt,
  knowledge: knowledgePt,
  procedures: proceduresPt,
  words: wordsPt,
  rooms: roomsPt,
  measures: measuresPt,
  talk: talkPt,
  ...deskWordsPt,
});

test('both languages have the same keys, the same blanks, and no empty word', () => {
  expect([...portuguese.keys()]).toEqual([...english.keys()]);
  for (const [key, text] of english) {
    const blanks = (words: string): string[] => [...new Set(words.match(/\{\{\w+\}\}/g) ?? [])].sort();
    expect([key, blanks(portuguese.get(key)!)]).toEqual([key, blanks(text)]);
    expect(text.trim()).not.toBe('');
  }
});

test('every problem and told event has words', () => {
  for (const name of Object.keys(PROBLEMS)) expect(english.has(`problems/${name}`)).toBe(true);
  for (const event of TOLD_EVENTS) expect(english.has(`told/${event}`)).toBe(true);
});

test('every key that a page asks for is in the catalogue', () => {
  const root = path.resolve(import.meta.dirname, '..');
  const files = readdirSync(root, { recursive: true, encoding: 'utf8' }).filter(
    (file) => /\.tsx?$/.test(file) && !file.includes('.test.'),
  );
  const known = (key: string): boolean => english.has(key) || english.has(`${key}_one`);
  const missing = files.flatMap((file) => {
    const source = readFileSync(path.join(root, file), 'utf8');
    const keys = [...source.matchAll(/\bt\('([\w./]+)'/g)].map(([, key]) => key!);
    return keys.filter((key) => !known(key)).map((key) => `${file}: ${key}`);
  });
  expect(missing).toEqual([]);
});
