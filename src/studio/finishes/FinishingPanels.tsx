'use client';
import { FromPicture } from './FromPicture';
import { OwnFinish } from './OwnFinish';
import { Compare } from './Compare';
import { Schemes } from './Schemes';
import { TakeOver } from './TakeOver';
import { useFinishing } from './finishing';

/** What lies over the table in the finishing stage. */
export function FinishingPanels() {
  const { panel, from } = useFinishing();
  switch (panel) {
    case 'schemes':
      return <Schemes />;
    case 'compare':
      return <Compare />;
    case 'takeover':
      return <TakeOver />;
    case 'own':
      return <OwnFinish key={from ?? ''} />;
    case 'picture':
      return <FromPicture />;
    default:
      return null;
  }
}
