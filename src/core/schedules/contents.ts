import { inMarks } from '../cabinetry/line';
import { insideRegion } from '../geometry/polygon';
import type { Model } from '../model/model';
import { GROUND_NAMES } from '../project/built-defaults';
import { collections, kindOf, type CollectionName } from '../project/kinds';
import { formName, KIND_NAMES } from '../project/opening-defaults';
import { roomOfRun } from '../project/runs';
import { addressOf, targetName, type Target } from '../project/targets';

/** One line of the contents: a thing, or what holds others. */
export interface ContentsNode {
  /** Of the thing; of what only holds others, a name of its own that no thing has. */
  id: string;
  name: string;
  /** What it is, in a word. */
  kind: string;
  /** Whether it is a thing of the project, and not only a heading. */
  thing: boolean;
  /** Of a face: what a finish is chosen for. */
  target?: Target;
  children: ContentsNode[];
}

const heading = (id: string, name: string, children: ContentsNode[]): ContentsNode[] =>
  children.length ? [{ id: `heading ${id}`, name, kind: '', thing: false, children }] : [];

/** Kinds that are listed under others, or in a way of their own; guide lines are no things. */
const LISTED: ReadonlySet<CollectionName> = new Set(['walls', 'rooms', 'openings', 'roofs', 'dormers', 'pieces', 'runs', 'guides'] as const);

/**
 * Everything a project holds, by level and room: what stands in a room under it, the rest under its level; what lies
 * outside, groups and viewpoints for themselves.
 */
export function contentsOf(model: Model): ContentsNode[] {
  const { project } = model;
  const leaf = (id: string, name: string, kind: string, children: ContentsNode[] = []): ContentsNode => ({ id, name, kind, thing: true, children });
  const placed = new Set<string>();
  const levels = [...model.shell.levels].reverse().map((level): ContentsNode => {
    const own = (c: Record<string, { id: string; name: string; level: string }>, kind: string): ContentsNode[] =>
      Object.values(c)
        .filter((t) => t.level === level.id)
        .map((t) => leaf(t.id, t.name, kind));
    const pieces = model.pieces.filter((p) => p.piece.level === level.id);
    const runs = (within: (room: string | null) => boolean): ContentsNode[] =>
      Object.values(project.runs)
        .filter((r) => r.level === level.id && within(roomOfRun(r)))
        .map((r) =>
          leaf(
            r.id,
            r.name,
            'run of cabinets',
            inMarks(Object.values(project.cabinets).filter((u) => u.run === r.id)).map((u, i) => leaf(u.id, `${i + 1} ${u.name}`, 'unit')),
          ),
        );
    const face = (target: Target, name: string): ContentsNode => ({ id: addressOf(target), name, kind: 'face', thing: false, target, children: [] });
    const rooms = level.rooms.map((room): ContentsNode => {
      const id = room.id;
      // A wall that others meet has several sides in a room, and one finish.
      const walls = new Map<string, Target>();
      for (const { wall, side } of room.sides) {
        const target: Target = { kind: 'wall', room: id, wall, side };
        walls.set(addressOf(target), target);
      }
      const names = [...walls.values()].map((target) => targetName(project, target).replace(/^.*, /, ''));
      const faces = [
        face({ kind: 'floor', room: id }, 'floor'),
        ...(room.covered ? [face({ kind: 'ceiling', room: id }, 'ceiling')] : []),
        ...[...walls.values()].map((target, i) => {
          const same = names.flatMap((n, k) => (n === names[i] ? [k] : []));
          return face(target, same.length > 1 ? `${names[i]} ${same.indexOf(i) + 1}` : names[i]);
        }),
      ];
      const openings = [...new Set(room.sides.flatMap((s) => s.openings))]
        .filter((id) => !placed.has(id))
        .map((id) => {
          placed.add(id);
          const o = project.openings[id];
          return leaf(id, o.name, `${KIND_NAMES[o.kind]}, ${formName(o.kind, o.form)}`.toLowerCase());
        });
      const inside = pieces
        .filter((p) => !placed.has(p.id) && insideRegion(p.piece, room.region))
        .map((p) => {
          placed.add(p.id);
          return leaf(p.id, p.piece.name, 'piece');
        });
      return leaf(room.id, room.room.name, 'room', [...heading(`faces ${id}`, 'Faces', faces), ...openings, ...runs((own) => own === id), ...inside]);
    });
    const walls = level.walls.map((w, i) =>
      leaf(
        w.id,
        w.wall.kind === 'boundary' ? `Boundary ${i + 1}` : `Wall ${i + 1}`,
        project.wallTypes[w.wall.type ?? '']?.name.toLowerCase() ?? 'one layer',
        // Its faces within are with their rooms.
        [...new Set(w.sides.flatMap((s) => (s.room === null ? [s.side] : [])))].map((side) => {
          const target: Target = { kind: 'wall', room: null, wall: w.id, side };
          return face(target, targetName(project, target));
        }),
      ),
    );
    const roofs = Object.values(project.roofs)
      .filter((r) => r.level === level.id)
      .map((r) =>
        leaf(
          r.id,
          r.name,
          'roof',
          Object.values(project.dormers)
            .filter((d) => d.roof === r.id)
            .map((d) => leaf(d.id, d.name, 'dormer')),
        ),
      );
    const rest = [
      ...Object.values(project.openings)
        .filter((o) => !placed.has(o.id) && project.walls[o.wall]?.level === level.id)
        .map((o) => leaf(o.id, o.name, KIND_NAMES[o.kind].toLowerCase())),
      ...runs((own) => !level.rooms.some((r) => r.id === own)),
      ...pieces.filter((p) => !placed.has(p.id)).map((p) => leaf(p.id, p.piece.name, 'piece')),
    ];
    return leaf(level.id, level.level.name, 'level', [
      ...rooms,
      ...collections().flatMap((name) =>
        kindOf(name).onLevel && !LISTED.has(name) ? own(project[name] as Record<string, { id: string; name: string; level: string }>, kindOf(name).word) : [],
      ),
      ...roofs,
      ...heading(`walls ${level.id}`, 'Walls', walls),
      ...heading(`rest ${level.id}`, 'In no room', rest),
    ]);
  });
  // What has a status and is on no level and on nothing else lies outside.
  const outside = collections().flatMap((name) =>
    kindOf(name).status && !kindOf(name).onLevel && !LISTED.has(name)
      ? Object.values(project[name] as unknown as Record<string, { id: string; name: string; kind?: string }>).map((t) =>
          leaf(t.id, t.name, name === 'grounds' ? GROUND_NAMES[t.kind as 'lawn'].toLowerCase() : kindOf(name).word),
        )
      : [],
  );
  const names = namesIn([...levels, ...outside]);
  const groups = Object.values(project.contents.groups).map((g): ContentsNode => ({
    id: g.id,
    name: g.name,
    kind: 'group',
    thing: true,
    children: g.members.flatMap((m) => (names.has(m) ? [leaf(m, names.get(m)!.name, names.get(m)!.kind)] : [])),
  }));
  return [
    ...heading('groups', 'Groups', groups),
    ...levels,
    ...heading('outside', 'Outside', outside),
    ...heading(
      'viewpoints',
      'Viewpoints',
      Object.values(project.viewpoints).map((v) => leaf(v.id, v.name, 'viewpoint')),
    ),
  ];
}

function namesIn(nodes: readonly ContentsNode[]): Map<string, ContentsNode> {
  const out = new Map<string, ContentsNode>();
  const go = (list: readonly ContentsNode[]): void => {
    for (const n of list) {
      if (!out.has(n.id)) out.set(n.id, n);
      go(n.children);
    }
  };
  go(nodes);
  return out;
}

/** The nodes that a text is found in, with what holds them; all of them where the text is empty. */
export function findIn(nodes: readonly ContentsNode[], text: string): ContentsNode[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  if (!words.length) return [...nodes];
  return nodes.flatMap((n): ContentsNode[] => {
    const own = `${n.name} ${n.kind}`.toLowerCase();
    if (words.every((w) => own.includes(w))) return [n];
    const children = findIn(n.children, text);
    return children.length ? [{ ...n, children }] : [];
  });
}
