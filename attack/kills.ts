import { applyPatches, enablePatches, type Patch } from 'immer';
import { writePng } from '../src/core/formats/png';
import { contentHash } from '../src/core/formats/project-file/project-file';
import { emptyProject, type Project } from '../src/core/project/schema';
import { Chance } from './chance';
import { Tally } from './tally';
import { jsonOf, type Target } from './target';

enablePatches();

interface Log {
  id: string;
  /** Ids of changes that were acknowledged, by their number. */
  kept: Map<number, string>;
  seq: number;
}

/** Kills the server in the middle of edits and uploads, again and again, and looks for what it had acknowledged. */
export async function kills(target: Target, rounds: number): Promise<Tally> {
  const tally = new Tally(`killed ${rounds} times under load`);
  const chance = new Chance(40);
  const logs: Log[] = [];
  for (let i = 0; i < 3; i++) logs.push({ id: await target.newProject(`Killed ${i}`), kept: new Map(), seq: 0 });
  const pictures: string[] = [];
  let number = 0;
  for (let round = 0; round < rounds; round++) {
    let doomed = false;
    const edit = async (log: Log): Promise<void> => {
      while (!doomed) {
        const changes = Array.from({ length: 1 + chance.below(3) }, () => ({
          id: `kill${String(number++).padStart(7, '0')}`,
          kind: 'do',
          ...(chance.below(3)
            ? { command: 'project.rename', args: { name: `Name ${number}` } }
            : {
                command: 'wall.draw',
                args: {
                  level: 'ground',
                  points: [0, 1].map((k) => ({ x: (number % 80) * 3 + k * 2, y: (Math.floor(number / 80) % 50) * 4 })),
                  closed: false,
                  thickness: 0.1,
                },
              }),
        }));
        const answer = await target.json(`/api/projects/${log.id}/changes`, { base: log.seq, changes });
        const said = jsonOf<{ ok: boolean; seq: number; changes?: { id: string; seq: number }[] }>(answer);
        if (answer.status === 200 && said?.ok) {
          changes.forEach((c, i) => log.kept.set(said.seq - changes.length + 1 + i, c.id));
          log.seq = said.seq;
        } else if (answer.status === 409 && said) log.seq = said.seq;
        else if (answer.status !== 0) tally.count(answer, 'edit under load');
      }
    };
    const upload = async (): Promise<void> => {
      while (!doomed) {
        const png = writePng(
          Uint8Array.from({ length: 64 * 64 * 4 }, (_, i) => (i * (number + 7)) & 255),
          64,
          64,
        );
        number++;
        const answer = await target.bytes('/api/assets', png);
        if (answer.status === 201) pictures.push(jsonOf<{ hash: string }>(answer)!.hash);
      }
    };
    const load = Promise.all([...logs.map(edit), upload()]);
    await new Promise((done) => setTimeout(done, 600 + chance.below(2000)));
    doomed = true;
    await target.stop('SIGKILL');
    await load;
    await target.start();
    for (const log of logs) {
      const state = jsonOf<{ seq: number; project: Project }>(tally.count(await target.ask(`/api/projects/${log.id}`), 'after a kill'));
      const rows: { id: string; seq: number; patches: Patch[] }[] = [];
      for (;;) {
        const page = jsonOf<{ changes: typeof rows }>(await target.ask(`/api/projects/${log.id}/changes?since=${rows.length}`))?.changes ?? [];
        if (!page.length) break;
        rows.push(...page);
      }
      const lost = [...log.kept].filter(([seq, id]) => rows[seq - 1]?.id !== id || rows[seq - 1]?.seq !== seq);
      tally.lost += lost.length;
      let replayed: Project = emptyProject(log.id, `Killed ${logs.indexOf(log)}`);
      for (const row of rows) replayed = applyPatches(replayed, row.patches);
      if (JSON.stringify(sorted(replayed)) !== JSON.stringify(sorted(state?.project))) {
        tally.lost++;
        tally.notes.push(`round ${round}: the state is not what its log says`);
      }
      log.seq = state?.seq ?? log.seq;
    }
  }
  for (const hash of pictures) {
    const answer = tally.count(await target.ask(`/api/assets/${hash}`), 'picture after a kill');
    if (contentHash(answer.body) !== hash) tally.lost++;
  }
  tally.notes.push(`${logs.reduce((sum, l) => sum + l.kept.size, 0)} changes and ${pictures.length} pictures were acknowledged`);
  return tally;
}

const sorted = (value: unknown): unknown =>
  Array.isArray(value)
    ? value.map(sorted)
    : value !== null && typeof value === 'object'
      ? Object.fromEntries(
          Object.entries(value)
            .sort(([a], [b]) => (a < b ? -1 : 1))
            .map(([k, v]) => [k, sorted(v)]),
        )
      : value;
