'use client';
import Box from '@mui/material/Box';
import { useEffect, useRef, type RefObject } from 'react';
import { stationAt, wallEnds, wallLength, wallPath } from '@/core/project/wall-line';
import { dot, left, sub, unit, type Vec3 } from '@/core/geometry/vec';
import { colours } from '../../look/theme';
import { useStudio } from '../../store/studio';
import * as tools from '../../tools/controller';
import type { ModelScene } from './ModelScene';

/** How high above the foot of its wall the handle is, metres: within reach of the eye in most views. */
const HEIGHT = 1;

/** What a selected wall is taken by in the model. A drag anywhere else turns the view and changes nothing. */
export function WallHandle({ scene, from }: { scene: RefObject<ModelScene | null>; from: RefObject<HTMLElement | null> }) {
  const own = useRef<HTMLButtonElement>(null);
  const taken = useRef(false);
  const wall = useStudio((s) => (s.tool.kind === 'select' && s.selection.every((spot) => s.project.walls[spot.entity]) ? s.selection[0]?.entity : undefined));
  const model = useStudio((s) => s.model);
  const line = wall ? model.project.walls[wall] : undefined;
  const level = line && model.project.levels[line.level];
  const point = useRef<Vec3 | null>(null);
  if (line && level) {
    const { p } = stationAt(wallPath(model.project, line), wallLength(model.project, line) / 2);
    point.current = { ...p, z: level.elevation + line.base + HEIGHT };
  } else point.current = null;

  useEffect(() => {
    const made = scene.current;
    if (!made) return;
    const place = (): void => {
      const at = point.current && made.screenOf(point.current);
      if (!own.current) return;
      // Where the table is put away, so is it.
      own.current.style.visibility = at ? 'inherit' : 'hidden';
      if (at) own.current.style.transform = `translate(${at.x - 13}px, ${at.y - 13}px)`;
    };
    made.onDrawn.add(place);
    place();
    return () => void made.onDrawn.delete(place);
  }, [scene, wall, model]);

  if (!wall || !line) return null;
  const at = (e: React.PointerEvent): tools.TablePoint | null => {
    const made = scene.current;
    const plan = made?.floorPoint(e.clientX, e.clientY, point.current?.z ?? 0);
    return made && plan ? { plan, spot: { entity: wall, target: null }, reach: made.eye.pixel * 10, shift: e.shiftKey } : null;
  };
  return (
    <Box
      component="button"
      ref={own}
      type="button"
      data-testid="wall-handle"
      aria-label="Move the wall"
      title="Drag to move the wall, or use the arrow keys"
      onPointerDown={(e: React.PointerEvent) => {
        const given = at(e);
        if (e.button !== 0 || !given) return;
        e.stopPropagation();
        e.currentTarget.setPointerCapture(e.pointerId);
        taken.current = tools.down(given);
      }}
      onPointerMove={(e: React.PointerEvent) => {
        const given = taken.current ? at(e) : null;
        if (given) tools.move(given);
        e.stopPropagation();
      }}
      onPointerUp={(e: React.PointerEvent) => {
        const given = at(e);
        if (taken.current && given) tools.up(given);
        taken.current = false;
        e.stopPropagation();
        from.current?.focus();
      }}
      onKeyDown={(e: React.KeyboardEvent) => {
        const towards = { ArrowLeft: { x: -1, y: 0 }, ArrowRight: { x: 1, y: 0 }, ArrowUp: { x: 0, y: 1 }, ArrowDown: { x: 0, y: -1 } }[e.key];
        if (!towards) return;
        e.preventDefault();
        e.stopPropagation();
        // Steps as pieces have them; along itself a wall does not move.
        const [a, b] = wallEnds(model.project, line);
        const across = dot(towards, left(unit(sub(b, a))));
        const { run, selection } = useStudio.getState();
        if (Math.abs(across) > 0.3) run('wall.move', { wall, run: selection.map((s) => s.entity), offset: Math.sign(across) * (e.shiftKey ? 0.1 : 0.01) });
      }}
      onPointerCancel={() => {
        taken.current = false;
        tools.cancel();
      }}
      sx={{
        all: 'unset',
        position: 'absolute',
        left: 0,
        top: 0,
        width: 22,
        height: 22,
        borderRadius: '50%',
        border: `2px solid ${colours.paper}`,
        bgcolor: colours.damson,
        boxShadow: `0 0 0 1px ${colours.damson}`,
        color: colours.paper,
        display: 'grid',
        placeItems: 'center',
        fontSize: 12,
        cursor: 'move',
        touchAction: 'none',
        zIndex: 2,
      }}
    >
      ↔
    </Box>
  );
}
