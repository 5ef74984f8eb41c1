'use client';
import Box from '@mui/material/Box';
import { useCallback, useDeferredValue, useEffect, useRef } from 'react';
import { useStudio } from '../../store/studio';
import * as tools from '../../tools/controller';
import { registerPane } from '../../tools/panes';
import { recalledShade } from '../../store/habits';
import { useLook, useShade } from '../../views/views';
import { ModelScene } from './ModelScene';
import { PictureFrame } from './PictureFrame';
import { TrueLight } from './TrueLight';
import { useWalking } from './useWalking';
import { WallHandle } from './WallHandle';

/** A press that goes no farther, in pixels, selects; what goes farther turns the view. */
const STILL = 4;

/** The scene of this window, for the parts of the studio that set viewpoints. */
export const current: { scene: ModelScene | null } = { scene: null };

/** The 3D model: the same tools as in the plan, with the pointer carried to the floor. */
export function ModelPane() {
  const look = useLook((s) => s.look);
  const walking = useLook((s) => s.walking);
  const frame = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const scene = useRef<ModelScene | null>(null);
  const ready = useStudio((s) => s.ready);
  // While one drags, the plan is drawn first and the model follows it.
  const model = useDeferredValue(useStudio((s) => s.model));
  const selection = useStudio((s) => s.selection);
  const hover = useStudio((s) => s.hover);
  const ghost = useStudio((s) => s.ghost);
  const room = useStudio((s) => s.room);
  const level = useStudio((s) => s.level);
  const tool = useStudio((s) => s.tool);
  // Behind a drawing that fills the table nothing is drawn; it catches up when it is seen again.
  const shown = useStudio((s) => s.layout !== 'drawing');
  const fitted = useRef('');
  const busy = useRef(false);
  const pressed = useRef<{ x: number; y: number; given: tools.TablePoint } | null>(null);

  useEffect(() => {
    const made = new ModelScene(canvas.current!);
    scene.current = made;
    current.scene = made;
    const observer = new ResizeObserver(() => made.resize(frame.current!.clientWidth, frame.current!.clientHeight));
    observer.observe(frame.current!);
    made.resize(frame.current!.clientWidth, frame.current!.clientHeight);
    return () => {
      observer.disconnect();
      made.dispose();
      current.scene = null;
    };
  }, []);

  // The eye is fitted to the pane as it is, before whoever watches it is told of its size.
  useEffect(() => {
    if (shown) scene.current?.resize(frame.current!.clientWidth, frame.current!.clientHeight);
  }, [shown]);

  useEffect(() => {
    const made = scene.current;
    if (!made || !ready || !shown) return;
    made.level = level;
    made.setModel(model);
    const key = `${model.project.id} ${room ?? ''} ${Object.keys(model.project.walls).length > 0}`;
    if (fitted.current !== key) {
      fitted.current = key;
      made.room = room;
      const own = room ? model.shell.rooms.get(room) : undefined;
      made.eye.fit(own?.region.outer);
    }
    // What is only shown moves nothing.
    if (model.project === useStudio.getState().project) made.eye.follow();
  }, [ready, shown, model, room, level]);

  useEffect(() => {
    if (shown) scene.current?.setSpots(selection, hover);
  }, [shown, selection, hover, model]);
  // A ceiling in hand is looked at from below.
  const ceiling = selection.length === 1 && selection[0].target?.kind === 'ceiling' ? selection[0].entity : null;
  useEffect(() => {
    if (ceiling) scene.current?.eye.lookUp(ceiling);
  }, [ceiling]);
  useEffect(() => scene.current?.setGhost(ghost, 0), [ghost]);
  useEffect(() => {
    const made = scene.current;
    if (!made) return;
    made.setLook(look);
  }, [look, ready]);
  const shade = useShade((s) => s.on);
  useEffect(() => useShade.setState({ on: recalledShade() }), []);
  useEffect(() => scene.current?.setShade(shade), [shade]);
  useWalking(scene, frame);

  const point = useCallback((e: { clientX: number; clientY: number; shiftKey?: boolean }): tools.TablePoint => {
    const made = scene.current!;
    const state = useStudio.getState();
    const hit = made.pick(e.clientX, e.clientY);
    const level = state.project.levels[state.level];
    const floor = made.floorPoint(e.clientX, e.clientY, level?.elevation ?? 0);
    // While something is placed or moved the floor decides; a surface under the pointer names what is meant.
    const plan =
      state.tool.kind === 'opening' && hit ? { x: hit.point.x, y: hit.point.y } : (floor ?? (hit ? { x: hit.point.x, y: hit.point.y } : { x: 0, y: 0 }));
    const onto = (except: ReadonlySet<string>) => made.sightOn(e.clientX, e.clientY, except);
    return { plan, spot: hit?.spot ?? null, reach: made.eye.pixel * 10, shift: Boolean(e.shiftKey), onto };
  }, []);

  useEffect(() => registerPane('model', frame, point), [point]);

  return (
    <>
      <Box
        ref={frame}
        data-testid="model"
        role="application"
        aria-label="Model"
        tabIndex={0}
        sx={{ position: 'absolute', inset: 0, cursor: tool.kind === 'select' ? 'default' : 'crosshair', outline: 'none', touchAction: 'none' }}
        onPointerDownCapture={(e) => {
          if (e.button !== 0 || e.altKey || walking || e.target !== canvas.current) return;
          const given = point(e);
          const { tool: inHand, selection: chosen, project } = useStudio.getState();
          // Only what was selected before is dragged, walls by their handle alone; any other drag turns the view and changes nothing.
          const own = given.spot?.entity;
          const grip = inHand.kind !== 'select' || (own !== undefined && !project.walls[own] && chosen.some((s) => s.entity === own));
          pressed.current = grip ? null : { x: e.clientX, y: e.clientY, given };
          busy.current = grip && tools.down(given);
          if (scene.current) scene.current.eye.controls.enabled = !grip;
        }}
        onPointerMove={(e) => {
          if (walking || (e.buttons && !busy.current)) return;
          tools.move(point(e));
        }}
        onPointerUp={(e) => {
          const press = pressed.current;
          pressed.current = null;
          if (busy.current) tools.up(point(e));
          else if (press && Math.hypot(e.clientX - press.x, e.clientY - press.y) < STILL) {
            tools.down(press.given);
            tools.up(press.given);
          }
          busy.current = false;
          if (scene.current && !walking) scene.current.eye.controls.enabled = true;
        }}
        onPointerLeave={() => !busy.current && tools.leave()}
        onContextMenu={(e) => e.preventDefault()}
      >
        <canvas ref={canvas} style={{ width: '100%', height: '100%', display: 'block', outline: 'none' }} />
        {walking ? null : <WallHandle scene={scene} from={frame} />}
      </Box>

      <TrueLight scene={scene} frame={frame} />
      <PictureFrame scene={scene} pane={frame} />
    </>
  );
}
