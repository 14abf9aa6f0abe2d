import { useEffect } from 'react';
import { useBench } from '../store/bench.ts';
import { ask } from '../store/worker.ts';

/** About so many are drawn over all shells. */
const COUNT = 260;

/** Has Tissot's ellipses worked out while they are shown, anew after every act. */
export function useEllipses(loaded: boolean): void {
  const wanted = useBench((s) => s.ellipsesOn);
  const flat = useBench((s) => s.flat);
  useEffect(() => {
    if (!loaded || !wanted || !flat) {
      useBench.setState({ ellipses: undefined });
      return;
    }
    let gone = false;
    void ask('ellipses', { count: COUNT })
      .catch(() => undefined)
      .then((found) => {
        if (!gone && found) useBench.setState({ ellipses: found });
      });
    return () => {
      gone = true;
    };
  }, [loaded, wanted, flat]);
}
