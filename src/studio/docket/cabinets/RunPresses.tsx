'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { upToCeiling } from '@/core/cabinetry/ceiling';
import { legRound } from '@/core/cabinetry/sides';
import { nicheIn, splashbacksOf, splashFields } from '@/core/cabinetry/splashback';
import { alignedBelow } from '@/core/cabinetry/widths';
import { derivedOf } from '@/core/model/model';
import { CABINETS } from '@/core/project/kinds/first-finishes';
import type { Run } from '@/core/project/schema';
import { newId, useStudio } from '../../store/studio';
import { useEdit } from '../parts';

/** Takes a run round the next corner of its room. */
function Further({ run }: { run: Run }) {
  const shell = useStudio((s) => s.model.shell);
  const { run: edit } = useEdit();
  const next = legRound(run, shell);
  return next ? (
    <Button size="small" onClick={() => edit('run.put', { ...run, legs: [...run.legs, next] })}>
      Round the right corner
    </Button>
  ) : null;
}

/** Tiles the walls between the worktop of a run and what hangs above it, with the finish in hand. */
function Splash({ run }: { run: Run }) {
  const { run: edit } = useEdit();
  const derived = useStudio((s) => derivedOf(s.model, 'runs').find((r) => r.id === run.id));
  if (!derived || !splashFields(derived).length) return null;
  const press = (): void => {
    const { model, project, tool, select } = useStudio.getState();
    const patches = splashbacksOf(derived, model.shell, project.patches, tool.kind === 'finish' ? tool.finish : CABINETS.splashback);
    if (patches.length && edit('patch.put', { patches })) select(patches.map((p) => ({ entity: p.id, target: null })));
  };
  return (
    <Button size="small" onClick={press}>
      Splashback
    </Button>
  );
}

/** Lets what hangs keep to what stands below it, in its middle and its width. */
function Align({ run }: { run: Run }) {
  const { run: edit, say } = useEdit();
  const derived = useStudio((s) => derivedOf(s.model, 'runs').find((r) => r.id === run.id));
  if (!derived?.units.some((u) => u.unit.band === 'wall')) return null;
  const press = (): void => {
    const all = Object.values(useStudio.getState().project.cabinets).filter((u) => u.run === run.id);
    const units = alignedBelow(derived, all);
    if (typeof units === 'string') return say(`Nothing was changed. ${units}`);
    edit('run.lay', { run, units });
  };
  return (
    <Button size="small" onClick={press}>
      Align what hangs
    </Button>
  );
}

/** Stacks what hangs and what is tall up to the ceiling. */
function Stack({ run }: { run: Run }) {
  const { run: edit, say } = useEdit();
  const derived = useStudio((s) => derivedOf(s.model, 'runs').find((r) => r.id === run.id));
  if (!derived?.units.some((u) => u.unit.band !== 'base')) return null;
  const press = (): void => {
    const units = upToCeiling(
      derived,
      derived.units.map((u) => u.unit),
    );
    if (typeof units === 'string') return say(`Nothing was changed. ${units}`);
    edit('run.lay', { run, units });
  };
  return (
    <Button size="small" onClick={press}>
      Up to the ceiling
    </Button>
  );
}

/** Lets a niche into the splashback of a run, lined as that is. */
function NicheButton({ run }: { run: Run }) {
  const { run: edit, say } = useEdit();
  const derived = useStudio((s) => derivedOf(s.model, 'runs').find((r) => r.id === run.id));
  if (!derived || !splashFields(derived).length) return null;
  const press = (): void => {
    const { model, project, select } = useStudio.getState();
    const niche = nicheIn(derived, model.shell, project, newId('niche'));
    if (typeof niche === 'string') return say(`No niche was made. ${niche}`);
    if (edit('opening.add', niche)) select([{ entity: niche.id, target: null }]);
  };
  return (
    <Button size="small" onClick={press}>
      Niche
    </Button>
  );
}

/** What is done to a run as a whole by one press. */
export function RunPresses({ run }: { run: Run }) {
  return (
    <Box sx={{ display: 'flex', gap: 0.75, mt: 1, flexWrap: 'wrap' }}>
      <Further run={run} />
      <Splash run={run} />
      <NicheButton run={run} />
      <Align run={run} />
      <Stack run={run} />
    </Box>
  );
}
