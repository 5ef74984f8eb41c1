import { useEffect, type RefObject } from 'react';
import type { Vec3 } from '@/core/geometry/vec';
import { startOf, walk, WALKER, walkMap, type WalkMap } from '@/core/walk/walk';
import type { Model } from '@/core/model/model';
import { useStudio } from '../../store/studio';
import { useLook } from '../../views/views';
import type { ModelScene } from './ModelScene';

/** Metres a second one walks, radians a second one turns. */
const PACE = 1.5;
const TURN = 1.5;

/** Where the walker is, for whoever tells of it. */
export const walker: { at: Vec3; yaw: number; pitch: number; seated: boolean } = { at: { x: 0, y: 0, z: 0 }, yaw: 0, pitch: 0, seated: false };

/** Walking through the model: arrow keys go and turn, dragging looks round, Escape ends. */
export function useWalking(scene: RefObject<ModelScene | null>, frame: RefObject<HTMLDivElement | null>): void {
  const walking = useLook((s) => s.walking);
  useEffect(() => {
    const made = scene.current;
    const element = frame.current;
    if (!walking || !made || !element) return;
    let known: { model: Model; map: WalkMap } | null = null;
    const map = (): WalkMap => {
      const { model } = useStudio.getState();
      if (known?.model !== model) known = { model, map: walkMap(model) };
      return known.map;
    };
    const { model, room, level } = useStudio.getState();
    const before = made.eye.state();
    walker.at = startOf(model, room, level);
    walker.yaw = Math.PI / 2;
    walker.pitch = 0;
    // Towards the middle of the farthest wall there is most to see.
    const own = room ? model.shell.rooms.get(room) : undefined;
    if (own) {
      const far = own.region.outer.reduce((a, b) =>
        Math.hypot(a.x - walker.at.x, a.y - walker.at.y) > Math.hypot(b.x - walker.at.x, b.y - walker.at.y) ? a : b,
      );
      walker.yaw = Math.atan2(far.y - walker.at.y, far.x - walker.at.x);
    }
    const show = (): void => made.eye.walkTo(walker.at, walker.seated ? WALKER.seated : WALKER.eye, walker.yaw, walker.pitch);
    made.eye.controls.enabled = false;
    show();
    const held = new Set<string>();
    let last = 0;
    let request = 0;
    const tick = (now: number): void => {
      const dt = last ? Math.min(0.1, (now - last) / 1000) : 0.016;
      last = now;
      const ahead = (held.has('ArrowUp') || held.has('w') ? 1 : 0) - (held.has('ArrowDown') || held.has('s') ? 1 : 0);
      const aside = (held.has('d') ? 1 : 0) - (held.has('a') ? 1 : 0);
      const turn = (held.has('ArrowLeft') ? 1 : 0) - (held.has('ArrowRight') ? 1 : 0);
      walker.yaw += turn * TURN * dt;
      if (ahead || aside) {
        const [c, s] = [Math.cos(walker.yaw), Math.sin(walker.yaw)];
        const pace = PACE * (held.has('Shift') ? 2 : 1) * dt;
        walker.at = walk(map(), walker.at, { x: (c * ahead + s * aside) * pace, y: (s * ahead - c * aside) * pace });
      }
      show();
      request = held.size ? requestAnimationFrame(tick) : 0;
      if (!request) last = 0;
    };
    const down = (e: KeyboardEvent): void => {
      if ((e.target as HTMLElement).closest('input, textarea, [role="dialog"], [role="listbox"]')) return;
      if (e.key === 'Escape') {
        e.preventDefault();
        e.stopImmediatePropagation();
        useLook.setState({ walking: false });
        return;
      }
      const key = e.key.length === 1 ? e.key.toLowerCase() : e.key;
      if (!['ArrowUp', 'ArrowDown', 'ArrowLeft', 'ArrowRight', 'w', 'a', 's', 'd', 'Shift'].includes(key)) return;
      e.preventDefault();
      e.stopImmediatePropagation();
      held.add(key);
      if (!request) request = requestAnimationFrame(tick);
    };
    const up = (e: KeyboardEvent): void => void held.delete(e.key.length === 1 ? e.key.toLowerCase() : e.key);
    const blur = (): void => held.clear();
    const drag = (e: PointerEvent): void => {
      if (!(e.buttons & 1)) return;
      walker.yaw -= e.movementX * 0.005;
      walker.pitch = Math.max(-1.2, Math.min(1.2, walker.pitch - e.movementY * 0.005));
      show();
    };
    addEventListener('keydown', down, true);
    addEventListener('keyup', up, true);
    addEventListener('blur', blur);
    element.addEventListener('pointermove', drag);
    element.focus();
    return () => {
      cancelAnimationFrame(request);
      removeEventListener('keydown', down, true);
      removeEventListener('keyup', up, true);
      removeEventListener('blur', blur);
      element.removeEventListener('pointermove', drag);
      made.eye.controls.enabled = true;
      made.eye.set(before);
    };
  }, [walking, scene, frame]);
}
