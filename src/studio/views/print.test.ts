import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readExr } from '@/core/formats/exr/exr';
import { packPrint, printStart } from '@/core/formats/light-file';
import type { LightShare } from '@/core/light/shares';
import { printWithPart, smallPart } from './print';

const size = { width: 90, height: 340 };
const n = size.width * size.height;

function file(radiance: Float32Array, cover = new Float32Array(n).fill(1)): Blob {
  const { bytes, sizes } = packPrint(size, 0, radiance, cover);
  return new Blob([printStart(size, sizes), bytes]);
}
const read = async (blob: Blob) => {
  const { channels, ...rest } = readExr(new Uint8Array(await blob.arrayBuffer()));
  return { ...rest, of: (name: string) => channels.find((c) => c.name === name)!.data };
};

describe('a picture for print with a part made again', () => {
  const before = Float32Array.from({ length: n * 3 }, (_, i) => 100 + (i % 7) * 20);

  it('has the new part inside, all else to the bit as it was, and passes over at its edges', async () => {
    await fc.assert(
      fc.asyncProperty(fc.nat(60), fc.nat(310), fc.integer({ min: 17, max: 90 }), fc.integer({ min: 17, max: 340 }), async (x, y, w, h) => {
        const region = { x, y, width: Math.min(w, size.width - x), height: Math.min(h, size.height - y) };
        const k = region.width * region.height;
        const old = file(before);
        const was = await read(old);
        const now = await read(await printWithPart(old, { radiance: new Float32Array(k * 3).fill(800), cover: new Float32Array(k).fill(0.5) }, region, size));
        expect([now.width, now.height]).toEqual([size.width, size.height]);
        for (let i = 0; i < n; i++) {
          const [px, py] = [i % size.width, Math.floor(i / size.width)];
          const [dx, dy] = [px - region.x, py - region.y];
          const inside = dx >= 0 && dy >= 0 && dx < region.width && dy < region.height;
          const [g, a] = [now.of('G')[i], now.of('A')[i]];
          const old = was.of('G')[i];
          if (!inside) expect([g, a]).toEqual([old, 1]);
          else if (Math.min(dx, dy, region.width - 1 - dx, region.height - 1 - dy) >= 8) expect([Math.abs(g - 0.8) < 1e-3, a]).toEqual([true, 0.5]);
          else expect(g >= old - 1e-6 && g <= 0.8005).toBe(true);
        }
      }),
      { numRuns: 12 },
    );
  });

  it('takes what it does not touch from where it lies', async () => {
    const old = file(before);
    const region = { x: 10, y: 200, width: 30, height: 20 };
    const now = await printWithPart(old, { radiance: new Float32Array(1800).fill(9), cover: new Float32Array(600) }, region, size);
    const [a, b] = [new Uint8Array(await old.arrayBuffer()), new Uint8Array(await now.arrayBuffer())];
    // The head and the first blocks are as long as before, and the same but for where later blocks lie.
    const from = printStart(
      size,
      Array.from({ length: Math.ceil(340 / 16) }, () => 0),
    ).length;
    expect(b.subarray(from, from + 400)).toEqual(a.subarray(from, from + 400));
    expect(b.subarray(-200)).toEqual(a.subarray(-200));
  });
});

describe('a part of a picture for print as its small picture has it', () => {
  it('lies where it does there, and keeps means, shares and what is infinitely far', () => {
    const view = { width: 45, height: 170 };
    const region = { x: 20, y: 100, width: 40, height: 60 };
    const k = region.width * region.height;
    const shares: LightShare[] = [{ name: 'Sun', kelvin: 5300, share: new Float32Array(k * 3).fill(0.25) }];
    const depth = Float32Array.from({ length: k }, (_, i) => (i % region.width < 20 ? 3 : Infinity));
    const made = smallPart(
      {
        // Every second column is twice as bright: each small pixel is the mean of both.
        radiance: Float32Array.from({ length: k * 3 }, (_, i) => (Math.floor(i / 3) % 2 ? 200 : 100)),
        shares,
        passes: {
          guides: new Float32Array(k * 6).fill(0.5),
          depth,
          cover: new Float32Array(k).fill(1),
          objects: { ids: Uint32Array.from(depth, (d) => (d === 3 ? 1 : 2)), names: ['Near', 'Far'] },
        },
      },
      region,
      size,
      view,
    );
    expect(made.region).toEqual({ x: 10, y: 50, width: 20, height: 30 });
    made.light.radiance.forEach((v) => expect(v).toBeCloseTo(150, 4));
    expect([...new Set(made.light.shares[0].share)]).toEqual([0.25]);
    made.passes.depth.forEach((v, i) => expect(v).toBe(i % 20 < 10 ? 3 : Infinity));
    made.passes.objects!.ids.forEach((v, i) => expect(v).toBe(i % 20 < 10 ? 1 : 2));
    expect([made.passes.guides.length, made.passes.cover.length]).toEqual([20 * 30 * 6, 600]);
  });
});
