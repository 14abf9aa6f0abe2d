import { lookedAt, visibilityOf } from '../derived/visibility.ts';
import { isLocked } from '../document/constraints.ts';
import { shellOf, topologyOf } from '../document/document.ts';
import { shellBoxes } from '../document/layout.ts';
import { describeFinding, type LayoutFinding } from '../inspect/inspection.ts';
import type { PackedShell } from '../inspect/wastefulShells.ts';
import { type Home, homesOf } from '../operations/arrange/homes.ts';
import { placeOptions } from '../operations/arrange/layTile.ts';
import { type Packed, packWork } from '../operations/arrange/packWork.ts';
import { record } from '../params.ts';
import { question } from './question.ts';
import { edgesOfModel } from './toldCut.ts';

/** With more shells none of them is in the way of a full tile, and each layout takes its time. */
const MOST_SHELLS = 500;

/** Shells that are in the way of a full tile, with the cuts that help and what they gain, in the tile that has most surface. */
export const wastefulShells = question({
  name: 'wasteful-shells',
  params: record({ view: lookedAt }),
  background: true,
  idle: true,
  async answer(document, { view }, context): Promise<LayoutFinding | undefined> {
    const boxes = shellBoxes(document);
    if (boxes.length > MOST_SHELLS || !boxes.some((box, s) => box && !isLocked(document, s)))
      return undefined;
    const work = packWork(document, {
      shells: 'all',
      turning: 'quarter',
      equalDensity: true,
      near: 'none',
      start: 'afresh',
    });
    const surface = ({ shells }: Home<Packed>): number => shells.reduce((sum, { area }) => sum + area, 0);
    const homes = homesOf(document, work.packed, boxes, 'stay');
    const home = homes.reduce((most, each) => (surface(each) > surface(most) ? each : most));
    const { vertices } = await visibilityOf(document, view, context);
    const { mesh } = topologyOf(document.model);
    const shells = home.shells.map((packed): PackedShell => {
      // What is kept together is not cut.
      if (packed.members.length > 1) return packed;
      const shell = shellOf(document, packed.s);
      const visibility = Float32Array.from(shell.vertexCorner, (c) => vertices[mesh.cornerVertex[c]]);
      return { ...packed, whole: { shell, visibility } };
    });
    const found = await context.jobs.run(
      'wasteful-shells',
      { shells: [...shells, ...work.around], options: placeOptions(home) },
      context,
    );
    if (!found) return undefined;
    const cut = found.cuts.map(({ shell, edges }) => ({ s: home.shells[shell].s, edges }));
    return describeFinding(
      {
        kind: 'wastes-room',
        severity: 'hint',
        thing: ['shell in the way of a full tile', 'shells in the way of a full tile'],
        effect: `Long, bent or large for the rest: with ${shellsInWords(cut.map(({ s }) => s))} cut in two, a quick layout uses ${Math.round(100 * (found.gain - 1))} % more of the tile.`,
      },
      {
        count: cut.length,
        shells: cut.map(({ s }) => s),
        remedy: {
          label: cut.length === 1 ? 'Select that cut' : 'Select those cuts',
          cut: cut.flatMap(({ s, edges }) => edgesOfModel(document, shellOf(document, s), edges)),
        },
      },
    );
  },
});

/** “shells 2, 5 and 7”, as they are numbered on the screen. */
function shellsInWords(shells: readonly number[]): string {
  const numbers = shells.map((s) => s + 1).sort((a, b) => a - b);
  return numbers.length === 1
    ? `shell ${numbers[0]}`
    : `shells ${numbers.slice(0, -1).join(', ')} and ${numbers.at(-1)}`;
}
