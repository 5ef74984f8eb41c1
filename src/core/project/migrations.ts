/** Brings the plain data of older projects to the version of today. One step a version; each knows only its own two. */

type Plain = Record<string, unknown>;

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

const isPlain = (value: unknown): value is Plain => value !== null && typeof value === 'object' && !Array.isArray(value);

/** Changes every entity of a table. What is no table, or no entity, is left as it is for the schema to name; a table that is not there is empty. */
const each = (table: unknown, change: (entity: Plain) => Plain): unknown =>
  isPlain(table)
    ? Object.fromEntries(Object.entries(table).map(([id, entity]) => [id, isPlain(entity) ? change(entity) : entity]))
    : table === undefined
      ? {}
      : table;

/** Version 1 knew plain straight walls, one kind of door and window, and flat ceilings. */
function toVersion2(old: Plain, wallTypes: Record<string, object>): Plain {
  const walls = isPlain(old.walls) ? old.walls : {};
  const thickness = (wall: unknown): number => (isPlain(wall) && typeof wall.thickness === 'number' ? wall.thickness : 0.1);
  return {
    ...old,
    version: 2,
    wallTypes,
    levels: each(old.levels, (level) => ({ ...level, underlay: null })),
    guides: {},
    columns: {},
    rooflights: {},
    roofs: {},
    walls: each(old.walls, ({ height, ...wall }) => ({
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
    openings: each(old.openings, (o) => fittings(o, thickness(walls[String(o.wall)]))),
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
  site: { ground: -0.26, background: 'none', ...(isPlain(old.site) ? old.site : {}) },
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

/** Halves of surrogate pairs, and control characters other than line breaks and tabs. */

const UNREADABLE = /\p{Cs}|(?![\n\t])\p{Cc}/gu;
const DEEPEST = 40;
const NAMED = /[\p{L}\p{N}\p{P}\p{S}]/u;

/** Version 4 took any text: names of blanks, control characters, halves of characters. They are made readable. */
function toVersion5(old: Plain): Plain {
  const readable = (value: unknown, key: string, depth = 0): unknown => {
    // No project is nested this deep: the schema will say so.
    if (depth > DEEPEST) return null;
    if (typeof value === 'string') {
      const text = value.replace(UNREADABLE, '\u{fffd}');
      if (key !== 'name') return text;
      const line = text.replace(/[\n\t]/g, ' ');
      return NAMED.test(line) ? line : 'Unnamed';
    }
    if (Array.isArray(value)) return value.map((v) => readable(v, '', depth + 1));
    return isPlain(value) ? Object.fromEntries(Object.entries(value).map(([k, v]) => [k, readable(v, k, depth + 1)])) : value;
  };
  return { ...(readable(old, '') as Plain), version: 5 };
}

/** A table whose keys are called otherwise. */
const rekeyed = (table: unknown, name: (key: string) => string): unknown =>
  isPlain(table) ? Object.fromEntries(Object.entries(table).map(([key, value]) => [name(key), value])) : table;

/** Addresses of parts, by what they began with in version 5. */
const renamedAddress = (address: string): string => {
  const [kind, of, part] = address.split('/');
  if (kind === 'column') return `part/${of}/body`;
  return kind === 'piece' || kind === 'opening' || kind === 'roof' ? `part/${of}/${part}` : address;
};

const readdressed = (table: unknown): unknown => rekeyed(table, renamedAddress);

/** Version 5 kept the finishes of columns, roofs, beams, fences and areas of the ground each in a way of its own, and spoke of an outline with locks. */
function toVersion6(old: Plain): Plain {
  const kept =
    (fields: Record<string, string>) =>
    (thing: Plain): Plain => {
      const finishes: Plain = isPlain(thing.finishes) ? { ...thing.finishes } : {};
      const rest: Plain = { ...thing };
      for (const [field, part] of Object.entries(fields)) {
        if (rest[field] !== null && rest[field] !== undefined) finishes[part] = rest[field];
        delete rest[field];
      }
      return { ...rest, finishes };
    };
  const { outline, ...rest } = old;
  const { locked, ...contents } = isPlain(outline) ? outline : {};
  return {
    ...rest,
    version: 6,
    levels: each(old.levels, (level) => {
      if (!isPlain(level.underlay)) return kept({})(level);
      const { locked: own, ...underlay } = level.underlay;
      return kept({})({ ...level, underlay: { ...underlay, held: own } });
    }),
    walls: each(old.walls, kept({})),
    columns: each(old.columns, kept({ finish: 'body' })),
    roofs: each(old.roofs, kept({ covering: 'covering', soffit: 'soffit', fascia: 'fascia', timber: 'timber' })),
    voids: each(old.voids, kept({})),
    beams: each(old.beams, kept({ finish: 'body' })),
    grounds: each(old.grounds, kept({ finish: 'surface' })),
    fences: each(old.fences, kept({ finish: 'body' })),
    layings: readdressed(old.layings),
    schemes: each(old.schemes, (scheme) =>
      isPlain(scheme.choices)
        ? { ...scheme, choices: { ...scheme.choices, finishes: readdressed(scheme.choices.finishes), layings: readdressed(scheme.choices.layings) } }
        : scheme,
    ),
    contents: isPlain(outline) ? { ...contents, held: locked } : outline,
  };
}

/** The order areas of the ground came to lie in before it could be said: what is softer below, water above all. */
const LAID: readonly unknown[] = ['lawn', 'gravel', 'drive', 'paving', 'bed', 'water', 'pool'];

/** Version 6 let areas of the ground lie through one another, and had the leaf of a door flush with the side it opens into. */
function toVersion7(old: Plain): Plain {
  const MIDDLE: readonly unknown[] = ['pocket', 'bifold'];
  const TIPPED: readonly unknown[] = ['sectional', 'up-and-over'];
  const areas = isPlain(old.grounds) ? Object.values(old.grounds).filter(isPlain) : [];
  const laid = areas.map((area, i) => ({ area, i })).sort((p, q) => LAID.indexOf(p.area.kind) - LAID.indexOf(q.area.kind) || p.i - q.i);
  return {
    ...old,
    version: 7,
    grounds: each(old.grounds, (area) => ({ order: laid.findIndex((l) => l.area === area), ...area })),
    openings: each(old.openings, ({ reveal, ...opening }) => {
      const door = opening.kind === 'door';
      const stand = door
        ? MIDDLE.includes(opening.form)
          ? { kind: 'centred' }
          : { kind: 'set-back', from: 'front', by: TIPPED.includes(opening.form) ? 0.02 : 0 }
        : reveal === 'equal'
          ? { kind: 'centred' }
          : { kind: 'set-back', from: 'front', by: reveal };
      const frame = door && isPlain(opening.frame) && !TIPPED.includes(opening.form) ? { ...opening.frame, depth: 'wall' } : opening.frame;
      return { ...opening, frame, stand };
    }),
  };
}

/** Version 7 knew the clear sky alone. */
const toVersion8 = (old: Plain): Plain => ({ ...old, version: 8, site: isPlain(old.site) ? { sky: 12, ...old.site } : old.site });

/** Version 8 knew exposure and white of a picture, and an eye without a lens. */
const toVersion9 = (old: Plain): Plain => ({
  ...old,
  version: 9,
  viewpoints: each(old.viewpoints, (v) => ({ aperture: null, focus: null, ...v, look: isPlain(v.look) ? { upright: false, ...v.look } : null })),
  pictures: each(old.pictures, (p) => ({ contrast: 0, saturation: 0, highlights: 0, lights: [], ...p })),
});

/** Version 9 did not keep what a picture was taken with, nor what it showed. */
const toVersion10 = (old: Plain): Plain => ({
  ...old,
  version: 10,
  pictures: each(old.pictures, (p) => ({ shot: null, moment: null, noise: null, state: null, warmth: 0, ...p })),
});

/** Version 10 had no pictures of what lies beyond the site. */
const toVersion11 = (old: Plain): Plain => ({ ...old, version: 11, site: isPlain(old.site) ? { surroundings: null, seen: 0, ...old.site } : old.site });

/** Version 11 had no pictures for print, whose light is kept in two sizes. */
const toVersion12 = (old: Plain): Plain => ({ ...old, version: 12, pictures: each(old.pictures, (p) => ({ full: null, ...p })) });

/** Version 12 had pieces of which nothing but their size could be chosen. */
const toVersion13 = (old: Plain): Plain => ({ ...old, version: 13, pieces: each(old.pieces, (p) => ({ traits: {}, ...p })) });

/** Version 13 had pieces that were always new and shut, and a work bench whose drawers were one part with their fronts. */
function toVersion14(old: Plain): Plain {
  const benches = new Set(isPlain(old.pieces) ? Object.values(old.pieces).flatMap((p) => (isPlain(p) && p.maker === 'bench-table' ? [p.id] : [])) : []);
  const address = (key: string): string => {
    const [kind, of, part] = key.split('/');
    return kind === 'part' && part === 'drawers' && benches.has(of) ? `part/${of}/fronts` : key;
  };
  return {
    ...old,
    version: 14,
    contents: isPlain(old.contents) ? { ...old.contents, groups: each(old.contents.groups, (g) => ({ together: false, ...g })) } : old.contents,
    clearances: old.clearances ?? 'usual',
    pieces: each(old.pieces, (p) => ({
      open: 0,
      mirrored: false,
      linked: null,
      status: 'new',
      supply: 'to order',
      on: null,
      ...p,
      ...(benches.has(p.id) ? { finishes: rekeyed(p.finishes, (part) => (part === 'drawers' ? 'fronts' : part)) } : {}),
    })),
    ...(old.layings === undefined ? {} : { layings: rekeyed(old.layings, address) }),
    schemes: each(old.schemes, (scheme) =>
      isPlain(scheme.choices)
        ? { ...scheme, choices: { ...scheme.choices, finishes: rekeyed(scheme.choices.finishes, address), layings: rekeyed(scheme.choices.layings, address) } }
        : scheme,
    ),
  };
}

/** Version 14 had no runs of cabinets. */
const toVersion15 = (old: Plain): Plain => ({ runs: {}, cabinets: {}, ...old, version: 15 });

/** What was built into a unit was a word before version 16. */
const BUILT_IN: Readonly<Record<string, readonly Plain[]>> = {
  sink: [{ maker: 'sink' }, { maker: 'tap' }],
  hob: [{ maker: 'hob' }],
  oven: [{ maker: 'oven' }],
  dishwasher: [{ maker: 'dishwasher' }],
  washer: [{ maker: 'washer' }],
  dryer: [{ maker: 'washer', traits: { kind: 'dryer' } }],
  hood: [{ maker: 'hood' }],
  fridge: [{ maker: 'fridge', traits: { doors: 'of the unit' } }],
};

const builtIn = (word: unknown): Plain[] => (BUILT_IN[String(word)] ?? []).map((f) => ({ size: null, traits: {}, ...f }));

/** Ends and mouldings of a run that had none. */
const BARE_RUN: Plain = { ends: 'bare', cornices: [], pelmet: 0, upstand: 0, falls: 'none', behind: 0 };

/** A counter with a sink, which was one piece of stock, as a run that stands where it stood, its sink in the middle. */
function runOfCounter(piece: Plain): { run: Plain; units: Plain[] } {
  const size = piece.size as { width: number; depth: number; height: number };
  const [x, y, turn] = [Number(piece.x), Number(piece.y), Number(piece.rotation)];
  const at = (along: number, back: number): Plain => ({
    x: x + Math.cos(turn) * along - Math.sin(turn) * back,
    y: y + Math.sin(turn) * along + Math.cos(turn) * back,
  });
  const finishes = isPlain(piece.finishes) ? piece.finishes : {};
  const of = (parts: Record<string, string>): Plain =>
    Object.fromEntries(Object.entries(parts).flatMap(([from, to]) => (from in finishes ? [[to, finishes[from]]] : [])));
  const [top, plinth, overhang] = [0.03, 0.12, 0.05];
  const middle = Math.min(0.8, size.width);
  const beside = (size.width - middle) / 2;
  const each = beside < 0.1 ? 0 : Math.ceil(Math.round((beside / 0.6) * 1e6) / 1e6);
  const base = { height: size.height - top - plinth, depth: size.depth - overhang };
  const unit = (order: number, name: string, width: number | null, hand: string | null, fittings: Plain[], own: Plain): Plain => ({
    id: `${String(piece.id).slice(0, 50)}-${order + 1}`,
    name,
    run: piece.id,
    order,
    band: 'base',
    width,
    height: null,
    depth: null,
    front: [{ height: null, cells: [{ width: null, kind: 'door', hand, shelves: fittings.length ? 0 : 1 }] }],
    corner: null,
    over: null,
    bare: null,
    fittings,
    open: 0,
    finishes: own,
  });
  const doors = (from: number, hand: string): Plain[] => Array.from({ length: each }, (_, i) => unit(from + i, 'door', null, hand, [], {}));
  return {
    run: {
      id: piece.id,
      name: piece.name,
      level: piece.level,
      legs: [{ kind: 'free', from: at(-size.width / 2, size.depth / 2), to: at(size.width / 2, size.depth / 2) }],
      packed: 'start',
      start: 0,
      made: {
        build: 'frameless',
        board: 0.018,
        back: 0.008,
        groove: 0.008,
        void: 0.05,
        rail: 0.1,
        setback: 0.02,
        edging: 0.001,
        front: 0.02,
        gap: 0.003,
        side: 0.0015,
        under: 0.003,
        frame: 0,
        frameThick: 0,
        plinth,
        toe: overhang,
        base,
        wall: { height: 0.72, depth: 0.33, above: 0.48 },
        tall: { height: 2.05, depth: base.depth },
        worktop: { thickness: top, overhang },
      },
      fronts: 'flat',
      handles: 'bar',
      status: piece.status ?? 'new',
      finishes: of({ fronts: 'fronts', worktop: 'worktop', handles: 'handles', carcass: 'plinth' }),
      ...BARE_RUN,
    },
    units: [...doors(0, 'left'), unit(each, 'sink', middle, null, builtIn('sink'), of({ sink: 'sink sink', tap: 'tap body' })), ...doors(each + 1, 'right')],
  };
}

/** Version 15 named what belongs in a unit by a word, had runs without mouldings, and a counter with a sink as one piece. */
function toVersion16(old: Plain): Plain {
  const pieces = isPlain(old.pieces) ? old.pieces : {};
  const counters = Object.values(pieces).filter((p): p is Plain => isPlain(p) && p.maker === 'counter');
  const made = new Map(counters.map((p) => [String(p.id), runOfCounter(p)]));
  const sinkOf = (id: string): string => String(made.get(id)!.units.find((u) => u.name === 'sink')!.id);
  const address = (key: string): string => {
    const [kind, of, part] = key.split('/');
    if (kind !== 'part' || !made.has(of)) return key;
    if (part === 'sink' || part === 'tap') return `part/${sinkOf(of)}/${part} ${part === 'tap' ? 'body' : 'sink'}`;
    return part === 'carcass' ? `part/${of}/plinth` : key;
  };
  const ids = new Set(made.keys());
  const left = Object.fromEntries(Object.entries(pieces).filter(([id]) => !ids.has(id)));
  return {
    ...old,
    version: 16,
    pieces: each(left, (p) => (ids.has(String(p.on)) ? { ...p, on: null } : p)),
    runs: { ...(each(old.runs, (run) => ({ ...BARE_RUN, ...run })) as Plain), ...Object.fromEntries([...made].map(([id, { run }]) => [id, run])) },
    cabinets: {
      ...(each(old.cabinets, ({ fitting, ...unit }) => ({ fittings: builtIn(fitting), ...unit })) as Plain),
      ...Object.fromEntries([...made.values()].flatMap(({ units }) => units.map((u) => [u.id, u]))),
    },
    ...(old.layings === undefined ? {} : { layings: rekeyed(old.layings, address) }),
    schemes: each(old.schemes, (scheme) =>
      isPlain(scheme.choices)
        ? { ...scheme, choices: { ...scheme.choices, finishes: rekeyed(scheme.choices.finishes, address), layings: rekeyed(scheme.choices.layings, address) } }
        : scheme,
    ),
  };
}

/** What of a run version 16 said of each, that is now of its look. */
const LOOKS = ['fronts', 'handles', 'cornices', 'pelmet'] as const;

/** Version 16 knew no joinery styles, nothing inside units but shelves, and units that hang over others alone. */
function toVersion17(old: Plain): Plain {
  const inside = (front: unknown): unknown =>
    Array.isArray(front)
      ? front.map((row: unknown) =>
          isPlain(row) && Array.isArray(row.cells) ? { ...row, cells: row.cells.map((c: unknown) => (isPlain(c) ? { inside: [], ...c } : c)) } : row,
        )
      : front;
  const schemes = each(old.schemes, (scheme) => ({
    style: null,
    ...scheme,
    ...(isPlain(scheme.choices) ? { choices: { joinery: {}, ...scheme.choices } } : {}),
  }));
  return {
    ...old,
    version: 17,
    joinery: {},
    runs: each(old.runs, (run) => ({
      style: null,
      corners: { form: 'square', by: 0.05 },
      look: Object.fromEntries(LOOKS.flatMap((key) => (run[key] === undefined ? [] : [[key, run[key]]]))),
      ...Object.fromEntries(Object.entries(run).filter(([key]) => !(LOOKS as readonly string[]).includes(key))),
    })),
    cabinets: each(old.cabinets, ({ over, ...unit }) => ({
      middle: typeof over === 'string' ? { of: 'unit', id: over } : null,
      like: null,
      look: {},
      ...unit,
      front: inside(unit.front),
    })),
    schemes,
  };
}

/** Version 17 knew one way to joint worktops, and units that stand on a plinth alone. */
const toVersion18 = (old: Plain): Plain => ({
  ...old,
  version: 18,
  construction: null,
  runs: each(old.runs, (run) => ({
    raised: 0,
    slabs: { joint: 'butted', longest: 3 },
    grooves: 'none',
    infill: false,
    ...run,
    made: { stands: 'plinth', ...(isPlain(run.made) ? run.made : {}) },
  })),
});

/** Version 18 knew fronts laid on the carcass or set into its frame, plinths without grilles, and units that all have a back. */
const toVersion19 = (old: Plain): Plain => {
  const made = (of: unknown): unknown => (isPlain(of) ? { lies: typeof of.frame === 'number' && of.frame > 0 ? 'inset' : 'on', vented: false, ...of } : of);
  return {
    ...old,
    version: 19,
    construction: made(old.construction),
    runs: each(old.runs, (run) => ({ ...run, made: made(run.made) })),
    cabinets: each(old.cabinets, (unit) => ({ backless: false, ...unit })),
  };
};

/** Versions that brought a shape whose digest is another one than before, since pictures keep a digest of what they show. */
const DIGESTED: Readonly<Record<number, (old: Plain) => boolean>> = {
  11: () => true,
  14: () => true,
  // Only where there are cabinets, or a counter that is now of them.
  16: ({ runs, pieces }) =>
    (isPlain(runs) && Object.keys(runs).length > 0) || (isPlain(pieces) && Object.values(pieces).some((p) => isPlain(p) && p.maker === 'counter')),
  17: ({ runs }) => isPlain(runs) && Object.keys(runs).length > 0,
  18: ({ runs }) => isPlain(runs) && Object.keys(runs).length > 0,
  19: ({ runs }) => isPlain(runs) && Object.keys(runs).length > 0,
};

const STEPS: readonly ((old: Plain, wallTypes: Record<string, object>) => Plain)[] = [
  toVersion2,
  toVersion3,
  toVersion4,
  toVersion5,
  toVersion6,
  toVersion7,
  toVersion8,
  toVersion9,
  toVersion10,
  toVersion11,
  toVersion12,
  toVersion13,
  toVersion14,
  toVersion15,
  toVersion16,
  toVersion17,
  toVersion18,
  toVersion19,
];

/**
 * Plain data of a project in the shape of today, or of a version before it.
 *
 * @param wallTypes the types a project starts with
 * @param upTo the version it is brought to; what is of it or a later one stays as it is
 */
export function migrate(value: unknown, wallTypes: Record<string, object>, upTo = STEPS.length + 1): unknown {
  if (value === null || typeof value !== 'object') return value;
  let data = value as Plain;
  STEPS.slice(0, upTo - 1).forEach((step, i) => {
    if (data.version !== i + 1) return;
    const old = data;
    data = step(old, wallTypes);
    // What pictures showed was digested in the older shape: whether it has changed since is not known any more.
    if (DIGESTED[i + 2]?.(old)) data.pictures = each(data.pictures, (p) => ({ ...p, state: null }));
  });
  return data;
}
