import { describe, expect, it } from 'vitest';
import { Film, type Exposed } from './film';
import { unexposed } from './testing';

/** A film of grey pixels with given samples of each. */
function filmOf(samples: number[][], met: number[] = []): Film {
  const n = samples.length;
  const sums: Exposed = {
    width: n,
    height: 1,
    groups: 1,
    counts: Uint32Array.from(samples, (s) => s.length),
    light: new Float32Array(n * 4),
    squares: Float32Array.from(samples, (s) => s.reduce((sum, v) => sum + v * v, 0)),
    guides: new Float32Array(n * 8),
  };
  samples.forEach((s, i) => {
    const sum = s.reduce((a, b) => a + b, 0);
    sums.light.set([sum, sum, sum, 0], i * 4);
    sums.guides.set([0, 0, 0, 6 * (met[i] ?? 0), 0, 0, 0, met[i] ?? 0], i * 8);
  });
  return new Film(sums);
}

/** Sums of one pixel after another that show these objects. */
const showing = (...objects: number[]): Exposed => ({
  ...unexposed({ width: objects.length, height: 1 }),
  objects: Uint32Array.from(objects),
  names: ['Chair', 'Table'],
});

describe('the mask of a film', () => {
  it('has what the first hand met, and none where a part was kept before there were masks', () => {
    const { objects } = Film.of([showing(1, 0, 2, 0), showing(2, 2, 2, 0)]).passes();
    expect([[...objects!.ids], objects!.names]).toEqual([
      [1, 2, 2, 0],
      ['Chair', 'Table'],
    ]);
    const { objects: _, names: __, ...older } = showing(1, 1);
    expect(Film.of([older, showing(1, 1)]).passes().objects).toBeNull();
    expect(Film.of([showing(1, 1), older]).passes().objects!.ids).toEqual(Uint32Array.from([1, 1]));
  });
});

describe('what has been traced', () => {
  it('says how uncertain it is: the standard error of a pixel, as a share of the mean', () => {
    // Of four samples 8, 12, 8, 12 the variance is 16/3, that of their mean 4/3.
    const film = filmOf([
      [8, 12, 8, 12],
      [10, 10, 10, 10],
    ]);
    expect(film.noise()).toBeCloseTo(Math.sqrt(4 / 3) / 20, 5);
    expect(filmOf([[0, 0]]).noise()).toBe(0);
  });

  it('says how much of a pixel shows something, and how far off that is', () => {
    const film = filmOf(
      [
        [1, 1, 1, 1],
        [1, 1],
      ],
      [1, 0],
    );
    const { cover, depth } = film.passes();
    expect([...cover]).toEqual([0.25, 0]);
    expect([...depth]).toEqual([6, Infinity]);
  });
});
