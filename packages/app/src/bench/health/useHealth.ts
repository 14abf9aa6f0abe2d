import { useEffect } from 'react';
import { useBench } from '../../store/bench.ts';
import { examine } from '../../store/examine.ts';

/** How long a new model must rest before it is examined, milliseconds. */
const REST = 600;

/** Has every model examined once it lies on the Bench, and again when its mesh has changed. */
export function useHealth(loaded: boolean): void {
  const model = useBench((s) => s.model);
  useEffect(() => {
    if (!loaded || !model) return;
    const timer = setTimeout(() => void examine(), REST);
    return () => clearTimeout(timer);
  }, [loaded, model]);
}
