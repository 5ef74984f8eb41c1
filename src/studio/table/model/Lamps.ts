import * as THREE from 'three';
import { placesOf } from '@/core/model/body';
import { partsOf, type Model } from '@/core/model/model';
import { blackBody } from '@/core/finishes/colour';
import { middleOf, transformPoint } from '@/core/geometry/mesh';
import { insideRegion } from '@/core/geometry/polygon';
import type { Vec3 } from '@/core/geometry/vec';

/** Most luminaires that light the view, and of them those that throw shadows. */
const MOST = 10;
export const SHADOWED = 4;

/** How far a luminaire without a shadow lights while one is in a room, metres: it would shine through walls. */
const UNSHADOWED = 2.5;

/** Pixels a side of each of the six pictures of a shadow. */
const MAP = 512;

interface Lamp {
  light: THREE.PointLight;
  room: string | null;
}

/** The room a place lies in, above its floor; null: none. */
export function roomAt({ shell }: Model, { x, y, z }: Vec3): string | null {
  // Of rooms over one another the highest that begins below.
  for (const { level, rooms } of shell.levels.toReversed())
    if (z > level.elevation) for (const { room, region } of rooms) if (insideRegion({ x, y }, region)) return room.id;
  return null;
}

/**
 * The luminaires of the view. Those about the eye throw shadows while it is in a room, so that none shines through a wall or a table. As
 * many throw one at any time: were they more or fewer, the shaders of all materials would be made anew.
 */
export class Lamps {
  readonly group = new THREE.Group();
  private lamps: Lamp[] = [];
  private model: Model | null = null;
  private shaded = false;
  /** The room the eye was in when shadows were given out; null: it was outside. */
  private room: string | null = null;

  /** The brightest luminaires of a model that are on. @returns their colours */
  set(model: Model): THREE.Color[] {
    this.model = model;
    const lit = [...partsOf(model)]
      .flatMap(([body, part]) => (part.lamp?.on ? placesOf(body, part).map((place) => ({ part, lamp: part.lamp!, place })) : []))
      .sort((a, b) => b.lamp.lumen - a.lamp.lumen)
      .slice(0, MOST);
    for (const { light } of this.lamps.splice(lit.length)) {
      this.group.remove(light);
      light.dispose();
    }
    lit.forEach(({ part, lamp, place }, i) => {
      const own = (this.lamps[i] ??= this.make());
      own.light.color.setRGB(...blackBody(lamp.kelvin));
      own.light.intensity = lamp.lumen / (4 * Math.PI);
      // In the middle of what glows.
      const { x, y, z } = transformPoint(place, middleOf(part.mesh));
      own.light.position.set(x, y, z);
      own.room = roomAt(model, { x, y, z });
    });
    this.giveOut(null);
    return this.lamps.map(({ light }) => light.color);
  }

  private make(): Lamp {
    const light = new THREE.PointLight(0xffffff, 1, 0, 2);
    const { shadow } = light;
    shadow.mapSize.set(MAP, MAP);
    shadow.normalBias = 0.02;
    shadow.camera.near = 0.03;
    shadow.camera.far = 12;
    // Drawn once, so that there is one to be looked up.
    shadow.needsUpdate = true;
    this.group.add(light);
    return { light, room: null };
  }

  /**
   * Gives shadows to the luminaires about an eye in a room: first those of that room, then whose light comes strongest.
   *
   * @param eye null: it is outside, and all shine without shadows @param shaded whether any throw shadows
   * @returns whether shadows are to be drawn anew
   */
  near(eye: Vec3 | null, shaded: boolean): boolean {
    const room = eye && shaded && this.model && this.lamps.length ? (roomAt(this.model, eye) ?? 'between rooms') : null;
    if (room === this.room && shaded === this.shaded) return false;
    this.shaded = shaded;
    this.room = room;
    this.giveOut(room === null ? null : eye);
    return true;
  }

  private giveOut(eye: Vec3 | null): void {
    const worth = ({ light, room }: Lamp): number =>
      eye ? light.intensity / Math.max(0.25, light.position.distanceToSquared(eye)) + (room === this.room ? 1e9 : 0) : 0;
    this.lamps
      .toSorted((a, b) => worth(b) - worth(a))
      .forEach(({ light }, i) => {
        light.castShadow = this.shaded && i < SHADOWED;
        light.distance = eye && !light.castShadow ? UNSHADOWED : 0;
        light.shadow.autoUpdate = eye !== null;
        light.shadow.intensity = eye ? 1 : 0;
      });
    if (!eye) this.room = null;
  }

  dispose(): void {
    for (const { light } of this.lamps) light.dispose();
  }
}
