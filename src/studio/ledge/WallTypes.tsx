'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import Switch from '@mui/material/Switch';
import { useState } from 'react';
import { LAYER_TONES } from '@/core/drawing/inks';
import { LayerMaterial, type WallLayer, type WallType } from '@/core/project/schema';
import { formatLength } from '@/core/units/length';
import { Choice } from '../look/Choice';
import { LengthField, TextField } from '../look/fields';
import { colours } from '../look/theme';
import { newId, useStudio } from '../store/studio';

/** The project's wall types: their layers from the outside in, to be changed and added to. */
export function WallTypes({ onClose }: { onClose(): void }) {
  const types = useStudio((s) => s.project.wallTypes);
  const units = useStudio((s) => s.project.units);
  const [chosen, setChosen] = useState(Object.keys(types)[0] ?? '');
  const [keep, setKeep] = useState<'left' | 'right' | 'middle'>('left');
  const { run, say } = useStudio.getState();
  const type = types[chosen];
  const put = (next: WallType): boolean => run('type.put', { type: next, keep });
  const setLayer = (i: number, values: Partial<WallLayer>): boolean => put({ ...type, layers: type.layers.map((l, k) => (k === i ? { ...l, ...values } : l)) });
  const total = type?.layers.reduce((sum, l) => sum + l.thickness, 0) ?? 0;
  return (
    <Dialog open onClose={onClose} maxWidth={false} aria-labelledby="wall-types">
      <Box sx={{ width: 720, p: 2.5, fontSize: 12.5 }} onKeyDown={(e) => e.stopPropagation()}>
        <Box id="wall-types" sx={{ font: "22px 'Instrument Serif'", mb: 1.5 }}>
          Wall types
        </Box>
        <Box sx={{ display: 'grid', gridTemplateColumns: '210px 1fr', gap: 3 }}>
          <Box>
            {Object.values(types).map((t) => (
              <Box
                key={t.id}
                component="button"
                onClick={() => setChosen(t.id)}
                aria-pressed={t.id === chosen}
                sx={{
                  all: 'unset',
                  boxSizing: 'border-box',
                  cursor: 'pointer',
                  width: '100%',
                  py: 0.5,
                  borderBottom: `1px solid ${colours.hairline}`,
                  color: t.id === chosen ? colours.damson : colours.ink,
                  fontWeight: t.id === chosen ? 600 : 400,
                  '&:focus-visible': { outline: `2px solid ${colours.damson}` },
                }}
              >
                {t.name}
                <Box component="span" sx={{ float: 'right', color: colours.third, fontWeight: 400 }}>
                  {formatLength(
                    t.layers.reduce((sum, l) => sum + l.thickness, 0),
                    units,
                  )}
                </Box>
              </Box>
            ))}
            <Button
              size="small"
              sx={{ mt: 1 }}
              onClick={() => {
                const id = newId('type');
                const base = type?.layers ?? [{ material: 'stud' as const, thickness: 0.1, core: true }];
                if (run('type.put', { type: { id, name: type ? `${type.name}, own` : 'Own wall', layers: base.map((l) => ({ ...l })) }, keep })) setChosen(id);
              }}
            >
              Add one like this
            </Button>
          </Box>
          {type ? (
            <Box>
              <Box sx={{ display: 'flex', gap: 2, alignItems: 'baseline' }}>
                <TextField key={chosen} label="Type name" value={type.name} onCommit={(name) => put({ ...type, name })} />
                <Box sx={{ whiteSpace: 'nowrap' }}>{formatLength(total, units)} thick</Box>
              </Box>
              <svg width="440" height="64" style={{ display: 'block', margin: '10px 0' }} role="img" aria-label="Section through the layers">
                {type.layers.map((l, i) => {
                  const before = type.layers.slice(0, i).reduce((sum, k) => sum + k.thickness, 0);
                  return (
                    <rect
                      key={i}
                      x={(before / total) * 438 + 1}
                      y={1}
                      width={(l.thickness / total) * 438}
                      height={62}
                      fill={LAYER_TONES[l.material]}
                      stroke={colours.ink}
                      strokeWidth={l.core ? 1.6 : 0.7}
                      strokeDasharray={l.material === 'cavity' ? '4 3' : undefined}
                    />
                  );
                })}
              </svg>
              <Box sx={{ display: 'flex', justifyContent: 'space-between', color: colours.third, fontSize: 11, mb: 0.5 }}>
                <span>right of the way it is drawn: outside</span>
                <span>left: inside</span>
              </Box>
              {type.layers.map((l, i) => (
                <Box
                  key={i}
                  sx={{
                    display: 'grid',
                    gridTemplateColumns: '1fr 90px 90px auto',
                    gap: 1.5,
                    alignItems: 'center',
                    borderBottom: `1px solid ${colours.hairline}`,
                  }}
                >
                  <Choice
                    label={`Layer ${i + 1}`}
                    bare
                    value={l.material}
                    options={LayerMaterial.options.map((m) => [m, m] as const)}
                    onChoose={(material) => void setLayer(i, { material })}
                  />
                  <LengthField
                    label={`Thickness of layer ${i + 1}`}
                    metres={l.thickness}
                    units={units}
                    onRefuse={say}
                    onCommit={(thickness) => setLayer(i, { thickness })}
                  />
                  <label>
                    <Switch checked={l.core} onChange={(e) => void setLayer(i, { core: e.target.checked })} /> core
                  </label>
                  <Button
                    size="small"
                    disabled={type.layers.length < 2}
                    onClick={() => void put({ ...type, layers: type.layers.filter((_, k) => k !== i) })}
                    aria-label={`Take layer ${i + 1} out`}
                  >
                    Take out
                  </Button>
                </Box>
              ))}
              <Box sx={{ display: 'flex', gap: 1.5, mt: 1.5, alignItems: 'baseline', flexWrap: 'wrap' }}>
                <Button
                  size="small"
                  disabled={type.layers.length > 11}
                  onClick={() => void put({ ...type, layers: [...type.layers, { material: 'plaster', thickness: 0.0125, core: false }] })}
                >
                  Add a layer inside
                </Button>
                <Choice
                  label="When the thickness changes"
                  value={keep}
                  options={[
                    ['left', 'the left face stays'],
                    ['right', 'the right face stays'],
                    ['middle', 'the middle stays'],
                  ]}
                  onChoose={(v) => setKeep(v)}
                />
                <Button
                  size="small"
                  onClick={() => run('delete', { ids: [type.id] }) && setChosen(Object.keys(useStudio.getState().project.wallTypes)[0] ?? '')}
                >
                  Delete this type
                </Button>
              </Box>
            </Box>
          ) : null}
        </Box>
        <Box sx={{ textAlign: 'right', mt: 2 }}>
          <Button variant="contained" onClick={onClose}>
            Done
          </Button>
        </Box>
      </Box>
    </Dialog>
  );
}
