import { useEffect } from 'react';
import { useBench } from '../store/bench.ts';
import { ask } from '../store/worker.ts';

/** Works out how much is seen of the model, once it is shown. */
export function useExposure(loaded: boolean): void {
  const wanted = useBench((s) => s.overlay === 'exposure');
  const lookedAt = useBench((s) => s.lookedAt);
  const model = useBench((s) => s.model);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another model is seen otherwise
  useEffect(() => {
    if (!loaded || !wanted) return;
    let gone = false;
    useBench.setState({ exposure: undefined });
    void ask('exposure', { view: lookedAt })
      .catch(() => undefined)
      .then((found) => {
        if (!gone && found) useBench.setState({ exposure: found.corners });
      });
    return () => {
      gone = true;
    };
  }, [loaded, wanted, lookedAt, model]);
}
