import { useEffect } from 'react';
import { note } from '../store/acts.ts';
import { useBench } from '../store/bench.ts';
import { ask } from '../store/worker.ts';

/** Looks for what the model is symmetric by, while symmetry is on, and again when the mesh is another one. */
export function useSymmetry(loaded: boolean): void {
  const by = useBench((s) => s.symmetryBy);
  const model = useBench((s) => s.model);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another model has another symmetry
  useEffect(() => {
    useBench.setState({ symmetry: undefined });
    if (!loaded || by === 'off') return;
    let gone = false;
    void ask('symmetry', { by })
      .catch(() => undefined)
      .then((found) => {
        if (gone) return;
        useBench.setState({ symmetry: found });
        if (found) return;
        useBench.setState({ symmetryBy: 'off' });
        note(
          by === 'turn'
            ? 'No axis was found about which this model comes round: symmetry is off.'
            : by === 'mirror'
              ? 'No plane was found in which this model is mirrored: symmetry is off. A plane can be set by hand.'
              : `The surface itself is not mirrored across ${by} = 0: symmetry is off.`,
        );
      });
    return () => {
      gone = true;
    };
  }, [loaded, by, model]);
}
