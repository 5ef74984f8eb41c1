/** Brings the plain data of older projects to the version of today. One step a version; each knows only its own two. */

type Plain = Record<string, unknown>;
type Table = Record<string, Plain>;

/** What version 2 gave openings besides their sizes. */
const fittings = (o: Plain, thickness: number): Plain => ({
  ...o,
  form: o.kind === 'door' ? 'hinged' : 'casement',
  shape: { kind: 'rectangle' },
  panels: { across: 1, up: 2 },
  glazed: 0,
  open: o.kind === 'door' ? 0.2228 : 0,
  frame: o.kind === 'door' ? { face: 0.03, depth: 0.1 } : { face: 0.045, depth: 0.07 },
  reveal: Math.round(thickness * 0.2 * 1e6) / 1e6,
  architrave: 0.06,
  sillBoard: o.kind === 'door' ? 0 : 0.04,
  handle: 'lever',
  threshold: 0,
  sidelights: { start: 0, end: 0 },
  fanlight: 0,
  depth: 0,
  status: 'new',
  place: { kind: 'free' },
  head: null,
});

const each = (table: unknown, change: (entity: Plain) => Plain): Table =>
  Object.fromEntries(Object.entries((table ?? {}) as Table).map(([id, entity]) => [id, change(entity)]));

/** Version 1 knew plain straight walls, one kind of door and window, and flat ceilings. */
function toVersion2(old: Plain, wallTypes: Table): Plain {
  const walls = old.walls as Table | undefined;
  return {
    ...old,
    version: 2,
    wallTypes,
    levels: each(old.levels, (level) => ({ ...level, underlay: null })),
    guides: {},
    columns: {},
    rooflights: {},
    roofs: {},
    walls: each(walls, ({ height, ...wall }) => ({
      ...wall,
      kind: 'wall',
      bulge: 0,
      type: null,
      turned: false,
      offset: 0,
      base: 0,
      top: height === null || height === undefined ? { kind: 'ceiling' } : { kind: 'fixed', height },
      status: 'new',
    })),
    openings: each(old.openings, (o) => fittings(o, Number(walls?.[String(o.wall)]?.thickness ?? 0.1))),
    rooms: each(old.rooms, (room) => ({ ...room, use: 'unnamed', step: 0, cover: { kind: 'flat', height: null }, outdoors: false, status: 'new' })),
  };
}

const NO_OUTLINE = { groups: {}, hidden: [], locked: [] };

/** Version 2 had no stairs, voids, slabs, beams and dormers, nothing outside, and one way to look at the model. */
const toVersion3 = (old: Plain): Plain => ({
  dormers: {},
  stairs: {},
  voids: {},
  slabs: {},
  beams: {},
  grounds: {},
  fences: {},
  outline: NO_OUTLINE,
  ...old,
  version: 3,
  site: { ground: -0.26, background: 'none', ...(old.site as Plain) },
  levels: each(old.levels, (level) => ({ structure: '', ...level })),
  roofs: each(old.roofs, (roof) => ({ framing: null, timber: null, ...roof })),
});

/** Version 3 had the shipped finishes only, whole faces, and one scheme. */
const toVersion4 = (old: Plain): Plain => ({
  finishes: {},
  layings: {},
  patches: {},
  mouldings: {},
  profiles: {},
  schemes: {
    'scheme-1': {
      id: 'scheme-1',
      name: 'First scheme',
      order: 0,
      choices: null,
      starts: { floor: null, wall: null, ceiling: null, joinery: null, worktop: null, metal: null },
    },
  },
  scheme: 'scheme-1',
  dislikes: [],
  money: '€',
  ...old,
  version: 4,
  openings: each(old.openings, (opening) => ({ profile: null, ...opening })),
});

/**
 * Plain data of a project in the shape of today.
 *
 * @param wallTypes the types a project starts with
 */
export function migrate(value: unknown, wallTypes: Record<string, object>): unknown {
  if (value === null || typeof value !== 'object') return value;
  let data = value as Plain;
  if (data.version === 1) data = toVersion2(data, wallTypes as Table);
  if (data.version === 2) data = toVersion3(data);
  if (data.version === 3) data = toVersion4(data);
  return data;
}
