import { addressOf, exists, roomOfTarget, targetOf } from './targets';
import { describe, expect, it } from 'vitest';
import { heronLockCottage } from '../demo/heron-lock';
import { choices, choicesOf, withScheme } from './choices';
import { validateProject } from './commands';
import { edit } from '../testing/drafting';

const demo = heronLockCottage();

describe('addresses', () => {
  it('name every choice of a project, and lead back to it', () => {
    const all = [...choices(demo)];
    expect(all.length).toBeGreaterThan(60);
    for (const { target } of all) {
      expect(targetOf(addressOf(target))).toEqual(target);
      expect(exists(demo, target)).toBe(true);
    }
    // One choice an address.
    expect(new Set(all.map((c) => addressOf(c.target))).size).toBe(all.length);
  });

  it('that mean nothing lead nowhere', () => {
    for (const address of ['', 'floor', 'wall/a/b', 'wall/a/b/top', 'roof/a/ridge', 'patch/a/edge', 'attic/a']) expect(targetOf(address)).toBeNull();
  });

  it('know the room they are in, the outside, or that they are in none', () => {
    expect(roomOfTarget(demo, { kind: 'walls', room: null })).toBeNull();
    expect(roomOfTarget(demo, { kind: 'floor', room: 'r' })).toBe('r');
    const patch = Object.values(demo.patches)[0];
    expect(roomOfTarget(demo, { kind: 'patch', patch: patch.id, part: 'field' })).toBe(patch.on.room);
    expect(roomOfTarget(demo, { kind: 'part', of: 'p', part: 'seat' })).toBeUndefined();
  });
});

describe('the schemes of the demo', () => {
  it('are two valid projects, each complete in itself', () => {
    for (const id of Object.keys(demo.schemes)) {
      const own = withScheme(demo, id);
      expect(own.scheme).toBe(id);
      expect(() => validateProject(structuredClone(own))).not.toThrow();
      for (const room of Object.values(own.rooms))
        if (room.use !== 'duct') expect([room.name, room.floor === null, room.walls === null]).toEqual([room.name, false, false]);
    }
  });

  it('come back as they were after the other one was in hand', () => {
    const there = edit(demo, 'scheme.choose', { id: 'scheme-bindery' });
    const back = edit(there, 'scheme.choose', { id: demo.scheme });
    expect(choicesOf(back)).toEqual(choicesOf(demo));
    expect(back.schemes['scheme-bindery'].choices).toEqual(demo.schemes['scheme-bindery'].choices);
  });

  it('forget what is no longer there when they are taken in hand', () => {
    const room = Object.values(demo.rooms).find((r) => r.name === 'Living')!;
    const [run] = Object.values(demo.runs);
    const without = edit(demo, 'delete', { ids: [run.id] });
    const other = edit(without, 'scheme.choose', { id: 'scheme-bindery' });
    expect([...choices(other)].some((c) => c.target.kind === 'part' && c.target.of === run.id)).toBe(false);
    expect(other.rooms[room.id].walls).toBe('wallpaper.leaf-forest');
  });

  it('another finish on a face forgets how the one before was laid', () => {
    const room = Object.values(demo.rooms).find((r) => r.name === 'Shower room')!;
    expect(demo.layings[`floor/${room.id}`]).toBeTruthy();
    const after = edit(demo, 'finish.apply', { targets: [{ kind: 'floor', room: room.id }], finish: 'stone.flag' });
    expect(after.layings[`floor/${room.id}`]).toBeUndefined();
  });
});
