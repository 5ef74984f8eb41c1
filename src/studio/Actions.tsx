'use client';
import Box from '@mui/material/Box';
import Dialog from '@mui/material/Dialog';
import Input from '@mui/material/Input';
import useAutocomplete from '@mui/material/useAutocomplete';
import { useMemo } from 'react';
import { offered } from '@/core/finishes/library';
import { takeFinish } from './tools/finishing';
import { formName, KIND_NAMES } from '@/core/project/opening-defaults';
import { overLevel } from '@/core/project/roof-outline';
import { newRoof, ROOF_FORMS, ROOF_NAMES } from '@/core/project/roof-defaults';
import { FENCE_NAMES, GROUND_NAMES, SLAB_NAMES } from '@/core/project/built-defaults';
import { FENCE_KINDS, FORMS, GROUND_KINDS, STAIR_FORMS } from '@/core/project/schema';
import { CARDS } from '@/core/stock/stock';
import { colours } from './look/theme';
import { newId, STAGES, useStudio } from './store/studio';
import { STANDPOINTS, type Standpoint } from './table/model/camera';
import { current } from './table/model/ModelPane';
import { standAt } from './table/Table';
import { useLook } from './views/views';
import { meansAction } from './sayings';
import * as tools from './tools/controller';
import { addLevel } from './tools/levels';

interface Action {
  name: string;
  key?: string;
  run(): void;
}

/** Everything one can do, by name. */
function allActions(): Action[] {
  const s = useStudio.getState();
  return [
    { name: 'Undo', key: 'Ctrl Z', run: s.undo },
    { name: 'Redo', key: 'Ctrl Shift Z', run: s.redo },
    { name: 'Draw a room by its corners', run: () => s.setTool({ kind: 'walls', shape: 'rectangle' }) },
    { name: 'Draw walls one by one', run: () => s.setTool({ kind: 'walls', shape: 'chain' }) },
    { name: 'Draw an arc', run: () => s.setTool({ kind: 'walls', shape: 'arc' }) },
    { name: 'Draw a boundary between rooms', run: () => s.setTool({ kind: 'walls', shape: 'chain', boundary: true }) },
    { name: 'Make a recess', run: () => s.setTool({ kind: 'recess', make: 'recess' }) },
    { name: 'Box something in', run: () => s.setTool({ kind: 'recess', make: 'boxing' }) },
    { name: 'Set a column', run: () => s.setTool({ kind: 'column', section: 'square' }) },
    { name: 'Split a wall', run: () => s.setTool({ kind: 'split' }) },
    { name: 'Set a guide line', run: () => s.setTool({ kind: 'guide' }) },
    { name: 'Select the whole line of a wall', run: tools.lineUp },
    { name: 'Mirror what is selected', run: () => tools.mirrorSelection('x') },
    { name: 'Show the house as it stands', run: () => s.setPhase('before') },
    { name: 'Show the house as it will be', run: () => s.setPhase('after') },
    { name: 'Place a door', run: () => s.setTool({ kind: 'opening', opening: 'door', form: 'hinged' }) },
    { name: 'Place a window', run: () => s.setTool({ kind: 'opening', opening: 'window', form: 'casement' }) },
    ...(['door', 'window', 'passage', 'niche'] as const).flatMap((opening) =>
      FORMS[opening].map((form) => ({
        name: `Place: ${KIND_NAMES[opening].toLowerCase()}, ${formName(opening, form)}`,
        run: () => s.setTool({ kind: 'opening', opening, form }),
      })),
    ),
    ...(['fixed', 'hinged', 'dome'] as const).map((form) => ({ name: `Place: rooflight, ${form}`, run: () => s.setTool({ kind: 'rooflight', form }) })),
    ...ROOF_FORMS.map((form) => ({
      name: `Put a roof on the level: ${ROOF_NAMES[form]}`,
      run: () => {
        const { project, level, run } = useStudio.getState();
        run('roof.put', { roof: newRoof(project, { id: newId('roof'), level, over: overLevel(project, level) }, form) });
      },
    })),
    ...STAIR_FORMS.flatMap((form) =>
      (form === 'straight' || form === 'spiral' ? (['landing'] as const) : (['landing', 'winders'] as const)).map((corners) => ({
        name: `Draw a stair: ${form === 'three' ? 'three flights' : form}${form === 'straight' || form === 'spiral' ? '' : `, ${corners}`}`,
        run: () => s.setTool({ kind: 'outline', make: { what: 'stair', form, corners, turn: 'left' } }),
      })),
    ),
    { name: 'Add a level above', run: () => addLevel(s.level, 'above', 'outer') },
    { name: 'Add a level below', run: () => addLevel(s.level, 'below', 'outer') },
    { name: 'Add a building apart', run: () => addLevel(s.level, 'apart', 'none') },
    { name: 'Draw a void in this floor', run: () => s.setTool({ kind: 'outline', make: { what: 'void' } }) },
    ...(Object.keys(SLAB_NAMES) as (keyof typeof SLAB_NAMES)[]).map((kind) => ({
      name: `Draw a ${SLAB_NAMES[kind].toLowerCase()}`,
      run: () => s.setTool({ kind: 'outline', make: { what: 'slab', kind } }),
    })),
    { name: 'Draw outdoor steps', run: () => s.setTool({ kind: 'outline', make: { what: 'steps' } }) },
    { name: 'Set a beam', run: () => s.setTool({ kind: 'outline', make: { what: 'beam', as: 'beam' } }) },
    { name: 'Set a post', run: () => s.setTool({ kind: 'outline', make: { what: 'beam', as: 'post' } }) },
    ...GROUND_KINDS.map((kind) => ({
      name: `Draw outside: ${GROUND_NAMES[kind].toLowerCase()}`,
      run: () => s.setTool({ kind: 'outline', make: { what: 'ground', kind } }),
    })),
    ...FENCE_KINDS.map((kind) => ({
      name: `Draw outside: ${FENCE_NAMES[kind].toLowerCase()}`,
      run: () => s.setTool({ kind: 'outline', make: { what: 'fence', kind } }),
    })),
    { name: 'Duplicate what is selected', run: tools.duplicateSelection },
    { name: 'Delete what is selected', key: 'Delete', run: tools.deleteSelection },
    { name: 'Turn what is selected a quarter', run: () => tools.turnSelection() },
    { name: 'Show the whole level', run: () => s.setRoom(null) },
    ...(Object.keys(STANDPOINTS) as Standpoint[]).map((from) => ({ name: `See the model ${STANDPOINTS[from].name}`, run: () => standAt(from) })),
    { name: 'Stand back from the model', run: () => current.scene?.eye.fit() },
    { name: 'Walk through the model', run: () => useLook.setState({ walking: true }) },
    ...(['finishes', 'white', 'lines', 'translucent'] as const).map((mode) => ({
      name: `Show the model: ${mode}`,
      run: () => useLook.getState().set({ mode }),
    })),
    { name: 'Show drawing and model', run: () => useStudio.setState({ layout: 'both' }) },
    { name: 'Show the drawing alone', run: () => useStudio.setState({ layout: 'drawing' }) },
    { name: 'Show the model alone', run: () => useStudio.setState({ layout: 'model' }) },
    { name: 'Switch millimetres and feet', run: () => s.run('project.units', { units: s.project.units === 'metric' ? 'imperial' : 'metric' }) },
    ...STAGES.map((stage) => ({ name: `Go to ${stage}`, run: () => s.setStage(stage) })),
    ...Object.values(s.project.rooms).map((r) => ({ name: `Take ${r.name} in hand`, run: () => s.setRoom(r.id) })),
    ...CARDS.map(({ id, name }) => ({ name: `Place: ${name}`, run: () => s.setTool({ kind: 'place', card: id }) })),
    ...offered.map((f) => ({ name: `Apply: ${f.name}`, run: () => takeFinish(f.id) })),
  ];
}

/** The most that is listed at once. */
const MOST = 60;

/** A searchable list of all actions. */
export function Actions({ open, onClose }: { open: boolean; onClose(): void }) {
  return (
    <Dialog open={open} onClose={onClose} aria-labelledby="actions-title" slotProps={{ paper: { sx: { width: 420, alignSelf: 'flex-start', mt: '12vh' } } }}>
      <Box component="h2" id="actions-title" sx={{ position: 'absolute', width: 1, height: 1, m: '-1px', overflow: 'hidden', clipPath: 'inset(50%)' }}>
        Actions
      </Box>
      <ActionList onClose={onClose} />
    </Dialog>
  );
}

function ActionList({ onClose }: { onClose(): void }) {
  const all = useMemo(allActions, []);
  const { getRootProps, getInputProps, getListboxProps, getOptionProps, groupedOptions } = useAutocomplete({
    id: 'actions',
    options: all,
    open: true,
    value: null as Action | null,
    autoHighlight: true,
    getOptionLabel: (a) => a.name,
    filterOptions: (options, { inputValue }) => {
      return options.filter((a) => meansAction(a.name, inputValue)).slice(0, MOST);
    },
    onClose: (_, reason) => reason === 'escape' && onClose(),
    onChange: (_, action) => {
      if (!action) return;
      onClose();
      action.run();
    },
  });
  return (
    <div {...getRootProps()}>
      <Input
        autoFocus
        fullWidth
        placeholder="What would you like to do?"
        inputProps={{ ...getInputProps(), 'aria-label': 'Find an action' }}
        sx={{ p: '10px 14px', fontSize: 15 }}
      />
      <Box component="ul" {...getListboxProps()} aria-label="Actions" sx={{ listStyle: 'none', m: 0, p: 0, maxHeight: 380, overflow: 'auto', pb: 1 }}>
        {(groupedOptions as Action[]).map((a, index) => {
          const { key, ...option } = getOptionProps({ option: a, index });
          return (
            <Box
              component="li"
              key={key}
              {...option}
              sx={{
                display: 'flex',
                cursor: 'pointer',
                px: 2,
                py: 0.6,
                fontSize: 13,
                '&.Mui-focused': { bgcolor: colours.damsonTint },
                '&:hover': { bgcolor: colours.strip },
              }}
            >
              <Box sx={{ flex: 1 }}>{a.name}</Box>
              <Box sx={{ color: colours.third }}>{a.key}</Box>
            </Box>
          );
        })}
      </Box>
    </div>
  );
}
