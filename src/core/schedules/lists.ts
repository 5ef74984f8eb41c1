import { modelKind } from '../model/kinds';
import { collections } from '../project/kinds';
import { formatArea, formatLength, type UnitSystem } from '../units/length';
import { applianceSchedule } from './appliances';
import { boardSchedule, cabinetSchedule, panelSchedule, worktopSchedule } from './cabinets';
import { coveringSchedule } from './coverings';
import { costByRoom, costByTrade, orderList } from './costs';
import { finishSchedule, mouldingSchedule, surfaceSchedule } from './finishes';
import { frontSchedule, ironmongerySchedule } from './fronts';
import type { Column, ColumnKind, ScheduleList } from './list';
import { pieceSchedule } from './pieces';
import { roomSchedule } from './rooms';
import { openingSchedule, roofSchedule, wallSchedule } from './shell';
import { floorSchedule, outsideSchedule, stairSchedule, timberSchedule } from './upwards';

const text = (key: string, title: string): Column => ({ key, title, kind: 'text' });
const length = (key: string, title: string, sum = false): Column => ({ key, title, kind: 'length', sum });
const area = (key: string, title: string): Column => ({ key, title, kind: 'area', sum: true });
const count = (key: string, title: string): Column => ({ key, title, kind: 'count' });
/** A figure with its unit, written out. */
const figure = (key: string, title: string): Column => ({ key, title, kind: 'figure' });

/** The schedules of the shell, its finishes and what stands outside. */
const LISTS = {
  rooms: {
    title: 'Rooms',
    empty: 'No room yet: rooms are listed here as soon as walls close round them.',
    columns: [
      text('name', 'Room'),
      text('level', 'Level'),
      area('area', 'Area'),
      area('highArea', 'Over 1.5 m'),
      length('perimeter', 'Perimeter'),
      length('height', 'Height'),
      { ...area('wallArea', 'Walls, net'), sum: false },
      count('doors', 'Doors'),
      count('windows', 'Windows'),
      text('floor', 'Floor'),
      text('walls', 'Wall finish'),
      text('ceiling', 'Ceiling'),
    ],
    rows: roomSchedule,
  },
  finishes: {
    title: 'Finishes',
    empty: 'No finish has been chosen yet.',
    columns: [
      text('name', 'Finish'),
      text('category', 'Kind'),
      text('supplier', 'Supplier'),
      text('code', 'Code'),
      { key: 'lrv', title: 'LRV', kind: 'lrv' },
      text('rooms', 'Where'),
      area('area', 'Net area'),
      count('whole', 'Whole'),
      count('cut', 'Cut'),
      figure('order', 'To order'),
      { key: 'price', title: 'Price', kind: 'money' },
      { key: 'cost', title: 'Cost', kind: 'money', sum: true },
    ],
    rows: finishSchedule,
  },
  surfaces: {
    title: 'Surfaces',
    empty: 'No room yet.',
    columns: [
      text('room', 'Room'),
      text('level', 'Level'),
      text('face', 'Surface'),
      text('finish', 'Finish'),
      area('area', 'Net area'),
      area('hidden', 'Behind fixtures'),
      count('whole', 'Whole'),
      count('cut', 'Cut'),
      text('scaled', 'Scale'),
    ],
    rows: surfaceSchedule,
  },
  mouldings: {
    title: 'Mouldings',
    empty: 'No skirting, cornice or rail yet.',
    columns: [
      text('room', 'Room'),
      text('level', 'Level'),
      text('kind', 'Kind'),
      text('profile', 'Section'),
      text('finish', 'Finish'),
      length('length', 'Length', true),
      count('mitres', 'Mitres'),
      count('ends', 'Ends'),
      length('height', 'Height'),
    ],
    rows: mouldingSchedule,
  },
  pieces: {
    title: 'Pieces',
    empty: 'No piece yet: what is placed is listed here, by room.',
    note: 'All that stands, hangs and lies in the house: what stays, what goes, and what is new. What is there already costs nothing.',
    columns: [
      text('room', 'Room'),
      text('level', 'Level'),
      text('name', 'Piece'),
      { key: 'count', title: 'Number', kind: 'count', sum: true },
      length('width', 'Width'),
      length('depth', 'Depth'),
      length('height', 'Height'),
      text('finishes', 'Finishes'),
      text('status', 'Status'),
      text('supplier', 'Supplier'),
      text('code', 'Code'),
      { key: 'price', title: 'Price', kind: 'money' },
      { key: 'cost', title: 'Cost', kind: 'money', sum: true },
    ],
    rows: pieceSchedule,
  },
  cabinets: {
    title: 'Cabinets',
    empty: 'No cabinets yet: begin a run on the docket of a wall.',
    columns: [
      text('run', 'Run'),
      count('mark', 'Mark'),
      text('name', 'Unit'),
      text('band', 'Where'),
      length('width', 'Width'),
      length('height', 'Height'),
      length('depth', 'Depth'),
      text('front', 'Front'),
      count('handles', 'Handles'),
      text('finish', 'Finish'),
      text('fittings', 'Built in'),
      { key: 'price', title: 'Price', kind: 'money', sum: true },
    ],
    rows: cabinetSchedule,
  },
  appliances: {
    title: 'Appliances and sinks',
    empty: 'Nothing built in yet: units such as “sink”, “oven” or “fridge” bring what belongs in them.',
    columns: [
      text('run', 'Run'),
      count('mark', 'Mark'),
      text('unit', 'Unit'),
      text('name', 'What'),
      length('width', 'Width'),
      length('height', 'Height'),
      length('depth', 'Depth'),
      text('finishes', 'Finishes'),
      text('connections', 'Connections'),
      text('fits', 'Does not fit'),
      text('supplier', 'Supplier'),
      text('code', 'Code'),
      { key: 'price', title: 'Price', kind: 'money', sum: true },
    ],
    rows: applianceSchedule,
  },
  fronts: {
    title: 'Fronts',
    empty: 'No fronts yet: units of runs are closed by them.',
    columns: [
      text('run', 'Run'),
      count('mark', 'Mark'),
      text('unit', 'Unit'),
      text('what', 'Front'),
      text('hand', 'Hung'),
      count('count', 'Number'),
      length('width', 'Width'),
      length('height', 'Height'),
      length('thickness', 'Thickness'),
      text('style', 'Style'),
      text('handle', 'Handle'),
      text('finish', 'Finish'),
    ],
    rows: frontSchedule,
  },
  ironmongery: {
    title: 'Ironmongery',
    empty: 'No ironmongery yet: units of runs bring handles, hinges and runners.',
    columns: [text('run', 'Run'), text('what', 'What'), count('count', 'Number')],
    rows: ironmongerySchedule,
  },
  worktops: {
    title: 'Worktops',
    empty: 'No worktop yet: it lies on the base units of a run.',
    columns: [
      text('run', 'Run'),
      length('length', 'Length', true),
      area('area', 'Area'),
      length('thickness', 'Thickness'),
      count('slabs', 'Slabs'),
      length('longest', 'Longest'),
      count('joints', 'Joints'),
      count('cutOuts', 'Cut-outs'),
      length('plinth', 'Plinth', true),
      length('cornice', 'Cornice', true),
      length('pelmet', 'Pelmet', true),
      count('panels', 'Panels'),
      text('finish', 'Finish'),
    ],
    rows: worktopSchedule,
  },
  panels: {
    title: 'Cutting list',
    empty: 'No boards yet: units of runs are made of them.',
    note: 'Sizes are less edging, the length along the grain. What is cut to a shape comes from a board of these sizes.',
    columns: [
      text('board', 'Board'),
      text('name', 'Panel'),
      count('count', 'Number'),
      length('length', 'Length'),
      length('width', 'Width'),
      length('thickness', 'Thickness'),
      length('edging', 'Edging'),
      text('shape', 'Shape'),
    ],
    rows: panelSchedule,
  },
  boards: {
    title: 'Boards to order',
    empty: 'No boards yet: units of runs are made of them.',
    note: 'Panels are laid with the grain, edge to edge and a saw cut apart, so that a panel saw can cut them.',
    columns: [
      text('run', 'Run'),
      text('board', 'Board'),
      length('thickness', 'Thickness'),
      count('panels', 'Panels'),
      count('sheets', 'Sheets'),
      { key: 'waste', title: 'Left over', kind: 'share' },
      count('over', 'Larger than a sheet'),
    ],
    rows: boardSchedule,
  },
  coverings: {
    title: 'Coverings',
    empty: 'Nothing hangs at a window yet: place something from At windows near one.',
    note: 'What hangs at windows and doors: its finished size, and what is sewn. Cloth is by fullness, by the width of its bolt and its repeat, to half widths; the cost is of the making, the cloth is in the order list.',
    columns: [
      text('room', 'Room'),
      text('level', 'Level'),
      text('opening', 'At'),
      text('name', 'Covering'),
      text('hung', 'Hung'),
      length('width', 'Width'),
      length('drop', 'Drop'),
      text('cloth', 'Cloth'),
      figure('widths', 'Widths'),
      length('cut', 'Cut'),
      { key: 'metres', title: 'Of cloth', kind: 'cloth', sum: true },
      { key: 'lining', title: 'Of lining', kind: 'cloth', sum: true },
      { key: 'sheer', title: 'Of sheer', kind: 'cloth', sum: true },
      length('track', 'Track', true),
      text('status', 'Status'),
      text('supplier', 'Supplier'),
      text('code', 'Code'),
      { key: 'cost', title: 'Making', kind: 'money', sum: true },
    ],
    rows: coveringSchedule,
  },
  order: {
    title: 'Order list',
    empty: 'Nothing is to be ordered yet: choose finishes, set mouldings, place pieces.',
    note: 'Finishes and mouldings as they are bought: waste and breakage counted in, rounded up to whole tins, boxes, rolls and lengths; and all new pieces. Not labour, nor what the house is built of.',
    columns: [
      text('trade', 'Trade'),
      text('name', 'What'),
      text('supplier', 'Supplier'),
      text('code', 'Code'),
      figure('net', 'Net'),
      figure('order', 'To order'),
      { key: 'price', title: 'Price', kind: 'money' },
      { key: 'cost', title: 'Cost', kind: 'money', sum: true },
    ],
    rows: orderList,
  },
  trades: {
    title: 'Cost by trade',
    empty: 'Nothing is to be ordered yet: choose finishes, set mouldings, place pieces.',
    note: 'What the order list costs, by who lays or brings it. It holds goods in whole packs, not labour.',
    columns: [text('trade', 'Trade'), text('holds', 'Holds'), { key: 'cost', title: 'Cost', kind: 'money', sum: true }],
    rows: costByTrade,
  },
  costs: {
    title: 'Cost by room',
    empty: 'Nothing is to be ordered yet: choose finishes, set mouldings, place pieces.',
    note: 'What the order list costs, room by room: of a tin or a box that serves several rooms, the share each takes. It holds goods, not labour.',
    columns: [text('room', 'Room'), text('level', 'Level'), text('holds', 'Holds'), { key: 'cost', title: 'Cost', kind: 'money', sum: true }],
    rows: costByRoom,
  },
  walls: {
    title: 'Walls',
    empty: 'No wall yet.',
    columns: [
      text('level', 'Level'),
      text('type', 'Build-up'),
      text('status', 'Status'),
      length('length', 'Length', true),
      length('thickness', 'Thickness'),
      length('height', 'Height'),
      area('faceArea', 'Faces, net'),
      text('left', 'At its left'),
      text('right', 'At its right'),
    ],
    rows: wallSchedule,
  },
  openings: {
    title: 'Openings',
    empty: 'No door or window yet.',
    columns: [
      text('name', 'Opening'),
      text('level', 'Level'),
      text('kind', 'Kind'),
      text('form', 'Form'),
      text('status', 'Status'),
      length('width', 'Width'),
      length('height', 'Height'),
      length('sill', 'Sill'),
      length('clear', 'Clear'),
      text('from', 'From'),
      text('to', 'To'),
    ],
    rows: openingSchedule,
  },
  stairs: {
    title: 'Stairs',
    empty: 'No stair yet.',
    columns: [
      text('name', 'Stair'),
      text('level', 'From'),
      text('to', 'To'),
      text('form', 'Form'),
      text('status', 'Status'),
      length('climbs', 'Climbs'),
      count('risers', 'Risers'),
      length('rise', 'Rise'),
      length('going', 'Going'),
      { key: 'pitch', title: 'Pitch', kind: 'degrees' },
      length('width', 'Width'),
      length('headroom', 'Headroom'),
      text('breaks', 'Breaks'),
    ],
    rows: stairSchedule,
  },
  floors: {
    title: 'Slabs and voids',
    empty: 'No slab of its own and no void yet.',
    columns: [
      text('name', 'Name'),
      text('level', 'Level'),
      text('kind', 'Kind'),
      text('status', 'Status'),
      { ...area('area', 'Area'), sum: false },
      length('thickness', 'Thickness'),
      length('guard', 'Guard', true),
    ],
    rows: floorSchedule,
  },
  roofs: {
    title: 'Roofs',
    empty: 'No roof yet.',
    columns: [
      text('name', 'Roof'),
      text('level', 'Level'),
      text('form', 'Form'),
      text('status', 'Status'),
      text('pitches', 'Pitches, °'),
      area('planArea', 'In plan'),
      area('slopingArea', 'Along its planes'),
      length('eaves', 'Eaves', true),
      length('top', 'Top'),
    ],
    rows: roofSchedule,
  },
  timber: {
    title: 'Timber',
    empty: 'No roof is framed and no beam is set yet.',
    columns: [
      text('of', 'Of'),
      text('level', 'Level'),
      text('kind', 'Kind'),
      count('count', 'Number'),
      length('length', 'In all', true),
      length('longest', 'Longest'),
      length('width', 'Width'),
      length('depth', 'Depth'),
      { key: 'volume', title: 'Volume', kind: 'volume', sum: true },
    ],
    rows: timberSchedule,
  },
  outside: {
    title: 'Outside',
    empty: 'Nothing outside yet.',
    columns: [
      text('name', 'Name'),
      text('kind', 'Kind'),
      text('status', 'Status'),
      area('area', 'Area'),
      length('length', 'Length', true),
      length('height', 'Height'),
      { key: 'water', title: 'Water', kind: 'volume', sum: true },
    ],
    rows: outsideSchedule,
  },
} satisfies Record<string, ScheduleList>;

/** Every schedule by name, the same in the studio and on the command line: those above, and the ones that kinds have of their own. */
export const scheduleLists = (): Record<string, ScheduleList> => ({
  ...LISTS,
  ...Object.fromEntries(
    collections().flatMap((name) => {
      const { schedule } = modelKind(name);
      return schedule ? [[name, schedule]] : [];
    }),
  ),
});

/** A value of a schedule as it is written in the units of a project; empty where there is none. */
export function written(kind: ColumnKind, value: unknown, units: UnitSystem, money = '€'): string {
  if (value === '' || value === null || value === undefined) return '';
  if (typeof value !== 'number') return String(value);
  switch (kind) {
    case 'length':
      return value === 0 ? '' : formatLength(value, units);
    case 'area':
      return value === 0 ? '' : formatArea(value, units);
    case 'degrees':
      return `${value}°`;
    case 'money':
      return value === 0 ? '' : `${money} ${value.toFixed(2).replace(/\B(?=(\d{3})+(?!\d))/g, ' ')}`;
    case 'lrv':
      return value.toFixed(0);
    case 'share':
      return `${Math.round(value * 100)} %`;
    case 'cloth':
      // By the metre or the yard, as it is sold.
      return value === 0 ? '' : units === 'metric' ? `${value.toFixed(1)} m` : `${(value / 0.9144).toFixed(1)} yd`;
    case 'volume':
      return value === 0 ? '' : units === 'metric' ? `${value.toFixed(2)} m³` : `${(value * 35.3146667).toFixed(1)} cu ft`;
    default:
      return String(value);
  }
}
