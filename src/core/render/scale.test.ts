import { describe, expect, it } from 'vitest';
import { makeSample, sampleSpan } from '../boards/sample';
import { deriveModel } from '../model/derive';
import { bodyOf } from '../model/model';
import { finishById } from '../finishes/library';
import { layOut } from '../finishes/laying/layout';
import { drawPlan } from '../drawing/plan/plan';
import { onFace } from '../shell/dress/faces';
import { edit, house, wallAt } from '../testing/drafting';
import { pictureScene } from './picture';
import { Film } from './film';
import { prepareScene } from './prepared';
import { Tracer } from './tracer';

const FINISH = 'tile.square-ink';
const tile = finishById(FINISH).laying!;
const MODULE = tile.width + tile.joint;

/** Where along a line of lightness the joints lie: the middles of what stands out. */
function joints(values: number[]): number[] {
  const sorted = [...values].sort((a, b) => a - b);
  const limit = (sorted[values.length >> 1] + sorted[values.length - 1]) / 2;
  const out: number[] = [];
  let from = -1;
  values.forEach((v, i) => {
    if (v > limit && from < 0) from = i;
    if ((v <= limit || i === values.length - 1) && from >= 0) {
      out.push((from + i) / 2);
      from = -1;
    }
  });
  return out;
}

/** Mean distance of neighbours; a joint that hardly differs from its tiles may be missing among them. */
const pitch = (list: readonly number[]): number => {
  const apart = list.slice(1).map((x, i) => x - list[i]);
  const usual = [...apart].sort((a, b) => a - b)[Math.floor(apart.length / 2)];
  const total = list[list.length - 1] - list[0];
  const modules = Math.round(total / usual);
  // Nearly all are found, or this is no measure.
  if (modules - apart.length > 2) return NaN;
  return total / modules;
};

describe('one finish has one scale', () => {
  const project = (() => {
    let p = house([
      [0, 0],
      [4, 0],
      [4, 3],
      [0, 3],
    ]);
    const room = Object.keys(p.rooms)[0];
    const wall = wallAt(p, (a, b) => a.y === 3 && b.y === 3);
    p = edit(p, 'finish.apply', {
      targets: [
        { kind: 'wall', room, wall, side: 'left' },
        { kind: 'floor', room },
      ],
      finish: FINISH,
    });
    return { p, wall };
  })();
  const model = deriveModel(project.p);
  const face = model.shell.levels[0].faces.find((f) => f.side?.wall === project.wall && f.room)!;

  it('in the picture: joints on the wall lie a module apart, where the layout has them', () => {
    // A strip of a picture of 640 × 400 at 0.9 rad: only its middle rows are looked at.
    const [width, height] = [640, 8];
    const eye = { x: 2, y: 0.6, z: 1.25 };
    const fov = 2 * Math.atan((Math.tan(0.9 / 2) * height) / 400);
    const tracer = new Tracer(prepareScene(pictureScene(model, 1024)), { width, height, camera: { eye, target: { x: 2, y: 2.85, z: 1.25 }, fov }, seed: 1 });
    for (let k = 0; k < 24; k++) tracer.pass();
    const guides = new Film(tracer.exposed()).guides();
    // The first three guides are the colour of what is seen, without light.
    const at = (x: number): number => {
      let v = 0;
      for (let y = 0; y < height; y++) v += guides[(y * width + x) * 6];
      return v;
    };
    const found = joints(Array.from({ length: width }, (_, x) => at(x)));
    const metres = (2 * (2.85 - 0.6) * Math.tan(fov / 2)) / height;
    expect(pitch(found) * metres).toBeCloseTo(MODULE, 3);
    // The layout that is counted puts its joints there.
    const layout = layOut(face.laid.laying!, face.placing, face.regions);
    const edges = [...new Set(layout.units.flatMap((u) => u.parts.flat().map((p) => Math.round(p.x * 1e4) / 1e4)))].sort((a, b) => a - b);
    for (const x of found.slice(2, -2)) {
      const place = 2 + (x + 0.5 - width / 2) * metres;
      const nearest = Math.min(...edges.map((e) => Math.abs(onFace(face, { x: e, y: 1 }).x - place)));
      expect(nearest).toBeLessThan(0.006);
    }
  });

  it('on the sample: a module is as many pixels as its share of what the sample shows', () => {
    const [w, h] = [400, 240];
    const { pixels } = makeSample(finishById(FINISH), 'tiles', w, h);
    const rows = Array.from({ length: w }, (_, x) => {
      let v = 0;
      for (let y = 0; y < h; y++) v += pixels[(y * w + x) * 4];
      return v;
    });
    expect((pitch(joints(rows)) * sampleSpan(finishById(FINISH))) / w).toBeCloseTo(MODULE, 2);
  });

  it('in the 3D view and the exported model: texture coordinates run in metres of the surface', () => {
    const surface = bodyOf(model, project.wall)!.parts.find((p) => p.name === 'left')!;
    const { positions, uvs } = surface.mesh;
    let most = 0;
    for (let i = 1; i < 4; i++) {
      const d = Math.hypot(...[0, 1, 2].map((c) => positions[i * 3 + c] - positions[c]));
      most = Math.max(most, Math.abs(Math.hypot(uvs[i * 2] - uvs[0], uvs[i * 2 + 1] - uvs[1]) - d));
    }
    expect(most).toBeLessThan(1e-4);
  });

  it('in the drawing: the lines of the floor lie a tile apart', () => {
    const lines = drawPlan(model, 'ground', { labels: false, dimensions: false, finishes: true }).flatMap((item) =>
      item.kind === 'lines' && item.layer === 'room' ? item.rings : [],
    );
    const widths = lines.map((ring) => Math.max(...ring.map((p) => p.x)) - Math.min(...ring.map((p) => p.x)));
    expect(Math.max(...widths)).toBeCloseTo(tile.width, 6);
    expect(lines.length).toBeGreaterThan(900);
  });
});
