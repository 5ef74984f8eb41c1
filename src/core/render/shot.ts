import { coveringsOf, cutAway, insideRoom } from '../model/cut-away';
import type { Model } from '../model/model';
import type { Part } from '../model/body';
import { FIRST_LOOK } from '../project/looks';
import type { Look, Shot, Viewpoint } from '../project/schema';
import { dot3, sub3 } from '../geometry/vec';
import { cameraFrame, lensOf, type Camera } from './camera';

/** The shot of a viewpoint; where it says nothing of how the model is shown, the house stands whole. @param round all round from there */
export function shotFrom({ eye, target, fov, look, aperture, focus }: Omit<Viewpoint, 'id' | 'name'>, round = false): Shot {
  return {
    looking: { look: look ?? { ...FIRST_LOOK, cut: false }, eye, level: null, room: null, afoot: true },
    camera: { eye, target, fov, aperture, focus },
    round,
  };
}

/** The camera of a shot: parallel where the view is, its lens, and what a section plane leaves out. */
export function cameraOf(model: Model, { looking, camera, round }: Shot): Camera {
  const { eye, target, fov, aperture, focus } = camera;
  const { upright, section } = looking.look;
  const projection = round ? 'sphere' : looking.look.projection;
  const away = Math.hypot(target.x - eye.x, target.y - eye.y, target.z - eye.z);
  const made: Camera = { eye, target, fov, projection, upright, height: 2 * away * Math.tan(fov / 2), indoors: insideRoom(model, looking) };
  if (aperture !== null && projection === 'perspective') {
    const { axis } = cameraFrame(made, 1);
    made.lens = { radius: lensOf(fov, aperture), focus: focus ?? Math.max(0.05, dot3(sub3(target, eye), axis)) };
  }
  if (section) {
    const sign = section.keep === 'above' ? 1 : -1;
    const normal = { x: 0, y: 0, z: 0, [section.axis]: sign };
    made.cuts = [{ normal, offset: -sign * section.at }];
  }
  return made;
}

/** How a part stands in a picture: as it is; looked through; unseen, though light is as with it; or not there at all. */
export type Presence = 'shown' | 'through' | 'unseen' | 'gone';

/**
 * What a way of looking does to each part. What a viewpoint hides is not there, nor is its shadow; what is cut away between eye
 * and room is only passed by the eye: the room keeps the light it has within its walls. Looked into from above, as into a model
 * whose lid is off, it has the light that falls in; only its lamps stay where they hang.
 */
export function presenceIn(
  model: Model,
  looking: Shot['looking'],
): (entity: string, level: string | null, part: Pick<Part, 'sort' | 'host' | 'lamp'>) => Presence {
  const { shows, lidOff } = cutAway(model, coveringsOf(model), { ...looking, chosen: new Set() });
  const { hidden, through }: Look = looking.look;
  const [gone, clear] = [new Set(hidden), new Set(through)];
  return (entity, level, { sort, host, lamp }) => {
    const kind = `all/${sort}`;
    if (gone.has(entity) || gone.has(kind) || (level !== null && gone.has(level))) return 'gone';
    if (!shows({ entity, sort, level, ...(host ? { host } : {}) })) return lidOff && !lamp ? 'gone' : 'unseen';
    return clear.has(entity) || clear.has(kind) ? 'through' : 'shown';
  };
}

/** What a way of looking does to all parts of a model, as one word: where it is the same, so is the scene. */
export function presenceKey(model: Model, looking: Shot['looking']): string {
  const presence = presenceIn(model, looking);
  return model.bodies.map((body) => body.parts.map((part) => presence(body.id, body.level, part)[0]).join('')).join(' ');
}
