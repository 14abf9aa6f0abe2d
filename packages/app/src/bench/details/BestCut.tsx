import { isTooStretched } from '@blunt-hem/core/document/judgement';
import type { AnswerOf } from '@blunt-hem/core/questions/index';
import { Button } from 'antd';
import { useEffect, useState } from 'react';
import { useBench } from '../../store/bench.ts';
import { selectCut } from '../../store/suggestCut.ts';
import { ask } from '../../store/worker.ts';
import type { ShellRow } from '../../worker/protocol.ts';

/** How long a shell must be chosen before its cuts are tried, milliseconds. */
const REST = 600;
/** Larger shells take a while, and are tried when the artist asks for it. */
const MOST_FACES = 60_000;

/** For one shell that stretches too much: the single cut that helps it most, and what would come of it. */
export function BestCut({ row }: { readonly row: ShellRow }) {
  const { name, faces, stretch } = row;
  const limits = useBench((s) => s.limits);
  const isWanted = stretch !== undefined && isTooStretched(stretch, limits);
  const [wished, setWished] = useState(false);
  const [found, setFound] = useState<AnswerOf<'best-cut'>>();
  const isAsked = isWanted && (wished || faces <= MOST_FACES);
  // Figures come anew with every act that touches the shell, and whatever was asked before it is of no more use.
  useEffect(() => {
    setFound(undefined);
    if (!isAsked || !stretch) return;
    let gone = false;
    const timer = setTimeout(async () => {
      const answer = await ask('best-cut', { face: name }).catch(() => undefined);
      if (!gone) setFound(answer);
    }, REST);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [isAsked, name, stretch]);
  if (!isWanted) return null;
  return (
    <>
      <dt>Best single cut</dt>
      <dd>
        {isAsked ? (
          <Found found={found} />
        ) : (
          <Button size="small" onClick={() => setWished(true)}>
            Look for it
          </Button>
        )}
      </dd>
    </>
  );
}

function Found({ found }: { readonly found: AnswerOf<'best-cut'> | undefined }) {
  if (!found) return 'Being tried …';
  const { edges, l2, angleMean, isRough } = found;
  if (l2 === undefined || angleMean === undefined) return 'None of those tried helps: it may want several.';
  return (
    <>
      L2 {isRough && 'about '}
      {l2.toFixed(2)}, angle {angleMean.toFixed(1)}° with {edges.length} edges{' '}
      <Button size="small" onClick={() => selectCut(edges)}>
        Select them
      </Button>
    </>
  );
}
