// Says how much of each part of the source the tests run: called by
// scripts/coverage.sh, after `vitest run --coverage` and `COUNT=1 playwright test` on a build whose source maps were put aside.
import { existsSync, readFileSync, readdirSync } from 'node:fs';
import path from 'node:path';
import { decodedMappings, TraceMap } from '@jridgewell/trace-mapping';

const UNITS = 'tmp/coverage/coverage-final.json';
const RUNS = 'tmp/e2e-coverage';
const CHUNKS = '.next/static/chunks';
const MAPS = '.next/maps';

if (!existsSync(UNITS)) {
  console.error('No coverage was counted; run: npm run coverage');
  process.exit(1);
}

/** By file and line of the source: columns the build knows, and whether the interface tests ran what stands there. */
const seen = new Map();
for (const run of existsSync(RUNS) ? readdirSync(RUNS) : []) {
  const name = run.slice(0, -'.run'.length);
  const script = path.join(CHUNKS, name);
  if (!existsSync(script)) continue;
  const source = readFileSync(script, 'utf8');
  const map = path.join(MAPS, /sourceMappingURL=(\S+)/.exec(source)?.[1] ?? 'none');
  if (!existsSync(map)) continue;
  const hit = readFileSync(path.join(RUNS, run));
  const trace = new TraceMap(readFileSync(map, 'utf8'));
  const files = trace.sources.map((s) => /\[project\]\/(src\/.*)$/.exec(decodeURI(s ?? ''))?.[1] ?? null);
  let start = 0;
  const lines = source.split('\n');
  decodedMappings(trace).forEach((segments, l) => {
    for (const segment of segments) {
      const file = segment.length > 1 ? files[segment[1]] : null;
      if (!file) continue;
      const key = `${file}:${segment[2] + 1}`;
      let columns = seen.get(key);
      if (!columns) seen.set(key, (columns = new Map()));
      if (hit[start + segment[0]] || !columns.has(segment[3])) columns.set(segment[3], Boolean(hit[start + segment[0]]));
    }
    start += (lines[l]?.length ?? 0) + 1;
  });
}

/** Whether the interface tests ran what begins at a place: by the nearest column of its line that the build knows. */
function shown(file, { line, column }) {
  let [best, away] = [false, Infinity];
  for (const [c, hit] of seen.get(`${file}:${line}`) ?? []) if (Math.abs(c - column) < away) [best, away] = [hit, Math.abs(c - column)];
  return best;
}

const parts = new Map();
for (const [name, { statementMap, s }] of Object.entries(JSON.parse(readFileSync(UNITS, 'utf8')))) {
  const file = path.relative('.', name).split(path.sep).join('/');
  const [, part, folder] = file.split('/');
  const keys = [part, `${part}/${folder}`];
  for (const [id, { start }] of Object.entries(statementMap))
    for (const key of keys) {
      const sum = parts.get(key) ?? { total: 0, units: 0, all: 0 };
      parts.set(key, sum);
      sum.total++;
      if (s[id] > 0) sum.units++;
      if (s[id] > 0 || shown(file, start)) sum.all++;
    }
}
const percent = (n, of) => `${((100 * n) / Math.max(1, of)).toFixed(1).padStart(5)} %`;
const wide = process.argv.includes('--folders');
console.log(`${'Statements run by'.padEnd(26)} units     all tests`);
for (const [name, { total, units, all }] of [...parts].sort(([a], [b]) => (a < b ? -1 : 1)))
  if (wide || !name.includes('/')) console.log(`${name.padEnd(24)} ${percent(units, total)}    ${percent(all, total)}  of ${total}`);
