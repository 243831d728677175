import { readdirSync, readFileSync, existsSync, statSync } from 'node:fs';
import path from 'node:path';
import ts from 'typescript';
import { FLOORS } from './floors.mjs';
import { ROOT } from './ready.mjs';
import { say } from './say.mjs';

/**
 * Measures how the house stands: what imports what, how long things are, how much of the code is tests. Prints each
 * figure with its limit, and ends with 1 where one is passed.
 */
const FOLDERS = ['core', 'contract', 'server', 'web', 'demo', 'e2e'];
const isTest = (file) =>
  /\.test\.tsx?$/.test(file) ||
  (file.startsWith('e2e/') && file !== 'e2e/screenshots.ts') ||
  /\/(testing|attacks)\//.test(file);

function listFiles(folder) {
  return readdirSync(path.join(ROOT, folder), { recursive: true })
    .map((name) => path.join(folder, name))
    .filter((file) => /\.tsx?$/.test(file) && !file.endsWith('.d.ts'));
}

const sources = new Map(
  FOLDERS.flatMap(listFiles).map((file) => {
    const text = readFileSync(path.join(ROOT, file), 'utf8');
    return [file, ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true)];
  }),
);
const code = [...sources].filter(([file]) => !isTest(file));

/** Whether an import or export brings something that is there at run time. */
function isByValue(node) {
  if (ts.isExportDeclaration(node)) return !node.isTypeOnly;
  const clause = node.importClause;
  if (!clause) return true;
  if (clause.isTypeOnly) return false;
  const { namedBindings: named } = clause;
  return (
    clause.name !== undefined ||
    !named ||
    !ts.isNamedImports(named) ||
    named.elements.length === 0 ||
    named.elements.some(({ isTypeOnly }) => !isTypeOnly)
  );
}

/** The file that a relative import means. */
function resolve(from, name) {
  const base = path.join(path.dirname(from), name);
  return [base, `${base}.ts`, `${base}.tsx`, `${base}/index.ts`].find(
    (file) =>
      sources.has(file) && existsSync(path.join(ROOT, file)) && statSync(path.join(ROOT, file)).isFile(),
  );
}

/** What each file imports by value, at once and not only when it is wanted. */
const imports = new Map(
  code.map(([file, source]) => [
    file,
    source.statements
      .filter(
        (node) => (ts.isImportDeclaration(node) || ts.isExportDeclaration(node)) && node.moduleSpecifier,
      )
      .filter(isByValue)
      .map(({ moduleSpecifier }) => moduleSpecifier.text)
      .filter((name) => name.startsWith('.'))
      .map((name) => resolve(file, name))
      .filter(Boolean),
  ]),
);

/** The parts that lead back to themselves (Tarjan's strongly connected components), each as its members. */
function findRings(edges) {
  const seen = new Map();
  const low = new Map();
  const stack = [];
  const rings = [];
  let count = 0;
  const visit = (node) => {
    seen.set(node, count);
    low.set(node, count++);
    stack.push(node);
    for (const next of edges.get(node) ?? []) {
      if (!seen.has(next)) {
        visit(next);
        low.set(node, Math.min(low.get(node), low.get(next)));
      } else if (stack.includes(next)) low.set(node, Math.min(low.get(node), seen.get(next)));
    }
    if (low.get(node) !== seen.get(node)) return;
    const ring = stack.splice(stack.indexOf(node));
    if (ring.length > 1) rings.push(ring);
  };
  for (const node of edges.keys()) if (!seen.has(node)) visit(node);
  return rings;
}

/** The subject of the server that a file belongs to; null for what stands beside them, which puts them together. */
const subjectOf = (file) => /^server\/([^/]+)\//.exec(file)?.[1] ?? null;
const floorOf = (file) => {
  const subject = subjectOf(file);
  if (subject === null) return FLOORS.beside[path.basename(file, '.ts')] ?? FLOORS.composition;
  return FLOORS.subjects[subject];
};

const unknown = [...new Set(code.map(([file]) => subjectOf(file)).filter(Boolean))].filter(
  (subject) => FLOORS.subjects[subject] === undefined,
);
const climbing = [...imports]
  .filter(([file]) => file.startsWith('server/'))
  .flatMap(([file, targets]) =>
    targets
      .filter((target) => target.startsWith('server/') && floorOf(target) > floorOf(file))
      .map((target) => `${file} (${floorOf(file)}) → ${target} (${floorOf(target)})`),
  );

const fileRings = findRings(imports);
/** A subject; what stands beside the server's subjects is one for itself. */
const folderOf = (file) => (path.dirname(file) === 'server' ? file : path.dirname(file));
const folders = new Map();
for (const [file, targets] of imports) {
  const folder = folderOf(file);
  const others = targets.map(folderOf).filter((target) => target !== folder);
  folders.set(folder, new Set([...(folders.get(folder) ?? []), ...others]));
}
const folderRings = findRings(new Map([...folders].map(([folder, targets]) => [folder, [...targets]])));

const FUNCTIONS = new Set([
  ts.SyntaxKind.FunctionDeclaration,
  ts.SyntaxKind.FunctionExpression,
  ts.SyntaxKind.ArrowFunction,
  ts.SyntaxKind.MethodDeclaration,
  ts.SyntaxKind.Constructor,
]);
const COMPONENT_LINES = 110;
const FUNCTION_LINES = 60;
const MOST_ARGUMENTS = 3;
const FILE_LINES = 450;

const nameOf = (node) =>
  node.name?.getText() ??
  (node.parent && ts.isVariableDeclaration(node.parent) ? node.parent.name.getText() : '');
const isComponent = (file, name) => file.endsWith('.tsx') && /^[A-Z]/.test(name);

const long = { functions: [], components: [], args: [] };
for (const [file, source] of code) {
  const lineOf = (position) => source.getLineAndCharacterOfPosition(position).line;
  const look = (node) => {
    if (FUNCTIONS.has(node.kind) && node.body) {
      const lines = lineOf(node.end) - lineOf(node.getStart()) + 1;
      const name = nameOf(node);
      const at = `${file}:${lineOf(node.getStart()) + 1} ${name}`;
      if (isComponent(file, name)) {
        if (lines > COMPONENT_LINES) long.components.push(`${at} ${lines}`);
      } else if (lines > FUNCTION_LINES) long.functions.push(`${at} ${lines}`);
      if (file.startsWith('server/') && node.parameters.length > MOST_ARGUMENTS)
        long.args.push(`${at} ${node.parameters.length}`);
    }
    ts.forEachChild(node, look);
  };
  look(source);
}
const longFiles = [...sources]
  .map(([file, source]) => [file, source.text.split('\n').length - 1])
  .filter(([, lines]) => lines > FILE_LINES)
  .map(([file, lines]) => `${file} ${lines}`);

/** What core and contract give to others without a word on what it is. */
const undocumented = code
  .filter(([file]) => /^(core|contract)\//.test(file))
  .flatMap(([file, source]) =>
    source.statements
      .filter((node) => ts.canHaveModifiers(node))
      .filter((node) => ts.getModifiers(node)?.some(({ kind }) => kind === ts.SyntaxKind.ExportKeyword))
      .filter((node) => ts.getJSDocCommentsAndTags(node).length === 0)
      .map((node) => {
        const name = node.name?.getText() ?? node.declarationList?.declarations[0]?.name.getText() ?? '';
        return `${file} ${name}`;
      }),
  );

const linesOf = (source) => source.text.split('\n').filter((line) => line.trim() !== '').length;
const total = { tests: 0, all: 0 };
for (const [file, source] of sources) {
  total.all += linesOf(source);
  if (isTest(file)) total.tests += linesOf(source);
}
const share = (100 * total.tests) / total.all;

/** [what, how many, the most there may be, which]. Where that is not none, it is what there was: it only goes down. */
const FIGURES = [
  ['subjects without a floor', unknown.length, 0, unknown],
  ['climbing imports', climbing.length, 0, climbing],
  ['rings of folders', folderRings.length, 0, folderRings.map((ring) => ring.join(', '))],
  ['rings of files', fileRings.length, 0, fileRings.map((ring) => ring.join(', '))],
  [`functions over ${FUNCTION_LINES} lines`, long.functions.length, 34, long.functions],
  [`functions of the server with over ${MOST_ARGUMENTS} arguments`, long.args.length, 2, long.args],
  [`components over ${COMPONENT_LINES} lines`, long.components.length, 27, long.components],
  [`files over ${FILE_LINES} lines`, longFiles.length, 0, longFiles],
  ['undocumented exports of core and contract', undocumented.length, 0, undocumented],
];
const isTold = process.argv.includes('--all');
let isWrong = false;
for (const [what, count, most, which] of FIGURES) {
  isWrong ||= count > most;
  say(`${String(count).padStart(6)}  ${what}${most > 0 ? ` (at most ${most})` : ''}`);
  if (isTold) for (const each of which) say(`          ${each}`);
}
/** As much of the code is tests at least; it only goes up. */
const LEAST_TESTS = 20;
isWrong ||= share < LEAST_TESTS;
say(`${share.toFixed(1).padStart(6)}  % of the code is tests (at least ${LEAST_TESTS})`);
process.exit(isWrong ? 1 : 0);
