import { addressOf, type Target } from '../project/targets';
import { isGrained } from '../finishes/finish';
import { finishIn } from '../finishes/store';
import { alongGrain, type Grain } from '../geometry/grain';
import type { Joint } from '../geometry/joint';
import { IDENTITY, multiply, type Matrix, type Mesh } from '../geometry/mesh';
import type { Vec3 } from '../geometry/vec';
import type { Finish, Lamp, Project, Role } from '../project/schema';
import { finishedPart, type CollectionName, type Thing } from '../project/kinds';
import { sameItems, type Memo } from './memo';
import { traitsOf, type Sort } from './sorts';

/** What a body is of: a thing of one of the collections, or what lies about the site. */
export type BodyKind = CollectionName | 'site' | 'backdrop';

/** A rectangle of glass in world metres, for daylight to be sampled through. */
export interface Pane {
  corner: Vec3;
  along: Vec3;
  up: Vec3;
}

/** A part of a body: of one matter, with one address. */
export interface Part {
  /** Stable over edits, and told apart by it among all bodies of one kind. */
  key: string;
  /** What it is called within its body. */
  name: string;
  sort: Sort;
  /** What its finish is meant for. */
  role: Role | null;
  /** Id of its finish. */
  finish: string;
  /** That finish as it is laid here. */
  laid: Finish;
  /** Whether anybody has chosen it. */
  chosen: boolean;
  /** What a finish is chosen for to change it; null: it follows from others. */
  target: Target | null;
  /** The wall it goes with, where it is not of one. */
  host?: string;
  /** The level it stands on, where that is another than its body's. */
  level?: string;
  /** The light it gives. */
  lamp?: Lamp;
  /** Its glass, where daylight comes in through it. */
  panes?: readonly Pane[];
  /** Equal meshes are one object. */
  mesh: Mesh;
  /** Where the mesh stands in its body: forty handles are one mesh. */
  at: readonly Matrix[];
  /** What it opens by, where it does. */
  joint?: Hung;
  /** Which way its wood runs; a finish with a grain is laid that way. */
  grain?: Grain;
  /** The same with rounder curves, for pictures. */
  fine?(): Mesh;
  counts: 'covering' | 'built' | 'piece';
}

/** A joint and how far it stands open: radians, or metres. */
export interface Hung extends Joint {
  value: number;
}

/** Whatever stands, hangs, lies or grows. A point of a part lies at `matrix` × `at` × mesh, in world metres, z up. */
export interface Body {
  id: string;
  kind: BodyKind;
  /** Null: outside, on no level. */
  level: string | null;
  matrix: Matrix;
  parts: readonly Part[];
}

/** What a part belongs to. */
export interface Owner {
  id: string;
  kind: BodyKind;
  level: string | null;
  matrix?: Matrix;
}

/** A mesh that stands once, where its body does. */
export const HERE: readonly Matrix[] = [IDENTITY];

const singles = new WeakMap<Matrix, readonly Matrix[]>();

/** A mesh that stands once, somewhere in its body; the same list for the same matrix. */
export function onceAt(matrix: Matrix): readonly Matrix[] {
  let list = singles.get(matrix);
  if (!list) singles.set(matrix, (list = matrix === IDENTITY ? HERE : [matrix]));
  return list;
}

const worlds = new WeakMap<readonly Matrix[], WeakMap<Matrix, readonly Matrix[]>>();

/** Where the mesh of a part stands in the world; the same list while neither body nor part moves. */
export function placesOf(body: Pick<Body, 'matrix'>, part: Pick<Part, 'at'>): readonly Matrix[] {
  if (body.matrix === IDENTITY) return part.at;
  if (part.at === HERE) return onceAt(body.matrix);
  let known = worlds.get(part.at);
  if (!known) worlds.set(part.at, (known = new WeakMap()));
  let made = known.get(body.matrix);
  if (!made) known.set(body.matrix, (made = part.at.map((m) => multiply(body.matrix, m))));
  return made;
}

/** What is said of a part when it is put into a body. */
export interface PartInput {
  /** Its name, and its key where several have one name. */
  part: string;
  key?: string;
  sort: Sort;
  finish: string;
  chosen?: boolean;
  laid?: Finish;
  role?: Role | null;
  target: Target | null;
  mesh: Mesh;
  at?: readonly Matrix[];
  joint?: Hung;
  grain?: Grain;
  fine?(): Mesh;
  host?: string;
  level?: string;
  lamp?: Lamp;
  panes?: readonly Pane[];
}

/** A part with the thing it belongs to, before bodies are put together. */
export interface Owned {
  owner: Owner;
  part: Part;
}

/** Gathers the parts that are made for a project, each the same object as long as nothing about it changes. */
export class Parts {
  readonly made: Owned[] = [];

  constructor(
    private readonly memo: Memo,
    private readonly project: Pick<Project, 'finishes' | 'roofs' | 'outside'>,
  ) {}

  /** Puts a part of a thing, finished as somebody chose for it or as its kind begins. @param first begins otherwise here */
  putOf(owner: Owner & { kind: CollectionName }, thing: Thing, input: Omit<PartInput, 'finish' | 'chosen' | 'target' | 'role'>, first?: string): void {
    const own = finishedPart(owner.kind, thing, input.part, this.project);
    const finish = own.chosen ? own.finish : (first ?? own.finish);
    this.put(owner, { ...input, role: own.role ?? undefined, finish, chosen: own.chosen, target: { kind: 'part', of: owner.id, part: input.part } });
  }

  /** Puts again what was put before under a kind and an id, as long as all it follows from is the same; finishes and looks count by themselves. */
  kept(kind: string, id: string, deps: readonly unknown[], put: () => void): void {
    const { finishes, roofs, outside } = this.project;
    const owned = this.memo.get(kind, id, [...deps, finishes, roofs, outside], () => {
      const from = this.made.length;
      put();
      return this.made.splice(from);
    });
    this.made.push(...owned);
  }

  put(owner: Owner, input: PartInput): void {
    const { finish, sort, target, grain } = input;
    const key = `${owner.id}/${input.key ?? input.part}`;
    const laid = input.laid ?? finishIn(this.project, finish);
    const along = (mesh: Mesh): Mesh => (grain && isGrained(laid) ? alongGrain(mesh, grain) : mesh);
    const mesh = along(input.mesh);
    const fine = input.fine;
    const address = target && addressOf(target);
    const deps = [mesh, laid, finish, sort, address, input.at, input.host, input.level, input.lamp, input.panes, input.chosen, input.role, input.joint, grain];
    const part = this.memo.get(`part of ${owner.kind}`, key, deps, (): Part => ({
      key,
      name: input.part,
      sort,
      role: input.role === undefined ? traitsOf(sort).role : input.role,
      finish,
      laid,
      chosen: input.chosen ?? false,
      target,
      ...(input.host ? { host: input.host } : {}),
      ...(input.level ? { level: input.level } : {}),
      ...(input.lamp ? { lamp: input.lamp } : {}),
      ...(input.panes?.length ? { panes: input.panes } : {}),
      mesh,
      at: input.at ?? HERE,
      ...(input.joint ? { joint: input.joint } : {}),
      ...(grain ? { grain } : {}),
      ...(fine ? { fine: () => along(fine()) } : {}),
      counts: traitsOf(sort).counts,
    }));
    this.made.push({ owner, part });
  }
}

/**
 * Bodies from the parts that were made, in the order their first parts were; parts without a surface are left out. A body
 * is the same object as long as its parts and its place are.
 */
export function bodiesFrom(memo: Memo, owned: readonly Owned[]): Body[] {
  const groups = new Map<string, { owner: Owner; parts: Part[] }>();
  for (const { owner, part } of owned) {
    if (!part.mesh.indices.length) continue;
    // An id is one of its kind only in its collection.
    const key = `${owner.kind} ${owner.id}`;
    const group = groups.get(key);
    if (group) group.parts.push(part);
    else groups.set(key, { owner, parts: [part] });
  }
  return [...groups.values()].map(({ owner: { id, kind, level, matrix = IDENTITY }, parts }) =>
    memo.steady(`body of ${kind}`, id, { id, kind, level, matrix, parts }, sameBody),
  );
}

const sameBody = (a: Body, b: Body): boolean => a.kind === b.kind && a.level === b.level && a.matrix === b.matrix && sameItems(a.parts, b.parts);
