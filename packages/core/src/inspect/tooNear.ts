import { shellsOf } from '../document/document.ts';
import { type Inspection, named } from './inspection.ts';

export const tooNear: Inspection = {
  kind: 'near',
  when: 'less than the padding of their tile between borders; what lies on two tiles is never near',
  severity: 'spoils',
  thing: ['pair of shells nearer than the padding', 'pairs of shells nearer than the padding'],
  effect: 'When the texture is shown smaller, the paint of one bleeds into the other.',
  find({ document, stacks, near, overlaps }) {
    const { faceShell } = shellsOf(document);
    const lapped = new Set<string>();
    for (let i = 0; i < overlaps.length; i += 2) {
      const [s, t] = [faceShell[overlaps[i]], faceShell[overlaps[i + 1]]].sort((a, b) => a - b);
      lapped.add(`${s} ${t}`);
    }
    const stackOf = new Map(stacks.flatMap((stack) => stack.map((s) => [s, stack] as const)));
    const shells = new Set<number>();
    const aside = new Set<number>();
    let count = 0;
    // Those that lie on each other are told by themselves.
    for (let i = 0; i < near.length; i += 2) {
      const [s, t] = near.subarray(i, i + 2);
      if (lapped.has(`${s} ${t}`) || (stackOf.has(s) && stackOf.get(s) === stackOf.get(t))) continue;
      count++;
      shells.add(s).add(t);
      if (!aside.has(s)) aside.add(t);
    }
    if (count === 0) return undefined;
    // A few are moved; of a tile that is full of them all are packed.
    const few = aside.size <= Math.max(3, shells.size / 4);
    return {
      count,
      shells: [...shells],
      remedy: few
        ? {
            label: aside.size === 1 ? 'Move one aside' : `Move ${aside.size} aside`,
            request: { operation: 'move-clear', params: { shells: named(document, aside) } },
          }
        : {
            label: `Pack with ${document.tiles[0].padding} px`,
            request: { operation: 'pack', params: {} },
          },
    };
  },
};
