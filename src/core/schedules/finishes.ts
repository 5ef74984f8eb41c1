import type { Model } from '../model/model';
import { finishLrv, type Finish } from '../finishes/finish';
import { finishIn } from '../finishes/store';
import { profileIn } from '../finishes/profiles';
import { sectionOf } from '../shell/dress/mouldings';
import { orderFor, takeOff, type Lot } from './takeoff';
import { DUST } from '../units/tolerance';

/** One finish of the finish schedule. SI units. */
export interface FinishRow {
  id: string;
  name: string;
  category: string;
  supplier: string;
  code: string;
  lrv: number;
  rooms: string;
  /** Net area in all, m². */
  area: number;
  whole: number | string;
  cut: number | string;
  /** As it is ordered: "12.4 l", "7 rolls". */
  order: string;
  quantity: number;
  unit: string;
  price: number;
  cost: number;
}

/** One covered surface. */
export interface SurfaceRow {
  id: string;
  level: string;
  room: string;
  face: string;
  finish: string;
  area: number;
  /** Taken off for what stands fixed against it, m². */
  hidden: number;
  whole: number | string;
  cut: number | string;
  scaled: string;
}

/** One moulding. */
export interface MouldingRow {
  id: string;
  level: string;
  room: string;
  kind: string;
  profile: string;
  finish: string;
  length: number;
  mitres: number;
  ends: number;
  height: number;
  cost: number;
}

const UNITS: Record<Finish['unit'], [one: string, many: string]> = {
  m2: ['m²', 'm²'],
  litre: ['l', 'l'],
  roll: ['roll', 'rolls'],
  box: ['box', 'boxes'],
  piece: ['piece', 'pieces'],
  metre: ['m', 'm'],
};

/** A quantity with its unit, whole where goods are sold whole. */
export function orderText(unit: Finish['unit'], quantity: number): string {
  const whole = unit === 'roll' || unit === 'box' || unit === 'piece';
  return `${whole ? quantity.toFixed(0) : quantity.toFixed(quantity < 10 ? 1 : 0)} ${UNITS[unit][quantity === 1 ? 0 : 1]}`;
}

const number = (v: number): number | string => (v > 0 ? v : '');

/** Every finish that is chosen: where, how much, what must be had and what it costs; the largest first. */
export function finishSchedule(model: Model): FinishRow[] {
  const { project } = model.shell;
  const lots = new Map<string, Lot[]>();
  for (const lot of takeOff(model)) {
    if (finishIn(project, lot.finish).bare) continue;
    const own = lots.get(lot.finish);
    if (own) own.push(lot);
    else lots.set(lot.finish, [lot]);
  }
  return [...lots]
    .map(([id, own]): FinishRow => {
      const finish = finishIn(project, id);
      const order = orderFor(finish, own);
      const rooms = [...new Set(own.filter((l) => l.kind !== 'thing').map((l) => (l.room ? (project.rooms[l.room]?.name ?? '') : 'Outside')))];
      return {
        id,
        name: finish.name,
        category: finish.category,
        supplier: finish.supplier,
        code: finish.code,
        lrv: Math.round(finishLrv(finish) * 10) / 10,
        rooms: rooms.join(', '),
        area: own.reduce((sum, l) => sum + l.area, 0),
        whole: number(order.whole),
        cut: number(order.cut),
        order: order.quantity > DUST ? orderText(finish.unit, order.quantity) : '',
        quantity: order.quantity,
        unit: finish.unit,
        price: finish.price,
        cost: order.quantity * finish.price,
      };
    })
    .sort((a, b) => b.area - a.area || (a.name < b.name ? -1 : 1));
}

/** Every face and patch with its finish, room by room. */
export function surfaceSchedule(model: Model): SurfaceRow[] {
  const { project, levels } = model.shell;
  const levelOf = (room: string | null): string => {
    const level = room ? project.rooms[room]?.level : undefined;
    return levels.find((l) => l.id === level)?.level.name ?? '';
  };
  return takeOff(model)
    .filter((lot) => lot.kind !== 'thing' && !(lot.room && project.rooms[lot.room]?.use === 'duct'))
    .map((lot): SurfaceRow => ({
      id: lot.entity,
      level: levelOf(lot.room),
      room: lot.room ? (project.rooms[lot.room]?.name ?? '') : 'Outside',
      face: lot.what,
      finish: finishIn(project, lot.finish).bare ? '' : finishIn(project, lot.finish).name,
      area: lot.area,
      hidden: lot.hidden,
      whole: lot.layout ? lot.layout.whole : '',
      cut: lot.layout ? lot.layout.cut : '',
      scaled: lot.laid.size.width !== finishIn(project, lot.finish).size.width ? 'not real size' : '',
    }))
    .sort((a, b) => (a.level + a.room < b.level + b.room ? -1 : a.level + a.room > b.level + b.room ? 1 : 0));
}

/** Mouldings with their lengths and mitres. */
export function mouldingSchedule(model: Model): MouldingRow[] {
  const { project } = model.shell;
  return model.shell.levels.flatMap((level) => [
    ...level.mouldings.map(({ moulding, length, mitres, ends }): MouldingRow => {
      const profile = profileIn(project, moulding.profile);
      return {
        id: moulding.id,
        level: level.level.name,
        room: project.rooms[moulding.room]?.name ?? '',
        kind: moulding.kind,
        profile: profile?.name ?? '',
        finish: finishIn(project, moulding.finish).name,
        length,
        mitres,
        ends,
        height: profile ? sectionOf(profile, moulding.height).height : 0,
        cost: length * (profile?.price ?? 0),
      };
    }),
    ...level.faces.flatMap((face) =>
      face.patches
        .filter((p) => p.moulding.length > 0)
        .map((p): MouldingRow => {
          const profile = profileIn(project, p.patch.panels!.profile);
          return {
            id: p.patch.id,
            level: level.level.name,
            room: face.room ? (project.rooms[face.room]?.name ?? '') : 'Outside',
            kind: 'panel moulding',
            profile: profile?.name ?? '',
            finish: finishIn(project, p.patch.panels!.moulding ?? p.patch.finish).name,
            length: p.moulding.length,
            mitres: p.moulding.mitres,
            ends: 0,
            height: profile ? sectionOf(profile, null).height : 0,
            cost: p.moulding.length * (profile?.price ?? 0),
          };
        }),
    ),
  ]);
}

/** What all finishes and mouldings of a model cost, in the money of its project. */
export const finishCost = (model: Model): number =>
  finishSchedule(model).reduce((sum, row) => sum + row.cost, 0) + mouldingSchedule(model).reduce((sum, row) => sum + row.cost, 0);
