import { describe, expect, it } from 'vitest';
import { luminance } from '../finishes/colour';
import { emptyProject, type Site } from '../project/schema';
import { degrees } from '../units/angle';
import { daylight, siteInstant, sunPosition } from './daylight';

const site = (set: Partial<Site>): Site => ({ ...emptyProject('p', 'P').site, ...set });

describe('the sun', () => {
  it('stands at noon of the equinox at 90° − latitude, due south', () => {
    // Solar noon at longitude 0 on 2026-03-20 is 12:07:30 UTC (equation of time −7.5 min).
    const { altitude, direction } = sunPosition(site({ latitude: 51.5, longitude: 0, north: Math.PI / 2, moment: '2026-03-20T12:07', offset: 0 }));
    expect(degrees(altitude)).toBeCloseTo(90 - 51.5, 0);
    expect(direction.x).toBeCloseTo(0, 2);
    expect(direction.y).toBeLessThan(0);
  });

  it('stands at midsummer noon at 90° − latitude + 23.44°', () => {
    const { altitude } = sunPosition(site({ latitude: 52.2, longitude: 0, moment: '2026-06-21T12:02', offset: 0 }));
    expect(degrees(altitude)).toBeCloseTo(90 - 52.2 + 23.44, 0);
  });

  it('rises in the east and follows a plan that is turned', () => {
    const morning = site({ latitude: 0, longitude: 0, moment: '2026-03-20T07:00', offset: 0, north: Math.PI / 2 });
    expect(sunPosition(morning).direction.x).toBeGreaterThan(0.9);
    // North along +x: east is then −y.
    expect(sunPosition({ ...morning, north: 0 }).direction.y).toBeLessThan(-0.9);
  });

  it('reads local time by its distance from UTC', () => {
    expect(siteInstant(site({ moment: '2026-05-12T10:40', offset: 60 })).toISOString()).toBe('2026-05-12T09:40:00.000Z');
  });
});

describe('daylight', () => {
  it('is strong at noon, weak at dusk and gone at night', () => {
    const at = (moment: string) => daylight(site({ latitude: 52.2, longitude: -1.4, offset: 60, moment }));
    const noon = at('2026-06-21T13:00');
    // Clear summer sun on a plane facing it: 80 to 110 klx. The clear sky alone on the ground: 8 to 25 klx (IES); the
    // model used lies above that at a high sun, as its critics have measured (Zotti et al. 2007).
    expect(luminance(noon.sunIlluminance)).toBeGreaterThan(80000);
    expect(luminance(noon.sunIlluminance)).toBeLessThan(110000);
    expect(luminance(noon.skyIlluminance)).toBeGreaterThan(8000);
    expect(luminance(noon.skyIlluminance)).toBeLessThan(35000);
    const dusk = at('2026-06-21T21:15');
    expect(luminance(dusk.sunIlluminance)).toBeLessThan(20000);
    const night = at('2026-06-21T01:00');
    expect(luminance(night.sunIlluminance)).toBe(0);
    expect(luminance(night.skyIlluminance)).toBeLessThan(20);
  });

  it('makes the low sun redder than the high one', () => {
    const red = (moment: string) => {
      const { sunIlluminance: e } = daylight(site({ latitude: 52.2, longitude: 0, offset: 0, moment }));
      return e[0] / e[2];
    };
    expect(red('2026-06-21T19:30')).toBeGreaterThan(red('2026-06-21T12:00') * 1.5);
  });

  it('adds up to the integral of the sky it shows', () => {
    const d = daylight(site({ moment: '2026-05-12T10:40' }));
    // An independent sum over the hemisphere in equal steps of angle.
    let e = 0;
    const [n, m] = [200, 400];
    for (let i = 0; i < n; i++)
      for (let j = 0; j < m; j++) {
        const theta = ((i + 0.5) / n) * (Math.PI / 2);
        const phi = ((j + 0.5) / m) * 2 * Math.PI;
        const l = luminance(d.sky({ x: Math.sin(theta) * Math.cos(phi), y: Math.sin(theta) * Math.sin(phi), z: Math.cos(theta) }));
        e += l * Math.cos(theta) * Math.sin(theta) * (Math.PI / 2 / n) * ((2 * Math.PI) / m);
      }
    expect(luminance(d.skyIlluminance) / e).toBeCloseTo(1, 1);
  });
});
