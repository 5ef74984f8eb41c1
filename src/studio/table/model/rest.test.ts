import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { emptyProject, type Project } from '@/core/project/schema';
import { shotFrom } from '@/core/render/shot';
import type { Job } from '../../views/queue/hands';
import { unexposed } from '@/core/render/testing';

/** Those who trace, as quickly as they are let. */
const asked: Job[] = [];
const closed: boolean[] = [];
/** Projects whose scene was put together ahead. */
const ahead: Project[] = [];
let hold: Promise<void> | null = null;
vi.mock('../../views/queue/hands', () => ({
  workerCount: () => 2,
  prepareAhead: (sight: { project: Project }) => ahead.push(sight.project),
  openWorkshop: (job: Job) => {
    asked.push(job);
    const own = unexposed(job);
    const hand = {
      prepare: () => Promise.resolve([{ name: 'Sun', kelvin: 5300 }]),
      pass: async () => {
        await hold;
        own.counts.forEach((_, k) => own.counts[k]++);
        own.light.fill(own.counts[0] * 90);
      },
      exposed: () => Promise.resolve(structuredClone(own)),
    };
    return { hands: () => [hand], cleaner: { clean: (r: Float32Array) => Promise.resolve(r) }, close: (warm: boolean) => closed.push(warm) };
  },
}));
vi.mock('../../store/habits', () => ({ rememberedPace: () => ({ prepare: 1, samples: 20_000, finish: 1 }) }));

const { RestingView, restingSizes, STAGES } = await import('./rest');
const project = emptyProject('p', 'P');
const from = (x: number) => ({
  project,
  shot: shotFrom({ eye: { x, y: 0, z: 1.6 }, target: { x: x + 1, y: 0, z: 1.6 }, fov: 1, look: null, aperture: null, focus: null }),
  width: 300,
  height: 200,
});

let sight: ReturnType<typeof from> | null;
const told = { shown: [] as [number, number][], hidden: 0, far: [] as (number | 'first look' | null)[] };
const view = () =>
  new RestingView(() => sight, {
    show: (pixels, width, height) => {
      expect(pixels).toHaveLength(width * height * 4);
      told.shown.push([width, height]);
    },
    hide: () => told.hidden++,
    tell: (far) => told.far.push(far),
  });

beforeEach(() => {
  vi.useFakeTimers();
  sight = from(0);
  ahead.length = asked.length = closed.length = told.shown.length = told.far.length = told.hidden = 0;
  hold = null;
});
afterEach(() => vi.useRealTimers());
const rest = (ms = 600): Promise<unknown> => vi.advanceTimersByTimeAsync(ms);

describe('the view at rest', () => {
  it('is traced when nothing has moved for half a second: coarse at once, then fine', async () => {
    const resting = view();
    resting.touch();
    await rest(400);
    resting.touch();
    await rest(400);
    expect(asked).toHaveLength(0);
    await rest(200);
    await vi.waitFor(() => expect(told.far.at(-1)).toBe(STAGES.fine));
    expect(asked.map((j) => [j.width, j.height])).toEqual(restingSizes(from(0), 10_000).map((s) => [s.width, s.height]));
    expect(told.shown.at(-1)).toEqual([300, 200]);
    expect(told.far.find((f) => f !== null)).toBe('first look');
    // Those who trace stay ready.
    expect(closed).toEqual([true, true]);
    resting.dispose();
  });

  it('has the scene of a project put together before the eye rests, once, and not of each step of a drag', async () => {
    const resting = view();
    const other = emptyProject('q', 'Q');
    for (const p of [project, other, project, other]) {
      sight = { ...from(0), project: p };
      resting.touch();
      await rest(60);
    }
    expect(ahead).toEqual([]);
    await rest(80);
    expect(ahead).toEqual([other]);
    resting.touch();
    await rest(200);
    expect(ahead).toEqual([other]);
    expect(asked).toHaveLength(0);
    await rest(400);
    expect(asked[0].project).toBe(other);
    resting.dispose();
  });

  it('gives way at a touch, and is there again without being traced anew where nothing has changed', async () => {
    const resting = view();
    resting.touch();
    await rest();
    await vi.waitFor(() => expect(told.far.at(-1)).toBe(STAGES.fine));
    resting.touch();
    expect([told.hidden, told.far.at(-1)]).toEqual([1, null]);
    await rest();
    expect(told.far.at(-1)).toBe(STAGES.fine);
    expect(asked).toHaveLength(2);
    // From elsewhere it is another picture.
    sight = from(5);
    resting.touch();
    await rest();
    expect(asked.length).toBeGreaterThan(2);
    expect(asked[2].shot.camera.eye.x).toBe(5);
    resting.dispose();
  });

  it('is not traced where there is nothing to trace, and never shown once it has been touched', async () => {
    const resting = view();
    sight = null;
    resting.touch();
    await rest();
    expect(asked).toHaveLength(0);
    sight = from(0);
    let go = (): void => undefined;
    hold = new Promise((open) => (go = open));
    resting.touch();
    await rest();
    expect(asked).toHaveLength(1);
    sight = from(1);
    resting.touch();
    go();
    await rest(100);
    expect(told.shown).toHaveLength(0);
    resting.dispose();
    await rest(2000);
    expect(told.shown).toHaveLength(0);
    expect(asked).toHaveLength(1);
  });

  it('is the coarser at first, the slower the machine is, and fine in one where it is quick', () => {
    const pane = { width: 480, height: 600 };
    const [slow] = restingSizes(pane, 5_000);
    const [quick] = restingSizes(pane, 60_000);
    expect(slow.width * slow.height).toBeLessThan(quick.width * quick.height);
    expect(Math.min(slow.width, slow.height)).toBeGreaterThanOrEqual(120);
    expect(restingSizes(pane, 1e6)).toEqual([pane]);
    const huge = restingSizes({ width: 4000, height: 3000 }, 1e9);
    expect(huge).toHaveLength(1);
    expect(huge[0].width * huge[0].height).toBeLessThan(710_000);
    for (const { width, height } of restingSizes(pane, 30_000)) expect(width / height).toBeCloseTo(0.8, 1);
  });
});
