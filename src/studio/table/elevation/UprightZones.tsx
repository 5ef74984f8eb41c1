import { useMemo } from 'react';
import type { DisplayItem } from '@/core/drawing/display';
import type { Placed } from '@/core/drawing/elevation/unroll';
import { drawZonesUpright } from '@/core/drawing/elevation/zones';
import { zonesOf } from '@/core/placing/zones';
import { useStudio } from '../../store/studio';
import type { View } from '../marks';
import { ZoneMarks } from '../ZoneMarks';

/** The electrical zones about the selected piece on the walls of an elevation, where it is washed in. */
export function UprightZones({ id, faces, view }: { id: string; faces: readonly Placed[]; view: View }) {
  const model = useStudio((s) => s.model);
  const items = useMemo((): DisplayItem[] => {
    const zones = zonesOf(model, id);
    return zones ? faces.flatMap((placed) => drawZonesUpright(zones, placed)) : [];
  }, [model, id, faces]);
  return <ZoneMarks items={items} view={view} />;
}
