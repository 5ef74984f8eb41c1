import { labelPoint, regionArea } from '../../geometry/polygon';
import type { Region } from '../../geometry/region';
import type { Zones } from '../../placing/zones';
import { TYPE, type DisplayItem } from '../display';

const largest = (regions: readonly Region[]): Region => regions.reduce((a, b) => (regionArea(b) > regionArea(a) ? b : a));

/** The electrical zones about a bath or a shower in the plan: dashed outlines, numbered. */
export function drawZones({ one, two }: Zones): DisplayItem[] {
  const zone = (regions: readonly Region[], text: string): DisplayItem[] => [
    ...regions.flatMap(({ outer, holes }) =>
      [outer, ...holes].map((points): DisplayItem => ({ kind: 'line', points, closed: true, ink: 'measure', pen: 0.18, dash: true, layer: 'dimension' })),
    ),
    ...(regions.length
      ? [
          {
            kind: 'text' as const,
            at: labelPoint(largest(regions)),
            text,
            mm: TYPE.note,
            ink: 'measure' as const,
            weight: 400 as const,
            angle: 0,
            layer: 'dimension' as const,
          },
        ]
      : []),
  ];
  return [...zone(two, 'zone 2'), ...zone(one, 'zones 0, 1')];
}
