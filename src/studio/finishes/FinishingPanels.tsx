'use client';
import { FromPicture } from './FromPicture';
import { OwnFinish } from './OwnFinish';
import { Compare, Schemes } from './Schemes';
import { useFinishing } from './finishing';

/** What lies over the table in the finishing stage. */
export function FinishingPanels() {
  const { panel, from } = useFinishing();
  switch (panel) {
    case 'schemes':
      return <Schemes />;
    case 'compare':
      return <Compare />;
    case 'own':
      return <OwnFinish key={from ?? ''} />;
    case 'picture':
      return <FromPicture />;
    default:
      return null;
  }
}
