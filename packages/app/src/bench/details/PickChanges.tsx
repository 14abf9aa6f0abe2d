import type { PickChange } from '@blunt-hem/core/questions/changedPick';
import { Button, InputNumber } from 'antd';
import { useState } from 'react';
import { fail, hint, note, picked } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import { select } from '../../store/select.ts';
import { ask } from '../../store/worker.ts';

/** Makes what is picked larger or smaller. */
export function PickChanges() {
  const [angle, setAngle] = useState(20);
  const points = useBench((s) => s.points.size);
  const edges = useBench((s) => s.edges.size);
  const faces = useBench((s) => s.faces.size);
  const button = (how: PickChange, label: string, enabled: boolean) => (
    <Button key={how} size="small" disabled={!enabled} onClick={() => void change(how, angle)}>
      {label}
    </Button>
  );
  return (
    <>
      <div className="button-grid">
        {button('grow', 'Grow', points + edges + faces > 0)}
        {button('shrink', 'Shrink', points + edges + faces > 0)}
        {button('connected', 'All connected', points + edges + faces > 0)}
        {button('border', 'Border of the faces', faces > 0)}
        {button('fold', 'Along the fold', edges > 0)}
        {button('straight', 'Straight on', edges > 0)}
        {button('ring', 'Side by side', edges > 0)}
        {button('level', 'Level faces', faces > 0)}
        <label className="rail-field" htmlFor="level-angle">
          up to
          <InputNumber
            id="level-angle"
            size="small"
            min={0}
            max={180}
            value={angle}
            suffix="°"
            onChange={(value) => setAngle(value ?? 20)}
          />
        </label>
      </div>
      {points + edges + faces === 0 && <p className="selection-hint">Pick points, edges or faces first.</p>}
    </>
  );
}

/** What there is of each is changed; what comes of it first is picked from then on. */
const CHANGED = ['points', 'edges', 'faces'] as const;

async function change(how: PickChange, angle: number): Promise<void> {
  await picked();
  const { points, edges, faces } = useBench.getState();
  const before = { points, edges, faces };
  try {
    const found = await ask('changed-pick', {
      how,
      points: [...points],
      edges: [...edges],
      faces: [...faces],
      angle,
    });
    if (!found) return;
    const isSame = CHANGED.every(
      (target) =>
        found[target].length === before[target].size && found[target].every((i) => before[target].has(i)),
    );
    if (isSame) return note('That is picked already: nothing more hangs on it that way.');
    if (CHANGED.every((target) => found[target].length === 0))
      return hint(
        how === 'border'
          ? 'These faces are all there is of their piece: they have no border.'
          : 'Nothing would be left.',
      );
    for (const target of CHANGED) select(target, found[target], 'only');
    useBench.setState({ target: CHANGED.find((target) => found[target].length > 0) });
  } catch (error) {
    fail(error);
  }
}
