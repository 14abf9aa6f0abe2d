import type { AnswerOf } from '@blunt-hem/core/questions/index';
import type { UvMatrix } from '@blunt-hem/core/surface/similarity';
import { useEffect, useState } from 'react';
import { useBench } from '../../store/bench.ts';
import { namesOfChosen } from '../../store/select.ts';
import { ask } from '../../store/worker.ts';

/** How far the selected shells are moved, turned or scaled under the hand, and what they would come to lie on. */
export function DragNote() {
  const dragged = useBench((s) => s.dragged);
  const height = useBench((s) => s.tiles[0].height);
  const [landing, setLanding] = useState<AnswerOf<'landing'>>();
  const isHeld = dragged !== undefined;
  // One question at a time, about where the hand is by then.
  useEffect(() => {
    setLanding(undefined);
    if (!isHeld) return;
    let gone = false;
    const follow = async (): Promise<void> => {
      let asked: UvMatrix | undefined;
      while (!gone) {
        const { dragged: matrix } = useBench.getState();
        const shells = namesOfChosen();
        if (matrix && matrix !== asked && shells.length > 0) {
          asked = matrix;
          const found = await ask('landing', { shells, matrix: [...matrix] }).catch(() => undefined);
          if (!gone && found) setLanding(found);
        }
        await new Promise(requestAnimationFrame);
      }
    };
    void follow();
    return () => {
      gone = true;
    };
  }, [isHeld]);
  if (!dragged) return null;
  const { onto = [], nearest } = landing ?? {};
  return (
    <p className="ghost-note drag-note" role="status">
      {describeDrag(dragged, height)}
      {nearest && nearest.far > 0 && ` · ${Math.round(nearest.far * height)} px from ${nearest.shell + 1}`}
      {onto.length > 0 && (
        <strong>
          {' '}
          · on or too near to{' '}
          {onto
            .slice(0, 4)
            .map((s) => s + 1)
            .join(', ')}
          {onto.length > 4 && ' …'}
        </strong>
      )}
    </p>
  );
}

/** How far points are moved under the hand, and how far off others go along. */
export function PullNote() {
  const pulled = useBench((s) => s.pulled);
  const radius = useBench((s) => s.pullRadius);
  const height = useBench((s) => s.tiles[0].height);
  if (!pulled) return null;
  return (
    <p className="ghost-note drag-note" role="status">
      {describeDrag(pulled, height)};{' '}
      {radius > 0 ? `others within ${Math.round(radius * height)} px go along` : 'alone'} (wheel)
    </p>
  );
}

/** “Moved 120, −36 px”, “Turned 15.0°”, “Scaled × 1.20”. */
export function describeDrag([a, b, c, d, e, f]: UvMatrix, texture: number): string {
  const scale = Math.sqrt(Math.abs(a * d - b * c));
  if (Math.abs(scale - 1) > 1e-6) return `Scaled × ${scale.toFixed(2)}`;
  const angle = (Math.atan2(b, a) * 180) / Math.PI;
  if (Math.abs(angle) > 1e-6) return `Turned ${angle.toFixed(1)}°`;
  const [u, v] = [e, f].map((x) => Math.round(x * texture));
  return `Moved ${u}, ${v} px of ${texture}`;
}
