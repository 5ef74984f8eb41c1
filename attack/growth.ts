import { readdir, stat } from 'node:fs/promises';
import path from 'node:path';
import { Tally } from './tally';
import { jsonOf, type Target } from './target';

const sizeOf = async (folder: string): Promise<number> => {
  let sum = 0;
  for (const entry of await readdir(folder, { withFileTypes: true, recursive: true }))
    if (entry.isFile()) sum += (await stat(path.join(entry.parentPath, entry.name))).size;
  return sum;
};

/** A day of editing the demo, and how a project of many changes opens beside one of few. */
export async function growth(target: Target, edits: number): Promise<Tally> {
  const tally = new Tally(`a day of ${edits} changes`);
  const make = async (): Promise<string> => jsonOf<{ id: string }>(await target.json('/api/projects/heron-lock-cottage/duplicate', {}))!.id;
  const [busy, quiet] = [await make(), await make()];
  const { project } = jsonOf<{ project: { walls: Record<string, { id: string; thickness: number | null }>; rooms: Record<string, { id: string }> } }>(
    await target.ask(`/api/projects/${busy}`),
  )!;
  const rooms = Object.keys(project.rooms);
  const pieces = Object.keys((project as unknown as { pieces: object }).pieces);
  const walls = Object.keys(project.walls);
  const edit = (i: number): { command: string; args: unknown } => {
    switch (i % 5) {
      case 0:
        return { command: 'wall.move', args: { wall: walls[3 % walls.length], offset: i % 10 ? -0.01 : 0.01 } };
      case 1:
        return { command: 'room.set', args: { room: rooms[i % rooms.length], set: { name: `Room ${i}` } } };
      case 2:
        return { command: 'piece.set', args: { piece: pieces[i % pieces.length], set: { rotation: (i % 60) / 10 } } };
      case 3:
        return { command: 'project.rename', args: { name: `Day ${i}` } };
      default:
        return { command: 'finish.apply', args: { targets: [{ kind: 'floor', room: rooms[i % rooms.length] }], finish: i % 2 ? 'paint.reed' : null } };
    }
  };
  const work = async (id: string, n: number): Promise<void> => {
    let seq = 0;
    let at = 0;
    while (seq < n) {
      const changes = Array.from({ length: Math.min(25, n - seq) }, () => ({ id: `grow${String(at).padStart(8, '0')}`, kind: 'do', ...edit(at++) }));
      const answer = await target.json(`/api/projects/${id}/changes`, { base: seq, changes });
      const said = jsonOf<{ seq?: number; change?: string; message?: string }>(answer);
      if (answer.status === 200) seq = said!.seq!;
      else {
        tally.notes.push(`${answer.status} ${said?.message}`);
        tally.lost++;
        return;
      }
    }
    tally.tried += n;
    tally.taken += n;
  };
  await work(quiet, 100);
  const before = await sizeOf(target.folder);
  await work(busy, edits);
  // What a restart gives back counts too.
  await target.stop();
  await target.start();
  const grown = (await sizeOf(target.folder)) - before;
  tally.hold(grown < (30e6 * edits) / 20_000 + 4e6, `${edits} changes grow by ${(grown / 1e6).toFixed(1)} MB`);
  const opening = async (id: string): Promise<number> => {
    const times: number[] = [];
    for (let i = 0; i < 7; i++) times.push(tally.count(await target.ask(`/api/projects/${id}`), 'opening').ms);
    return times.sort((a, b) => a - b)[3];
  };
  // The first reading after a start is the one that replays the log.
  const first = async (id: string): Promise<number> => tally.count(await target.ask(`/api/projects/${id}`), 'first opening').ms;
  await first('heron-lock-cottage');
  const [slow, fast] = [await first(busy), await first(quiet)];
  tally.notes.push(
    `${edits} changes: ${(grown / 1e6).toFixed(2)} MB, ${Math.round(grown / edits)} bytes a change; opened for the first time in ${Math.round(slow)} ms, one of 100 changes in ${Math.round(fast)} ms; then in ${Math.round(await opening(busy))} and ${Math.round(await opening(quiet))} ms`,
  );
  return tally;
}
