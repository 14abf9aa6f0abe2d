import type { ToldCut } from '@blunt-hem/core/questions/toldCut';
import { IconTriangleInverted } from '@tabler/icons-react';
import { Button } from 'antd';
import { useState } from 'react';
import { afterPick, fail, hint, note } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import { select } from '../../store/select.ts';
import { ask } from '../../store/worker.ts';
import { RailSlider } from '../rail/RailSlider.tsx';
import { byClick } from './picking.ts';
import type { Place, Tool } from './tool.ts';

/** A relief cut from the place that is clicked to the border: each that helps is tried, and the best is selected. */
export const dart: Tool = {
  name: 'dart',
  label: 'Dart',
  help: 'A relief cut from a place of tension to the border; the best of those tried is selected, with its stretch',
  key: 'e',
  icon: IconTriangleInverted,
  panes: ['model', 'board'],
  hover: byClick.hover,
  leave: byClick.leave,
  click: (at) => afterPick(tryDarts(at)),
  leaveHand: () => useBench.setState({ darts: undefined }),
  Settings: Darts,
};

async function tryDarts(at: Place): Promise<void> {
  const found = await at.pick();
  if (!found) return hint('Click on the place where the texture pulls.');
  const { model, flat } = useBench.getState();
  const vertex = found.vertex ?? model?.edgeVertices[2 * found.edge] ?? 0;
  useBench.setState({ darts: 'tried', target: 'edges', notice: undefined });
  try {
    const told = await ask('darts', { face: found.face, vertex });
    // A cut meanwhile has made it another shell.
    if (!told || useBench.getState().flat !== flat) return useBench.setState({ darts: undefined });
    useBench.setState({ darts: told });
    if (told.length === 0)
      note('No dart from there lowers the stretch: it lies on a border, or the shell is flat enough.');
    else select('edges', told[0].edges, 'only');
  } catch (error) {
    useBench.setState({ darts: undefined });
    fail(error);
  }
}

/** What was tried, to choose from. */
function Darts() {
  const darts = useBench((s) => s.darts);
  if (darts === undefined) return <p className="rail-text">Click where the texture pulls.</p>;
  if (darts === 'tried') return <p className="rail-text">Being tried …</p>;
  return (
    <>
      <ul className="dart-list">
        {darts.map(({ edges, l2, angleMean, isRough }) => (
          <li key={edges.join(' ')}>
            <Button size="small" type="text" onClick={() => select('edges', edges, 'only')}>
              {edges.length} {edges.length === 1 ? 'edge' : 'edges'}, L2 {isRough && 'about '}
              {l2.toFixed(2)}, {angleMean.toFixed(1)}°
            </Button>
          </li>
        ))}
      </ul>
      {darts.length > 0 && <Widen darts={darts} />}
    </>
  );
}

/** How wide, as a part of the way from the pivot; 0 for a plain cut. */
function Widen({ darts }: { readonly darts: readonly ToldCut[] }) {
  const [width, setWidth] = useState(0);
  const [dart, setDart] = useState(darts[0]);
  const widen = async (part: number): Promise<void> => {
    useBench.setState({ notice: undefined });
    try {
      // What was picked last of those that were tried is widened.
      const { edges } = useBench.getState();
      const picked = darts.find((each) => each.edges.every((e) => edges.has(e))) ?? dart;
      setDart(picked);
      const lines =
        part > 0 ? await ask('widened-dart', { edges: [...picked.edges], width: part }) : picked.edges;
      if (lines) select('edges', lines, 'only');
    } catch (error) {
      fail(error);
    }
  };
  return (
    <RailSlider
      left="Slit"
      right="Open"
      min={0}
      max={0.6}
      step={0.05}
      value={width}
      onChange={setWidth}
      onChangeComplete={(part) => void widen(part)}
      label="Widened to an opening"
    />
  );
}
