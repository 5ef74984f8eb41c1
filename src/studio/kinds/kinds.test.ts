import { WebIO } from '@gltf-transform/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { z } from 'zod';
import { findings } from '@/core/checks/findings';
import { drawElevation } from '@/core/drawing/elevation/elevation';
import { drawPlan } from '@/core/drawing/plan/plan';
import { writeGlb } from '@/core/formats/glb/glb';
import { MeshBuilder } from '@/core/geometry/mesh';
import { deriveModel, Deriver } from '@/core/model/derive';
import { bodyOf } from '@/core/model/model';
import { MODEL_KINDS } from '@/core/model/kinds';
import { choices } from '@/core/project/choices';
import { runChange, validateProject, type CommandName } from '@/core/project/commands';
import { collections, collectionsOnLevel, collectionsWithStatus, PROJECT_KINDS, type ProjectKind } from '@/core/project/kinds';
import { onLevel } from '@/core/project/kinds/kind';
import { inPhase } from '@/core/project/phase';
import { emptyProject, type Project } from '@/core/project/schema';
import { collectionOf } from '@/core/project/things';
import { targetName } from '@/core/project/targets';
import type { DressedFace } from '@/core/shell/dress/dressed';
import { compileScene } from '@/core/render/compile';
import { contentsOf, findIn } from '@/core/schedules/contents';
import { scheduleLists } from '@/core/schedules/lists';
import { takeOff } from '@/core/schedules/takeoff';
import { draw } from '@/core/testing/drafting';
import { docketOf, PlainDocket, STUDIO_KINDS } from '.';

/** A kind nobody has thought of yet: a block that stands on a level. */
const Totem = z.object({
  id: z.string(),
  name: z.string(),
  level: z.string(),
  x: z.number(),
  y: z.number(),
  height: z.number().min(0.1).max(9),
  status: z.enum(['existing', 'removed', 'new']),
  finishes: z.record(z.string(), z.string()),
});
type Totem = z.infer<typeof Totem>;

const tables = { project: PROJECT_KINDS, model: MODEL_KINDS, studio: STUDIO_KINDS } as unknown as Record<
  'project' | 'model' | 'studio',
  Record<string, object>
>;

beforeAll(() => {
  tables.project.totems = {
    schema: Totem,
    word: 'totem',
    onLevel: true,
    status: true,
    parts: () => [{ part: 'shaft', role: 'joinery', finish: 'timber.oak' }],
    refers: ({ level }: Totem) => [onLevel(level)],
    put: { title: 'Set totem' },
  } satisfies ProjectKind<Totem>;
  tables.model.totems = {
    derive: (totem: Totem, { memo, level, owner, parts }: Parameters<NonNullable<(typeof MODEL_KINDS)['beams']>['derive'] & object>[1]) => {
      const z = level!.elevation;
      const mesh = memo.get('totem', totem.id, [totem, level], () =>
        new MeshBuilder().box(totem.x, totem.y, z, totem.x + 0.3, totem.y + 0.3, z + totem.height).build(),
      );
      parts.putOf(owner, totem, { part: 'shaft', sort: 'column', mesh });
      return totem;
    },
    plan: ({ id, x, y }: Totem) => [
      {
        kind: 'line',
        points: [
          { x, y },
          { x: x + 0.3, y },
        ],
        closed: false,
        ink: 'line',
        pen: 0.25,
        entity: id,
        layer: 'column',
      },
    ],
    elevation: ({ id, height }: Totem, face: DressedFace) =>
      face.side!.side === 'left'
        ? [
            {
              kind: 'fill',
              rings: [
                [
                  { x: 1, y: 0 },
                  { x: 1.3, y: 0 },
                  { x: 1.3, y: height },
                ],
              ],
              ink: 'paper',
              entity: id,
              layer: 'column',
            },
          ]
        : [],
    checks: ({ id, name, height }: Totem) => (height > 2 ? [{ code: 'totem.tall', message: `${name} is tall.`, ids: [id] }] : []),
    schedule: {
      title: 'Totems',
      empty: 'No totem yet.',
      columns: [{ key: 'name', title: 'Totem', kind: 'text' }],
      rows: (model: { project: Project }) => Object.values((model.project as unknown as { totems: Record<string, Totem> }).totems),
    },
  };
  tables.studio.totems = { docket: PlainDocket, line: ({ height }: Totem) => `${height} m tall` };
});
afterAll(() => {
  for (const table of Object.values(tables)) delete table.totems;
});

let step = 0;
const run = (project: Project, command: string, args: unknown): Project =>
  runChange(project, { id: `change${String(step++).padStart(6, '0')}`, kind: 'do', command: command as CommandName, args }).project;
const totem: Totem = { id: 'tall', name: 'Tall totem', level: 'ground', x: 1, y: 1, height: 2.2, status: 'new', finishes: {} };
const house = (): Project =>
  run(
    draw(
      emptyProject('p', 'House'),
      [
        [0, 0],
        [5, 0],
        [5, 4],
        [0, 4],
      ],
      { closed: true, thickness: 0.3 },
    ),
    'totem.put',
    totem,
  );

describe('a kind that is added in the three tables', () => {
  it('is checked, set, refused, given a status and deleted with its level', () => {
    const project = house();
    expect([
      collections().includes('totems' as never),
      collectionsOnLevel().includes('totems' as never),
      collectionsWithStatus().includes('totems' as never),
    ]).toEqual([true, true, true]);
    expect(validateProject(project)).toEqual(project);
    expect(collectionOf(project, 'tall')).toBe('totems');
    expect(() => run(project, 'totem.put', { ...totem, height: 99 })).toThrow(/^Nothing was changed: height goes up to 9/);
    expect(() => run(project, 'totem.put', { ...totem, level: 'none' })).toThrow(/the level is no longer in the project/);
    expect(() => validateProject({ ...project, totems: { tall: { ...totem, level: 'none' } } })).toThrow(
      'totem tall stands on a level that is not there (none)',
    );
    const gone = run(project, 'status.set', { ids: ['tall'], status: 'removed' });
    expect(Object.keys((inPhase(gone, 'after') as unknown as { totems: object }).totems)).toEqual([]);
    expect(Object.keys((inPhase(gone, 'before') as unknown as { totems: object }).totems)).toEqual(['tall']);
    expect((run(project, 'delete', { ids: ['tall'] }) as unknown as { totems: object }).totems).toEqual({});
    const two = run(project, 'level.add', { id: 'upper', name: 'Upper', of: 'ground', where: 'above', walls: 'all', height: 2.4, slab: 0.2 });
    const moved = run(two, 'totem.put', { ...totem, level: 'upper' });
    expect((run(moved, 'level.delete', { id: 'upper' }) as unknown as { totems: object }).totems).toEqual({});
    const held = run(project, 'contents.hold', { ids: ['tall'], held: true });
    expect(() => run(held, 'delete', { ids: ['tall'] })).toThrow(/held/);
    expect((run(project, 'thing.rename', { id: 'tall', name: 'Short' }) as unknown as { totems: Record<string, Totem> }).totems.tall.name).toBe('Short');
  });

  it('takes a finish, by an address like any part', () => {
    const target = { kind: 'part', of: 'tall', part: 'shaft' } as const;
    const project = run(house(), 'finish.apply', { targets: [target], finish: 'paint.reed' });
    expect([...choices(project)].filter((c) => c.finish === 'paint.reed')).toEqual([{ target, finish: 'paint.reed' }]);
    expect(targetName(project, target)).toBe('Tall totem, shaft');
    expect(takeOff(deriveModel(project)).find((l) => l.entity === 'tall')).toMatchObject({
      finish: 'paint.reed',
      area: expect.closeTo(4 * 0.3 * 2.2 + 2 * 0.09, 5) as number,
    });
  });

  it('is a body: in the model, the picture’s scene and the GLB; remembered until it changes', async () => {
    const project = house();
    const deriver = new Deriver();
    const body = bodyOf(deriver.derive(project), 'tall')!;
    expect([body.kind, body.level, body.parts.map((p) => [p.name, p.finish])]).toEqual(['totems', 'ground', [['shaft', 'timber.oak']]]);
    expect(bodyOf(deriver.derive(run(project, 'project.rename', { name: 'Other' })), 'tall')).toBe(body);
    const model = deriveModel(project);
    const without = run(project, 'delete', { ids: ['tall'] });
    const triangles = (p: Project): number => compileScene({ model: deriveModel(p), daylight: null }).material.length;
    expect(triangles(project) - triangles(without)).toBe(12);
    const nodes = (await new WebIO().readBinary(await writeGlb(model))).getRoot().listNodes();
    expect(nodes.find((n) => n.getName() === 'Tall totem')!.getExtras()).toEqual({ kind: 'totem', id: 'tall' });
  });

  it('is drawn, looked at, listed and scheduled', () => {
    const project = house();
    const model = deriveModel(project);
    expect(drawPlan(model, 'ground').filter((m) => m.entity === 'tall')).toHaveLength(1);
    const faces = model.shell.levels[0].faces.filter((f) => f.side?.side === 'left').map((face, i) => ({ face, x: 10 * i }));
    const upright = drawElevation(model, faces, { scale: 0.05, named: false, units: () => null }).flatMap((g) => g.items.filter((m) => m.entity === 'tall'));
    expect(upright.map((m) => m.kind === 'fill' && m.rings[0][0].x)).toEqual(faces.map(({ x }) => x + 1));
    expect(findings(model).filter((f) => f.code === 'totem.tall')).toEqual([{ code: 'totem.tall', message: 'Tall totem is tall.', ids: ['tall'] }]);
    expect(findIn(contentsOf(model), 'tall totem').length).toBe(1);
    expect(scheduleLists().totems.rows(model)).toEqual([totem]);
  });

  it('has a docket', () => {
    expect(docketOf(house(), 'tall', null)).toEqual({ title: 'Tall totem', line: '2.2 m tall', Docket: PlainDocket });
    expect(docketOf(house(), 'nobody', null)).toBeNull();
  });
});

describe('the table of the studio', () => {
  it('has a docket for every kind that is a body or a line of the contents', () => {
    const without = collections().filter((name) => !STUDIO_KINDS[name]);
    expect(without.sort()).toEqual(['boards', 'corners', 'finishes', 'joinery', 'pictures', 'profiles', 'schemes', 'viewpoints', 'wallTypes']);
  });
});
