import { connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { heedStop } from '../progress.ts';
import { ringAround } from '../select/ringAround.ts';
import type { Job } from './job.ts';

export interface RingTask {
  readonly mesh: Mesh;
  readonly vertices: readonly number[];
}

/** The tightest ring through each of some places, as edges in order; none where there is nothing to go round. */
export const rings: Job<'rings', RingTask, readonly (readonly number[])[]> = {
  name: 'rings',
  run({ mesh, vertices }, { signal }) {
    const links = connectivity(mesh);
    return vertices.map((v) => {
      heedStop(signal);
      return ringAround(mesh, links, v);
    });
  },
};
