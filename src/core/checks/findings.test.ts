import { describe, expect, it } from 'vitest';
import { heronLockCottage } from '../demo/heron-lock';
import { deriveModel } from '../derive';
import type { Project } from '../project/schema';
import { findings } from './findings';

const found = (change: (p: Project) => void): string[] => {
  const project = structuredClone(heronLockCottage());
  change(project);
  return findings(deriveModel(project)).map((f) => f.code);
};
const base = found(() => undefined);

describe('findings', () => {
  it('names doors too narrow for a wheelchair, in the units of the project', () => {
    const list = findings(deriveModel(heronLockCottage()));
    expect(list.filter((f) => f.code === 'door.narrow').map((f) => f.message)).toEqual([
      'Living door: 798 clear when open; a wheelchair wants 815.',
      'Workshop door: 798 clear when open; a wheelchair wants 815.',
      'Bedroom door: 798 clear when open; a wheelchair wants 815.',
      'Bathroom door: 798 clear when open; a wheelchair wants 815.',
    ]);
    expect(findings(deriveModel({ ...heronLockCottage(), units: 'imperial' }))[0].message).toContain(`2'8 1/16"`);
  });

  it.each([
    ['finish.bare', (p: Project) => void (Object.values(p.rooms)[0].floor = null)],
    ['room.no-door', (p: Project) => void (p.openings = {})],
    ['piece.unknown', (p: Project) => void (Object.values(p.pieces)[0].maker = 'harpsichord')],
    ['piece.in-wall', (p: Project) => void (Object.values(p.pieces).find((x) => x.maker === 'sofa')!.y = 3.1)],
    ['finish.unknown', (p: Project) => void (Object.values(p.rooms)[0].floor = 'timber.moon-oak')],
  ])('finds %s', (code, change) => {
    expect(base).not.toContain(code);
    const list = found(change);
    expect(list).toContain(code);
  });

  it('says every finding in one sentence with its place', () => {
    for (const f of findings(deriveModel(heronLockCottage()))) {
      expect(f.message).toMatch(/^[A-Z].*\.$/);
      expect(f.ids.length).toBeGreaterThan(0);
    }
  });
});
