import { describe, expect, it } from 'vitest';
import { meansAction } from './sayings';

const NAMES = [
  'Add a level above',
  'Add a level below',
  'Add a building apart',
  'Draw a stair: straight',
  'Draw a void in this floor',
  'Place a door',
  'Place: rooflight, fixed',
  'Walk through the model',
  'Go to Boards',
  'Duplicate what is selected',
  'Switch millimetres and feet',
];
const first = (typed: string): string[] => NAMES.filter((name) => meansAction(name, typed));

describe('everyday words for actions', () => {
  it.each([
    ['storey', 'Add a level above'],
    ['upper floor', 'Add a level above'],
    ['add level', 'Add a level above'],
    ['Basement', 'Add a level below'],
    ['garage', 'Add a building apart'],
    ['staircase', 'Draw a stair: straight'],
    ['hole in floor', 'Draw a void in this floor'],
    ['skylight', 'Place: rooflight, fixed'],
    ['mood board', 'Go to Boards'],
    ['copy', 'Duplicate what is selected'],
    ['inches', 'Switch millimetres and feet'],
    ['first person', 'Walk through the model'],
  ])('%s finds: %s', (typed, name) => {
    expect(first(typed)).toContain(name);
  });

  it('still find an action by its own name, and nothing by what nobody says', () => {
    expect(first('void')).toEqual(['Draw a void in this floor']);
    expect(first('harpsichord')).toEqual([]);
    expect(first('')).toEqual(NAMES);
  });
});
