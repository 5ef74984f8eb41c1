'use client';
import Button from '@mui/material/Button';
import { useState, type ReactNode } from 'react';
import { stockItem } from '@/core/stock/stock';
import { surfaceName, useStudio } from '../store/studio';
import * as tools from '../tools/controller';
import { Label } from './Label';
import { OpeningDocket } from './OpeningDocket';
import { Actions } from './parts';
import { PieceDocket } from './PieceDocket';
import { RoomDocket } from './RoomDocket';
import { WallDocket } from './WallDocket';

/** The paper label with what is selected. */
export function Docket() {
  const selection = useStudio((s) => s.selection);
  const project = useStudio((s) => s.project);
  const [folded, setFolded] = useState(false);
  if (!selection.length) return null;
  const { entity, target } = selection[selection.length - 1];
  const many = selection.length > 1;
  let body: ReactNode = null;
  let title = '';
  let line = '';
  if (many) {
    title = `${selection.length} things`;
    line = 'selected together';
    body = <Many />;
  } else if (project.walls[entity]) {
    title = 'Wall';
    line = target ? surfaceName(project, useStudio.getState().model, target) : '';
    body = <WallDocket id={entity} target={target} />;
  } else if (project.openings[entity]) {
    title = project.openings[entity].name;
    line = project.openings[entity].kind === 'door' ? 'Door, one hinged leaf' : 'Window';
    body = <OpeningDocket id={entity} />;
  } else if (project.rooms[entity]) {
    title = project.rooms[entity].name;
    line = target ? surfaceName(project, useStudio.getState().model, target) : 'Room';
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

function Many() {
  const pieces = useStudio((s) => s.selection.every((x) => s.project.pieces[x.entity]));
  return <Actions>{pieces ? <Button onClick={tools.duplicateSelection}>Duplicate</Button> : null}</Actions>;
}
