import { IconTriangleInverted } from '@tabler/icons-react';
import { Button } from 'antd';
import { afterPick, fail, hint, note } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import { select } from '../../store/select.ts';
import { ask } from '../../store/worker.ts';
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
    <ul className="dart-list">
      {darts.map(({ edges, l2, angleMean }) => (
        <li key={edges.join(' ')}>
          <Button size="small" type="text" onClick={() => select('edges', edges, 'only')}>
            {edges.length} {edges.length === 1 ? 'edge' : 'edges'}, L2 {l2.toFixed(2)}, {angleMean.toFixed(1)}
            °
          </Button>
        </li>
      ))}
    </ul>
  );
}
