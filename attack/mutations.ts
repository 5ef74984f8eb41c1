import { readFile } from 'node:fs/promises';
import { zipSync, strToU8 } from 'fflate';
import sharp from 'sharp';
import { heronLockCottage } from '../src/core/demo/heron-lock';
import { writeHdr } from '../src/core/formats/hdr/hdr';
import { writeProjectFile } from '../src/core/formats/project-file/project-file';
import { commandNames, validateProject } from '../src/core/project/commands';
import { Chance, mutated, spoiled } from './chance';
import { Tally } from './tally';
import { jsonOf, type Target } from './target';

/** Edits that would be taken as they are. */
const EDITS: { command: string; args: unknown }[] = [
  { command: 'project.rename', args: { name: 'Renamed' } },
  { command: 'project.units', args: { units: 'imperial' } },
  {
    command: 'wall.draw',
    args: {
      level: 'ground',
      points: [
        { x: 20, y: 0 },
        { x: 24, y: 0 },
        { x: 24, y: 3 },
        { x: 20, y: 3 },
      ],
      closed: true,
      thickness: 0.1,
    },
  },
  { command: 'delete', args: { ids: ['view-kitchen'] } },
  { command: 'history.patch', args: { patches: [{ op: 'replace', path: ['name'], value: 'Patched' }] } },
  {
    command: 'board.add',
    args: {
      id: 'board-x',
      name: 'Board',
      paper: { width: 0.42, height: 0.297 },
      pages: { p: { id: 'p', name: 'Page', order: 0, ground: '#ffffff' } },
      items: {
        t: {
          id: 't',
          page: 'p',
          order: 0,
          x: 0.1,
          y: 0.1,
          width: 0.1,
          height: 0.1,
          shadow: true,
          kind: 'text',
          text: 'Hello',
          size: 0.01,
          face: 'sans',
          align: 'left',
        },
      },
    },
  },
];

/** Changes that are almost right, each on the project as it then is. */
export async function changes(target: Target, n: number): Promise<Tally> {
  const tally = new Tally(`${n} mutated changes`);
  const chance = new Chance(1);
  const id = jsonOf<{ id: string }>(await target.json('/api/projects/heron-lock-cottage/duplicate', {}))!.id;
  const house = heronLockCottage();
  let seq = 0;
  for (let i = 0; i < n; i++) {
    const known = EDITS[i % EDITS.length];
    // Also every other command, on entities of the house, with arguments that are likely to be wrong in part.
    const other = chance.of(commandNames);
    const collections = Object.entries(house).filter(([, v]) => v !== null && typeof v === 'object' && Object.keys(v as object).length > 0);
    const [collection, entities] = chance.of(collections);
    const entity = chance.of(Object.keys(entities as object));
    const edit = chance.below(2)
      ? known
      : {
          command: other,
          args: {
            id: entity,
            [collection.replace(/s$/, '')]: entity,
            ids: [entity],
            set: (entities as Record<string, unknown>)[entity],
            name: 'X',
            level: 'ground',
          },
        };
    const change = { id: `mutate${String(i).padStart(6, '0')}`, kind: 'do', ...edit };
    const batch = { base: seq, changes: [change] };
    const answer = tally.count(
      await target.json(
        `/api/projects/${id}/changes`,
        [() => batch, () => mutated(batch, chance), () => ({ base: seq, changes: [{ ...change, args: mutated(change.args, chance) }] })][
          Math.min(2, chance.below(6))
        ](),
      ),
      edit.command,
    );
    seq = jsonOf<{ seq?: number }>(answer)?.seq ?? seq;
  }
  const state = jsonOf<{ project: unknown }>(tally.count(await target.ask(`/api/projects/${id}`), 'the project after it all'));
  let valid = true;
  try {
    validateProject(state?.project);
  } catch (error) {
    valid = false;
    tally.notes.push(String(error));
  }
  tally.hold(valid, 'the project is still valid');
  for (const kind of ['file', 'glb']) tally.count(await target.ask(`/api/projects/${id}/export/${kind}`), `its ${kind}`);
  return tally;
}

/** Takes project files in, and opens, shows and takes away again what was taken. */
async function imports(target: Target, tally: Tally, n: number, make: (i: number) => Uint8Array): Promise<Tally> {
  for (let i = 0; i < n; i++) {
    const answer = tally.count(await target.bytes('/api/projects/import', make(i)), 'import');
    const made = jsonOf<{ id?: string }>(answer)?.id;
    if (!made) continue;
    tally.count(await target.ask(`/api/projects/${made}`), 'what was imported');
    if (i % 5 === 0) for (const kind of ['thumbnail', 'export/glb', 'export/file']) tally.count(await target.ask(`/api/projects/${made}/${kind}`), kind);
    await target.ask(`/api/projects/${made}`, { method: 'DELETE' });
  }
  tally.count(await target.ask('/api/projects'), 'the list after it all');
  return tally;
}

/** The project of the documentation, in the shape of any version. */
const smallProject = async (): Promise<object> => JSON.parse(/```json\n([\s\S]*?)```/.exec(await readFile('docs/project-file.md', 'utf8'))![1]) as object;

/** Project files with changed values. */
export async function files(target: Target, n: number): Promise<Tally> {
  const chance = new Chance(2);
  const small = await smallProject();
  return imports(target, new Tally(`${n} mutated project files`), n, () =>
    zipSync({ 'project.json': strToU8(JSON.stringify(mutated({ ...small, ...(chance.below(2) ? { version: chance.of([1, 2, 3, 4, 5]) } : {}) }, chance))) }),
  );
}

/** Zips with changed bytes. */
export async function zips(target: Target, n: number): Promise<Tally> {
  const chance = new Chance(4);
  const seeds = [zipSync({ 'project.json': strToU8(JSON.stringify(await smallProject())) }), writeProjectFile(heronLockCottage(), [])];
  return imports(target, new Tally(`${n} mutated zips`), n, (i) => spoiled(seeds[i % 6 ? 0 : 1], chance));
}

/** Pictures with changed bytes. */
export async function pictures(target: Target, n: number): Promise<Tally> {
  const tally = new Tally(`${n} mutated pictures`);
  const chance = new Chance(3);
  const plain = sharp({ create: { width: 90, height: 60, channels: 3, noise: { type: 'gaussian', mean: 120, sigma: 40 } } } as never);
  const seeds = [
    await plain.clone().png().toBuffer(),
    await plain.clone().jpeg().toBuffer(),
    await plain.clone().png({ palette: true }).toBuffer(),
    await plain.clone().webp().toBuffer(),
    await plain.clone().tiff().toBuffer(),
    Buffer.from(writeHdr(new Float32Array(90 * 60 * 3).fill(2), 90, 60)),
  ];
  for (let i = 0; i < n; i++) {
    const answer = tally.count(await target.bytes('/api/assets', spoiled(seeds[i % seeds.length], chance)), 'picture');
    const hash = jsonOf<{ hash?: string }>(answer)?.hash;
    if (hash && i % 20 === 0) tally.count(await target.ask(`/api/assets/${hash}`), 'what was kept');
  }
  return tally;
}
