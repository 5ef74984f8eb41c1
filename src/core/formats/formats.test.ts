import { readFile } from 'node:fs/promises';
import path from 'node:path';
import { WebIO, type Node } from '@gltf-transform/core';
import fc from 'fast-check';
import { strFromU8, strToU8, unzipSync } from 'fflate';
import { validateBytes } from 'gltf-validator';
import { getDocument, OPS } from 'pdfjs-dist/legacy/build/pdf.mjs';
import sharp from 'sharp';
import { beforeAll, describe, expect, it } from 'vitest';
import { heronLockCottage } from '../demo/heron-lock';
import { finishById } from '../finishes/library';
import { textureSpan } from '../finishes/texture';
import { deriveModel } from '../model/derive';
import { partsOf } from '../model/model';
import { placesOf } from '../model/body';
import { transformPoint, type Matrix } from '../geometry/mesh';
import { DomainError } from '../project/errors';
import { emptyProject, FORMAT_VERSION, type BoardItem, type Project } from '../project/schema';
import { writeGlb } from './glb/glb';
import { readHdr, writeHdr } from './hdr/hdr';
import { POINTS_PER_METRE, writeBoardPdf } from './pdf/board-pdf';
import { readPng, writePng } from './png';
import { projectJsonSchema, readProjectJson, writeProjectFile } from './project-file/project-file';

const refusal = (work: () => unknown): string => {
  try {
    work();
  } catch (error) {
    expect(error).toBeInstanceOf(DomainError);
    return (error as DomainError).message;
  }
  throw new Error('It was not refused.');
};

describe('the project file', () => {
  it('is a zip any reader opens, with the same bytes for the same project', () => {
    const project = heronLockCottage();
    const bytes = writeProjectFile(project, []);
    const back = readProjectJson(strFromU8(unzipSync(bytes)['project.json']));
    expect(back).toEqual(project);
    expect(writeProjectFile(back, [])).toEqual(bytes);
  });

  it.each([
    ['broken JSON', () => readProjectJson('{"format":')],
    ['another format', () => readProjectJson('{"hello":1}')],
    ['a later version', () => readProjectJson('{"format":"enstegon","version":99}')],
    ['a field of the wrong kind', () => readProjectJson(JSON.stringify({ ...emptyProject('p', 'P'), name: 5 }))],
    [
      'a wall without its corner',
      () =>
        readProjectJson(
          JSON.stringify({ ...emptyProject('p', 'P'), walls: { w: { id: 'w', level: 'ground', start: 'a', end: 'b', thickness: 0.1, height: null } } }),
        ),
    ],
    [
      'an entry under another id',
      () => readProjectJson(JSON.stringify({ ...emptyProject('p', 'P'), corners: { a: { id: 'b', level: 'ground', x: 0, y: 0 } } })),
    ],
  ])('refuses %s with one sentence', (_, work) => {
    expect(refusal(work)).toMatch(/^The (file|project) [^.]+.*\.$/);
  });

  it('never throws anything but a refusal, whatever is in it', () => {
    const json = JSON.stringify(emptyProject('p', 'P'));
    fc.assert(
      fc.property(fc.nat(json.length - 1), fc.string({ maxLength: 4 }), (at, put) => {
        try {
          readProjectJson(json.slice(0, at) + put + json.slice(at + 1));
        } catch (error) {
          expect(error).toBeInstanceOf(DomainError);
        }
      }),
      { numRuns: 300 },
    );
  });

  it('opens the file written by hand in docs/project-file.md', async () => {
    const text = await readFile('docs/project-file.md', 'utf8');
    const json = /```json\n([\s\S]*?)```/.exec(text)![1];
    const model = deriveModel(readProjectJson(json));
    const rooms = [...model.shell.rooms.values()];
    expect(rooms.map((r) => [r.room.name, Math.round(r.area * 100) / 100])).toEqual([['Garden room', 11.4]]);
  });

  it('brings a project of version 1 up to date: plain walls, hinged doors, flat ceilings', () => {
    const { wallTypes: _t, guides: _g, columns: _c, levels, ...rest } = emptyProject('old', 'Old');
    const { underlay: _u, ...ground } = levels.ground;
    const corner = (id: string, x: number, y: number) => ({ id, level: 'ground', x, y });
    const wall = (id: string, start: string, end: string, height: number | null) => ({ id, level: 'ground', start, end, thickness: 0.2, height });
    const old = {
      ...rest,
      version: 1,
      levels: { ground },
      corners: { a: corner('a', 0, 0), b: corner('b', 4, 0), c: corner('c', 4, 3), d: corner('d', 0, 3) },
      walls: { s: wall('s', 'a', 'b', null), e: wall('e', 'b', 'c', 2.1), n: wall('n', 'c', 'd', null), w: wall('w', 'd', 'a', null) },
      openings: {
        o: {
          id: 'o',
          name: 'Door',
          wall: 's',
          kind: 'door',
          at: 2,
          width: 0.9,
          height: 2,
          sill: 0,
          hinge: 'start',
          swing: 'left',
          panes: { across: 1, up: 1 },
          finishes: {},
        },
      },
      rooms: { r: { id: 'r', level: 'ground', name: 'Den', anchor: { x: 2, y: 1.5 }, floor: null, ceiling: null, walls: null, faces: {} } },
    };
    const project = readProjectJson(JSON.stringify(old));
    expect(project.version).toBe(FORMAT_VERSION);
    expect(project.walls.e.top).toEqual({ kind: 'fixed', height: 2.1 });
    expect(project.openings.o).toMatchObject({ form: 'hinged', place: { kind: 'free' }, status: 'new' });
    const [room] = [...deriveModel(project).shell.rooms.values()];
    expect([room.room.name, room.area]).toEqual(['Den', expect.closeTo(3.8 * 2.8)]);
  });

  it('has a schema that names every collection', () => {
    const schema = projectJsonSchema() as { properties: Record<string, unknown>; required: string[] };
    expect(Object.keys(schema.properties).sort()).toEqual(Object.keys(emptyProject('p', 'P')).sort());
    expect(schema.required).toContain('walls');
  });
});

describe('the GLB', () => {
  const project = heronLockCottage();
  const model = deriveModel(project);
  let bytes: Uint8Array;
  beforeAll(async () => {
    bytes = await writeGlb(model);
  });

  it('passes the Khronos validator without an error or a warning', async () => {
    const report = await validateBytes(bytes);
    expect(report.issues.numErrors).toBe(0);
    expect(report.issues.messages.filter((m: { severity: number }) => m.severity <= 1)).toEqual([]);
  });

  it('has true measurements when it is read back: metres, y up', async () => {
    const document = await new WebIO().readBinary(bytes);
    const low = [Infinity, Infinity, Infinity];
    const high = [-Infinity, -Infinity, -Infinity];
    const walls = new Set(Object.keys(project.walls));
    const root = document
      .getRoot()
      .listNodes()
      .find((n) => n.listChildren().length > 1)!;
    for (const node of root.listChildren()) {
      if (!walls.has(node.getExtras().id as string)) continue;
      const m = node.getWorldMatrix();
      for (const primitive of node.getMesh()!.listPrimitives()) {
        const position = primitive.getAttribute('POSITION')!;
        const p = [0, 0, 0];
        for (let i = 0; i < position.getCount(); i++) {
          position.getElement(i, p);
          for (let c = 0; c < 3; c++) {
            const v = m[c] * p[0] + m[4 + c] * p[1] + m[8 + c] * p[2] + m[12 + c];
            low[c] = Math.min(low[c], v);
            high[c] = Math.max(high[c], v);
          }
        }
      }
    }
    // The house is 10.4 wide and 8.25 deep over its porch; its gables rise from the upper ceilings at 5.05 by half its
    // depth at 42°, where the roof lies on them. y is up, the plan's y goes to −z.
    expect(high[0] - low[0]).toBeCloseTo(10.4, 4);
    expect(high[1] - low[1]).toBeCloseTo(5.05 + 3.5 * Math.tan((42 * Math.PI) / 180), 4);
    expect(high[2] - low[2]).toBeCloseTo(8.25, 4);
    expect(low[1]).toBeCloseTo(0, 5);
  });

  it('has everything where the model has it, thing by thing', async () => {
    const model = deriveModel(heronLockCottage());
    const document = await new WebIO().readBinary(await writeGlb(model));
    type Box = number[];
    const grow = (boxes: Map<string, Box>, id: string, p: readonly number[]): void => {
      const box = boxes.get(id) ?? [Infinity, Infinity, Infinity, -Infinity, -Infinity, -Infinity];
      for (let c = 0; c < 3; c++) {
        box[c] = Math.min(box[c], p[c]);
        box[c + 3] = Math.max(box[c + 3], p[c]);
      }
      boxes.set(id, box);
    };
    const found = new Map<string, Box>();
    const look = (node: Node, id: string | null): void => {
      const own = (node.getExtras().id as string | undefined) ?? id;
      const m = node.getWorldMatrix();
      for (const primitive of node.getMesh()?.listPrimitives() ?? []) {
        const position = primitive.getAttribute('POSITION')!;
        for (let i = 0, e = [0, 0, 0]; i < position.getCount(); i++) {
          position.getElement(i, e);
          // glTF is y up.
          const [x, y, z] = [0, 1, 2].map((r) => m[r] * e[0] + m[4 + r] * e[1] + m[8 + r] * e[2] + m[12 + r]);
          grow(found, own!, [x, -z, y]);
        }
      }
      for (const child of node.listChildren()) look(child, own);
    };
    for (const child of document.getRoot().listScenes()[0].listChildren()) look(child, null);
    const meant = new Map<string, Box>();
    const add = (id: string, mesh: { positions: Float32Array }, matrix: Matrix): void => {
      for (let k = 0; k < mesh.positions.length; k += 3) {
        const p = transformPoint(matrix, { x: mesh.positions[k], y: mesh.positions[k + 1], z: mesh.positions[k + 2] });
        grow(meant, id, [p.x, p.y, p.z]);
      }
    };
    for (const [body, part] of partsOf(model))
      if (body.kind !== 'site' && body.kind !== 'backdrop') for (const matrix of placesOf(body, part)) add(body.id, part.mesh, matrix);
    expect(meant.size).toBeGreaterThan(100);
    for (const [id, box] of meant) {
      const other = found.get(id);
      expect([id, other !== undefined]).toEqual([id, true]);
      box.forEach((v, i) => expect(Math.abs(v - other![i]), id).toBeLessThan(2e-4));
    }
  });

  it('names its nodes and carries the finishes at real size', async () => {
    const document = await new WebIO().readBinary(bytes);
    const names = document
      .getRoot()
      .listNodes()
      .map((n) => n.getName());
    for (const name of ['Kitchen & dining', 'Front door', 'Sofa', 'Stair', 'Main roof', 'Loft dormer', 'Deck', 'Canal']) expect(names).toContain(name);
    const oak = document
      .getRoot()
      .listMaterials()
      .find((m) => m.getName() === 'Oak plank, brushed')!;
    expect(oak.getBaseColorTexture()!.getMimeType()).toBe('image/png');
    const kitchen = document
      .getRoot()
      .listNodes()
      .find((n) => n.getName() === 'Kitchen & dining')!;
    const floor = kitchen
      .getMesh()!
      .listPrimitives()
      .find((p) => p.getMaterial() === oak)!;
    // Texture coordinates run once over what repeats: compare with the positions, in the axes of the room's longest wall.
    const size = textureSpan(finishById('timber.oak-plank'));
    const [a, b] = [
      [0, 0, 0],
      [0, 0, 0],
    ];
    const [s, t] = [
      [0, 0],
      [0, 0],
    ];
    const position = floor.getAttribute('POSITION')!;
    const uv = floor.getAttribute('TEXCOORD_0')!;
    position.getElement(0, a);
    uv.getElement(0, s);
    for (let i = 1; i < position.getCount(); i++) {
      position.getElement(i, b);
      uv.getElement(i, t);
      const [du, dv] = [Math.abs(t[0] - s[0]) * size.width, Math.abs(t[1] - s[1]) * size.height];
      expect(du).toBeCloseTo(Math.abs(b[1] - a[1]), 4);
      expect(dv).toBeCloseTo(Math.abs(b[0] - a[0]), 4);
    }
  });
});

describe('pictures', () => {
  it('writes PNG that another reader understands', async () => {
    const pixels = Uint8Array.from({ length: 4 * 6 }, (_, i) => (i * 37) % 256);
    const { data, info } = await sharp(Buffer.from(writePng(pixels, 3, 2)))
      .raw()
      .toBuffer({ resolveWithObject: true });
    expect([info.width, info.height, info.channels]).toEqual([3, 2, 4]);
    expect(new Uint8Array(data)).toEqual(pixels);
    expect(new Uint8Array(readPng(writePng(pixels, 3, 2)).data)).toEqual(pixels);
    expect(refusal(() => readPng(new Uint8Array([1, 2, 3])))).toMatch(/PNG/);
  });

  it('keeps radiance to within the precision of RGBE', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 1e-3, max: 1e6, noNaN: true }), { minLength: 12, maxLength: 12 }), (values) => {
        const { width, height, radiance } = readHdr(writeHdr(Float32Array.from(values), 2, 2));
        expect([width, height]).toEqual([2, 2]);
        for (let p = 0; p < 4; p++) {
          const peak = Math.max(...values.slice(p * 3, p * 3 + 3));
          for (let c = 0; c < 3; c++) expect(Math.abs(radiance[p * 3 + c] - values[p * 3 + c])).toBeLessThanOrEqual(peak / 128);
        }
      }),
    );
  });

  it('reads the run-length coded form too', () => {
    // One row of eight pixels, each channel one run: red 128, green 64, blue 32, exponent 129.
    const rows = [2, 2, 0, 8, ...[128, 64, 32, 129].flatMap((v) => [136, v])];
    const bytes = new Uint8Array([...strToU8('#?RADIANCE\nFORMAT=32-bit_rle_rgbe\n\n-Y 1 +X 8\n'), ...rows]);
    const { radiance } = readHdr(bytes);
    expect(radiance[0]).toBeCloseTo(1.0, 1);
    expect(radiance[21]).toBeCloseTo(1.0, 1);
    expect(refusal(() => readHdr(strToU8('hello')))).toMatch(/HDR/);
  });
});

describe('the PDF of a board', () => {
  const fonts = async () => {
    const font = async (name: string) => new Uint8Array(await readFile(path.join('node_modules/@fontsource', name)));
    return {
      sans: await font('instrument-sans/files/instrument-sans-latin-400-normal.woff'),
      serif: await font('instrument-serif/files/instrument-serif-latin-400-normal.woff'),
    };
  };
  const item = (id: string, rest: object): BoardItem =>
    ({ id, page: 'one', order: 0, x: 0.05, y: 0.08, width: 0.1, height: 0.05, shadow: false, ...rest }) as BoardItem;

  it('has the page’s true size, text as text, and a sample of the length it was given', async () => {
    const project: Project = { ...emptyProject('p', 'P') };
    const board = {
      id: 'b',
      name: 'Board',
      paper: { width: 0.42, height: 0.297 },
      pages: { one: { id: 'one', name: 'One', order: 0, ground: '#ffffff' } },
      items: {
        s: item('s', { kind: 'sample', finish: 'paint.reed', form: 'board', note: 'A note' }),
        t: item('t', { kind: 'text', y: 0.02, text: 'Kitchen & dining', size: 0.012, face: 'serif', align: 'left' }),
      },
    };
    const bytes = await writeBoardPdf(project, board, { fonts: await fonts(), picture: () => Promise.reject(new Error('none')) });
    expect(await writeBoardPdf(project, board, { fonts: await fonts(), picture: () => Promise.reject(new Error('none')) })).toEqual(bytes);
    const pdf = await getDocument({ data: bytes.slice(), verbosity: 0 }).promise;
    const page = await pdf.getPage(1);
    const { width, height } = page.getViewport({ scale: 1 });
    expect((width / 72) * 25.4).toBeCloseTo(420, 3);
    expect((height / 72) * 25.4).toBeCloseTo(297, 3);
    const texts = (await page.getTextContent()).items.map((i) => ('str' in i ? i.str : ''));
    expect(texts.join(' ')).toContain('Kitchen & dining');
    expect(texts.join(' ')).toContain('A note');
    // The sample is an image placed by a matrix: its scale is its size on paper.
    const list = await page.getOperatorList();
    const stack: number[][] = [];
    let m = [1, 0, 0, 1, 0, 0];
    const sizes: number[][] = [];
    list.fnArray.forEach((fn, i) => {
      if (fn === OPS.save) stack.push(m);
      else if (fn === OPS.restore) m = stack.pop()!;
      else if (fn === OPS.transform) {
        const [a, b, c, d, e, f] = list.argsArray[i] as number[];
        m = [m[0] * a + m[2] * b, m[1] * a + m[3] * b, m[0] * c + m[2] * d, m[1] * c + m[3] * d, m[0] * e + m[2] * f + m[4], m[1] * e + m[3] * f + m[5]];
      } else if (fn === OPS.paintImageXObject) sizes.push([m[0] / POINTS_PER_METRE, m[3] / POINTS_PER_METRE, m[4] / POINTS_PER_METRE]);
    });
    expect(sizes).toEqual([[expect.closeTo(0.1, 6), expect.closeTo(0.05, 6), expect.closeTo(0.05, 6)]]);
  });
});
