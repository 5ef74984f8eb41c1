import { addressOf } from '../../project/targets';
import { laidFinish, placeOf, type Frame, type Placing } from '../../finishes/laying/place';
import { profileIn } from '../../finishes/profiles';
import { finishIn } from '../../finishes/store';
import type { Mesh } from '../../geometry/mesh';
import { signedArea } from '../../geometry/polygon';
import { standingIn } from '../../project/standing';
import type { Finish, Patch, Profile, Project } from '../../project/schema';
import { Parts, type Owned, type Part } from '../../model/body';
import type { Memo } from '../../model/memo';
import type { Region } from '../../geometry/region';
import type { DerivedLevel } from '../model';
import { wayKey, type DerivedOpening } from '../openings/derive';
import { faceX } from '../wall-face';
import type { WallSide } from '../wall-types';
import { facesOfRoom, outerFaces } from './faces';
import type { Face, DerivedMoulding, DressedFace, DerivedPatch } from './dressed';
import { deriveMoulding } from './mouldings';
import { derivePatches, liesOn } from './patches';

export interface Dress {
  faces: DressedFace[];
  mouldings: DerivedMoulding[];
  parts: readonly Owned[];
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
  /** Parts in place of those of the shell, by key. */
  instead: Map<string, Part>;
  more: readonly Owned[];
}

/**
 * Finishes as they are laid on the faces of a level: patterns placed, patches and mouldings in front of the walls. Whatever
 * has not been touched since last time is the same object.
 */
export function dressLevel(memo: Memo, project: Project, level: DerivedLevel): Dress {
  const parts = new Map<string, Part>(level.parts.map(({ part }) => [part.key, part]));
  const byRoom = new Map<string | null, Patch[]>();
  for (const id in project.patches) {
    const patch = project.patches[id];
    byRoom.set(patch.on.room, [...(byRoom.get(patch.on.room) ?? []), patch]);
  }
  const all: Dressed[] = [];
  const byWay = waysByRoom(level, parts);
  const byId = new Map(level.openings.map((o) => [o.id, o]));
  const openingsIn = (sides: readonly WallSide[]): DerivedOpening[] => [...new Set(sides.flatMap((side) => side.openings))].flatMap((id) => byId.get(id) ?? []);
  for (const room of level.rooms) {
    const patches = byRoom.get(room.id) ?? [];
    const keys = [`${room.id}/floor`, `${room.id}/ceiling`, ...room.sides.map((side) => sideKey(level, side))];
    const ways = byWay.get(room.id) ?? NO_WAYS;
    const openings = patches.length ? openingsIn(room.sides) : NONE;
    const own = [...keys.map((key) => parts.get(key)), ...ways.map((way) => way.part)];
    all.push(
      memo.get('dressed room', room.id, [level.level, room, ...own, ...patches, ...openings, project.layings, project.finishes, project.profiles], () =>
        dress(memo, project, {
          patches,
          openings,
          parts,
          faces: facesOfRoom(project, level.level, room, (kind) => parts.get(`${room.id}/${kind}`)?.mesh),
          keyOf: (face) => (face.side ? sideKey(level, face.side) : `${room.id}/${face.kind}`),
          ways,
        }),
      ),
    );
  }
  const outside = byRoom.get(null) ?? [];
  for (const wall of level.walls) {
    if (!wall.sides.some((side) => side.room === null)) continue;
    const openings = outside.length ? openingsIn(wall.sides) : NONE;
    const own = wall.sides.map((side) => parts.get(sideKey(level, side)));
    all.push(
      memo.get(
        'dressed outside',
        wall.id,
        [wall, level.level, project.outside, ...own, ...outside, ...openings, project.layings, project.finishes, project.profiles],
        () =>
          dress(memo, project, {
            patches: outside,
            openings,
            parts,
            faces: outerFaces(project, level.level, wall),
            keyOf: (face) => sideKey(level, face.side!),
            ways: NO_WAYS,
          }),
      ),
    );
  }
  const instead = new Map(all.flatMap((d) => [...d.instead]));
  const faces = all.flatMap((d) => d.faces);
  const mouldings = deriveMouldings(memo, project, level, faces);
  const shown = level.parts.map(({ owner, part }) => {
    const laid = instead.get(part.key);
    return laid ? { owner, part: laid } : { owner, part };
  });
  const more = new Parts(memo, project);
  for (const moulding of mouldings) putMoulding(more, moulding, level.id);
  return { faces, mouldings, parts: [...shown, ...all.flatMap((d) => d.more), ...more.made] };
}

/** The ways through the walls of each room in which its floor goes on at its own height. */
function waysByRoom(level: DerivedLevel, parts: ReadonlyMap<string, Part>): Map<string, { region: Region; part: Part }[]> {
  const out = new Map<string, { region: Region; part: Part }[]>();
  for (const { id, floors, rooms } of level.openings)
    for (const { side, region } of floors) {
      const room = rooms[side];
      const part = room === null ? undefined : parts.get(`${room}/${wayKey(id, side)}`);
      if (room === null || !part) continue;
      const list = out.get(room);
      if (list) list.push({ region, part });
      else out.set(room, [{ region, part }]);
    }
  return out;
}

interface Undressed {
  faces: readonly Face[];
  patches: readonly Patch[];
  /** The openings in its walls; they are asked for where there are patches. */
  openings: readonly DerivedOpening[];
  /** What exists of the level, and under which key a face’s part is found there. */
  parts: ReadonlyMap<string, Part>;
  keyOf(face: Face): string;
  /** Doorways the floor goes on into. */
  ways: readonly { region: Region; part: Part }[];
}

function dress(memo: Memo, project: Project, { faces, patches, openings, parts, keyOf, ways }: Undressed): Dressed {
  const more = new Parts(memo, project);
  const out: Dressed = { faces: [], instead: new Map(), more: more.made };
  const finish = (id: string): Finish => finishIn(project, id);
  const profile = (id: string): Profile | null => profileIn(project, id);
  for (const face of faces) {
    const laying = project.layings[face.address];
    const chosen = finish(face.finish);
    const laid = laidFinish(chosen, laying);
    const placing = laid.laying || laying ? placeOf(laid.laying, laying, face.frame, face.carried) : AS_IT_IS;
    const on = patches.length ? patches.filter((p) => liesOn(p, face)) : [];
    const derived = on.length ? derivePatches(face, on, coveredOf(face, openings), finish, profile) : [];
    const lay = (part: Part): Part => {
      const { origin, angle } = placing;
      if (laid === chosen && origin.x === 0 && origin.y === 0 && angle === 0) return part;
      const placed: Part = {
        ...part,
        laid,
        mesh: memo.get('placed mesh', part.key, [part.mesh, origin.x, origin.y, angle], () => placedMesh(part.mesh, placing)),
      };
      out.instead.set(part.key, placed);
      return placed;
    };
    const shown = parts.get(keyOf(face));
    const own = shown ? lay(shown) : null;
    const onward = face.kind === 'floor' ? ways.map(({ region, part }) => ({ region, part: lay(part) })) : [];
    out.faces.push({
      ...face,
      laid,
      placing,
      part: own,
      ways: onward,
      patches: derived,
      rest: { area: face.area - derived.reduce((sum, p) => sum + p.area, 0) },
    });
    for (const patch of derived) putPatch(more, project, patch, face.level);
  }
  return out;
}

/** What the joinery of the openings in a wall covers of one of its faces, in the coordinates of the face. */
function coveredOf({ side }: Face, openings: readonly DerivedOpening[]): Region[] {
  if (!side) return [];
  return openings
    .filter((o) => side.openings.includes(o.id))
    .flatMap(({ opening, surround }) =>
      surround[side.side].map(({ outer }): Region => {
        const ring = outer.map((p) => ({ x: faceX(side, opening.at + p.x), y: p.y }));
        return { outer: signedArea(ring) < 0 ? ring.reverse() : ring, holes: [] };
      }),
    );
}

const NONE: readonly DerivedOpening[] = [];
const NO_WAYS: readonly { region: Region; part: Part }[] = [];
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

function putMoulding(parts: Parts, { moulding, parts: stretches }: DerivedMoulding, level: string): void {
  const owner = { id: moulding.id, kind: 'mouldings', level } as const;
  stretches.forEach(({ wall, mesh }, i) =>
    parts.put(owner, {
      part: 'moulding',
      key: String(i),
      sort: 'moulding',
      finish: moulding.finish,
      chosen: true,
      target: { kind: 'moulding', moulding: moulding.id },
      mesh,
      host: wall,
    }),
  );
}

/** The key of the part a side of a wall shows as. */
function sideKey(level: DerivedLevel, side: WallSide): string {
  let index = keys.get(side);
  if (!index) {
    const wall = level.walls.find((w) => w.id === side.wall);
    keys.set(side, (index = `${side.key}/${wall?.sides.indexOf(side) ?? 0}`));
  }
  return index;
}
const keys = new WeakMap<WallSide, string>();

function putPatch(parts: Parts, project: Project, derived: DerivedPatch, level: string): void {
  const { patch, face } = derived;
  const owner = { id: patch.id, kind: 'patches', level } as const;
  const put = (part: 'field' | 'panels' | 'moulding', mesh: Mesh | null, finish: string, chosen: boolean): void => {
    if (!mesh || !mesh.indices.length) return;
    const own = project.layings[addressOf({ kind: 'patch', patch: patch.id, part })];
    const laid = laidFinish(finishIn(project, finish), own);
    const placing = part !== 'moulding' && (laid.laying || own) ? placeOf(laid.laying, own, frameOf(derived), face.carried) : null;
    parts.put(owner, {
      part,
      key: `${part}/${face.address}/${face.side?.s0 ?? ''}`,
      sort: 'patch',
      role: part === 'moulding' ? 'joinery' : face.kind,
      finish,
      chosen,
      laid,
      target: { kind: 'patch', patch: patch.id, part },
      mesh: placing ? placedMesh(mesh, placing) : mesh,
      host: face.side?.wall,
    });
  };
  put('field', derived.mesh, patch.finish, true);
  put('panels', derived.fields, patch.panels?.field ?? patch.finish, Boolean(patch.panels?.field));
  put('moulding', derived.frames, patch.panels?.moulding ?? patch.finish, Boolean(patch.panels?.moulding));
}

/** Where the pattern of a patch begins on its face. */
export function patchPlacing(project: Project, derived: DerivedPatch): { laid: Finish; placing: Placing } {
  const own = project.layings[addressOf({ kind: 'patch', patch: derived.patch.id, part: 'field' })];
  const laid = laidFinish(finishIn(project, derived.patch.finish), own);
  return { laid, placing: placeOf(laid.laying, own, frameOf(derived), derived.face.carried) };
}

/** The rectangle round a patch. */
function frameOf({ regions }: DerivedPatch): Frame {
  const points = regions.flatMap((r) => r.outer);
  const [xs, ys] = [points.map((p) => p.x), points.map((p) => p.y)];
  return { angle: 0, x0: Math.min(...xs), y0: Math.min(...ys), x1: Math.max(...xs), y1: Math.max(...ys) };
}
