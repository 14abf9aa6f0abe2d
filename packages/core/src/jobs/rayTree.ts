import { rayTree as build, type RayTree } from '../surface/rays.ts';
import type { Job } from './job.ts';

/** A tree for rays over loose triangles. */
export const rayTree: Job<'ray-tree', Float32Array, RayTree> = { name: 'ray-tree', run: build };
