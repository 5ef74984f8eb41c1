/**
 * Attacks a built server on a folder of its own, and prints one table of what came of it.
 * `--short` for a few minutes of it; `--only NAME` for one part.
 */
import { execFileSync } from 'node:child_process';
import { mkdtemp, rm } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { bombs, sizes } from './bombs';
import { disks } from './disk';
import { growth } from './growth';
import { kills } from './kills';
import { changes, files, pictures, zips } from './mutations';
import { old } from './old';
import { strangers } from './strangers';
import { table, type Tally } from './tally';
import { Target } from './target';

const short = process.argv.includes('--short');
const only = process.argv.includes('--only') ? process.argv[process.argv.indexOf('--only') + 1] : null;
const PORT = 3231;

const folder = await mkdtemp(path.join(os.tmpdir(), 'enstegon-attack-'));
execFileSync('npx', ['tsx', 'src/cli/main.ts', 'seed'], { env: { ...process.env, ENSTEGON_DATA: folder }, stdio: 'ignore' });
const target = new Target(folder, PORT);
const parts: Record<string, () => Promise<Tally>> = {
  strangers: () => strangers(target),
  sizes: () => sizes(target, short),
  bombs: () => bombs(target, short),
  changes: () => changes(target, short ? 250 : 2000),
  files: () => files(target, short ? 60 : 2000),
  zips: () => zips(target, short ? 60 : 2000),
  pictures: () => pictures(target, short ? 150 : 2000),
  kills: () => kills(target, short ? 4 : 40),
  growth: () => growth(target, short ? 1500 : 20_000),
  old: () => old(PORT + 3),
  disks: () => disks(PORT + 2),
};
const tallies: Tally[] = [];
try {
  await target.start();
  for (const [name, part] of Object.entries(parts)) {
    if (only && name !== only) continue;
    const begun = Date.now();
    const tally = await part();
    tallies.push(tally);
    console.error(`${tally.good ? 'held' : 'DID NOT HOLD'}: ${tally.name}, ${Math.round((Date.now() - begun) / 1000)} s`);
    if (!target.running) throw new Error(`The server is gone: ${target.said}`);
  }
} finally {
  await target.stop();
  if (process.argv.includes('--said')) console.error(target.said);
  await rm(folder, { recursive: true, force: true });
}
console.log(table(tallies, target.peak));
const failed = tallies.filter((t) => !t.good).length;
process.exitCode = failed ? 1 : 0;
