import { plural } from '@blunt-hem/core/plural';
import type { AnswerOf } from '@blunt-hem/core/questions/index';
import { Button } from 'antd';
import { useEffect, useState } from 'react';
import { hint, perform } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import { select, selectedFaces } from '../../store/select.ts';
import { ask } from '../../store/worker.ts';

/** Pieces of the same shape, and what was done to one carried over to the others. */
export function CopiesPanel() {
  const model = useBench((s) => s.model);
  const [found, setFound] = useState<AnswerOf<'copies'>>();
  // biome-ignore lint/correctness/useExhaustiveDependencies: another model has other copies
  useEffect(() => {
    let gone = false;
    setFound(undefined);
    void ask('copies', {})
      .catch(() => undefined)
      .then((answer) => {
        if (!gone && answer) setFound(answer);
      });
    return () => {
      gone = true;
    };
  }, [model]);
  if (!found) return <p className="selection-hint">Being looked for …</p>;
  if (found.length === 0)
    return <p className="selection-hint">No two pieces of this model have the same shape.</p>;
  return (
    <>
      <ul className="copies">
        {found.map(({ face, faces, copies }) => (
          <li key={face}>
            <span>
              {copies.length + 1} × {plural(faces, 'face')}
              {copies.some(({ mirrored }) => mirrored) ? ', some mirrored' : ''}
            </span>
            <Button
              size="small"
              type="link"
              onClick={() => selectPieces([face, ...copies.map((copy) => copy.face)])}
            >
              Select them
            </Button>
          </li>
        ))}
      </ul>
      <Button size="small" block onClick={() => void carry()}>
        Carry seams and UVs from the selected piece
      </Button>
    </>
  );
}

/** All faces of the pieces of some faces. */
function selectPieces(faces: readonly number[]): void {
  const piece = useBench.getState().model?.parts.find(({ kind }) => kind === 'piece')?.facePart;
  if (!piece) return;
  const wanted = new Set(faces.map((f) => piece[f]));
  useBench.setState({ target: 'faces' });
  select(
    'faces',
    [...piece.keys()].filter((f) => wanted.has(piece[f])),
    'only',
  );
}

async function carry(): Promise<void> {
  const [face] = selectedFaces();
  if (face === undefined) return hint('Pick a face or a shell of the piece that the others shall be like.');
  await perform('carry-to-copies', { face });
}
