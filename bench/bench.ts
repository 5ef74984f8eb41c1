import { Worker } from 'node:worker_threads';
import * as polyclip from 'polyclip-ts';
import * as THREE from 'three';
import { MeshBVH } from 'three-mesh-bvh';
import { heronLockCottage } from '@/core/demo/heron-lock';
import { Deriver } from '@/core/model/derive';
import { clipRegions } from '@/core/geometry/clipping';
import type { Vec2 } from '@/core/geometry/vec';
import { runChange, type CommandArgs, type CommandName } from '@/core/project/commands';
import type { Project } from '@/core/project/schema';
import { Random } from '@/core/render/bsdf';
import { buildHierarchy } from '@/core/render/bvh';
import { RayKernel } from '@/core/render/kernel/kernel';
import { pictureScene } from '@/core/render/picture';
import { cabinets } from './cabinets';
import { cottage } from './cottage';
import { demo } from './demo';
import { dressed } from './dressed';
import { frames } from './frames';
import { furnished as furnishing } from './furnished';
import { finishes } from './finishes';
import { firstLook, opening } from './opening';
import { pictures } from './pictures';
import { storey } from './storey';
import { view } from './view';
import { viewLight } from './view-light';
import { pieceFrom, stockCard } from '@/core/stock/stock';

interface Row {
  what: string;
  ours: string;
  peer: string;
  ratio: number;
}
const rows: Row[] = [];
const say = (what: string, ours: string, peer: string, ratio: number): void => void rows.push({ what, ours, peer, ratio });

const median = (values: number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1];

/** Milliseconds of one call, the median of several after one to warm up. */
function time(work: () => void, rounds = 7): number {
  work();
  return median(
    Array.from({ length: rounds }, () => {
      const start = performance.now();
      work();
      return performance.now() - start;
    }),
  );
}

/** The demo with more furniture, until the interior has at least the number of triangles. */
function furnished(triangles: number): Project {
  let project = heronLockCottage();
  const count = (): number => pictureScene(new Deriver().derive(project), 32).material.length;
  for (let n = 0; count() < triangles; n++) {
    const pieces = ['plant', 'sofa', 'armchair', 'curtain'].map((maker, i) =>
      pieceFrom(stockCard(maker)!, `bench-${n}-${i}`, project.levels.ground, { x: 0.8 + ((n * 1.7 + i) % 8.6), y: 0.6 + ((n * 0.9 + i * 1.3) % 5.6) }, n + i),
    );
    project = runChange(project, { id: `bench${String(n).padStart(4, '0')}`, kind: 'do', command: 'piece.add', args: { pieces } }).project;
  }
  return project;
}

function rays(): void {
  const scene = pictureScene(new Deriver().derive(furnished(200_000)), 32);
  const triangles = scene.material.length;
  const COUNT = 65536;
  const random = new Random(5);
  const list = new Float32Array(COUNT * 8);
  // Incoherent: from points all over the rooms in directions all over the sphere.
  for (let i = 0; i < COUNT; i++) {
    const z = 1 - 2 * random.next();
    const phi = 2 * Math.PI * random.next();
    const r = Math.sqrt(1 - z * z);
    list.set([0.5 + 9 * random.next(), 0.5 + 6 * random.next(), 0.3 + 1.9 * random.next(), 1e-4, r * Math.cos(phi), r * Math.sin(phi), z, 1e30], i * 8);
  }
  const kernel = new RayKernel(buildHierarchy(scene.positions), COUNT);
  kernel.rays.set(list);
  const ours = time(() => kernel.closest(COUNT));
  const geometry = new THREE.BufferGeometry();
  geometry.setAttribute('position', new THREE.BufferAttribute(scene.positions, 3));
  const bvh = new MeshBVH(geometry, { strategy: 2 });
  const ray = new THREE.Ray();
  const hits = new Int32Array(COUNT);
  const peer = time(() => {
    for (let i = 0; i < COUNT; i++) {
      ray.origin.set(list[i * 8], list[i * 8 + 1], list[i * 8 + 2]);
      ray.direction.set(list[i * 8 + 4], list[i * 8 + 5], list[i * 8 + 6]);
      hits[i] = bvh.raycastFirst(ray, THREE.DoubleSide) ? 1 : 0;
    }
  }, 3);
  kernel.closest(COUNT);
  let differ = 0;
  for (let i = 0; i < COUNT; i++) if ((kernel.hitIds[i * 4 + 3] >= 0 ? 1 : 0) !== hits[i]) differ++;
  if (differ > COUNT / 1000) throw new Error(`The two disagree on ${differ} of ${COUNT} rays.`);
  const million = (ms: number): string => `${(COUNT / ms / 1000).toFixed(2)} M rays/s`;
  rows.push({
    what: `nearest hits, ${triangles} triangles, incoherent, one thread (peer: three-mesh-bvh)`,
    ours: million(ours),
    peer: million(peer),
    ratio: peer / ours,
  });
  rows.push({
    what: `building the hierarchy, ${triangles} triangles (peer: three-mesh-bvh)`,
    ...compare(
      time(() => void buildHierarchy(scene.positions), 3),
      time(() => void new MeshBVH(geometry, { strategy: 2 }), 3),
    ),
  });
}

const ms = (value: number): string => `${value.toFixed(value < 10 ? 2 : 0)} ms`;
const compare = (ours: number, peer: number): Omit<Row, 'what'> => ({ ours: ms(ours), peer: ms(peer), ratio: peer / ours });

/** A storey of 12 rooms and 40 openings, and the same ten and a hundred times: deriving it, and again after one wall was dragged. */
function storeys(): void {
  const sizes = [1, 10, 100].map((n) => {
    const drawn = storey(n);
    // Nothing remembered: of a copy not even the plan of the walls is known.
    const fresh = time(() => new Deriver().derive(structuredClone(drawn)), 3);
    const project = structuredClone(drawn);
    const deriver = new Deriver();
    deriver.derive(project);
    const wall = Object.values(project.walls).filter((w) => w.thickness === 0.1)[4];
    let step = 0;
    let edited = project;
    const commands: number[] = [];
    const drag = time(() => {
      const start = performance.now();
      edited = runChange(project, { id: 'preview', kind: 'do', command: 'wall.move', args: { wall: wall.id, offset: 0.02 + (step++ % 20) * 0.005 } }).project;
      commands.push(performance.now() - start);
      deriver.derive(edited);
    }, 101);
    return { n, fresh, drag, command: median(commands), rooms: Object.keys(project.rooms).length, openings: Object.keys(project.openings).length };
  });
  const [one] = sizes;
  const ms = (v: number): string => `${v.toFixed(1)} ms`;
  for (const s of sizes) {
    const what = `${s.rooms} rooms, ${s.openings} openings`;
    rows.push({ what: `a wall dragged in a storey of ${what}: command and deriving again (peer: deriving it whole)`, ...compare(s.drag, s.fresh) });
    if (s.n > 1) {
      rows.push({
        what: `deriving ${what} (peer: ${s.n} times the storey of 12 rooms; above 1: better than linear)`,
        ours: ms(s.fresh),
        peer: ms(one.fresh * s.n),
        ratio: (one.fresh * s.n) / s.fresh,
      });
      rows.push({
        what: `the dragged wall in ${what} (peer: in the storey of 12 rooms; 1: constant)`,
        ours: ms(s.drag),
        peer: ms(one.drag),
        ratio: one.drag / s.drag,
      });
    }
    rows.push({ what: `of which the command, ${what} (peer: all)`, ours: ms(s.command), peer: ms(s.drag), ratio: s.command / s.drag });
  }
}

/** A house of two storeys with roof, stairs and framing, bare and with every wall dressed: deriving it, and again after one thing was changed. */
function house(): void {
  const bare = cottage();
  const full = dressed(bare);
  for (const [project, name] of [
    [bare, 'two storeys, hipped L roof, two stairs, framing'],
    [full, `the same, its ${Object.keys(full.rooms).length} rooms with panels, bands of tiles, skirtings and cornices`],
  ] as const) {
    const fresh = time(() => new Deriver().derive(structuredClone(project)), 5);
    const partition = Object.values(project.walls).find((w) => w.level === 'ground' && w.thickness === 0.1)!;
    const outer = Object.values(project.walls).find((w) => w.level === 'upper' && w.thickness === 0.3)!;
    const changes: [string, (k: number) => Project][] = [
      ['a partition dragged', (k) => run(project, 'wall.move', { wall: partition.id, offset: 0.02 + k * 0.005 })],
      ['an outer wall under the roof dragged', (k) => run(project, 'wall.move', { wall: outer.id, offset: 0.02 + k * 0.005 })],
      ['the height of the lower level', (k) => run(project, 'level.set', { id: 'ground', set: { height: 2.5 + k * 0.001 } })],
      [
        'the pitch of the roof',
        (k) => run(project, 'roof.put', { roof: { ...project.roofs.roof, all: { ...project.roofs.roof.all, pitch: 0.7 + k * 0.002 } } }),
      ],
    ];
    for (const [what, change] of changes) {
      const deriver = new Deriver();
      deriver.derive(project);
      let k = 0;
      const again = time(() => deriver.derive(change(k++ % 20)), 61);
      rows.push({ what: `${name}: ${what} (peer: deriving it whole)`, ...compare(again, fresh) });
    }
  }
}

const run = <N extends CommandName>(project: Project, command: N, args: CommandArgs<N>): Project =>
  runChange(project, { id: 'preview', kind: 'do', command, args }).project;

async function passes(): Promise<void> {
  const samples = (workers: number): Promise<number> =>
    Promise.all(
      Array.from(
        { length: workers },
        (_, i) =>
          new Promise<{ samples: number; seconds: number }>((done, fail) => {
            const worker = new Worker(new URL('./pass.worker.mjs', import.meta.url), { workerData: { seed: i + 1, workers } });
            worker.once('message', done);
            worker.once('error', fail);
          }),
      ),
    ).then((all) => all.reduce((sum, r) => sum + r.samples / r.seconds, 0));
  // Turn and turn about, so that a slow spell of the machine meets both.
  const ones: number[] = [];
  const twos: number[] = [];
  for (let round = 0; round < 3; round++) {
    ones.push(await samples(1));
    twos.push(await samples(2));
  }
  const [one, two] = [median(ones), median(twos)];
  const say = (v: number): string => `${(v / 1000).toFixed(1)} k samples/s`;
  rows.push({ what: 'tracing the demo’s kitchen on two workers (peer: on one)', ours: say(two), peer: say(one), ratio: two / one });
}

/** Clipping as the model does it, against exact clipping in numbers of any length. */
function clipping(): void {
  const random = new Random(11);
  const star = (x: number, y: number): Vec2[] =>
    Array.from({ length: 16 }, (_, i) => {
      const r = 0.5 + 2 * random.next();
      return { x: x + r * Math.cos((i / 8) * Math.PI), y: y + r * Math.sin((i / 8) * Math.PI) };
    });
  const square = (x: number, y: number): Vec2[] => [
    { x, y },
    { x: x + 0.4, y },
    { x: x + 0.4, y: y + 0.4 },
    { x, y: y + 0.4 },
  ];
  const cases = Array.from({ length: 200 }, () => ({
    first: [{ outer: star(0, 0), holes: [] }],
    second: Array.from({ length: 6 }, () => ({ outer: square(3 * random.next() - 1.5, 3 * random.next() - 1.5), holes: [] })),
  }));
  const geometry = (list: { outer: Vec2[] }[]) => list.map((r) => [[...r.outer, r.outer[0]].map((p): [number, number] => [p.x, p.y])]);
  const prepared = cases.map((c) => [geometry(c.first), geometry(c.second)] as const);
  const own = time(() => cases.forEach((c) => void clipRegions('difference', c.first, c.second)));
  const peer = time(() => prepared.forEach(([a, b]) => void polyclip.difference(a, b)), 3);
  rows.push({ what: '200 stars of 16 corners less six squares each (peer: polyclip-ts)', ...compare(own, peer) });
}

/** What is measured, by the words that choose it: `npm run bench -- WORDS` runs what holds them. */
const SECTIONS: [string, () => void | Promise<void>][] = [
  ['rays nearest hits hierarchy three-mesh-bvh', rays],
  ['clipping stars polyclip-ts', clipping],
  ['demo deriving wall moved height pitch undo finish hover', () => demo(say, time)],
  ['storey wall dragged rooms openings deriving', storeys],
  ['house two storeys roof wall dragged height pitch deriving', house],
  ['finishes laying tiles textures', () => finishes(say, time)],
  ['tracing kitchen workers', passes],
  ['pictures error blotches ssim references equal time', () => pictures(say)],
  ['view draw calls memory geometry', () => view(say)],
  ['furnished house pieces draw calls memory scene', () => furnishing(say)],
  ['cabinets units edit draw calls', () => cabinets(say)],
  ['frames of ten houses street detail furnished pieces', () => frames(say)],
  ['chromium opening list demo', chromium],
  ['first traced picture true light chromium', lookSoon],
  ['light of the view traced stops apart', () => viewLight(say)],
];

/** Opening the built application in Chromium, against what a designer waits without noticing. */
async function chromium(): Promise<void> {
  const o = await opening();
  say('Chromium: the list of projects shows (peer: 1 s)', ms(o.list), '1000 ms', 1000 / o.list);
  say('Chromium: the demo can be worked on after a press (peer: 2 s)', ms(o.demo), '2000 ms', 2000 / o.demo);
  say('Chromium: the view has drawn it (peer: 2 s)', ms(o.view), '2000 ms', 2000 / o.view);
}

/** The first traced picture in the view, against what one waits for it. */
async function lookSoon(): Promise<void> {
  const { cold, warm } = await firstLook();
  say('Chromium: the first traced picture in the view (peer: 3 s)', ms(cold), '3000 ms', 3000 / cold);
  say('Chromium: the first traced picture, those who trace at hand (peer: 3 s)', ms(warm), '3000 ms', 3000 / warm);
}

const words = process.argv.slice(2).join(' ').toLowerCase();
const chosen = SECTIONS.filter(([about]) => words.split(/\s+/).every((word) => about.includes(word)));
if (!chosen.length) throw new Error(`Nothing is measured under “${words}”; there are: ${SECTIONS.map(([about]) => about).join('; ')}.`);
for (const [, measure] of chosen) await measure();
console.log('| what | ours | peer | ratio |\n| --- | --- | --- | --- |');
for (const r of rows) console.log(`| ${r.what} | ${r.ours} | ${r.peer} | ${r.ratio.toFixed(2)} |`);
