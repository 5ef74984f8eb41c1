import { readFileSync } from 'node:fs';
import path from 'node:path';
import { gunzipSync } from 'node:zlib';
import type { Patch } from 'immer';
import { describe, expect, it } from 'vitest';
import { choices } from '@/core/project/choices';
import { FORMAT_VERSION, type Project } from '@/core/project/schema';
import { addressOf } from '@/core/project/targets';
import { pack } from './packing';
import { change, freshApp, refusal } from './testing';

const at = freshApp();

interface Log {
  changes: { command: string; patches: Patch[]; inverse: Patch[] }[];
  states: { choices: string[] }[];
}
const { first, logs } = JSON.parse(gunzipSync(readFileSync(path.join(__dirname, '../../core/testing/earlier/logs-4.json.gz'))).toString()) as {
  first: Record<string, unknown>;
  logs: Log[];
};

/** Keeps a log as version 4 did: its first state, its changes, a snapshot on the way. */
async function keep(log: Log): Promise<string> {
  const id = await at.app.projects.createEmpty('Old', 'metric');
  const { snapshots, changes, projects } = at.app.db;
  await snapshots.update({ data: pack({ ...first, id }) }, { where: { projectId: id } });
  await changes.bulkCreate(
    log.changes.map(({ command, patches, inverse }, i) => ({
      projectId: id,
      seq: i + 1,
      changeId: `${id.slice(0, 20)}-${i}`,
      kind: 'do' as const,
      target: null,
      command,
      title: 'Edit',
      data: pack({ args: null, patches, inverse }),
      at: new Date(),
    })),
  );
  await projects.update({ seq: log.changes.length }, { where: { id } });
  return id;
}

const renamed = (line: string): string =>
  line
    .replace(/^column\/([^/ ]+) /, 'part/$1/body ')
    .replace(/^(piece|opening|roof)\//, 'part/')
    // Of the work bench, the one piece with such a part, drawers were told apart from their fronts later.
    .replace(/^(part\/[^/]+)\/drawers /, '$1/fronts ');
const chosen = (project: Project): string[] => [...choices(project)].map((c) => `${addressOf(c.target)} ${c.finish}`).sort();

describe('a log that began in an earlier format', () => {
  it('goes on in today’s from the state it had; every earlier state can still be had', async () => {
    for (const log of logs.slice(0, 12)) {
      const id = await keep(log);
      const n = log.changes.length;
      const { seq, project } = await at.app.projects.load(id);
      expect([seq, project.version]).toEqual([n, FORMAT_VERSION]);
      await at.app.projects.append(id, n, [change('contents.hide', { ids: ['roof'], hidden: true }), change('project.rename', { name: 'Today' })]);
      const { projects } = await at.reopen();
      expect((await projects.load(id)).project.name).toBe('Today');
      for (let i = 1; i <= n; i++) expect(chosen(await projects.stateAt(id, i))).toEqual(log.states[i - 1].choices.map(renamed).sort());
      expect((await projects.stateAt(id, n + 1)).contents.hidden).toContain('roof');
      expect((await refusal(projects.stateAt(id, n + 3))).code).toBe('project.missing');
    }
  });

  it('is taken back as far as that state and no farther, and no window is given the old steps', async () => {
    const id = await keep(logs[0]);
    const n = logs[0].changes.length;
    await at.app.projects.load(id);
    expect([await at.app.projects.history(id), await at.app.projects.boundary(id)]).toEqual([[], n]);
    await at.app.projects.append(id, n, [change('project.rename', { name: 'Today' })]);
    expect((await at.app.projects.history(id)).map((c) => c.seq)).toEqual([n + 1]);
    expect((await refusal(at.app.projects.changesSince(id, n - 1))).code).toBe('project.raised');
    expect((await refusal(at.app.projects.append(id, n - 1, [change('project.rename', { name: 'Late' })]))).code).toBe('project.raised');
    // A window of the version before sends what it would take back itself.
    const old = logs.flatMap((l) => l.changes).find((c) => c.command === 'outline.lock')!;
    const undo = { ...change('history.patch', { patches: old.inverse }), kind: 'undo' as const };
    expect((await refusal(at.app.projects.append(id, n + 1, [undo]))).message).toMatch(/^Nothing was (changed|taken back)/);
  });

  it('is read from its first state where the one it was brought up to is damaged', async () => {
    const id = await keep(logs[1]);
    const n = logs[1].changes.length;
    await at.app.projects.load(id);
    await at.app.projects.append(id, n, [change('contents.hold', { ids: ['roof'], held: true })]);
    await at.app.db.snapshots.update({ data: Buffer.from('damaged') }, { where: { projectId: id, seq: n } });
    const { project } = await (await at.reopen()).projects.load(id);
    expect(project.contents.held).toContain('roof');
    expect(chosen(project)).toEqual(logs[1].states[n - 1].choices.map(renamed).sort());
  });
});
