// Says how much of each part the unit tests run: node scripts/coverage.mjs, after vitest run --coverage.
import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';

const file = 'tmp/coverage/coverage-summary.json';
if (!existsSync(file)) {
  console.error('No coverage was counted; run: npx vitest run --coverage');
  process.exit(1);
}
const { total: _, ...files } = JSON.parse(readFileSync(file, 'utf8'));
const parts = new Map();
for (const [name, { statements }] of Object.entries(files)) {
  const [, part, folder] = path.relative('.', name).split(path.sep);
  for (const key of part === 'core' || part === 'studio' ? [part, `${part}/${folder}`] : [part]) {
    const sum = parts.get(key) ?? { total: 0, covered: 0 };
    sum.total += statements.total;
    sum.covered += statements.covered;
    parts.set(key, sum);
  }
}
const say = ([name, { total, covered }]) => `${name.padEnd(24)} ${((100 * covered) / Math.max(1, total)).toFixed(1).padStart(5)} %  of ${total}`;
const rows = [...parts].sort(([a], [b]) => (a < b ? -1 : 1));
const wide = process.argv.includes('--folders');
console.log(
  `Statements that unit tests run:\n${rows
    .filter(([name]) => wide || !name.includes('/'))
    .map(say)
    .join('\n')}`,
);
