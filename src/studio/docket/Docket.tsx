'use client';
import type { ReactNode } from 'react';
import { targetName, useStudio } from '../store/studio';
import { FaceDocket } from '../finishes/FaceDocket';
import { FinishDocket } from '../finishes/FinishDocket';
import { docketOf } from '../kinds';
import { ViewpointDocket } from '../views/ViewpointDocket';
import { Label } from './Label';
import { ManyDocket } from './ManyDocket';

/** The paper label with what is selected. */
export function Docket() {
  const selection = useStudio((s) => s.selection);
  const project = useStudio((s) => s.project);
  const stage = useStudio((s) => s.stage);
  const inHand = useStudio((s) => (s.tool.kind === 'finish' ? s.tool.finish : null));
  if (inHand) return <FinishDocket id={inHand} />;
  if (!selection.length) return stage === 'Views' ? <ViewpointDocket /> : null;
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
  } else {
    const own = docketOf(project, entity, target);
    if (own) {
      ({ title, line } = own);
      body = <own.Docket id={entity} target={target} />;
    }
  }
  if (!body) return null;
  return (
    <Label title={title} line={line}>
      {body}
    </Label>
  );
}
