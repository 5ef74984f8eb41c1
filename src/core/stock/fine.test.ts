import { describe, expect, it } from 'vitest';
import { finishById } from '../finishes/library';
import type { Mesh } from '../geometry/mesh';
import { deriveModel } from '../model/derive';
import { bodyOf } from '../model/model';
import { compileScene } from '../render/compile';
import { edit, house } from '../testing/drafting';
import { bounds } from '../testing/measures';
import { CARDS, FINE, makeParts, pieceFrom, stockCard } from './stock';

const bare = house([
  [0, 0],
  [6, 0],
  [6, 5],
  [0, 5],
]);
const put = (id: string) => {
  const project = edit(bare, 'piece.add', { pieces: [pieceFrom(stockCard(id)!, 'piece', bare.levels.ground, { x: 3, y: 2.5 })] });
  return { project, model: deriveModel(project) };
};
const extent = (meshes: readonly Mesh[]): number[] => {
  const { low, high } = bounds(meshes);
  return [...low, ...high];
};

describe('pieces in pictures', () => {
  it.each(CARDS.map((card) => [card.id, card] as const))('%s: the same parts, as large, with rounder curves', (_, { item, size, traits }) => {
    const [plain, fine] = [makeParts(item, size, traits), makeParts(item, size, traits, FINE)];
    // A part that the view lacks would be missing in pictures.
    expect(fine.map((p) => p.part)).toEqual(plain.map((p) => p.part));
    const [a, b] = [extent(plain.map((p) => p.mesh)), extent(fine.map((p) => p.mesh))];
    // Rounder curves reach out to where the true ones do, by less than the chords were off; drooping leaves by more.
    a.forEach((v, k) => expect(Math.abs(v - b[k])).toBeLessThan(item.category === 'Greenery' ? 0.1 : 0.05));
    for (const { mesh } of fine) for (const array of [mesh.positions, mesh.normals, mesh.uvs]) expect(array.every(Number.isFinite)).toBe(true);
  });

  it('are traced finer than the view shows them, and only they', () => {
    const { model } = put('sofa');
    const body = bodyOf(model, 'piece')!;
    const count = (of: 'mesh' | 'fine'): number => body.parts.reduce((sum, p) => sum + (of === 'fine' ? p.fine!() : p.mesh).indices.length / 3, 0);
    expect(count('fine')).toBeGreaterThan(count('mesh'));
    const triangles = (m: typeof model): number => compileScene({ model: m, daylight: null }).material.length;
    expect(triangles(model) - triangles(deriveModel(bare))).toBe(count('fine'));
  });

  it('are sawn along their boards: turned legs and rails of oak, whatever the paint', () => {
    const { project, model } = put('table');
    const wooden = bodyOf(model, 'piece')!.parts.filter((p) => finishById(p.finish).body.kind === 'timber');
    expect(wooden.length).toBeGreaterThan(0);
    for (const part of wooden) expect(part.grain).toBe('length');
    // What is painted keeps the texture of its mesh.
    const painted = edit(project, 'finish.apply', { targets: wooden.map((p) => p.target!), finish: 'paint.reed' });
    const plain = makeParts(stockCard('table')!.item, project.pieces.piece.size);
    for (const part of bodyOf(deriveModel(painted), 'piece')!.parts) {
      const own = plain.find((p) => p.part === part.name)!;
      if (part.finish === 'paint.reed') expect(part.mesh).toBe(own.mesh);
    }
  });
});
