import { select } from '../../store/actions.ts';
import { type Pane, useBench } from '../../store/benchStore.ts';
import { bench } from '../../store/worker.ts';
import type { Pick } from '../../worker/protocol.ts';

/** A pointer that moved less than this, in pixels, has clicked. */
export const CLICK_REACH = 4;

/** Whether the space bar is held: then a hand only moves the view. */
export const space = { held: false };
window.addEventListener('keydown', (event) => {
  if (event.code === 'Space') space.held = true;
});
window.addEventListener('keyup', (event) => {
  if (event.code === 'Space') space.held = false;
});

export const howOf = (event: { shiftKey: boolean; altKey: boolean }): 'only' | 'add' | 'remove' =>
  event.altKey ? 'remove' : event.shiftKey ? 'add' : 'only';

const ID = { edges: 'edge', faces: 'face', shells: 'shell' } as const;

/** What a click does, with what was picked under it. */
export function clicked(found: Pick | undefined, event: { shiftKey: boolean; altKey: boolean }): void {
  const { target } = useBench.getState();
  const how = howOf(event);
  if (!found) {
    if (how === 'only') select(target, [], 'only');
    return;
  }
  select(target, [found[ID[target]]], how);
}

export async function doubleClicked(found: Pick | undefined, event: { shiftKey: boolean; altKey: boolean }) {
  const { target, model } = useBench.getState();
  if (!found || target === 'shells') return;
  if (target === 'edges') return select('edges', await bench.loop(found.edge), howOf(event));
  // The whole piece that the face belongs to.
  const piece = model?.parts.find(({ kind }) => kind === 'piece')?.facePart;
  const faces = Array.from(model ? model.triangleFace : []).filter(
    (f) => !piece || piece[f] === piece[found.face],
  );
  select('faces', faces, howOf(event));
}

/** Asks what is under the pointer, one question at a time; only the newest answer counts. */
export function hoverAsker(pane: Pane, ask: (x: number, y: number) => Promise<Pick | undefined>) {
  let asking = false;
  let next: readonly [number, number] | undefined;
  const settle = (found: Pick | undefined) => {
    const { hover } = useBench.getState();
    if (!found) {
      if (hover) useBench.setState({ hover: undefined });
    } else if (hover?.pane !== pane || hover.edge !== found.edge || hover.face !== found.face) {
      useBench.setState({ hover: { pane, edge: found.edge, face: found.face, shell: found.shell } });
    }
  };
  return {
    async at(x: number, y: number): Promise<void> {
      next = [x, y];
      if (asking) return;
      asking = true;
      while (next) {
        const [px, py]: readonly [number, number] = next;
        next = undefined;
        const found = await ask(px, py);
        if (!next) settle(found);
      }
      asking = false;
    },
    leave(): void {
      next = undefined;
      settle(undefined);
    },
  };
}
