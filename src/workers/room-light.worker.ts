import { expose, transfer } from 'comlink';
import { readBeyond } from './assets';
import { fetchSurroundings } from '@/core/light/surroundings';
import { deriveModel } from '@/core/model/derive';
import { validateProject } from '@/core/project/commands';
import { gather, gatheringScene, probesIn, roomLight, type RoomLight } from '@/core/render/room-light';

/** Works out the light in the rooms of a project, beside the view that shows it. */
const service = {
  /** @returns null where it has no rooms */
  async light(value: unknown): Promise<RoomLight | null> {
    const model = deriveModel(validateProject(value));
    const probes = probesIn(model);
    if (!probes.length) return null;
    await fetchSurroundings(model.project.site, readBeyond);
    const gathered = gather(
      gatheringScene(model),
      probes.map((p) => p.at),
      1,
    );
    const light = roomLight(model, probes, gathered);
    return light && transfer(light, [light.values.buffer as ArrayBuffer]);
  },
};

export type RoomLightService = typeof service;

expose(service);
