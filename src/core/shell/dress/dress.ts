import { laidFinish, placeOf, type Frame, type Placing } from '../../finishes/laying/place';
import { profileIn } from '../../finishes/profiles';
import { finishIn } from '../../finishes/store';
import type { Mesh } from '../../geometry/mesh';
import { standingIn } from '../../project/standing';
import type { Finish, Patch, Profile, Project } from '../../project/schema';
import type { Memo } from '../memo';
import type { DerivedLevel } from '../model';
import type { Surface } from '../surfaces';
import type { WallSide } from '../walls';
import { facesOfRoom, outerFaces, type Face } from './faces';
import { deriveMoulding, type DerivedMoulding } from './mouldings';
import { derivePatches, liesOn, type DerivedPatch } from './patches';

/** A face with all that is laid on it. */
export interface DressedFace extends Face {
  /** Its finish as it is laid here, and where its pattern begins. */
  laid: Finish;
  placing: Placing;
  patches: DerivedPatch[];
  /** What is left of it between its patches. */
  rest: { area: number };
}

export interface Dress {
  faces: DressedFace[];
  mouldings: DerivedMoulding[];
  surfaces: Surface[];
}

/** A mesh with its texture brought to where a pattern begins. */
function placedMesh(mesh: Mesh, { origin, angle }: Placing): Mesh {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const uvs = new Float32Array(mesh.uvs.length);
  for (let i = 0; i < uvs.length; i += 2) {
    const [x, y] = [mesh.uvs[i] - origin.x, mesh.uvs[i + 1] - origin.y];
    uvs[i] = x * c + y * s;
    uvs[i + 1] = -x * s + y * c;
  }
  return { ...mesh, uvs };
}

/** What has been dressed together: the faces of a room, or of the outer side of a wall. */
interface Dressed {
  faces: DressedFace[];
  /** Surfaces in place of those of the shell, by key. */
  instead: Map<string, Surface>;
  more: Surface[];
}

/**
 * Finishes as they are laid on the faces of a level: patterns placed, patches and mouldings in front of the walls. Whatever
 * has not been touched since last time is the same object.
 */
export function dressLevel(memo: Memo, project: Project, level: DerivedLevel): Dress {
  const surfaces = new Map<string, Surface>(level.surfaces.map((s) => [s.key, s]));
  const byRoom = new Map<string | null, Patch[]>();
  for (const id in project.patches) {
    const patch = project.patches[id];
    byRoom.set(patch.on.room, [...(byRoom.get(patch.on.room) ?? []), patch]);
  }
  const all: Dressed[] = [];
  for (const room of level.rooms) {
    const patches = byRoom.get(room.id) ?? [];
    const keys = [`${room.id}/floor`, `${room.id}/ceiling`, ...room.sides.map((side) => sideSurface(level, side))];
    const own = keys.map((key) => surfaces.get(key));
    all.push(
      memo.get('dressed room', room.id, [level.level, room, ...own, ...patches, project.layings, project.finishes, project.profiles], () =>
        dress(
          memo,
          project,
          patches,
          surfaces,
          facesOfRoom(project, level.level, room, (kind) => surfaces.get(`${room.id}/${kind}`)?.mesh),
          (face) => (face.side ? sideSurface(level, face.side) : `${room.id}/${face.kind}`),
        ),
      ),
    );
  }
  const outside = byRoom.get(null) ?? [];
  for (const wall of level.walls) {
    if (!wall.sides.some((side) => side.room === null)) continue;
    const own = wall.sides.map((side) => surfaces.get(sideSurface(level, side)));
    all.push(
      memo.get('dressed outside', wall.id, [wall, level.level, project.outside, ...own, ...outside, project.layings, project.finishes, project.profiles], () =>
        dress(memo, project, outside, surfaces, outerFaces(project, level.level, wall), (face) => sideSurface(level, face.side!)),
      ),
    );
  }
  const instead = new Map(all.flatMap((d) => [...d.instead]));
  const faces = all.flatMap((d) => d.faces);
  const mouldings = deriveMouldings(memo, project, level, faces);
  const shown = level.surfaces.map((s) => instead.get(s.key) ?? s);
  return { faces, mouldings, surfaces: [...shown, ...all.flatMap((d) => d.more), ...mouldings.flatMap((m) => mouldingSurfaces(memo, m, level.id))] };
}

function dress(
  memo: Memo,
  project: Project,
  patches: readonly Patch[],
  surfaces: ReadonlyMap<string, Surface>,
  faces: readonly Face[],
  surfaceOf: (face: Face) => string,
): Dressed {
  const out: Dressed = { faces: [], instead: new Map(), more: [] };
  const finish = (id: string): Finish => finishIn(project, id);
  const profile = (id: string): Profile | null => profileIn(project, id);
  for (const face of faces) {
    const own = project.layings[face.address];
    const chosen = finish(face.finish);
    const laid = laidFinish(chosen, own);
    const placing = laid.laying || own ? placeOf(laid.laying, own, face.frame, face.carried) : AS_IT_IS;
    const on = patches.length ? patches.filter((p) => liesOn(p, face)) : [];
    const derived = on.length ? derivePatches(face, on, finish, profile) : [];
    out.faces.push({ ...face, laid, placing, patches: derived, rest: { area: face.area - derived.reduce((sum, p) => sum + p.area, 0) } });
    const key = surfaceOf(face);
    const surface = surfaces.get(key);
    if (surface && !(placing.origin.x === 0 && placing.origin.y === 0 && placing.angle === 0)) {
      const { origin, angle } = placing;
      const mesh = memo.get('placed mesh', key, [surface.mesh, origin.x, origin.y, angle], () => placedMesh(surface.mesh, placing));
      out.instead.set(key, { ...surface, mesh, laid: laid === chosen ? undefined : laid });
    }
    for (const patch of derived) out.more.push(...patchSurfaces(project, patch, face.level));
  }
  return out;
}

const AS_IT_IS: Placing = { origin: { x: 0, y: 0 }, angle: 0 };

function deriveMouldings(memo: Memo, project: Project, level: DerivedLevel, faces: readonly Face[]): DerivedMoulding[] {
  return Object.values(project.mouldings).flatMap((moulding): DerivedMoulding[] => {
    const room = project.rooms[moulding.room]?.level === level.id ? level.rooms.find((r) => r.id === moulding.room) : undefined;
    const section = profileIn(project, moulding.profile);
    if (!room || !section) return [];
    const own = faces.filter((f) => f.kind === 'wall' && f.room === room.id);
    const standing = own.flatMap((f) => standingIn(project, f.side!.wall));
    return [
      memo.get('moulding', moulding.id, [moulding, section, room, level.level, ...standing], () =>
        deriveMoulding(moulding, section, own, room.room.step, (wall) => standingIn(project, wall)),
      ),
    ];
  });
}

const mouldingSurfaces = (memo: Memo, derived: DerivedMoulding, level: string): Surface[] =>
  memo.get('moulding surfaces', derived.moulding.id, [derived], () =>
    derived.parts.map(({ wall, mesh }, i): Surface => ({
      key: `${derived.moulding.id}/${i}`,
      entity: derived.moulding.id,
      target: { kind: 'moulding', moulding: derived.moulding.id },
      finish: derived.moulding.finish,
      kind: 'moulding',
      mesh,
      matrix: null,
      level,
      host: wall,
    })),
  );

/** The key of the surface a side of a wall shows as. */
function sideSurface(level: DerivedLevel, side: WallSide): string {
  let index = keys.get(side);
  if (!index) {
    const wall = level.walls.find((w) => w.id === side.wall);
    keys.set(side, (index = `${side.key}/${wall?.sides.indexOf(side) ?? 0}`));
  }
  return index;
}
const keys = new WeakMap<WallSide, string>();

function patchSurfaces(project: Project, derived: DerivedPatch, level: string): Surface[] {
  const { patch, face } = derived;
  const out: Surface[] = [];
  const put = (part: 'field' | 'panels' | 'moulding', mesh: Mesh | null, id: string): void => {
    if (!mesh || !mesh.indices.length) return;
    const target = { kind: 'patch', patch: patch.id, part } as const;
    const own = project.layings[`patch/${patch.id}/${part}`];
    const chosen = finishIn(project, id);
    const laid = laidFinish(chosen, own);
    const placing = part !== 'moulding' && (laid.laying || own) ? placeOf(laid.laying, own, frameOf(derived), face.carried) : null;
    out.push({
      key: `${patch.id}/${part}/${face.address}/${face.side?.s0 ?? ''}`,
      entity: patch.id,
      target,
      finish: id,
      laid: laid === chosen ? undefined : laid,
      kind: 'patch',
      mesh: placing ? placedMesh(mesh, placing) : mesh,
      matrix: null,
      level,
      host: face.side?.wall,
    });
  };
  put('field', derived.mesh, patch.finish);
  put('panels', derived.fields, patch.panels?.field ?? patch.finish);
  put('moulding', derived.frames, patch.panels?.moulding ?? patch.finish);
  return out;
}

/** Where the pattern of a patch begins on its face. */
export function patchPlacing(project: Project, derived: DerivedPatch): { laid: Finish; placing: Placing } {
  const own = project.layings[`patch/${derived.patch.id}/field`];
  const laid = laidFinish(finishIn(project, derived.patch.finish), own);
  return { laid, placing: placeOf(laid.laying, own, frameOf(derived), derived.face.carried) };
}

/** The rectangle round a patch. */
function frameOf({ regions }: DerivedPatch): Frame {
  const points = regions.flatMap((r) => r.outer);
  const [xs, ys] = [points.map((p) => p.x), points.map((p) => p.y)];
  return { angle: 0, x0: Math.min(...xs), y0: Math.min(...ys), x1: Math.max(...xs), y1: Math.max(...ys) };
}
