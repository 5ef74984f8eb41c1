'use client';
import Button from '@mui/material/Button';
import { focalOfFov, fovOfFocal } from '@/core/render/camera';
import { Label } from '../docket/Label';
import { useEdit } from '../docket/parts';
import { Choice } from '../look/Choice';
import { LengthField, NumberField, Row, TextField } from '../look/fields';
import { useStudio } from '../store/studio';
import { current } from '../table/model/ModelPane';
import { useLook, useViews } from './views';

/** f-numbers interiors are photographed at. */
const STOPS = ['sharp', '16', '11', '8', '5.6', '4', '2.8', '2'] as const;

/** The camera of a viewpoint: focal length, height of the eye, verticals, how deep it is sharp. */
export function ViewpointDocket() {
  const id = useViews((s) => s.viewpoint);
  const viewpoint = useStudio((s) => (id ? s.project.viewpoints[id] : undefined));
  const { units, run, say } = useEdit();
  if (!viewpoint) return null;
  const { eye, target, fov, aperture, focus, look } = viewpoint;
  const set = (values: Partial<typeof viewpoint>): boolean => run('viewpoint.set', { viewpoint: viewpoint.id, set: values });
  /** What changes what is seen is seen at once; a name leaves the eye where one has gone meanwhile. */
  const aim = (values: Partial<typeof viewpoint>): boolean => {
    if (!run('viewpoint.set', { viewpoint: viewpoint.id, set: values })) return false;
    const { project } = useStudio.getState();
    current.scene?.eye.set(project.viewpoints[viewpoint.id]);
    return true;
  };
  const away = Math.hypot(target.x - eye.x, target.y - eye.y, target.z - eye.z);
  const stop = aperture === null ? 'sharp' : (STOPS.find((s) => Number(s) === aperture) ?? String(aperture));
  return (
    <Label title={viewpoint.name} line="Viewpoint">
      <Row label="Name">
        <TextField label="Name of the viewpoint" value={viewpoint.name} onCommit={(name) => set({ name })} />
      </Row>
      <Row label="Focal length" note="mm">
        <NumberField
          label="Focal length"
          value={Math.round(focalOfFov(fov) * 10) / 10}
          min={8}
          max={400}
          onRefuse={say}
          onCommit={(mm) => aim({ fov: fovOfFocal(mm) })}
        />
      </Row>
      <Row label="Eye at">
        <LengthField
          label="Height of the eye"
          metres={eye.z}
          units={units}
          onRefuse={say}
          onCommit={(z) => aim({ eye: { ...eye, z }, target: { ...target, z: target.z + z - eye.z } })}
        />
      </Row>
      <Row label="Verticals">
        <Choice
          bare
          label="Verticals of the viewpoint"
          value={look?.upright ? 'upright' : 'seen'}
          options={[
            ['seen', 'as one sees them'],
            ['upright', 'kept upright'],
          ]}
          onChoose={(verticals) => {
            const next = { ...(look ?? useLook.getState().look), upright: verticals === 'upright' };
            if (set({ look: next })) useLook.getState().set(next);
          }}
        />
      </Row>
      <Row label="Sharp">
        <Choice
          bare
          label="Aperture"
          value={stop}
          options={[...new Set([...STOPS, stop])].map((s) => [s, s === 'sharp' ? 'all of it' : `at f/${s}`] as const)}
          onChoose={(s) => set({ aperture: s === 'sharp' ? null : Number(s) })}
        />
      </Row>
      {aperture === null ? null : (
        <Row label="Sharp at">
          <LengthField label="Distance in focus" metres={focus ?? away} units={units} onRefuse={say} onCommit={(metres) => set({ focus: metres })} />
        </Row>
      )}
      <Button
        size="small"
        sx={{ mt: 1 }}
        onClick={() => {
          useViews.setState({ viewpoint: null });
          run('delete', { ids: [viewpoint.id] });
        }}
      >
        Delete
      </Button>
    </Label>
  );
}
