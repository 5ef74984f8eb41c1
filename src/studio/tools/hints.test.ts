import { describe, expect, it } from 'vitest';
import type { Tool } from '../store/studio';
import { hintFor } from './hints';

const TOOLS: Tool[] = [
  { kind: 'walls', shape: 'chain' },
  { kind: 'walls', shape: 'L' },
  { kind: 'opening', opening: 'door', form: 'hinged' },
  { kind: 'recess', make: 'recess' },
  { kind: 'column', section: 'round' },
  { kind: 'rooflight', form: 'fixed' },
  { kind: 'outline', make: { what: 'void' } },
  { kind: 'split' },
  { kind: 'guide' },
  { kind: 'underlay', step: 'first' },
  { kind: 'place', card: 'sofa' },
  { kind: 'unit', said: '600 drawers' },
  { kind: 'finish', finish: 'paint.reed' },
  { kind: 'pick' },
  { kind: 'treat', from: { kind: 'wall', room: null, wall: 'w', side: 'left' }, mirrored: false },
];

describe('hints of tools', () => {
  it.each(TOOLS.map((tool) => [tool.kind, tool] as const))('%s: whole sentences that begin with what to press', (_, tool) => {
    expect(hintFor(tool)).toMatch(/^Press .*\.$/);
  });

  it('are told apart by how one draws, and none is given for no tool', () => {
    expect(hintFor(TOOLS[0])).not.toBe(hintFor(TOOLS[1]));
    expect(hintFor(TOOLS[2])).toContain('door');
    expect(hintFor({ kind: 'select' })).toBe('');
  });
});
