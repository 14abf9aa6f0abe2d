import { type BakeNeed, type BakeSurface, bakeSurface as surfaceOf } from '../bake/bakeSurface.ts';
import type { HemDocument } from '../document/document.ts';
import type { Job } from './job.ts';

export interface BakeSurfaceTask {
  readonly document: HemDocument;
  readonly need: BakeNeed | undefined;
}

/** What maps for painters are made from. */
export const bakeSurface: Job<'bake-surface', BakeSurfaceTask, BakeSurface> = {
  name: 'bake-surface',
  run: ({ document, need }) => surfaceOf(document, need),
};
