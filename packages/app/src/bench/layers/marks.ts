import { Group } from 'three';
import type { BenchStore } from '../../store/bench.ts';
import { imagesOf } from '../../store/select.ts';
import { PALETTE } from '../../theme/palette.ts';
import { NO_UV } from '../../worker/protocol.ts';
import {
  concatenate,
  linesOnBoard,
  linesOnModel,
  moveOnBoard,
  outlineOf,
  rimOf,
  sideOnBoard,
} from '../panes/edgeLines.ts';
import { fatLines, type LineLook } from '../panes/fatLines.ts';
import { pointMarks } from '../panes/pointMarks.ts';
import type { Layer, Scenery } from './layer.ts';

/** Of points on the Board: above the shells and their borders. */
const ABOVE = 0.16;
/** Pixels of a dash and its gap together. */
const STITCH = 12;
const HOVERED = { colour: PALETTE.fuchsia, width: 4, opacity: 0.55, order: 3 };
const WHOLE = { colour: PALETTE.fuchsia, width: 2, opacity: 0.5, order: 3 };
const PROPOSED = { colour: PALETTE.fuchsia, width: 4.5, opacity: 0.95, order: 3, dash: [1, 0.5] } as const;
const LONELY = { colour: PALETTE.ochre, width: 1.5, opacity: 0.8, order: 2 };
const CHOSEN = { colour: PALETTE.fuchsia, width: 3.5, order: 4 };

/** What would be taken, with its counterparts while symmetry is on. */
const taken = ({ symmetry }: BenchStore, edges: readonly number[]): readonly number[] =>
  symmetry && edges.length > 0 ? imagesOf(symmetry, 'edges', edges) : edges;

const hoveredEdges = (s: BenchStore): readonly number[] =>
  s.hover && s.target === 'edges' ? taken(s, [s.hover.edge]) : [];

const wholeEdges = (s: BenchStore): readonly number[] =>
  s.hover?.whole && s.target === 'edges' ? taken(s, s.hover.whole) : [];

/** Edges that are selected or pointed at, or would be taken by a double click. */
const edgesIn = (
  name: string,
  pane: 'model' | 'board',
  look: LineLook,
  edgesOf: (state: BenchStore) => Iterable<number>,
  needs: (state: BenchStore) => readonly unknown[],
): Layer => ({
  name,
  pane,
  passing: true,
  make({ drawn }: Scenery) {
    const lines = fatLines(look);
    return {
      object: lines.object,
      frame:
        look.dash &&
        (({ perPixel }) => {
          lines.material.dashScale = 1.75 / (STITCH * perPixel);
        }),
      needs: (s) => [s.model, ...needs(s), ...(pane === 'board' ? [s.flat, drawn.version] : [])],
      update(s) {
        if (!s.model) return;
        const edges = edgesOf(s);
        lines.set(pane === 'model' ? linesOnModel(s.model, edges) : linesOnBoard(s.model, drawn.uv, edges));
      },
      dispose: lines.dispose,
    };
  },
});

/** What the hand draws or moves. */
const routeEdges = (s: BenchStore): readonly number[] =>
  s.shifting?.edges ??
  (s.route ? [...taken(s, [...s.route.edges, ...s.route.ahead]), ...(s.route.images ?? [])] : []);
const routing = (s: BenchStore) => [s.route, s.shifting, s.symmetry];
const proposedEdges = ({ offered, proposal }: BenchStore): readonly number[] =>
  offered ?? proposal?.edges ?? [];
const proposing = (s: BenchStore) => [s.offered, s.proposal];
/** What has no counterpart, while symmetry is on. */
const lonelyEdges = ({ symmetry }: BenchStore): readonly number[] =>
  symmetry && !symmetry.byPlace ? [...symmetry.edges.keys()].filter((e) => symmetry.edges[e] < 0) : [];

const hovering = (s: BenchStore) => [s.hover, s.target, s.symmetry];
const choosing = (s: BenchStore) => [s.edges];

export const modelHover = edgesIn('hovered edge', 'model', HOVERED, hoveredEdges, hovering);
export const boardHover = edgesIn('hovered edge', 'board', HOVERED, hoveredEdges, hovering);
export const modelWhole = edgesIn('loop of the hovered edge', 'model', WHOLE, wholeEdges, hovering);
export const boardWhole = edgesIn('loop of the hovered edge', 'board', WHOLE, wholeEdges, hovering);
export const modelChosen = edgesIn('selected edges', 'model', CHOSEN, (s) => s.edges, choosing);
export const boardChosen = edgesIn('selected edges', 'board', CHOSEN, (s) => s.edges, choosing);

export const modelRoute = edgesIn('route', 'model', HOVERED, routeEdges, routing);
export const boardRoute = edgesIn('route', 'board', HOVERED, routeEdges, routing);
export const modelProposal = edgesIn('proposed seams', 'model', PROPOSED, proposedEdges, proposing);
export const boardProposal = edgesIn('proposed seams', 'board', PROPOSED, proposedEdges, proposing);
export const modelLonely = edgesIn('without counterpart', 'model', LONELY, lonelyEdges, (s) => [s.symmetry]);

/** Points that are selected, and the one that is pointed at: squares of one size on the screen. */
const pointsIn = (pane: 'model' | 'board'): Layer => ({
  name: 'selected points',
  pane,
  passing: true,
  make({ drawn }: Scenery) {
    const chosen = pointMarks({ colour: PALETTE.fuchsia, size: 5, order: 9 });
    const hovered = pointMarks({ colour: PALETTE.fuchsia, size: 13, shape: 'ring', order: 10 });
    const object = new Group();
    object.add(chosen.object, hovered.object);
    return {
      object,
      needs: (s) => [
        s.model,
        s.points,
        s.target === 'points' ? s.hover : undefined,
        ...(pane === 'board' ? [s.flat, drawn.version] : []),
      ],
      update({ model, points, target, hover }) {
        if (!model) return;
        const place = (point: number): number[] => {
          const at = model.cornerDrawn[point];
          if (pane === 'model') return [...model.positions.subarray(3 * at, 3 * at + 3)];
          return drawn.uv[2 * at] === NO_UV ? [] : [drawn.uv[2 * at], drawn.uv[2 * at + 1], ABOVE];
        };
        chosen.set(Float32Array.from([...points].flatMap(place)));
        hovered.set(Float32Array.from(target === 'points' && hover ? place(hover.point) : []));
      },
      dispose() {
        chosen.dispose();
        hovered.dispose();
      },
    };
  },
});

export const modelPoints = pointsIn('model');
export const boardPoints = pointsIn('board');

/** The rim of what is selected, faces and shells: a line round it, so that a map under it keeps its colours. */
const rimIn = (pane: 'model' | 'board'): Layer => ({
  name: 'rim of the selection',
  pane,
  passing: true,
  make({ drawn }: Scenery) {
    const lines = fatLines({ colour: PALETTE.fuchsia, width: 2.5, order: 4 });
    let outlined: readonly unknown[] = [];
    let outline: ReturnType<typeof rimOf> = [[], []];
    let made: readonly unknown[] = [];
    let ends: Uint32Array = new Uint32Array(0);
    return {
      object: lines.object,
      needs: (s) => [
        s.model,
        s.flat?.faceShell,
        s.faces,
        s.chosen,
        ...(pane === 'board' ? [drawn.version] : []),
      ],
      update({ model, flat, faces, chosen }) {
        if (!model || !flat) return;
        const about = [model, flat.faceShell, faces, chosen];
        if (about.some((value, i) => value !== outlined[i])) {
          outlined = about;
          outline = rimOf(model, flat.faceShell, faces, chosen);
        }
        if (pane === 'model') lines.set(linesOnModel(model, outline.flat()));
        else if (made[0] === outline && made[1] === flat && made[2] === drawn.extent)
          lines.move(moveOnBoard(drawn, ends));
        else {
          made = [outline, flat, drawn.extent];
          const [one, other] = outline.map((edges, side) =>
            sideOnBoard(model, drawn.uv, edges, side as 0 | 1),
          );
          lines.set(concatenate(one.lines, other.lines));
          ends = concatenate(one.ends, other.ends);
        }
      },
      dispose: lines.dispose,
    };
  },
});

export const modelRim = rimIn('model');
export const boardRim = rimIn('board');

/** What is selected and hidden by the model itself: faint, but there. */
export const shiningThrough: Layer = {
  name: 'selected, shining through',
  pane: 'model',
  passing: true,
  make() {
    const lines = fatLines({ colour: PALETTE.fuchsia, width: 2, opacity: 0.4, order: 5, through: true });
    const object = new Group();
    object.add(lines.object);
    let outlined: ReadonlySet<number> | undefined;
    let outline: readonly number[] = [];
    return {
      object,
      needs: (s) => [s.model, s.edges, s.faces],
      update({ model, edges, faces }) {
        if (!model) return;
        if (faces !== outlined) {
          outlined = faces;
          outline = outlineOf(model, faces);
        }
        lines.set(linesOnModel(model, [...edges, ...outline]));
      },
      dispose: lines.dispose,
    };
  },
};
