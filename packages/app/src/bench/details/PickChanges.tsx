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
        {button('grow', 'Grow', edges + faces > 0)}
        {button('shrink', 'Shrink', edges + faces > 0)}
        {button('connected', 'All connected faces', edges + faces > 0)}
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
      {edges + faces === 0 && <p className="selection-hint">Pick edges or faces first.</p>}
    </>
  );
}

async function change(how: PickChange, angle: number): Promise<void> {
  await picked();
  const { edges, faces } = useBench.getState();
  try {
    const found = await ask('changed-pick', { how, edges: [...edges], faces: [...faces], angle });
    if (!found) return;
    const isSame = found.edges.length === edges.size && found.faces.length === faces.size;
    if (isSame && [...found.edges].every((e) => edges.has(e)) && found.faces.every((f) => faces.has(f)))
      return note('That is picked already: nothing more hangs on it that way.');
    if (found.edges.length + found.faces.length === 0)
      return hint(
        how === 'border'
          ? 'These faces are all there is of their piece: they have no border.'
          : 'Nothing would be left.',
      );
    select('faces', found.faces, 'only');
    select('edges', found.edges, 'only');
    useBench.setState({ target: found.edges.length > 0 ? 'edges' : 'faces' });
  } catch (error) {
    fail(error);
  }
}
