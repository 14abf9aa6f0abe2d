import { plural } from '@blunt-hem/core/plural';
import {
  IconArrowUpDashed,
  IconMap,
  IconPinned,
  IconRectangle,
  IconRipple,
  IconRuler2,
  IconRulerOff,
} from '@tabler/icons-react';
import { hint, note, perform, picked } from '../../store/acts.ts';
import type { BenchStore } from '../../store/bench.ts';
import { useBench } from '../../store/bench.ts';
import { chosenOrAll } from '../../store/select.ts';
import type { Command } from './command.ts';

/** Steps of one press of the key, and of a relax that goes on until it settles. */
const [GENTLE, SETTLED] = [6, 1000];

const ofChosen = (count: number): string => (count === 0 ? 'all' : plural(count, 'shell'));

export const unfold: Command = {
  name: 'unfold',
  label: ({ chosen }) => `Unfold ${ofChosen(chosen.size)}`,
  help: 'Unfold the selected shells, or all',
  key: 's',
  icon: IconMap,
  main: true,
  async act(state) {
    const { method } = state;
    if (isAllClosed(state)) {
      // What a rough proposal has; the cut itself lays it flat.
      const opened = await perform('open-pieces', { shells: 'all' });
      if (opened?.changed)
        note('All of it was closed, and was cut open where it hides: Ctrl Z takes the seams back.');
      return;
    }
    const done = await perform('unfold', { shells: chosenOrAll(), method });
    if (done && !done.changed && done.notes.length === 0) note('They lie as they would be unfolded already.');
  },
};

/** Whether nothing of a model was cut yet, and none of it can lie flat. */
const isAllClosed = ({ shells, flat, chosen }: BenchStore): boolean =>
  chosen.size === 0 &&
  flat?.seams.length === 0 &&
  shells.length > 0 &&
  shells.every(({ topology, locked }) => topology && !topology.canUnfold && !locked);

/** Whether a region of faces is what may loosen. */
const isRegion = ({ target, faces }: BenchStore): boolean => target === 'faces' && faces.size > 0;

let settling = false;

async function relaxFor(steps: number): Promise<void> {
  await picked();
  const state = useBench.getState();
  const { balance, keepBorder, budget } = state;
  const region = isRegion(state);
  const done = await perform('relax', {
    shells: region ? 'all' : chosenOrAll(),
    faces: region ? [...state.faces] : undefined,
    balance,
    keepBorder,
    steps,
    seconds: budget,
  });
  if (done && !done.changed && done.notes.length === 0) note('There is nothing more to gain by relaxing.');
}

export const relax: Command = {
  name: 'relax',
  label: (s) => (isRegion(s) ? `Relax ${plural(s.faces.size, 'face')}` : `Relax ${ofChosen(s.chosen.size)}`),
  help: 'Relax the selected faces, or shells, or all: a tap for a few gentle steps, held until it settles',
  key: 'd',
  icon: IconRipple,
  act: () => void relaxFor(SETTLED),
  tap: () => void relaxFor(GENTLE),
  async hold() {
    if (settling) return;
    settling = true;
    await relaxFor(SETTLED).finally(() => {
      settling = false;
    });
  },
};

export const layStraight: Command = {
  name: 'straight-strip',
  label: ({ chosen }) => `Lay straight${chosen.size > 0 ? `, ${plural(chosen.size, 'shell')}` : ''}`,
  help: 'Lay the selected shells, or all that can be, as straight strips: pipes, belts, hems',
  key: 'shift+d',
  icon: IconRectangle,
  act: () => void perform('straight-strip', { shells: chosenOrAll() }),
};

/** The selected points as requests name them: by a vertex and a face beside it. */
export const placesOfPoints = ({ points, model }: BenchStore) =>
  [...points].flatMap((point) => {
    const drawn = model?.cornerDrawn[point];
    return model && drawn !== undefined
      ? [{ vertex: model.cornerVertex[drawn], face: model.triangleFace[Math.floor(drawn / 3)] }]
      : [];
  });

/** Whether all selected points are pinned. */
function arePinned({ points, model, flat }: BenchStore): boolean {
  if (!model || !flat || points.size === 0) return false;
  const nameOf = (drawn: number) =>
    `${model.cornerVertex[drawn]} ${flat.faceShell[model.triangleFace[Math.floor(drawn / 3)]]}`;
  const pinned = new Set(Array.from(flat.pins, nameOf));
  return [...points].every((point) => pinned.has(nameOf(model.cornerDrawn[point])));
}

export const pinPoints: Command = {
  name: 'pin-points',
  label: (s) =>
    s.points.size === 0
      ? 'Pin points'
      : arePinned(s)
        ? `Let ${s.points.size} go`
        : `Pin ${plural(s.points.size, 'point')}`,
  help: 'The selected points keep their places from now on, or bend again',
  key: 'shift+p',
  icon: IconPinned,
  act(state) {
    const places = placesOfPoints(state);
    if (places.length === 0) return hint('Pick points first: ⇧Q changes what a click picks.');
    void perform('set-pins', { places, pinned: !arePinned(state) });
  },
};

export const makeStay: Command = {
  name: 'make-stay',
  label: (s) => (s.edges.size > 0 ? `Stay, ${lengthOf(s)} long` : 'Make a stay'),
  help: 'The selected edges lie straight at true length from now on',
  key: 'y',
  icon: IconRuler2,
  act: () => void stay(true),
};

/** True length of the selected edges, model units, as it is told. */
function lengthOf({ edges, model }: BenchStore): string {
  let sum = 0;
  for (const e of model ? edges : []) {
    const [a, b] = [3 * (model?.edgeEnds[4 * e] ?? 0), 3 * (model?.edgeEnds[4 * e + 1] ?? 0)];
    const p = model?.positions ?? [];
    sum += Math.hypot(p[a] - p[b], p[a + 1] - p[b + 1], p[a + 2] - p[b + 2]);
  }
  return String(Number(sum.toPrecision(3)));
}

export const letStayGo: Command = {
  name: 'let-stay-go',
  label: ({ edges }) => (edges.size > 0 ? 'Let it go' : 'Let stays go'),
  help: 'Selected edges, or all, bend again',
  key: 'shift+y',
  icon: IconRulerOff,
  act: () => void stay(false),
};

export const grain: Command = {
  name: 'grain',
  label: ({ edges, flat }) =>
    edges.size > 0 && runsAlong(edges, flat?.grain) ? 'Let grain go' : 'Set the grain',
  help: 'The material of a shell runs along the selected edges, upwards on the texture; once more, and it does not',
  key: 'shift+g',
  icon: IconArrowUpDashed,
  async act() {
    await picked();
    const { edges, flat } = useBench.getState();
    if (edges.size === 0) {
      note('Pick edges along which the material runs first: a loop, a route or a single one.');
      return;
    }
    await perform('set-grain', { edges: [...edges], along: !runsAlong(edges, flat?.grain) });
  },
};

/** Whether a grain line runs along all of some edges. */
function runsAlong(edges: ReadonlySet<number>, grain: Uint32Array = new Uint32Array(0)): boolean {
  const known = new Set(grain);
  return [...edges].every((e) => known.has(e));
}

async function stay(straight: boolean): Promise<void> {
  await picked();
  const { edges, flat } = useBench.getState();
  const chosen = edges.size > 0 || straight ? [...edges] : [...(flat?.stays ?? [])];
  if (chosen.length === 0)
    return note(
      straight
        ? 'Pick the edges of a chain first, by a loop, a route or one by one.'
        : 'There is no stay to let go.',
    );
  await perform('set-stays', { edges: chosen, straight });
}
