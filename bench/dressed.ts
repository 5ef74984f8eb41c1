import type { Project } from '@/core/project/schema';
import { Drafter } from './storey';

/** Every room with skirting and cornice, panels up to a metre on all its walls, and two tiled bands over them. */
export function dressed(project: Project): Project {
  const d = new Drafter(project);
  const rooms = Object.keys(project.rooms);
  const panels = { across: null, up: 1, width: 0.6, margin: 0.1, gap: 0.1, profile: 'panel-ogee', moulding: null, field: null };
  for (const [i, room] of rooms.entries()) {
    d.do('moulding.put', {
      mouldings: (
        [
          ['skirting', 'skirting-torus'],
          ['cornice', 'cornice-cove'],
        ] as const
      ).map(([kind, profile]) => ({ id: `${kind}-${i}`, name: kind, room, kind, profile, height: null, at: null, without: [], finish: 'paint.reed' })),
    });
    const patch = { name: 'Patch', order: 0, finish: 'tile.glazed-white', panels: null };
    d.do('patch.put', {
      patches: [
        { ...patch, id: `panels-${i}`, on: { kind: 'walls', room }, shape: { kind: 'band', from: 0.1, to: 1 }, finish: 'paint.reed', panels },
        ...[0, 1].map((n) => ({
          ...patch,
          id: `tiles-${i}-${n}`,
          order: 1,
          on: { kind: 'walls', room } as const,
          shape: { kind: 'band', from: 1.2 + n * 0.4, to: 1.4 + n * 0.4 } as const,
        })),
      ],
    });
  }
  return d.project;
}
