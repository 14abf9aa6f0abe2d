import { useBench } from '../store/bench.ts';
import { useAsked } from './useAsked.ts';

/** About so many ellipses are drawn over all shells. */
const ELLIPSES = 260;

/** Has worked out what an overlay shows and figures do not tell, while it is shown. */
export function useOverlays(loaded: boolean): void {
  const overlay = useBench((s) => s.overlay);
  const ellipsesOn = useBench((s) => s.ellipsesOn);
  const view = useBench((s) => s.lookedAt);
  const model = useBench((s) => s.model);
  const flat = useBench((s) => s.flat);
  useAsked(loaded && overlay === 'exposure', 'visibility', { view }, [model], (found) =>
    useBench.setState({ visibility: found?.corners }),
  );
  useAsked(loaded && overlay === 'direction', 'direction', {}, [flat], (direction) =>
    useBench.setState({ direction }),
  );
  useAsked(loaded && ellipsesOn && flat !== undefined, 'ellipses', { count: ELLIPSES }, [flat], (ellipses) =>
    useBench.setState({ ellipses }),
  );
}
