// Says which paths that the documents name are not there: a newcomer follows them.
import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';

const documents = execFileSync('git', ['ls-files', '*.md'], { encoding: 'utf8' }).trim().split('\n');
const wrong = documents.flatMap((document) => {
  const text = readFileSync(document, 'utf8');
  const named = [...text.matchAll(/`((?:src|scripts|docs|tests|demo|bin|public)\/[\w./-]+)`/g)]
    .map(([, path]) => path)
    .filter((path) => !existsSync(path));
  const linked = [...text.matchAll(/\]\(([^)#:]+)(?:#[^)]*)?\)/g)]
    .map(([, path]) => path)
    .filter((path) => !existsSync(join(dirname(document), path)));
  return [...named, ...linked].map((path) => `${document}: ${path}`);
});
if (wrong.length > 0) {
  console.error(`Paths in documents that are not there:\n${wrong.join('\n')}`);
  process.exit(1);
}
