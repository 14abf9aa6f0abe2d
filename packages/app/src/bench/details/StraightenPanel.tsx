import type { AnswerOf } from '@blunt-hem/core/questions/index';
import { Button } from 'antd';
import { useEffect, useState } from 'react';
import { perform } from '../../store/acts.ts';
import { type BenchStore, useBench } from '../../store/bench.ts';
import { ask } from '../../store/worker.ts';
import { isSeam } from '../commands/seams.ts';

/** How long a selection must rest, milliseconds. */
const REST = 250;

/** The seams among what is selected, run straighter: drawn and told before it is done. */
export function StraightenPanel() {
  const edges = useBench((s) => s.edges);
  const flat = useBench((s) => s.flat);
  const [found, setFound] = useState<AnswerOf<'straightened-seam'>>();
  const seams = seamsAmong({ edges, flat });
  // biome-ignore lint/correctness/useExhaustiveDependencies: the seams follow from what is selected and cut
  useEffect(() => {
    setFound(undefined);
    if (seams.length === 0) return;
    let gone = false;
    const timer = setTimeout(async () => {
      const answer = await ask('straightened-seam', { edges: seams }).catch(() => undefined);
      if (gone || !answer) return;
      setFound(answer);
      useBench.setState({ offered: answer.edges });
    }, REST);
    return () => {
      gone = true;
      clearTimeout(timer);
      useBench.setState({ offered: undefined });
    };
  }, [edges, flat]);
  if (seams.length === 0) return null;
  return (
    <div className="straighten">
      <Button
        size="small"
        disabled={!found || found.edges.length === 0}
        onClick={() => void straighten(seams)}
      >
        Straighten this seam
      </Button>
      <span className="selection-hint">
        {!found ? 'Being tried …' : found.edges.length === 0 ? 'It is as straight as it can be.' : found.gain}
      </span>
    </div>
  );
}

const seamsAmong = (state: Pick<BenchStore, 'edges' | 'flat'>): number[] =>
  state.edges.size > MOST ? [] : [...state.edges].filter(isSeam(state));

/** Of more edges it is not asked in passing. */
const MOST = 20_000;

async function straighten(edges: readonly number[]): Promise<void> {
  useBench.setState({ edges: new Set(), offered: undefined });
  await perform('straighten-seams', { edges: [...edges] });
}
