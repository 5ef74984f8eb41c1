import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sparseCottage } from '../testing/cottage';
import { deriveModel } from '../model/derive';
import { luminance, toLinear } from '../finishes/colour';
import { finishById } from '../finishes/library';
import { projectJson } from '../formats/project-file/project-file';
import { IDENTITY } from '../geometry/mesh';
import { runChange, validateProject, type CommandArgs, type CommandName } from '../project/commands';
import type { Project } from '../project/schema';
import { Film } from './film';
import { prepareScene, type PreparedScene } from './prepared';
import { textureOf } from '../finishes/store';
import { FIREFLY, pictureScene } from './picture';
import { compileScene, materialOf } from './compile';
import { diffuse, SceneBuilder } from './scene';
import { Tracer } from './tracer';

const demo = sparseCottage(({ lamp, maker }) => lamp !== null || maker === 'sofa');
const edit = <N extends CommandName>(project: Project, command: N, args: CommandArgs<N>): Project =>
  runChange(project, { id: 'editedit', kind: 'do', command, args }).project;
const model = deriveModel(demo);
const scene = pictureScene(model, 32);

describe('a compiled scene', () => {
  it('gives every luminaire its flux: emission × π × area is the lumen it was given', () => {
    const lit = Object.values(demo.pieces).filter((p) => p.lamp?.on);
    expect(scene.lights).toHaveLength(lit.length);
    const wanted = lit.map((p) => p.lamp!.lumen).sort((a, b) => a - b);
    const given = scene.lights.map((l) => luminance(l.emission) * Math.PI * l.area).sort((a, b) => a - b);
    given.forEach((lumen, i) => expect(lumen / wanted[i]).toBeCloseTo(1, 3));
    for (const light of scene.lights) expect(light.cumulative.at(-1)).toBeCloseTo(1, 5);
  });

  it('sees the sky through every window in an outer wall, and only through those', () => {
    // A dormer's window and a rooflight see it too.
    const windows = [
      ...Object.values(demo.openings).filter((o) => o.kind === 'window'),
      ...Object.values(demo.rooflights).map((r) => ({ width: r.width, height: r.length })),
      ...Object.values(demo.dormers).map((d) => ({ width: d.width - 0.28, height: d.height - 0.21 })),
    ];
    expect(scene.panes).toHaveLength(windows.length);
    const total = windows.reduce((sum, w) => sum + w.width * w.height, 0);
    const glass = scene.panes.reduce((sum, p) => sum + p.area, 0);
    expect(glass).toBeLessThan(total);
    expect(glass).toBeGreaterThan(total * 0.75);
  });

  it('has daylight come in at doors that stand open or have lights, and where there is no leaf, of outer walls only', () => {
    const doors = scene.portals.filter((p) => !scene.panes.includes(p));
    const outer = [...model.shell.openings.values()].filter((o) => (o.rooms.left === null) !== (o.rooms.right === null));
    const letting = outer.filter(({ opening: o }) => o.kind === 'passage' || (o.kind === 'door' && (o.open > 0.03 || o.glazed > 0)));
    expect(letting.length).toBeGreaterThan(0);
    expect(doors).toHaveLength(letting.length);
    letting.forEach(({ opening: { width, height, frame } }, i) => expect(doors[i].area).toBeCloseTo((width - 2 * frame.face) * (height - 2 * frame.face), 6));
    // A leaf that is shut, or hidden with its opening, lets none in.
    const shut = { ...demo, openings: Object.fromEntries(Object.entries(demo.openings).map(([id, o]) => [id, { ...o, open: 0, glazed: 0 }])) };
    const closed = compileScene({ model: deriveModel(shut), daylight: null });
    expect(closed.portals.filter((p) => !closed.panes.includes(p))).toHaveLength(letting.filter((o) => o.opening.kind === 'passage').length);
  });

  it('has one material a triangle and panes that shadow rays pass', () => {
    const triangles = scene.positions.length / 9;
    expect([scene.material.length, scene.seeThrough.length, scene.uvs.length / 6]).toEqual([triangles, triangles, triangles]);
    expect(scene.material.every((m) => m < scene.materials.length)).toBe(true);
    scene.material.forEach((m, i) => {
      if (scene.seeThrough[i]) expect(scene.materials[m].pane || scene.materials[m].open || scene.materials[m].opacity < 1).toBe(true);
    });
  });

  it('switches a lamp off with its switch, and the day off at night', () => {
    const lamp = Object.values(demo.pieces).find((p) => p.lamp)!;
    const dark = edit(demo, 'piece.set', { piece: lamp.id, set: { lamp: { ...lamp.lamp!, on: false } } });
    expect(pictureScene(deriveModel(dark), 32).lights).toHaveLength(scene.lights.length - 1);
    const night = edit(demo, 'site.set', { moment: '2026-12-21T01:00' });
    expect(luminance(pictureScene(deriveModel(night), 32).daylight!.sunIlluminance)).toBe(0);
  });

  it('keeps a finish’s mean colour in the texture it is traced with', () => {
    const finish = finishById('timber.oak-plank');
    const { texture, colour } = materialOf(finish, textureOf(finish, 64));
    const mean = [0, 0, 0];
    const count = texture!.colour.length / 4;
    for (let i = 0; i < count; i++) for (let c = 0; c < 3; c++) mean[c] += toLinear(texture!.colour[i * 4 + c] / 255) / count;
    expect(luminance(mean as unknown as [number, number, number]) / luminance(colour)).toBeCloseTo(1, 1);
  });
});

describe('a picture of the demo', () => {
  // Each state of the project is made ready once.
  const ready = new Map<Project, PreparedScene>();
  const prepared = (project: Project): PreparedScene => {
    let made = ready.get(project);
    if (!made) ready.set(project, (made = prepareScene(pictureScene(deriveModel(project), 32))));
    return made;
  };
  const picture = (project: Project, seed: number, passes = 4): Film => {
    const [width, height] = [48, 30];
    const tracer = new Tracer(prepared(project), { width, height, camera: project.viewpoints['view-kitchen'], seed, clamp: FIREFLY });
    for (let i = 0; i < passes; i++) tracer.pass();
    return new Film(tracer.exposed());
  };
  const mean = (a: Film): number => a.mean().reduce((sum, v) => sum + v, 0) / a.mean().length;

  it('is the same for the same seed, and another for another', () => {
    expect(picture(demo, 3).mean()).toEqual(picture(demo, 3).mean());
    expect(picture(demo, 4).mean()).not.toEqual(picture(demo, 3).mean());
  });

  it('gets lighter by day than by night, and lighter with pale walls than with dark ones', () => {
    const night = edit(demo, 'site.set', { moment: '2026-12-21T01:00' });
    expect(mean(picture(demo, 1))).toBeGreaterThan(mean(picture(night, 1)) * 2);
    const rooms = Object.keys(demo.rooms);
    const dark = edit(night, 'finish.apply', {
      targets: rooms.flatMap((room) => [{ kind: 'walls', room } as const, { kind: 'ceiling', room } as const]),
      finish: 'paint.soot',
    });
    // By the median: the lampshade alone is as bright as ever and outweighs the rest of so small a picture.
    const median = (a: Film): number => [...a.mean()].sort((p, q) => p - q)[a.mean().length >> 1];
    expect(median(picture(night, 1))).toBeGreaterThan(median(picture(dark, 1)) * 1.3);
  });

  it('loses not a hundredth of its light to the cut-off: the same paths with and without it', () => {
    const [width, height] = [32, 20];
    for (const view of ['view-kitchen', 'view-living']) {
      const sums = [FIREFLY, Infinity].map((clamp) => {
        const tracer = new Tracer(prepared(demo), { width, height, camera: demo.viewpoints[view], seed: 5, clamp });
        for (let i = 0; i < 64; i++) tracer.pass();
        return new Film(tracer.exposed()).mean();
      });
      // Five strips of the picture, from ceiling to floor.
      for (let strip = 0; strip < 5; strip++) {
        const of = (a: Float32Array): number => a.subarray(strip * 4 * width * 3, (strip + 1) * 4 * width * 3).reduce((t, v) => t + v, 0);
        expect(of(sums[0]) / of(sums[1])).toBeGreaterThan(0.99);
      }
    }
  });

  it('has guides of unit normals and colours no brighter than white', () => {
    const guides = picture(demo, 1, 1).guides();
    for (let i = 0; i < guides.length; i += 6) {
      const l = Math.hypot(guides[i + 3], guides[i + 4], guides[i + 5]);
      expect(l < 1e-6 || Math.abs(l - 1) < 1e-3).toBe(true);
      for (let c = 0; c < 3; c++) expect(guides[i + c]).toBeLessThanOrEqual(1.0001);
    }
  });

  it('keeps material and marks of every mesh, however large the lists grow while it is added', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ triangles: fc.integer({ min: 1, max: 3000 }), glass: fc.boolean(), unseen: fc.boolean() }), { minLength: 4, maxLength: 14 }),
        (list) => {
          const builder = new SceneBuilder();
          const added = list.map(({ triangles, glass, unseen }, i) => {
            const mesh = {
              positions: new Float32Array(9),
              normals: new Float32Array(9),
              uvs: new Float32Array(6),
              indices: Uint32Array.from({ length: triangles * 3 }, (_, k) => k % 3),
            };
            const material = builder.material({ ...diffuse([0.5, 0.5, 0.5]), pane: glass, name: String(i) });
            return { ...builder.mesh(mesh, IDENTITY, material, glass, unseen), material, glass, unseen };
          });
          const built = builder.build(null);
          for (const { first, count, material, glass, unseen } of added)
            for (const t of [first, first + (count >> 1), first + count - 1])
              expect([built.material[t], built.seeThrough[t] !== 0, built.unseen[t]]).toEqual([material, glass, unseen ? 1 : 0]);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('is the same whatever order things stand in: a project that is kept and opened again looks as it did', () => {
    const again = deriveModel(validateProject(JSON.parse(projectJson(demo))));
    const seen = (m: typeof model): Map<string, number> => {
      const built = pictureScene(m, 32);
      const out = new Map<string, number>();
      built.material.forEach((index) => out.set(built.materials[index].name, (out.get(built.materials[index].name) ?? 0) + 1));
      return new Map([...out].sort());
    };
    expect(seen(again)).toEqual(seen(model));
  });
});
