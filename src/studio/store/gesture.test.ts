import { describe, expect, it } from 'vitest';
import { heronLockCottage } from '@/core/demo/heron-lock';
import { runChange } from '@/core/project/commands';
import { emptyProject } from '@/core/project/schema';
import { Gesture } from './gesture';

const demo = heronLockCottage();
const wall = Object.keys(demo.walls)[4];

describe('a gesture', () => {
  it('shows a command once, however often it is shown', () => {
    const gesture = new Gesture(demo);
    const first = gesture.show('wall.move', { wall, offset: 0.1 });
    expect(gesture.show('wall.move', { wall, offset: 0.1 })).toBe(first);
    expect(gesture.show('wall.move', { wall, offset: 0.2 })).not.toBe(first);
  });

  it('does what it showed last, with the ids it showed, and nothing else', () => {
    const gesture = new Gesture(emptyProject('p', 'P'));
    const points = [
      { x: 0, y: 0 },
      { x: 4, y: 0 },
      { x: 4, y: 3 },
    ];
    const args = { level: 'ground', points, closed: true, thickness: 0.2 };
    const shown = gesture.show('wall.draw', args);
    const made = gesture.commit('wall.draw', structuredClone(args))!;
    expect(made.outcome).toBe(shown);
    // Who runs the change again, as the server does, comes to the same project.
    expect(runChange(gesture.base, made.change).project).toEqual(shown.project);
    expect(gesture.commit('wall.draw', { ...args, thickness: 0.3 })).toBeNull();
    expect(gesture.commit('wall.move', args)).toBeNull();
  });

  it('has nothing to do after a refusal', () => {
    const gesture = new Gesture(demo);
    gesture.show('wall.move', { wall, offset: 0.1 });
    expect(() => gesture.show('wall.move', { wall: 'none', offset: 0.1 })).toThrow();
    expect(gesture.commit('wall.move', { wall, offset: 0.1 })).toBeNull();
    expect(gesture.commit('wall.move', { wall: 'none', offset: 0.1 })).toBeNull();
  });

  it('is another for each: two never share an id', () => {
    const [a, b] = [new Gesture(demo), new Gesture(demo)].map((g) => {
      g.show('wall.move', { wall, offset: 0.1 });
      return g.commit('wall.move', { wall, offset: 0.1 })!.change.id;
    });
    expect(a).toMatch(/^[0-9a-f]{16}$/);
    expect(a).not.toBe(b);
  });
});
