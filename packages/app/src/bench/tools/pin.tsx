import { IconPin } from '@tabler/icons-react';
import { Button } from 'antd';
import { afterPick, hint, perform } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import { askQuietly } from '../../store/worker.ts';
import type { ModelBuffers } from '../../worker/protocol.ts';
import { pageOf, uvOf } from '../panes/places.ts';
import { handle } from '../panes/rendererHandle.ts';
import { newestOnly } from './newestOnly.ts';
import type { Grip, Picked, Place, Tool } from './tool.ts';

/** A press so near a pin takes hold of it, pixels. */
const REACH = 12;

/** Places of the flat that hold while the rest gives way: set and let go by a click, moved by the hand with the shell following. */
export const pin: Tool = {
  name: 'pin',
  label: 'Pin',
  help: 'Pin places of a shell by clicking, Alt lets them go; drag one on the Board, and the shell follows',
  key: 'p',
  icon: IconPin,
  panes: ['model', 'board'],
  hover: (at) => void aim(at),
  leave: () => useBench.setState({ aim: undefined }),
  click: (at) => afterPick(toggle(at)),
  leaveHand: () => useBench.setState({ aim: undefined }),
  press: (at) => (at.pane === 'board' && at.how === 'only' ? holdPin(at) : undefined),
  Settings() {
    const pins = useBench((s) => s.flat?.pins.length ?? 0);
    if (pins === 0)
      return (
        <p className="rail-text">Click a place of a shell to hold it where it lies; drag it on the Board.</p>
      );
    return (
      <Button size="small" block onClick={() => void letAllGo()}>
        Let {pins === 1 ? 'the pin' : `all ${pins} pins`} go
      </Button>
    );
  },
};

/** Shows the place that a click would pin. */
async function aim(at: Place): Promise<void> {
  const found = await at.pick().catch(() => undefined);
  const { model, tool } = useBench.getState();
  if (tool !== 'pin') return;
  const place = found && model ? drawnAt(model, found.face, found.vertex) : undefined;
  useBench.setState({ aim: place });
}

function drawnAt(
  { triangleFace, cornerVertex }: ModelBuffers,
  face: number,
  vertex?: number,
): number | undefined {
  for (let t = triangleFace.indexOf(face); triangleFace[t] === face; t++)
    for (let i = 3 * t; i < 3 * t + 3; i++) if (cornerVertex[i] === vertex) return i;
  return undefined;
}

interface PlaceInFace {
  readonly vertex: number;
  readonly face: number;
}

/** Vertex and face of a drawn vertex. */
function placeAt(drawn: number): PlaceInFace | undefined {
  const { model } = useBench.getState();
  return model && { vertex: model.cornerVertex[drawn], face: model.triangleFace[Math.floor(drawn / 3)] };
}

/** The pinned place under the hand on the Board, and where it lies. */
function pinNear({ x, y }: Place): (PlaceInFace & { readonly uv: readonly [number, number] }) | undefined {
  const { flat } = useBench.getState();
  let [best, least]: [number | undefined, number] = [undefined, REACH];
  for (const drawn of flat?.pins ?? []) {
    const [u, v] = flat?.uv.subarray(2 * drawn, 2 * drawn + 2) ?? [];
    const page = pageOf(u, v);
    const far = page ? Math.hypot(page[0] - x, page[1] - y) : Infinity;
    if (far < least) [best, least] = [drawn, far];
  }
  const place = best === undefined ? undefined : placeAt(best);
  return place && flat && best !== undefined
    ? { ...place, uv: [flat.uv[2 * best], flat.uv[2 * best + 1]] }
    : undefined;
}

async function toggle(at: Place): Promise<void> {
  const near = at.pane === 'board' ? pinNear(at) : undefined;
  const found = near ?? (await at.pick());
  if (!found) return hint('Click a place of a shell.');
  // Keys point at edges: the first end of one stands for it.
  const vertex = found.vertex ?? useBench.getState().model?.edgeVertices[2 * (found as Picked).edge] ?? 0;
  const place = { vertex, face: found.face };
  const isPinned = near !== undefined || pinnedAlready(place);
  if (!isPinned && at.how === 'remove') return hint('Nothing is pinned there.');
  await perform('set-pins', { places: [place], pinned: !isPinned });
}

/** Whether a vertex is pinned in the shell of a face. */
function pinnedAlready({ vertex, face }: PlaceInFace): boolean {
  const { flat } = useBench.getState();
  return [...(flat?.pins ?? [])].some((drawn) => {
    const held = placeAt(drawn);
    return held?.vertex === vertex && flat?.faceShell[held.face] === flat?.faceShell[face];
  });
}

async function letAllGo(): Promise<void> {
  const places = [...(useBench.getState().flat?.pins ?? [])].flatMap((drawn) => placeAt(drawn) ?? []);
  await perform('set-pins', { places, pinned: false });
}

/** A pin under the hand: the shell follows as it would be conformal, and is unfolded anew when the pin is dropped. */
function holdPin(start: Place): Grip | undefined {
  const held = pinNear(start);
  if (!held) return undefined;
  useBench.setState({ aim: undefined });
  const [u0, v0] = uvOf(start.x, start.y);
  const placeOf = ({ x, y }: Place): [number, number] => {
    const [u, v] = uvOf(x, y);
    return [held.uv[0] + u - u0, held.uv[1] + v - v0];
  };
  const { vertex, face } = held;
  let ended = false;
  const follow = newestOnly(async (uv: [number, number]) => {
    const picture = ended ? undefined : await askQuietly('moved-pin', { vertex, face, uv });
    if (picture && !ended) handle.renderer?.drawn.show('drag', picture);
  });
  const end = (): void => {
    ended = true;
    handle.renderer?.drawn.clear('drag');
  };
  return {
    move(to) {
      void follow(placeOf(to));
    },
    drop(to) {
      ended = true;
      afterPick(perform('move-pin', { vertex, face, uv: placeOf(to) }).finally(end));
    },
    cancel: end,
  };
}
