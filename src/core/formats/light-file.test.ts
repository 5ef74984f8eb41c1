import { describe, expect, it } from 'vitest';
import { Random } from '../render/bsdf';
import { relight, sharesOf } from '../render/development';
import { writeHdr } from './hdr/hdr';
import { objectNames, passesOf, readLight, writeLight } from './light-file';

const [width, height] = [23, 19];
const random = new Random(8);
const groups = [0, 1, 2].map(() => Float32Array.from({ length: width * height * 3 }, () => 10 ** (random.next() * 7 - 2)));
const radiance = groups[0].map((_, i) => groups[0][i] + groups[1][i] + groups[2][i]);
const shares = sharesOf(groups).map((share, i) => ({ name: ['Sun', 'Sky', 'Lamps, Küche “1”'][i], kelvin: 3000 + i * 1000, share }));

describe('the light of a picture', () => {
  it('is kept with its groups: from starlight to sunlit snow, to a thousandth', () => {
    const read = readLight(writeLight({ width, height, radiance, shares }));
    expect([read.width, read.height]).toEqual([width, height]);
    read.radiance.forEach((v, i) => expect(Math.abs(v / radiance[i] - 1)).toBeLessThan(1e-3));
    expect(read.shares.map(({ name, kelvin }) => [name, kelvin])).toEqual(shares.map(({ name, kelvin }) => [name, kelvin]));
    for (let i = 0; i < radiance.length; i++) expect(read.shares.reduce((sum, s) => sum + s.share[i], 0)).toBeCloseTo(1, 2.7);
    // With one group off, the rest is left.
    const without = relight(read.radiance, read.shares, [{ name: 'Sun', level: -8, kelvin: null }]);
    without.forEach((v, i) => expect(Math.abs(v - groups[1][i] - groups[2][i])).toBeLessThan(2e-3 * radiance[i]));
  });

  it('of earlier pictures is read from Radiance HDR, without groups', () => {
    const read = readLight(writeHdr(radiance, width, height));
    expect(read.shares).toEqual([]);
    expect(read.radiance[0] / radiance[0]).toBeCloseTo(1, 1.5);
    expect(() => readLight(new Uint8Array(40))).toThrow('The file is not a Radiance HDR picture.');
  });

  it('holds passes for those who go on with it', () => {
    const guides = Float32Array.from({ length: width * height * 6 }, (_, i) => (i % 6) / 8);
    const depth = new Float32Array(width * height).fill(Infinity);
    const cover = new Float32Array(width * height).fill(1);
    const plain = writeLight({ width, height, radiance, shares: [] });
    const rich = writeLight({ width, height, radiance, shares: [] }, { guides, depth, cover });
    expect(rich.length).toBeGreaterThan(plain.length);
    expect(readLight(rich).radiance).toEqual(readLight(plain).radiance);
    expect(passesOf(rich, width, height)).toEqual({ guides, depth, cover });
    // With what each pixel shows, by number and by name.
    const objects = { ids: Uint32Array.from({ length: width * height }, (_, i) => i % 5000), names: ['Bookcase', 'Wall “north”', 'Lamp'] };
    const masked = writeLight({ width, height, radiance, shares: [] }, { guides, depth, cover, objects });
    expect(passesOf(masked, width, height)).toEqual({ guides, depth, cover, objects });
    expect([objectNames(masked), objectNames(rich), objectNames(writeHdr(radiance, width, height))]).toEqual([objects.names, null, null]);
    expect(passesOf(plain, width, height)).toBeNull();
    expect(passesOf(writeHdr(radiance, width, height), width, height)).toBeNull();
  });
});
