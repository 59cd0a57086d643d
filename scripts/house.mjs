// Prints how readable the house is: lengths of lines, functions and files, circles, comments, and where tests
// are.
import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import { dirname, join, normalize } from 'node:path';
import ts from 'typescript';

const longLine = 110;
const longFunction = 60;
const longFile = 300;

const isTest = (file) => /\.test\.tsx?$/.test(file) || file.startsWith('tests/');
const files = execFileSync(
  'git',
  ['ls-files', '-co', '--exclude-standard', '*.ts', '*.tsx', '*.mjs', '*.astro', '*.css'],
  { encoding: 'utf8' },
)
  .split('\n')
  .filter((file) => file !== '' && existsSync(file));
const source = new Map(files.map((file) => [file, readFileSync(file, 'utf8')]));
const parsed = new Map(
  files
    .filter((file) => /\.tsx?$/.test(file))
    .map((file) => [
      file,
      ts.createSourceFile(
        file,
        source.get(file),
        ts.ScriptTarget.Latest,
        true,
        file.endsWith('x') ? ts.ScriptKind.TSX : ts.ScriptKind.TS,
      ),
    ]),
);

const share = (part, whole) => `${((100 * part) / whole).toFixed(1)} %`;
const areaOf = (file) =>
  file.startsWith('src/')
    ? file
        .split('/')
        .slice(
          0,
          file.startsWith('src/core') || file.startsWith('src/views') || file.startsWith('src/services')
            ? 2
            : 2,
        )
        .join('/')
    : file.split('/')[0];

/** Lines that are not blank; of those, comments. */
function linesOf(file) {
  const all = source.get(file).split('\n');
  const filled = all.filter((line) => line.trim() !== '');
  const comments = filled.filter((line) => /^\s*(\/\/|\/\*|\*)/.test(line));
  return {
    all: all.length - 1,
    filled,
    comments: comments.length,
    code: filled.filter((line) => !/^\s*(\/\/|\/\*|\*)/.test(line)),
  };
}

function functionsOver(tree, most) {
  const found = [];
  const visit = (node) => {
    if (ts.isFunctionLike(node) && node.body) {
      const [from, to] = [node.getStart(), node.end].map((at) => tree.getLineAndCharacterOfPosition(at).line);
      if (to - from + 1 > most)
        found.push({
          name: node.name?.getText() ?? node.parent.name?.getText?.() ?? '(unnamed)',
          lines: to - from + 1,
          at: from + 1,
        });
    }
    ts.forEachChild(node, visit);
  };
  visit(tree);
  return found;
}

function exportsWithoutComment(tree) {
  let [all, bare] = [0, 0];
  for (const node of tree.statements) {
    if (!node.modifiers?.some(({ kind }) => kind === ts.SyntaxKind.ExportKeyword)) continue;
    all += 1;
    if (!ts.getJSDocCommentsAndTags(node).length) bare += 1;
  }
  return { all, bare };
}

/** Files that import each other in circles, with types counted: groups of more than one. */
function circles() {
  const edges = new Map();
  for (const [file, tree] of parsed) {
    const to = [];
    for (const { fileName } of ts.preProcessFile(tree.text, true, true).importedFiles) {
      if (!fileName.startsWith('.')) continue;
      const base = normalize(join(dirname(file), fileName));
      const hit = [base, `${base}.ts`, `${base}.tsx`, `${base}/index.ts`].find((each) => parsed.has(each));
      if (hit) to.push(hit);
    }
    edges.set(file, to);
  }
  let count = 0;
  const [index, low, stack, on, groups] = [new Map(), new Map(), [], new Set(), []];
  const visit = (file) => {
    index.set(file, count);
    low.set(file, count++);
    stack.push(file);
    on.add(file);
    for (const to of edges.get(file)) {
      if (!index.has(to)) {
        visit(to);
        low.set(file, Math.min(low.get(file), low.get(to)));
      } else if (on.has(to)) low.set(file, Math.min(low.get(file), index.get(to)));
    }
    if (low.get(file) !== index.get(file)) return;
    const group = [];
    for (;;) {
      const each = stack.pop();
      on.delete(each);
      group.push(each);
      if (each === file) break;
    }
    if (group.length > 1) groups.push(group);
  };
  for (const file of edges.keys()) if (!index.has(file)) visit(file);
  return groups;
}

const verbose = process.argv.includes('--all');
const areas = new Map();
let [lines, code, length, over, comments, tests] = [0, 0, 0, 0, 0, 0];
for (const file of files) {
  const { all, filled, comments: commented, code: own } = linesOf(file);
  lines += all;
  if (isTest(file)) tests += all;
  code += own.length;
  length += own.reduce((sum, line) => sum + line.length, 0);
  over += filled.filter((line) => line.length > longLine).length;
  comments += commented;
  const area = areas.get(areaOf(file)) ?? { lines: 0, tests: 0, code: 0, length: 0, over: 0, filled: 0 };
  area[isTest(file) ? 'tests' : 'lines'] += all;
  area.code += own.length;
  area.filled += filled.length;
  area.length += own.reduce((sum, line) => sum + line.length, 0);
  area.over += filled.filter((line) => line.length > longLine).length;
  areas.set(areaOf(file), area);
}
const written = [...parsed].filter(([file]) => !isTest(file));
const functions = written.flatMap(([file, tree]) =>
  functionsOver(tree, longFunction).map((each) => ({ file, ...each })),
);
const long = files.filter((file) => !isTest(file) && linesOf(file).all > longFile);
const bare = written.reduce(
  (sum, [, tree]) => {
    const each = exportsWithoutComment(tree);
    return { all: sum.all + each.all, bare: sum.bare + each.bare };
  },
  { all: 0, bare: 0 },
);
const groups = circles();
const unitTests = files.filter((file) => isTest(file)).length;

console.log(
  `lines                         ${lines}, of which tests ${share(tests, lines)} (${unitTests} files)`,
);
console.log(`mean length of a line of code ${(length / code).toFixed(1)}`);
console.log(`lines over ${longLine}                ${over}, ${share(over, code + comments)}`);
console.log(`comments                      ${share(comments, code + comments)}`);
console.log(`functions over ${longFunction} lines       ${functions.length}`);
console.log(`files over ${longFile} lines          ${long.length}`);
console.log(`circles with types            ${groups.length}, ${groups.flat().length} files in them`);
console.log(`exports without a comment     ${bare.bare} of ${bare.all}`);
console.log('\narea                 lines   tests  mean length  long lines');
for (const [name, each] of [...areas].sort((a, b) => b[1].lines - a[1].lines))
  console.log(
    `${name.padEnd(18)} ${String(each.lines).padStart(7)} ${share(each.tests, each.lines + each.tests).padStart(7)} ${(each.length / each.code).toFixed(1).padStart(12)} ${share(each.over, each.filled).padStart(11)}`,
  );
if (verbose) {
  console.log('\nfunctions');
  for (const { file, name, lines: count, at } of functions.sort((a, b) => b.lines - a.lines))
    console.log(`  ${count}  ${name}  ${file}:${at}`);
  console.log('\nfiles');
  for (const file of long) console.log(`  ${linesOf(file).all}  ${file}`);
  console.log('\ncircles');
  for (const group of groups) console.log(`  ${group.join('  ')}`);
}
