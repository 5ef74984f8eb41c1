import { runChange, type CommandArgs, type CommandName } from '../project/commands';
import { newOpening } from '../project/opening-defaults';
import { inPhase } from '../project/phase';
import { newRun } from '../cabinetry/begin';
import { unitsFrom } from '../cabinetry/line';
import { legsAround } from '../cabinetry/sides';
import { Deriver } from '../model/derive';
import type { Cabinet, Hanging, Leg, Opening, Piece, Project, Room, Run, Side } from '../project/schema';
import { faceAt, planOf, roomsByFace } from '../project/topology';
import type { Vec2 } from '../geometry/vec';
import { hungFrom } from '../placing/hanging';
import { restUnder } from '../stock/resting';
import { clampSize, derivePiece, dropOf, pieceFrom, stockCard } from '../stock/stock';

interface PieceOptions {
  width?: number;
  depth?: number;
  height?: number;
  elevation?: number;
  finishes?: Record<string, string>;
  lumen?: number;
  name?: string;
  traits?: Piece['traits'];
  open?: number;
}

interface OpeningOptions {
  hinge?: 'start' | 'end';
  swing?: 'left' | 'right';
  up?: number;
  across?: number;
  more?: Partial<Opening>;
}

/** Runs commands one after another, each with a change id that is always the same. */
export class Script {
  private step = 0;
  private openings = 0;
  private pieces = 0;
  /** What was placed and is not yet put down. */
  private readonly placed: Piece[] = [];
  /** The level that walls, openings and pieces are put on. */
  level = 'ground';

  constructor(public project: Project) {}

  do<N extends CommandName>(command: N, args: CommandArgs<N>): this {
    this.project = runChange(this.project, { id: `demo${String(this.step++).padStart(4, '0')}`, kind: 'do', command, args }).project;
    return this;
  }

  /** The room that contains a point. */
  room(x: number, y: number): Room {
    const now = inPhase(this.project, 'after');
    return roomsByFace(now, this.level).get(faceAt(planOf(now, this.level).arrangement, { x, y }))!;
  }

  /** The side of a wall that a point lies at. */
  sideFacing(wall: string, x: number, y: number): Side {
    const { start, end } = this.project.walls[wall];
    const [a, b] = [this.project.corners[start], this.project.corners[end]];
    return (b.x - a.x) * (y - a.y) - (b.y - a.y) * (x - a.x) > 0 ? 'left' : 'right';
  }

  /** The wall whose centre line passes nearest to a point. */
  wall(x: number, y: number): string {
    let best = '';
    let least = Infinity;
    for (const w of Object.values(this.project.walls)) {
      if (w.level !== this.level) continue;
      const a = this.project.corners[w.start];
      const b = this.project.corners[w.end];
      const l2 = (b.x - a.x) ** 2 + (b.y - a.y) ** 2;
      const t = Math.max(0, Math.min(1, ((x - a.x) * (b.x - a.x) + (y - a.y) * (b.y - a.y)) / l2));
      const d = Math.hypot(a.x + (b.x - a.x) * t - x, a.y + (b.y - a.y) * t - y);
      if (d < least) {
        least = d;
        best = w.id;
      }
    }
    return best;
  }

  draw(points: [number, number][], make: Pick<CommandArgs<'wall.draw'>, 'type' | 'status' | 'kind'>, closed = false): void {
    this.do('wall.draw', { level: this.level, points: points.map(([x, y]) => ({ x, y })), closed, thickness: null, ...make });
  }

  /** Puts a door or a window into the wall nearest to a point: its width, height and sill in metres. */
  open(kind: 'door' | 'window', name: string, [x, y]: [number, number], [width, height, sill]: [number, number, number], extra: OpeningOptions = {}): string {
    const wall = this.wall(x, y);
    const w = this.project.walls[wall];
    const a = this.project.corners[w.start];
    const b = this.project.corners[w.end];
    const l = Math.hypot(b.x - a.x, b.y - a.y);
    const at = ((x - a.x) * (b.x - a.x) + (y - a.y) * (b.y - a.y)) / l;
    const id = `${kind}-${++this.openings}`;
    this.do(
      'opening.add',
      newOpening(this.project, {
        id,
        name,
        wall,
        kind,
        at: Math.round(at * 1e6) / 1e6,
        width,
        height,
        sill,
        hinge: extra.hinge ?? 'start',
        swing: extra.swing ?? 'left',
        panes: { across: extra.across ?? 2, up: extra.up ?? 2 },
        finishes: {},
        ...extra.more,
      }),
    );
    return id;
  }

  /** Places a piece of the stock, turned so many degrees. What stands on others comes to rest on what is there. */
  place(name: string, x: number, y: number, turn: number, options: PieceOptions = {}): void {
    const card = stockCard(name)!;
    const { item } = card;
    const level = this.project.levels[this.level];
    const piece = pieceFrom(card, this.nextPiece(), level, { x, y }, (turn * Math.PI) / 180);
    piece.size = clampSize(item, {
      ...piece.size,
      ...(options.width ? { width: options.width } : {}),
      ...(options.depth ? { depth: options.depth } : {}),
      ...(options.height ? { height: options.height } : {}),
    });
    if (item.mount === 'ceiling') piece.elevation = level.height - piece.size.height;
    if (item.mount === 'top') {
      const rest = this.restAt({ x, y }, options.elevation);
      Object.assign(piece, { ...rest, elevation: Math.max(0, rest.elevation - dropOf(item, piece.size, piece.traits)) });
    } else if (options.elevation !== undefined) piece.elevation = options.elevation;
    this.add(piece, options);
  }

  /**
   * Lays out a run of cabinets as a line says it, round as many corners as it has corner units.
   *
   * @param over which hung unit keeps to which that stands, by their words
   */
  cabinets(id: string, name: string, leg: Leg, line: string, more: Partial<Run> = {}, over: Record<string, string> = {}): void {
    const { units: system } = this.project;
    let count = 0;
    const made = unitsFrom(line, id, [], system, () => `${id}-${++count}`);
    if (!made.ok) throw new Error(made.message);
    const units = made.units.map((u): Cabinet => {
      const below = made.units.find((o) => o.name === over[u.name]);
      return below ? { ...u, middle: { of: 'unit', id: below.id } } : u;
    });
    const run = { ...newRun(id, name, this.level, [leg], system), ...more };
    this.do('run.lay', { run: { ...run, legs: legsAround(run, units, new Deriver().derive(this.project).shell) }, units });
  }

  /** Hangs something at a window or a door of a name. */
  hang(name: string, opening: string, options: PieceOptions & Partial<Pick<Hanging, 'ends' | 'sides' | 'above'>> = {}): void {
    const { ends, sides, above, ...rest } = options;
    const own = Object.values(this.project.openings).find((o) => o.name.startsWith(opening))!;
    // The outer walls run counter-clockwise: the rooms lie at their left.
    const piece = hungFrom(this.project, stockCard(name)!, this.nextPiece(), { opening: own.id, side: 'left', leg: false })!;
    const hangs = { ...piece.hangs!, ...(ends ? { ends } : {}), ...(sides === undefined ? {} : { sides }), ...(above === undefined ? {} : { above }) };
    this.add({ ...piece, hangs }, rest);
  }

  private nextPiece(): string {
    return `piece-${++this.pieces}`;
  }

  /** What is under a point to stand on, and how high that is. @param aim about at which height, metres; left out: on top */
  private restAt(p: Vec2, aim?: number): Pick<Piece, 'on' | 'elevation'> {
    // Only what can be under it is made.
    const near = (q: Piece): boolean => q.level === this.level && Math.hypot(q.x - p.x, q.y - p.y) < Math.hypot(q.size.width, q.size.depth) / 2 + 0.1;
    const there = [...Object.values(this.project.pieces), ...this.placed].filter(near);
    const rest = restUnder(
      there.map((q) => derivePiece(this.project, q)),
      this.level,
      p,
      new Set(),
      aim,
    );
    // On the worktop of a run it stands at the height that is said.
    return { on: rest?.piece ?? null, elevation: rest?.height ?? aim ?? 0 };
  }

  private add(piece: Piece, { traits, finishes, lumen, name, open }: PieceOptions): void {
    const made = {
      ...piece,
      traits: { ...piece.traits, ...traits },
      finishes: { ...piece.finishes, ...finishes },
      name: name ?? piece.name,
      open: open ?? piece.open,
      lamp: lumen && piece.lamp ? { ...piece.lamp, lumen } : piece.lamp,
    };
    this.placed.push(made);
  }

  /** Puts down all that was placed since, at once. */
  settle(): this {
    const pieces = this.placed.splice(0);
    return pieces.length ? this.do('piece.add', { pieces }) : this;
  }

  /** Finishes floors, ceilings or walls of rooms. */
  finish(kind: 'floor' | 'ceiling' | 'walls', rooms: string[], finish: string): void {
    this.do('finish.apply', { targets: rooms.map((room) => ({ kind, room })), finish });
  }
}
