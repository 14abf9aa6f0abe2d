import { IconArrowUpCircle } from '@tabler/icons-react';
import { afterPick, hint, perform } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import { ask } from '../../store/worker.ts';
import type { ModelBuffers } from '../../worker/protocol.ts';
import { byClick } from './picking.ts';
import type { Grip, Picked, Place, Tool } from './tool.ts';

/** Pixels between places of a stroke that are looked at. */
const APART = 14;

/** Draws which way the material of a shell runs, on either pane; a click picks as ever. */
export const grain: Tool = {
  ...byClick,
  double: undefined,
  name: 'grain',
  label: 'Draw grain',
  help: 'Draw which way the material of a shell runs: the end of the line comes to lie above its beginning',
  key: 'shift+i',
  icon: IconArrowUpCircle,
  panes: ['model', 'board'],
  press: stroke,
};

function stroke(start: Place): Grip {
  let last: readonly [number, number] = [start.x, start.y];
  const picked: Promise<Picked | undefined>[] = [start.pick()];
  const line = [start.x, start.y];
  const clear = () => useBench.setState({ lasso: undefined });
  const add = (to: Place): void => {
    if (Math.hypot(to.x - last[0], to.y - last[1]) < APART) return;
    last = [to.x, to.y];
    line.push(...last);
    picked.push(to.pick());
    useBench.setState({ lasso: [...line] });
  };
  return {
    move: add,
    drop(to) {
      add(to);
      clear();
      afterPick(setAlong(picked));
    },
    cancel: clear,
  };
}

/** The grain of the shell in which a stroke began, along the edges that it runs over. */
async function setAlong(picked: readonly Promise<Picked | undefined>[]): Promise<void> {
  const found = (await Promise.all(picked)).filter((each) => each?.vertex !== undefined) as Picked[];
  // What strays onto another shell does not count.
  const own = found.filter(({ shell }) => shell === found[0].shell);
  const through = own.map(({ vertex }) => vertex as number).filter((v, i, all) => v !== all[i - 1]);
  if (through.length < 2) {
    hint('Draw a line over a shell, the way its material runs.');
    return;
  }
  const route = await ask('route', { through, hidden: 0 });
  const model = useBench.getState().model;
  if (!model || !route || route.edges.length === 0) {
    hint('No edges of the shell run there.');
    return;
  }
  const edges = [...new Set(route.edges)];
  await perform('set-grain', { edges, from: beginnings(model, edges, through[0]), along: true, anew: true });
}

/** The vertex at which each edge of a way begins that leads on from a vertex. */
function beginnings({ edgeVertices }: ModelBuffers, edges: readonly number[], start: number): number[] {
  let at = start;
  return edges.map((e) => {
    const [a, b] = edgeVertices.subarray(2 * e, 2 * e + 2);
    // A way that came back along itself goes on elsewhere.
    const from = at === b ? b : a;
    at = a + b - from;
    return from;
  });
}
