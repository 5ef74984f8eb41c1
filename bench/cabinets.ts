import * as THREE from 'three';
import { newRun } from '@/core/cabinetry/begin';
import { unitsFrom } from '@/core/cabinetry/line';
import { Deriver } from '@/core/model/derive';
import type { Model } from '@/core/model/model';
import { FIRST_LOOK } from '@/core/project/looks';
import { runChange } from '@/core/project/commands';
import { emptyProject, type Project } from '@/core/project/schema';
import { DrawnParts } from '@/studio/table/model/drawn';
import { plainMaterials } from '@/studio/table/model/testing';

type Say = (what: string, ours: string, peer: string, ratio: number) => void;

/** Units side by side in runs of twenty that stand free, as many as are said, of eight kinds. */
export function cabinetsOf(count: number): Project {
  const KINDS = ['drawers', 'door', 'sink', 'oven', 'pans', 'open', 'drawerline', 'dishwasher'];
  let project = emptyProject('bench', 'Bench');
  let id = 0;
  for (let r = 0; r * 20 < count; r++) {
    const leg = { kind: 'free' as const, from: { x: 0, y: r * 2 }, to: { x: 12, y: r * 2 } };
    const run = newRun(`run-${r}`, `Run ${r}`, 'ground', [leg], 'metric');
    const line = Array.from({ length: 20 }, (_, i) => `600 ${KINDS[(i + r) % KINDS.length]}`).join(', ');
    const made = unitsFrom(line, run.id, [], 'metric', () => `unit-${id++}`);
    if (!made.ok) throw new Error(made.message);
    project = runChange(project, { id: `bench-${r}-run`, kind: 'do', command: 'run.lay', args: { run, units: made.units } }).project;
  }
  return project;
}

const median = (values: number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1];

/** Milliseconds of a width changed, from the command to the model, the median of several. */
function edit(project: Project): { ms: number; fresh: number } {
  const deriver = new Deriver();
  let now = project;
  let seen = deriver.derive(now).bodies.length;
  const times: number[] = [];
  for (let k = 0; k < 100; k++) {
    const unit = now.cabinets[`unit-${(k * 7) % 20}`];
    const start = performance.now();
    const args = { ...unit, width: k % 2 ? 0.6 : 0.65 };
    now = runChange(now, { id: `bench-edit-${k}`, kind: 'do', command: 'unit.put', args }).project;
    seen += deriver.derive(now).bodies.length;
    if (k > 19) times.push(performance.now() - start);
  }
  const start = performance.now();
  seen += new Deriver().derive(now).bodies.length;
  if (!seen) throw new Error('Nothing was derived.');
  return { ms: median(times), fresh: performance.now() - start };
}

/** What a width that is changed costs among forty and four hundred units, against deriving all anew; draw calls by units. */
export function cabinets(say: Say): void {
  const [forty, many] = [40, 400].map((n) => ({ n, project: cabinetsOf(n) }));
  const [a, b] = [edit(forty.project), edit(many.project)];
  const ms = (v: number): string => `${v.toFixed(1)} ms`;
  say('one width among 40 units (peer: all derived anew)', ms(a.ms), ms(a.fresh), a.fresh / a.ms);
  say('one width among 400 units (peer: ten times that among 40)', ms(b.ms), ms(a.ms * 10), (a.ms * 10) / b.ms);
  const calls = (model: Model): { calls: number; parts: number } => {
    const scene = new THREE.Group();
    const parts = new DrawnParts(scene, plainMaterials());
    parts.show(model, FIRST_LOOK, true);
    const count = scene.children.length;
    parts.rest();
    const out = { calls: scene.children.length, parts: count };
    parts.dispose();
    return out;
  };
  const [few, more] = [forty, many].map(({ project }) => calls(new Deriver().derive(project)));
  say('draw calls of 40 units (peer: one a part)', String(few.calls), String(few.parts), few.parts / few.calls);
  say('draw calls of 400 units (peer: one a part)', String(more.calls), String(more.parts), more.parts / more.calls);
}
