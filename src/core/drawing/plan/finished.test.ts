import { describe, expect, it } from 'vitest';
import { deriveModel } from '../../model/derive';
import type { Model } from '../../model/model';
import { meanHex } from '../../finishes/finish';
import { layOut } from '../../finishes/laying/layout';
import { finishById } from '../../finishes/library';
import { insideRegion, signedArea, totalArea } from '../../geometry/polygon';
import type { Patch, Project } from '../../project/schema';
import { edit, house } from '../../testing/drafting';
import type { DisplayItem } from '../display';
import { drawPlanSheets, PLAN_SHEETS } from './plan';

const bare = house([
  [0, 0],
  [4, 0],
  [4, 3],
  [0, 3],
]);
const [room] = Object.keys(bare.rooms);
const dressed = edit(edit(bare, 'finish.apply', { targets: [{ kind: 'floor', room }], finish: 'tile.quarry-red' }), 'finish.apply', {
  targets: [{ kind: 'walls', room }],
  finish: 'paint.reed',
});
const options = { labels: false, dimensions: false, finishes: true };
const groupsOf = (model: Model) => PLAN_SHEETS.flatMap((sheet) => drawPlanSheets(model, 'ground', options)[sheet]);
const drawn = (p: Project, key: string): DisplayItem[] =>
  groupsOf(deriveModel(p))
    .filter((g) => g.key.startsWith(key))
    .flatMap((g) => g.items);
const fills = (items: readonly DisplayItem[]) => items.filter((i) => i.kind === 'fill');
const units = (items: readonly DisplayItem[]) => items.flatMap((i) => (i.kind === 'lines' && i.pen === 0.13 ? i.rings : []));
const floorOf = (p: Project) => deriveModel(p).shell.levels[0].faces.find((f) => f.kind === 'floor')!;
const patchOn = (more: Partial<Patch>): Project =>
  edit(dressed, 'patch.put', {
    patches: [
      {
        id: 'mat',
        name: 'Mat',
        on: { kind: 'floor', room },
        order: 1,
        finish: 'stone.flag',
        panels: null,
        shape: {
          kind: 'polygon',
          points: [
            { x: 1, y: 1 },
            { x: 2, y: 1 },
            { x: 2, y: 2 },
            { x: 1, y: 2 },
          ],
        },
        ...more,
      },
    ],
  });

describe('the plan in the colours of its finishes', () => {
  it('fills a floor with the mean colour of its finish, and says nothing where none was chosen', () => {
    expect(fills(drawn(dressed, 'finished room'))[0].colour).toBe(meanHex(finishById('tile.quarry-red')));
    expect(fills(drawn(bare, 'finished room'))[0].colour).toBeUndefined();
    expect(units(drawn(bare, 'finished room'))).toHaveLength(0);
  });

  it('draws the very units that are counted: as many, of the same areas, all within the room', () => {
    const floor = floorOf(dressed);
    const layout = layOut(floor.laid.laying!, floor.placing, floor.regions);
    const lines = units(drawn(dressed, 'finished room'));
    expect(lines).toHaveLength(layout.units.reduce((sum, u) => sum + u.parts.length, 0));
    const area = lines.reduce((sum, ring) => sum + Math.abs(signedArea(ring)), 0);
    expect(area).toBeCloseTo(layout.covered, 6);
    const [grown] = floor.regions;
    for (const ring of lines) {
      const middle = { x: ring.reduce((s, p) => s + p.x, 0) / ring.length, y: ring.reduce((s, p) => s + p.y, 0) / ring.length };
      expect(insideRegion(middle, grown)).toBe(true);
    }
  });

  it('follows another laying at once', () => {
    const laying = {
      laying: { ...finishById('tile.quarry-red').laying!, width: 0.3, height: 0.3 },
      start: 'even',
      origin: { x: 0, y: 0 },
      rotation: 0,
      scale: 1,
    } as const;
    const larger = edit(dressed, 'laying.put', { addresses: [`floor/${room}`], laying });
    expect(units(drawn(larger, 'finished room')).length).toBeLessThan(units(drawn(dressed, 'finished room')).length);
  });

  it('shows units too small for a drawing as a tone', () => {
    const small = edit(bare, 'finish.apply', { targets: [{ kind: 'floor', room }], finish: 'tile.mosaic-white' });
    expect(fills(drawn(small, 'finished room'))[0].colour).toBe(meanHex(finishById('tile.mosaic-white')));
    expect(units(drawn(small, 'finished room'))).toHaveLength(0);
  });

  it('draws the colour of every wall along its face, within the room', () => {
    const strips = fills(drawn(dressed, 'finished room')).slice(1);
    expect(strips).toHaveLength(4);
    const [region] = floorOf(dressed).regions;
    let area = 0;
    for (const strip of strips) {
      expect(strip.colour).toBe(meanHex(finishById('paint.reed')));
      area += Math.abs(signedArea(strip.rings[0]));
      const ring = strip.rings[0];
      expect(insideRegion({ x: ring.reduce((s, p) => s + p.x, 0) / ring.length, y: ring.reduce((s, p) => s + p.y, 0) / ring.length }, region)).toBe(true);
    }
    // Mitred at the corners: a frame of 70 mm round a room of 3.7 × 2.7 m.
    expect(area).toBeCloseTo(3.7 * 2.7 - (3.7 - 0.14) * (2.7 - 0.14), 3);
  });

  it('lays a patch over the floor in its own colour and units, and leaves the floor round it', () => {
    const p = patchOn({});
    const items = drawn(p, 'patch mat');
    expect(fills(items)[0].colour).toBe(meanHex(finishById('stone.flag')));
    expect(fills(items).reduce((sum, f) => sum + Math.abs(signedArea(f.rings[0])), 0)).toBeCloseTo(1, 6);
    expect(items.every((i) => !('entity' in i) || i.entity === undefined || i.entity === 'mat')).toBe(true);
    const floor = floorOf(p);
    expect(totalArea(floor.regions)).toBeCloseTo(3.7 * 2.7, 6);
    expect(floor.rest.area).toBeCloseTo(3.7 * 2.7 - 1, 6);
    expect(drawn(dressed, 'patch mat')).toHaveLength(0);
  });

  it('keeps the marks of a room that has not changed, and draws one anew that has', () => {
    const first = deriveModel(dressed);
    const group = (model: Model) => groupsOf(model).find((g) => g.key.startsWith('finished room'));
    expect(group(first)).toBe(group(first));
    const other = edit(dressed, 'finish.apply', { targets: [{ kind: 'floor', room }], finish: 'stone.flag' });
    expect(group(deriveModel(other))).not.toBe(group(first));
  });
});
