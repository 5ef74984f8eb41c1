import { describe, expect, it, vi } from 'vitest';
import { MeshBuilder } from '@/core/geometry/mesh';
import { Geometries } from './geometries';

const box = () => new MeshBuilder().box(0, 0, 0, 1, 1, 1).build();

describe('geometries of the view', () => {
  it('are one for equal meshes, and given back with the last that shows them', () => {
    const geometries = new Geometries();
    const [mesh, other] = [box(), box()];
    const first = geometries.take(mesh);
    expect(geometries.take(mesh)).toBe(first);
    expect(geometries.take(other)).not.toBe(first);
    expect(geometries.size).toBe(2);
    const gone = vi.fn();
    first.addEventListener('dispose', gone);
    geometries.give(mesh);
    expect([gone.mock.calls.length, geometries.size]).toEqual([0, 2]);
    geometries.give(mesh);
    expect([gone.mock.calls.length, geometries.size]).toEqual([1, 1]);
    geometries.give(mesh);
    expect(geometries.size).toBe(1);
    expect(geometries.take(mesh)).not.toBe(first);
  });
});
