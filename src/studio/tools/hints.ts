import { KIND_NAMES } from '@/core/project/opening-defaults';
import type { Tool } from '../store/studio';

/** How every tool is put down. */
export const PUT_DOWN = 'It stays in hand until Escape, or “Put down” over the drawing, ends it.';

/** What to do with a tool that has just been taken in hand: read out to those who cannot see the drawing. */
export const hintFor = (tool: Tool): string => (tool.kind === 'select' ? '' : `${wayOf(tool)} ${PUT_DOWN}`);

function wayOf(tool: Exclude<Tool, { kind: 'select' }>): string {
  switch (tool.kind) {
    case 'walls':
      return tool.shape === 'chain' || tool.shape === 'arc'
        ? 'Press where the wall begins, then where it ends. With Enter it begins in the middle of the drawing; arrow keys give a direction, a typed length ends it.'
        : 'Press two opposite corners. With Enter the first one lies in the middle of the drawing; type the width, Tab, the depth, Enter.';
    case 'opening':
      return `Press on a wall to place the ${KIND_NAMES[tool.opening].toLowerCase()}. With Enter it goes into the selected wall.`;
    case 'recess':
      return 'Press on a wall and drag along it.';
    case 'column':
      return 'Press where the column stands. With Enter it stands in the middle of the drawing.';
    case 'rooflight':
      return 'Press in a room where the rooflight goes.';
    case 'outline':
      return 'Press its corners one after another; Enter ends it.';
    case 'split':
      return 'Press on a wall where it is to be parted.';
    case 'guide':
      return 'Press two points of the line.';
    case 'underlay':
      return 'Press two points of the picture, then type how far they are apart.';
    case 'place':
      return 'Press where it stands. With Enter it stands in the middle of the drawing.';
    case 'unit':
      return 'Press before a wall: the unit goes beside those that stand there, or begins a run. With Enter it goes to the end of the run that is selected.';
    case 'finish':
      return 'Press on a surface. With Enter it goes onto what is selected.';
    case 'pick':
      return 'Press on a surface to take its finish in hand.';
    case 'treat':
      return 'Press on the wall it is copied onto.';
  }
}
