import type { ParamsOf } from '@blunt-hem/core/operations/catalogue';
import type { Stage } from '@blunt-hem/core/operations/operation';
import { useEffect } from 'react';
import { type BenchStore, useBench } from '../store/bench.ts';
import { asProposed } from '../store/propose.ts';
import { asRequested, imagesOf } from '../store/select.ts';
import { bench } from '../store/worker.ts';
import { isSeam, isUncut } from './commands/seams.ts';

/** How long a selection must rest before what a cut along it would bring is worked out, milliseconds. */
const REST = 180;
/** Larger models take too long for a glance. */
const MOST_FACES = 250_000;

/** Stages in which nothing is cut: what is selected there is looked at, or moved. */
const WITHOUT: ReadonlySet<Stage> = new Set<Stage>(['inspect', 'arrange', 'deliver']);

/** What would be cut or sewn: what is selected, else the route that is drawn, what a panel offers, or what a double click would take. */
const candidate = (state: BenchStore) => {
  if (WITHOUT.has(state.stage)) return undefined;
  const { edges, route, offered, proposal, hover, target } = state;
  return edges.size > 0
    ? edges
    : (route ?? offered ?? proposal?.edges ?? (target === 'edges' ? hover?.whole : undefined));
};

type SeamAct = {
  readonly [N in 'cut' | 'sew']: { readonly operation: N; readonly params: ParamsOf<N> };
}['cut' | 'sew'];

/**
 * The act that one key would do: where only seams are selected they are sewn, and else what is no seam yet is cut. The same to the letter
 * as it will be asked for, so that it is not worked out twice.
 */
function actOf(state: BenchStore): SeamAct | undefined {
  const taken = candidate(state);
  if (!taken) return undefined;
  const { symmetry, hover } = state;
  const meant = 'points' in taken ? [...taken.edges, ...taken.ahead] : [...taken];
  const isDrawn = 'points' in taken || taken === hover?.whole;
  const edges = isDrawn && symmetry ? imagesOf(symmetry, 'edges', meant) : meant;
  const uncut = edges.filter(isUncut(state));
  const asked = (own: readonly number[]) => (taken === state.edges ? asRequested('edges', own) : own);
  const { proposal } = state;
  if (uncut.length > 0)
    return taken === proposal?.edges
      ? { operation: 'cut', params: { edges: asProposed(proposal, uncut), relax: true } }
      : { operation: 'cut', params: { edges: asked(uncut) } };
  const seams = taken === state.edges ? edges.filter(isSeam(state)) : [];
  return seams.length > 0 ? { operation: 'sew', params: { edges: asked(seams) } } : undefined;
}

/** Shows as a ghost on the Board what a cut or a sewing would bring along the edges that are selected, drawn, offered or pointed at. */
export function useGhost(loaded: boolean): void {
  useEffect(() => {
    if (!loaded) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let newest = 0;
    const stop = useBench.subscribe((state, before) => {
      // By what they are, not by what is in them: the pointer moves often, and a selection may be large.
      const taken = candidate(state);
      const { flat, symmetry } = state;
      if (taken === candidate(before) && flat === before.flat && symmetry === before.symmetry) return;
      clearTimeout(timer);
      const mine = ++newest;
      if (state.ghost) useBench.setState({ ghost: undefined });
      if (!taken || !flat || flat.faceShell.length > MOST_FACES) {
        void bench.clearPreview();
        return;
      }
      timer = setTimeout(async () => {
        const act = actOf(useBench.getState());
        const ghost = act && (await bench.preview(act.operation, act.params));
        if (mine === newest) useBench.setState({ ghost: ghost && { ...ghost, by: act?.operation } });
      }, REST);
    });
    return () => {
      clearTimeout(timer);
      newest++;
      stop();
    };
  }, [loaded]);
}
