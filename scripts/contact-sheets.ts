/**
 * Pictures of what can be placed, each card by itself in a room beside a window, put together in sheets with its name below.
 *   npx tsx scripts/contact-sheets.ts --out folder [--away near|far] [--open 100] [--only words]
 * `near` is 0.6 m from its surface, `far` shows all of it. `--only` picks makers, cards or categories, apart by commas.
 */
import { mkdir } from 'node:fs/promises';
import path from 'node:path';
import { parseArgs } from 'node:util';
import sharp from 'sharp';
import { Script } from '../src/core/demo/script';
import { writePng } from '../src/core/formats/png';
import { placement, transformPoint } from '../src/core/geometry/mesh';
import type { Vec3 } from '../src/core/geometry/vec';
import { usualWhite } from '../src/core/light/white';
import { deriveModel } from '../src/core/model/derive';
import { emptyProject } from '../src/core/project/schema';
import { develop } from '../src/core/render/development';
import { cleanPicture } from '../src/core/render/denoiser/picture';
import { Film } from '../src/core/render/film';
import { FIREFLY, pictureScene } from '../src/core/render/picture';
import { prepareScene } from '../src/core/render/prepared';
import { cameraOf, shotFrom } from '../src/core/render/shot';
import { meterExposure } from '../src/core/render/tone';
import { Tracer } from '../src/core/render/tracer';
import { CARDS } from '../src/core/stock/stock';
import type { StockCard } from '../src/core/stock/types';

const { values: said } = parseArgs({
  options: {
    out: { type: 'string', default: 'tmp/sheets' },
    away: { type: 'string', default: 'near' },
    open: { type: 'string', default: '0' },
    only: { type: 'string', default: '' },
    samples: { type: 'string', default: '20' },
    columns: { type: 'string', default: '6' },
    rows: { type: 'string', default: '5' },
  },
});
const CELL = { width: 240, height: 200 };
const LABEL = 18;
const FOV = 0.9;

const words = said.only
  .split(',')
  .map((w) => w.trim().toLowerCase())
  .filter(Boolean);
const cards = CARDS.filter((card) => {
  const names = [card.id, card.item.id, card.item.category.toLowerCase()];
  return words.length === 0 || words.some((word) => names.includes(word));
});

/** Where the card stands in its room, and how large that is: a large thing is seen whole from within it. Metres. */
const ROOM =
  said.away === 'near'
    ? { width: 5, depth: 4, at: { x: 1.6, y: 2 }, on: { x: 1.4, y: 3.85 } }
    : { width: 9, depth: 8.5, at: { x: 2.4, y: 6 }, on: { x: 2.2, y: 8.35 } };

/** A room with a window at its left, and the card in it. */
function roomWith(card: StockCard): Script {
  const s = new Script(emptyProject('sheet', 'Sheet'));
  s.do('site.set', { place: 'Sheet', latitude: 52, longitude: 0, moment: '2026-05-12T10:30', offset: 60, turbidity: 3, seen: -2 });
  const { width, depth, at, on } = ROOM;
  const corners: [number, number][] = [
    [0, 0],
    [width, 0],
    [width, depth],
    [0, depth],
  ];
  s.draw(corners, { type: 'cavity-300', status: 'new' }, true);
  s.open('window', 'W', [0, at.y], [1.8, 1.35, 0.85]);
  s.finish('floor', [s.room(at.x, at.y).id], 'timber.oak');
  const { item } = card;
  const open = Number(said.open) / 100;
  if (item.hangs) s.hang(card.id, 'W', { open });
  else if (item.mount === 'wall') s.place(card.id, on.x, on.y - card.size.depth / 2, 0, { open });
  else if (item.mount === 'top' && (card.size.height > 0.05 || card.size.width < 0.9)) {
    s.place('sideboard', at.x, at.y, 0);
    s.place(card.id, at.x, at.y, 0, { open });
  } else s.place(card.id, at.x, at.y, 0, { open });
  return s.settle();
}

/** A picture of it, PNG. */
async function pictureOf(card: StockCard): Promise<Buffer> {
  const s = roomWith(card);
  const piece = Object.values(s.project.pieces).at(-1)!;
  const { width: w, depth: d, height: h } = piece.size;
  const stand = placement(piece.x, piece.y, piece.elevation, piece.rotation);
  const at = (x: number, y: number, z: number): Vec3 => transformPoint(stand, { x, y, z });
  const small = Math.max(w, d, h) < 0.6;
  const near = said.away === 'near';
  // A large thing is looked at where light falls on the corner that is nearest.
  const top = card.item.category === 'Tables' ? 0.97 : card.item.mount === 'ceiling' ? 0.12 : h > 1.2 ? 0.55 : 0.72;
  const aim = !near || small ? { x: 0, y: 0, z: h / 2 } : { x: -w * 0.22, y: -d * 0.35, z: h * top };
  const away = near ? 0.6 + (small ? Math.min(w, d, h) / 2 : 0) : Math.max(1, (0.75 * Math.hypot(w, d, h)) / Math.tan(FOV / 2) / 1.1);
  const hung = piece.elevation > 1.4;
  const way = { x: near ? -0.25 : 0.3, y: -1, z: hung ? -0.15 : h < 0.5 ? 0.65 : 0.4 };
  const k = away / Math.hypot(way.x, way.y, way.z);
  const eye = at(aim.x + way.x * k, aim.y + way.y * k, aim.z + way.z * k);
  const model = deriveModel(s.project);
  const shot = shotFrom({
    // It stays under the ceiling.
    eye: { ...eye, z: Math.min(2.2, Math.max(0.08, eye.z)) },
    target: at(aim.x, aim.y, aim.z),
    fov: FOV * (CELL.height / CELL.width),
    look: null,
    aperture: null,
    focus: null,
  });
  const tracer = new Tracer(prepareScene(pictureScene(model, 512, shot.looking)), { ...CELL, camera: cameraOf(model, shot), seed: 1, clamp: FIREFLY });
  for (let i = 0; i < Number(said.samples); i++) tracer.pass();
  const film = new Film(tracer.exposed());
  const radiance = await cleanPicture(film.mean(), film.guides(), CELL.width, CELL.height, { round: false });
  return Buffer.from(writePng(develop(radiance, meterExposure(radiance), usualWhite(s.project.site)), CELL.width, CELL.height));
}

const label = (text: string): Buffer =>
  Buffer.from(
    `<svg width="${CELL.width}" height="${LABEL}"><text x="4" y="13" font-size="13" font-family="sans-serif">${text.replaceAll('&', '&amp;')}</text></svg>`,
  );

const [columns, rows] = [Number(said.columns), Number(said.rows)];
await mkdir(said.out, { recursive: true });
for (let from = 0; from < cards.length; from += columns * rows) {
  const own = cards.slice(from, from + columns * rows);
  const made: sharp.OverlayOptions[] = [];
  for (const [i, card] of own.entries()) {
    const [left, top] = [(i % columns) * CELL.width, Math.floor(i / columns) * (CELL.height + LABEL)];
    made.push({ input: await pictureOf(card), left, top }, { input: label(`${card.id} · ${card.name}`), left, top: top + CELL.height });
  }
  const file = path.join(said.out, `${said.away}-${String(from / (columns * rows) + 1).padStart(2, '0')}.png`);
  const size = { width: columns * CELL.width, height: Math.ceil(own.length / columns) * (CELL.height + LABEL) };
  await sharp({ create: { ...size, channels: 3, background: '#ffffff' } })
    .composite(made)
    .png()
    .toFile(file);
  console.log(file);
}
