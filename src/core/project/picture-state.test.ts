import { describe, expect, it } from 'vitest';
import { heronLockCottage } from '../demo/heron-lock';
import { withScheme } from './choices';
import { migrate } from './migrations';
import { isOld, pictureState } from './picture-state';
import { edit } from '../testing/drafting';
import type { Project } from './schema';

const demo = heronLockCottage();
const picture = (project: Project) => ({ state: pictureState(project), scheme: project.scheme, moment: project.site.moment });

describe('what a picture shows', () => {
  it('has changed where a wall, a finish, a piece or the place has', () => {
    const made = picture(demo);
    expect(isOld(made, demo)).toBe(false);
    const piece = Object.values(demo.pieces)[0];
    expect(isOld(made, edit(demo, 'pieces.move', { pieces: [piece.id], by: { x: 0.1, y: 0 }, turn: 0 }))).toBe(true);
    expect(isOld(made, edit(demo, 'site.set', { latitude: 40 }))).toBe(true);
    // What the contents put out of sight is not in pictures either.
    expect(isOld(made, { ...demo, contents: { ...demo.contents, hidden: [piece.id] } })).toBe(true);
    const painted: Project = { ...demo, rooms: { ...demo.rooms, [Object.keys(demo.rooms)[0]]: { ...Object.values(demo.rooms)[0], floor: 'oak-plank' } } };
    expect(isOld(made, painted)).toBe(true);
  });

  it('has not changed where names, viewpoints, another hour or another scheme in hand are all that did', () => {
    const made = picture(demo);
    expect(isOld(made, edit(demo, 'project.rename', { name: 'Another name' }))).toBe(false);
    expect(isOld(made, edit(demo, 'site.set', { moment: '2026-01-02T08:00' }))).toBe(false);
    expect(isOld(made, edit(demo, 'delete', { ids: ['view-kitchen'] }))).toBe(false);
    for (const other of Object.keys(demo.schemes)) {
      const turned = withScheme(demo, other);
      expect([other, isOld(made, turned)]).toEqual([other, false]);
      // A picture of the other scheme is none of this one.
      if (other !== demo.scheme) expect(pictureState(demo, other)).not.toBe(pictureState(demo));
      expect(isOld(picture(turned), demo)).toBe(false);
    }
  });

  it('is not known of pictures of earlier versions, or of a scheme that is gone', () => {
    expect(isOld({ state: null, scheme: null, moment: null }, demo)).toBe(false);
    expect(isOld({ state: 'f'.repeat(64), scheme: 'gone', moment: null }, demo)).toBe(false);
    const kept = { pictures: { p: { state: 'x', shot: null } } };
    expect((migrate({ ...kept, version: 14 }, {}) as typeof kept).pictures.p.state).toBe('x');
    // A shape that has changed since gives other digests.
    for (const version of [10, 13]) expect((migrate({ ...kept, version }, {}) as typeof kept).pictures.p.state).toBeNull();
  });
});
