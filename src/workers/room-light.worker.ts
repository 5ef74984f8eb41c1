import { expose, transfer } from 'comlink';
import { z } from 'zod';
import { readBeyond } from './assets';
import { fetchSurroundings } from '@/core/light/surroundings';
import { deriveModel } from '@/core/model/derive';
import type { Model } from '@/core/model/model';
import { validateProject } from '@/core/project/commands';
import type { PreparedScene } from '@/core/render/prepared';
import { gather, gatheringScene, probesIn, roomLight, type Gathered, type Probe, type RoomLight } from '@/core/render/room-light';

/** What is gathered in, and what has been gathered of it so far, as sums over rays. */
let under: { model: Model; scene: PreparedScene; probes: Probe[]; sums: Gathered[]; rays: number } | null = null;

/** Works out the light in the rooms of a project, beside the view that shows it. */
const service = {
  /** Makes a project ready. @returns whether it has rooms */
  async begin(value: unknown): Promise<boolean> {
    const model = deriveModel(validateProject(value));
    const probes = probesIn(model);
    under = null;
    if (!probes.length) return false;
    await fetchSurroundings(model.project.site, readBeyond);
    under = { model, scene: gatheringScene(model), probes, sums: [], rays: 0 };
    return true;
  },
  /** The light there is once so many more rays have been sent from each place. */
  more(count: number): RoomLight | null {
    const { model, scene, probes, sums, rays } = under!;
    const own = z.number().int().min(1).max(4096).parse(count);
    const found = gather(
      scene,
      probes.map((p) => p.at),
      rays,
      own,
    );
    under!.sums = found.map((g, i) => g.map((v, k) => v * own + (sums[i]?.[k] ?? 0)));
    under!.rays = rays + own;
    const means = under!.sums.map((g) => g.map((v) => v / under!.rays));
    const light = roomLight(model, probes, means);
    return light && transfer(light, [light.values.buffer as ArrayBuffer]);
  },
};

export type RoomLightService = typeof service;

expose(service);
