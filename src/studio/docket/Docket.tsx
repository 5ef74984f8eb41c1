'use client';
import { useState, type ReactNode } from 'react';
import { stockItem } from '@/core/stock/stock';
import { targetName, useStudio } from '../store/studio';
import { formName, KIND_NAMES } from '@/core/project/opening-defaults';
import { FaceDocket } from '../finishes/FaceDocket';
import { FinishDocket } from '../finishes/FinishDocket';
import { MouldingDocket } from '../finishes/MouldingDocket';
import { PatchDocket } from '../finishes/PatchDocket';
import { BeamDocket, FenceDocket, GroundDocket, SlabDocket, VoidDocket } from './BuiltDocket';
import { ColumnDocket } from './ColumnDocket';
import { DormerDocket } from './DormerDocket';
import { RoofDocket } from './RoofDocket';
import { RooflightDocket } from './RooflightDocket';
import { Label } from './Label';
import { LevelDocket } from './LevelDocket';
import { ManyDocket } from './ManyDocket';
import { OpeningDocket } from './OpeningDocket';
import { Actions } from './parts';
import { PieceDocket } from './PieceDocket';
import { RoomDocket } from './RoomDocket';
import { StairDocket } from './StairDocket';
import { WallDocket } from './WallDocket';

/** The paper label with what is selected. */
export function Docket() {
  const selection = useStudio((s) => s.selection);
  const project = useStudio((s) => s.project);
  const stage = useStudio((s) => s.stage);
  const [folded, setFolded] = useState(false);
  const inHand = useStudio((s) => (s.tool.kind === 'finish' ? s.tool.finish : null));
  if (inHand) return <FinishDocket id={inHand} />;
  if (!selection.length) return null;
  const { entity, target } = selection[selection.length - 1];
  const many = selection.length > 1;
  let body: ReactNode = null;
  let title = '';
  let line = '';
  if (!many && stage === 'Finishes' && (target?.kind === 'wall' || target?.kind === 'floor' || target?.kind === 'ceiling')) {
    title = targetName(project, target)
      .replace(/^.*, /, '')
      .replace(/^./, (c) => c.toUpperCase());
    line = target.room ? (project.rooms[target.room]?.name ?? '') : 'Outside';
    body = <FaceDocket target={target} />;
  } else if (many) {
    title = `${selection.length} things`;
    line = 'selected together';
    body = <ManyDocket />;
  } else if (project.walls[entity]) {
    title = project.walls[entity].kind === 'boundary' ? 'Boundary' : 'Wall';
    line = target ? targetName(project, target) : '';
    body = <WallDocket id={entity} target={target} />;
  } else if (project.openings[entity]) {
    title = project.openings[entity].name;
    line = `${KIND_NAMES[project.openings[entity].kind]}, ${formName(project.openings[entity].kind, project.openings[entity].form)}`;
    body = <OpeningDocket id={entity} />;
  } else if (project.columns[entity]) {
    title = project.columns[entity].name;
    line = 'Column';
    body = <ColumnDocket id={entity} />;
  } else if (project.rooflights[entity]) {
    title = project.rooflights[entity].name;
    line = 'Rooflight';
    body = <RooflightDocket id={entity} />;
  } else if (project.levels[entity]) {
    title = project.levels[entity].name;
    line = 'Level';
    body = <LevelDocket id={entity} />;
  } else if (project.roofs[entity]) {
    title = project.roofs[entity].name;
    line = 'Roof';
    body = <RoofDocket id={entity} />;
  } else if (project.dormers[entity]) {
    title = project.dormers[entity].name;
    line = 'Dormer';
    body = <DormerDocket id={entity} />;
  } else if (project.stairs[entity]) {
    title = project.stairs[entity].name;
    line = 'Stair';
    body = <StairDocket id={entity} />;
  } else if (project.slabs[entity]) {
    title = project.slabs[entity].name;
    line = 'Slab';
    body = <SlabDocket id={entity} />;
  } else if (project.voids[entity]) {
    title = project.voids[entity].name;
    line = 'Void';
    body = <VoidDocket id={entity} />;
  } else if (project.beams[entity]) {
    title = project.beams[entity].name;
    line = 'Beam';
    body = <BeamDocket id={entity} />;
  } else if (project.grounds[entity]) {
    title = project.grounds[entity].name;
    line = 'Ground';
    body = <GroundDocket id={entity} />;
  } else if (project.fences[entity]) {
    title = project.fences[entity].name;
    line = 'Outside';
    body = <FenceDocket id={entity} />;
  } else if (project.patches[entity]) {
    title = project.patches[entity].name;
    line = 'Patch';
    body = <PatchDocket id={entity} />;
  } else if (project.mouldings[entity]) {
    title = project.mouldings[entity].name.replace(/^./, (c) => c.toUpperCase());
    line = project.rooms[project.mouldings[entity].room]?.name ?? 'Moulding';
    body = <MouldingDocket id={entity} />;
  } else if (project.guides[entity]) {
    title = 'Guide line';
    line = 'walls catch on it';
    body = <Actions />;
  } else if (project.rooms[entity]) {
    title = project.rooms[entity].name;
    line = target ? targetName(project, target) : 'Room';
    body = <RoomDocket id={entity} />;
  } else if (project.pieces[entity]) {
    title = project.pieces[entity].name;
    line = stockItem(project.pieces[entity].maker)?.category ?? '';
    body = <PieceDocket id={entity} />;
  }
  if (!body) return null;
  return (
    <Label title={title} line={line} folded={folded} onFold={() => setFolded(!folded)} about={many ? null : entity}>
      {body}
    </Label>
  );
}
