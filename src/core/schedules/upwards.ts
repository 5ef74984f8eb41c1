import { stairHeadroom } from '../model/headroom';
import { derivedOf, type Model } from '../model/model';
import { GROUND_NAMES, FENCE_NAMES, SLAB_NAMES } from '../project/built-defaults';
import { levelAbove } from '../project/levels';
import type { MemberKind } from '../shell/framing';

/** One row of the stair schedule. SI units, pitch in degrees. */
export interface StairRow {
  id: string;
  level: string;
  to: string;
  name: string;
  form: string;
  status: string;
  climbs: number;
  risers: number;
  rise: number;
  going: number;
  pitch: number;
  width: number;
  headroom: number | '';
  /** What it breaks of the rules of its profile; empty: nothing. */
  breaks: string;
}

/** All stairs of the phase shown, by level. */
export function stairSchedule(model: Model): StairRow[] {
  const { project } = model.shell;
  return model.shell.levels.flatMap((level) =>
    level.stairs.map(({ stair, layout }): StairRow => {
      const { sizes } = layout;
      return {
        id: stair.id,
        level: level.level.name,
        to: stair.rise === null ? (levelAbove(project, level.id)?.name ?? '') : '',
        name: stair.name,
        form: stair.form,
        status: stair.status,
        climbs: layout.height,
        risers: sizes.risers,
        rise: sizes.rise,
        going: sizes.going,
        pitch: Math.round((sizes.pitch * 1800) / Math.PI) / 10,
        width: stair.width,
        headroom: stairHeadroom(model, stair.id) ?? '',
        breaks: sizes.breaches.map((b) => b.rule).join(', '),
      };
    }),
  );
}

/** One row of slabs and voids. SI units. */
export interface FloorRow {
  id: string;
  level: string;
  name: string;
  kind: string;
  status: string;
  area: number;
  thickness: number;
  /** Length of its guard, metres. */
  guard: number;
}

/** Slabs of their own and voids of the phase shown, by level. */
export function floorSchedule(model: Model): FloorRow[] {
  return model.shell.levels.flatMap((level) => [
    ...level.slabs.map(({ id, slab, area, guard }): FloorRow => ({
      id,
      level: level.level.name,
      name: slab.name,
      kind: SLAB_NAMES[slab.kind].toLowerCase(),
      status: slab.status,
      area,
      thickness: slab.thickness,
      guard: guard?.length ?? 0,
    })),
    ...level.voids.map(({ id, void: own, area, guard }): FloorRow => ({
      id,
      level: level.level.name,
      name: own.name,
      kind: 'void',
      status: own.status,
      area,
      thickness: 0,
      guard: guard?.length ?? 0,
    })),
  ]);
}

/** One row of timbers: all of one kind and section in one roof, or a beam of its own. SI units. */
export interface TimberRow {
  id: string;
  level: string;
  of: string;
  kind: MemberKind | 'beam';
  count: number;
  /** Of all of them together, and of the longest. */
  length: number;
  longest: number;
  width: number;
  depth: number;
  /** m³ */
  volume: number;
}

/** Timbers of framed roofs and beams of the phase shown, by level. */
export function timberSchedule(model: Model): TimberRow[] {
  return model.shell.levels.flatMap((level) => {
    const rows = new Map<string, TimberRow>();
    for (const { id, shape, framing } of level.roofs)
      for (const m of framing?.members ?? []) {
        const key = `${id} ${m.kind} ${m.width} ${m.depth}`;
        const row = rows.get(key) ?? {
          id,
          level: level.level.name,
          of: shape.roof.name,
          kind: m.kind,
          count: 0,
          length: 0,
          longest: 0,
          width: m.width,
          depth: m.depth,
          volume: 0,
        };
        row.count++;
        row.length += m.length;
        row.longest = Math.max(row.longest, m.length);
        row.volume += m.length * m.width * m.depth;
        rows.set(key, row);
      }
    const beams = derivedOf(model, 'beams', level.id).map(({ id, beam, length }): TimberRow => {
      const section = beam.width * beam.depth * (beam.section === 'round' ? Math.PI / 4 : 1);
      return {
        id,
        level: level.level.name,
        of: beam.name,
        kind: 'beam',
        count: 1,
        length,
        longest: length,
        width: beam.width,
        depth: beam.depth,
        volume: length * section,
      };
    });
    return [...rows.values(), ...beams];
  });
}

/** One row of what lies outside. SI units. */
export interface OutsideRow {
  id: string;
  name: string;
  kind: string;
  status: string;
  /** In plan, m²; 0 for fences. */
  area: number;
  /** Along it, metres; 0 for areas. */
  length: number;
  height: number;
  /** Of its water, m³. */
  water: number;
}

/** Areas of the ground and fences of the phase shown. */
export function outsideSchedule(model: Model): OutsideRow[] {
  const [grounds, fences] = [derivedOf(model, 'grounds'), derivedOf(model, 'fences')];
  return [
    ...grounds.map(({ id, own, area, volume }): OutsideRow => ({
      id,
      name: own.name,
      kind: GROUND_NAMES[own.kind].toLowerCase(),
      status: own.status,
      area,
      length: 0,
      height: own.z,
      water: volume,
    })),
    ...fences.map(({ id, fence, length }): OutsideRow => ({
      id,
      name: fence.name,
      kind: FENCE_NAMES[fence.kind].toLowerCase(),
      status: fence.status,
      area: 0,
      length,
      height: fence.height,
      water: 0,
    })),
  ];
}
