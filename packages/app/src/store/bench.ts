import { create } from 'zustand';
import { type CuttingSlice, cuttingSlice } from './cutting.ts';
import { type FlatteningSlice, flatteningSlice } from './flattening.ts';
import { type HealthSlice, healthSlice } from './health.ts';
import { type MirrorSlice, mirrorSlice } from './mirror.ts';
import { type PackingSlice, packingSlice } from './packing.ts';
import { type PreviewSlice, previewSlice } from './preview.ts';
import { type ProjectingSlice, projectingSlice } from './projecting.ts';
import { type RunSlice, runSlice } from './run.ts';
import { type SelectionSlice, selectionSlice } from './selection.ts';
import { type TrialsSlice, trialsSlice } from './trialsSlice.ts';
import { type ViewSlice, viewSlice } from './view.ts';

/** All that the Bench shows: what mirrors the document, what is selected, how it is looked at, what runs, and its health. */
export type BenchStore = MirrorSlice &
  SelectionSlice &
  ViewSlice &
  RunSlice &
  HealthSlice &
  PreviewSlice &
  CuttingSlice &
  FlatteningSlice &
  PackingSlice &
  ProjectingSlice &
  TrialsSlice;

export const useBench = create<BenchStore>()(() => ({
  ...mirrorSlice,
  ...selectionSlice,
  ...viewSlice,
  ...runSlice,
  ...healthSlice,
  ...previewSlice,
  ...cuttingSlice,
  ...flatteningSlice,
  ...packingSlice,
  ...projectingSlice,
  ...trialsSlice,
}));

/** Forgets one project before another is opened; how one looks at things stays. */
export function resetBench(): void {
  // What was asked of the last project is still going to be answered, and the worker is the same.
  const { asked: _asked, answered: _answered, worker: _worker, ...run } = runSlice;
  useBench.setState({
    ...mirrorSlice,
    ...selectionSlice,
    ...run,
    ...healthSlice,
    ...previewSlice,
    ...cuttingSlice,
    ...projectingSlice,
    ...trialsSlice,
    stage: 'cut',
  });
}
