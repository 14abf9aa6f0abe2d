import { IconHandMove } from '@tabler/icons-react';
import { hint } from '../../../store/acts.ts';
import { useBench } from '../../../store/bench.ts';
import { askQuietly } from '../../../store/worker.ts';
import type { Place, Tool } from '../tool.ts';
import { BrushSettings } from './BrushSettings.tsx';
import { ringAt, stroke } from './stroke.ts';

/** Pushes, evens out, gathers and spreads the flat by hand; no face ever folds. */
export const brush: Tool = {
  name: 'brush',
  label: 'By hand',
  help: 'Push, relax, gather or spread the flat by a brush on the Board; pins hold, and no face folds',
  key: 'h',
  icon: IconHandMove,
  panes: ['board'],
  hover(at) {
    useBench.setState({ ring: ringAt(at) });
    void makeReady(at);
  },
  leave: () => useBench.setState({ ring: undefined }),
  leaveHand: () => useBench.setState({ ring: undefined }),
  async press(at) {
    const found = await at.pick();
    if (found) return stroke(found.face, at);
    hint('Begin on a shell: what lies under the brush moves.');
    return undefined;
  },
  Settings: BrushSettings,
};

/** The flat, and its shell that was made ready last. */
let ready: { readonly flat: unknown; readonly shell: number } | undefined;
let readying = false;

/** Has the shell under the pointer made ready, so that the first touch is as quick as the others. */
async function makeReady(at: Place): Promise<void> {
  if (readying) return;
  readying = true;
  const { flat, handBrush } = useBench.getState();
  try {
    const found = await at.pick().catch(() => undefined);
    if (!found || (ready?.flat === flat && ready?.shell === found.shell)) return;
    ready = { flat, shell: found.shell };
    // What cannot be brushed is told when it is pressed on.
    await askQuietly('brushed', { face: found.face, brush: handBrush, dabs: [] });
  } finally {
    readying = false;
  }
}
