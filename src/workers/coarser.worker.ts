import { expose, transfer } from 'comlink';
import { coarserMeshes, type CoarserMesh } from './coarser-meshes';

/** Works out coarser meshes for what is far off in the view. */
const service = {
  async coarser(positions: Float32Array, indices: Uint32Array): Promise<CoarserMesh[]> {
    const made = await coarserMeshes(positions, indices);
    return transfer(
      made,
      made.map((m) => m.indices.buffer),
    );
  },
};

export type CoarserService = typeof service;

expose(service);
