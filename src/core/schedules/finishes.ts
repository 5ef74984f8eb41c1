import type { Model } from '../model/model';
import { finishLrv } from '../finishes/finish';
import { finishIn } from '../finishes/store';
import { profileIn } from '../finishes/profiles';
import { sectionOf } from '../shell/dress/mouldings';
import { orderFor, takeOff, type Lot } from './takeoff';

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
  /** As it is bought: "10 l + 2.5 l", "7 rolls". */
  order: string;
  /** What is used up, waste included, and what is bought for it. */
  need: number;
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
  /** Id of its room; null: outside. */
  within: string | null;
  room: string;
  kind: string;
  /** Id of its section, and what that is called. */
  section: string;
  profile: string;
  finish: string;
  length: number;
  mitres: number;
  ends: number;
  height: number;
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
        order: order.goods.text,
        need: order.need,
        quantity: order.goods.quantity,
        unit: finish.unit,
        price: finish.price,
        cost: order.goods.quantity * finish.price,
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
        within: moulding.room,
        room: project.rooms[moulding.room]?.name ?? '',
        kind: moulding.kind,
        section: moulding.profile,
        profile: profile?.name ?? '',
        finish: finishIn(project, moulding.finish).name,
        length,
        mitres,
        ends,
        height: profile ? sectionOf(profile, moulding.height).height : 0,
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
            within: face.room,
            room: face.room ? (project.rooms[face.room]?.name ?? '') : 'Outside',
            kind: 'panel moulding',
            section: p.patch.panels!.profile,
            profile: profile?.name ?? '',
            finish: finishIn(project, p.patch.panels!.moulding ?? p.patch.finish).name,
            length: p.moulding.length,
            mitres: p.moulding.mitres,
            ends: 0,
            height: profile ? sectionOf(profile, null).height : 0,
          };
        }),
    ),
  ]);
}
