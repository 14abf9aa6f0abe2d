import type { AskedOf } from '@blunt-hem/core/questions/index';
import { perform } from '../../../store/acts.ts';
import { type BenchStore, useBench } from '../../../store/bench.ts';
import { selectedFaces } from '../../../store/select.ts';
import { triple } from './placing.ts';

/** What is asked for as it is set now. */
export function projectionAsked(s: BenchStore): AskedOf<'projection'> | undefined {
  const faces = selectedFaces();
  const all = faces.length > 0 ? faces : [...(s.flat?.faceShell.keys() ?? [])];
  if (all.length === 0) return undefined;
  const { projectionFrame: frame, projectionEach: each } = s;
  return {
    faces: all,
    kind: s.projectionKind,
    sweep: s.projectionSweep,
    size: s.projectionSize,
    each,
    caps: s.projectionCaps,
    // Each shell has a place of its own; only directions are shared.
    ...(frame && {
      toward: triple(frame.toward),
      up: triple(frame.up),
      ...(each === 'together' && { origin: triple(frame.origin) }),
    }),
  };
}

export async function take(): Promise<void> {
  const asked = projectionAsked(useBench.getState());
  if (!asked) return;
  // What came of it is looked at without the handle.
  if (await perform('project', asked))
    useBench.setState({ tool: 'pick', projectionFrame: undefined, projectionPreview: undefined });
}
