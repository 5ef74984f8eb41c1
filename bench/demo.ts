import { heronLockCottage } from '@/core/demo/heron-lock';
import { Deriver } from '@/core/model/derive';
import { runChange, type CommandArgs, type CommandName } from '@/core/project/commands';
import { DomainError } from '@/core/project/errors';
import type { Project } from '@/core/project/schema';
import { addressOf, type Target } from '@/core/project/targets';
import { forgetParts } from '@/core/stock/stock';

type Say = (what: string, ours: string, peer: string, ratio: number) => void;
type Time = (work: () => void, rounds?: number) => number;

const run = <N extends CommandName>(project: Project, command: N, args: CommandArgs<N>): Project =>
  runChange(project, { id: 'preview', kind: 'do', command, args }).project;

const ms = (v: number): string => `${v.toFixed(1)} ms`;

/** Every change a designer makes by dragging or typing, in the demo: command and deriving again, against deriving it whole. */
export function demo(say: Say, time: Time): void {
  const project = heronLockCottage();
  // The whole: nothing remembered, neither walls nor stock.
  const whole = time(() => {
    forgetParts();
    new Deriver().derive(structuredClone(project));
  }, 21);
  say('the demo from nothing (peer: 80 ms)', ms(whole), '80.0 ms', 80 / whole);
  const again = (change: (k: number) => Project, rounds = 31): number => {
    const deriver = new Deriver();
    deriver.derive(project);
    let k = 0;
    return time(() => deriver.derive(change(k++ % 20)), rounds);
  };
  // Every wall that can be moved a little.
  const walls: number[] = [];
  for (const wall of Object.keys(project.walls)) {
    const move = (k: number): Project => run(project, 'wall.move', { wall, offset: 0.01 + k * 0.002 });
    try {
      for (let k = 0; k < 20; k++) move(k);
    } catch (error) {
      if (error instanceof DomainError) continue;
      throw error;
    }
    walls.push(again(move));
  }
  walls.sort((a, b) => a - b);
  const at = (share: number): number => walls[Math.min(walls.length - 1, Math.floor(share * walls.length))];
  for (const [name, value] of [
    ['the median', at(0.5)],
    ['nine of ten', at(0.9)],
    ['the slowest', at(1)],
  ] as const)
    say(`one of ${walls.length} walls of the demo moved, ${name} (peer: deriving it whole)`, ms(value), ms(whole), whole / value);
  const [lower] = Object.values(project.levels).sort((a, b) => a.elevation - b.elevation);
  const roof = Object.values(project.roofs)[0];
  const piece = Object.values(project.pieces)[0];
  const others: [string, (k: number) => Project][] = [
    ['the height of the lower level', (k) => run(project, 'level.set', { id: lower.id, set: { height: lower.height + k * 0.001 } })],
    ['the pitch of the main roof', (k) => run(project, 'roof.put', { roof: { ...roof, all: { ...roof.all, pitch: roof.all.pitch + k * 0.001 } } })],
    ['a piece moved', (k) => run(project, 'piece.set', { piece: piece.id, set: { x: piece.x + k * 0.001 } })],
  ];
  for (const [what, change] of others) {
    const value = again(change);
    say(`${what} of the demo (peer: deriving it whole)`, ms(value), ms(whole), whole / value);
  }
  undo(project, say, time, whole);
  hover(project, say, time, whole);
}

/** A wall moved, and moved back by undo: of the state before everything is remembered. */
function undo(project: Project, say: Say, time: Time, whole: number): void {
  const deriver = new Deriver();
  const wall = Object.values(project.walls).find((w) => project.corners[w.start].x === 3.6 && project.corners[w.end].x === 3.6)!;
  let k = 0;
  const back: number[] = [];
  time(() => {
    deriver.derive(run(project, 'wall.move', { wall: wall.id, offset: 0.01 + (k++ % 20) * 0.002 }));
    const start = performance.now();
    deriver.derive(project);
    back.push(performance.now() - start);
  }, 61);
  const value = back.sort((a, b) => a - b)[back.length >> 1];
  say('undo of a wall moved in the demo (peer: deriving it whole)', ms(value), ms(whole), whole / value);
}

/** A finish carried over a hundred faces, each shown for one frame. */
function hover(project: Project, say: Say, time: Time, whole: number): void {
  const deriver = new Deriver();
  const faces = new Map<string, Target>();
  for (const body of deriver.derive(project).bodies)
    for (const { target } of body.parts)
      if (target && (target.kind === 'wall' || target.kind === 'floor' || target.kind === 'ceiling')) faces.set(addressOf(target), target);
  const all = [...faces.values()].slice(0, 100);
  const value =
    time(() => {
      for (const target of all) deriver.derive(run(project, 'finish.apply', { targets: [target], finish: 'paint.reed' }));
    }, 5) / all.length;
  say(`a finish carried over ${all.length} faces of the demo, each (peer: deriving it whole)`, ms(value), ms(whole), whole / value);
}
