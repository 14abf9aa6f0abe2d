import { plural } from '@blunt-hem/core/plural';
import { Button, InputNumber } from 'antd';
import { useState } from 'react';
import { perform } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import { asRequested, select } from '../../store/select.ts';
import { useAsked } from '../useAsked.ts';

/** So near both sides of a seam lie, texels, that they are probably meant to be one. */
const USUAL = 2;

/** Seams whose sides lie near each other on the Board: how many there are, where, and joined. */
export function WeldFields() {
  const edges = useBench((s) => s.edges);
  const flat = useBench((s) => s.flat);
  const [within, setWithin] = useState(USUAL);
  const [found, setFound] = useState<readonly number[]>();
  const chosen = edges.size > 0 ? [...edges] : undefined;
  useAsked(flat !== undefined, 'weldable', { within, edges: chosen }, [flat], setFound);
  const count = found?.length ?? 0;
  return (
    <fieldset className="place-fields arrange-buttons">
      <legend>Sides that lie near each other</legend>
      <label htmlFor="weld-within">
        Within, px
        <InputNumber
          id="weld-within"
          size="small"
          min={0}
          max={4096}
          step={1}
          value={within}
          onChange={(value) => setWithin(value ?? 0)}
        />
      </label>
      <div>
        <Button
          size="small"
          disabled={count === 0}
          onClick={() => {
            useBench.setState({ target: 'edges' });
            select('edges', found ?? [], 'only');
          }}
        >
          Select {plural(count, 'seam')}
        </Button>
        <Button
          size="small"
          disabled={count === 0}
          onClick={() =>
            void perform('weld-seams', {
              within,
              edges: chosen && asRequested('edges', chosen),
            })
          }
        >
          Weld
        </Button>
      </div>
    </fieldset>
  );
}
