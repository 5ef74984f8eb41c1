import { escape, leave } from '../tools/controller';
import { beforeEach, describe, expect, it } from 'vitest';
import { heronLockCottage } from '@/core/demo/heron-lock';
import { deriveModel } from '@/core/model/derive';
import { targetName, useStudio } from './studio';

const project = heronLockCottage();
const model = deriveModel(project);
const living = [...model.shell.rooms.values()].find((r) => r.room.name === 'Living')!;

describe('surfaces are called as people call them', () => {
  it('by room and direction', () => {
    const names = new Set(living.sides.map((s) => targetName(project, { kind: 'wall', room: living.id, wall: s.wall, side: s.side })));
    expect([...names].sort()).toEqual(['Living, east wall', 'Living, north wall', 'Living, south wall', 'Living, west wall']);
    const north = living.sides.find((s) => s.from.y > 6.5 && s.to.y > 6.5)!;
    expect(targetName(project, { kind: 'wall', room: living.id, wall: north.wall, side: north.side })).toBe('Living, north wall');
  });

  it('turns with the plan', () => {
    const turned = { ...project, site: { ...project.site, north: 0 } };
    const north = living.sides.find((s) => s.from.y > 6.5 && s.to.y > 6.5)!;
    // North along +x: what was north in the plan is now west.
    expect(targetName(turned, { kind: 'wall', room: living.id, wall: north.wall, side: north.side })).toBe('Living, west wall');
  });

  it('by what they are otherwise', () => {
    expect(targetName(project, { kind: 'floor', room: living.id })).toBe('Living, floor');
    expect(targetName(project, { kind: 'walls', room: living.id })).toBe('Living, all walls');
    expect(targetName(project, { kind: 'walls', room: null })).toBe('All outside walls');
    expect(targetName(project, { kind: 'ground' })).toBe('Ground');
    const sofa = Object.values(project.pieces).find((p) => p.maker === 'sofa')!;
    expect(targetName(project, { kind: 'part', of: sofa.id, part: 'cushions' })).toBe('Sofa, cushions');
    expect(targetName(project, { kind: 'part', of: 'door-2', part: 'leaf' })).toBe('Front door, leaf');
  });
});

describe('a preview', () => {
  beforeEach(() => useStudio.setState({ project, model }));

  it('shows what a command would do and leaves the project alone', () => {
    const { preview, endPreview } = useStudio.getState();
    expect(preview('finish.apply', { targets: [{ kind: 'floor', room: living.id }], finish: 'stone.flag' })).toBeNull();
    expect(useStudio.getState().model.project.rooms[living.id].floor).toBe('stone.flag');
    expect(useStudio.getState().project).toBe(project);
    endPreview();
    expect(useStudio.getState().model.project).toBe(project);
  });

  it('shown again makes nothing, and going back gives the very model it began on', () => {
    const { preview, endPreview } = useStudio.getState();
    const before = useStudio.getState().model;
    const show = (finish: string): unknown => {
      preview('finish.apply', { targets: [{ kind: 'floor', room: living.id }], finish });
      return useStudio.getState().model;
    };
    const first = show('stone.flag');
    expect(show('stone.flag')).toBe(first);
    expect(show('timber.oak-plank')).not.toBe(first);
    endPreview();
    expect(useStudio.getState().model).toBe(before);
  });

  it('gives the refusal as a sentence and shows what stood before', () => {
    const before = useStudio.getState().model;
    expect(useStudio.getState().preview('wall.move', { wall: 'none', offset: 1 })).toMatch(/^Nothing was changed: .*\.$/);
    expect(useStudio.getState().model).toBe(before);
  });

  it.each([
    ['another tool', () => useStudio.getState().setTool({ kind: 'select' })],
    ['another stage', () => useStudio.getState().setStage('Views')],
    ['the pointer leaving the table', () => leave()],
    ['Escape', () => escape()],
  ])('ends with %s', (_, end) => {
    useStudio.setState({ tool: { kind: 'finish', finish: 'stone.flag' } });
    useStudio.getState().preview('finish.apply', { targets: [{ kind: 'floor', room: living.id }], finish: 'stone.flag' });
    end();
    expect(useStudio.getState().model.project).toBe(project);
  });

  it('a tool and a stage put away what the last one showed', () => {
    useStudio.setState({ marks: [{ kind: 'line', points: [], closed: false, ink: 'measure', pen: 0.13, layer: 'dimension' }], notice: 'x' });
    useStudio.getState().setTool({ kind: 'walls', shape: 'chain' });
    expect(useStudio.getState()).toMatchObject({ marks: [], measure: null, notice: null });
    useStudio.getState().setStage('Views');
    expect(useStudio.getState().tool).toEqual({ kind: 'select' });
  });

  it('a room taken in hand selects its floor', () => {
    useStudio.getState().setRoom(living.id);
    expect(useStudio.getState().selection).toEqual([{ entity: living.id, target: { kind: 'floor', room: living.id } }]);
    useStudio.getState().setRoom(null);
    expect(useStudio.getState().selection).toEqual([]);
  });
});
