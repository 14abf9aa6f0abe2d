import type { BenchEvent, FlatBuffers, ModelBuffers, ShellRow } from '../worker/protocol.ts';
import { type BenchStore, useBench } from './bench.ts';
import { OF_THE_MESH } from './cutting.ts';

/** A new mesh waits for the state that belongs to it. */
let nextModel: ModelBuffers | undefined;
let isSameMesh = false;

/** Takes in what the worker says. Moving pictures go to the renderer alone. */
export function receive(event: BenchEvent): void {
  switch (event.kind) {
    case 'model':
      nextModel = event.model;
      isSameMesh = event.sameMesh === true;
      return;
    case 'state': {
      const { flat, ...state } = event.state;
      const model = nextModel;
      nextModel = undefined;
      const another = model !== undefined && !isSameMesh;
      useBench.setState((s) => ({
        ...state,
        ...(flat && { flat: { ...s.flat, ...flat } as FlatBuffers }),
        ...(model && { model, occlusion: undefined }),
        ...(flat && s.flat && !another && { before: { uv: s.flat.uv, figures: s.figures } }),
        ...(state.currentUv !== s.currentUv && { before: undefined }),
        ...(another && {
          before: undefined,
          health: undefined,
          // It is told by faces, and those have other numbers now.
          boardLayer: undefined,
          ...OF_THE_MESH,
          points: new Set<number>(),
          edges: new Set<number>(),
          faces: new Set<number>(),
        }),
        chosen: flat?.faceShell ? renumbered(s, flat.faceShell, another) : s.chosen,
        hover: undefined,
        ...((flat || another) && { pointedOut: new Set<number>() }),
        aim: undefined,
        // Another cut makes other shells of it.
        ...(flat && { darts: undefined }),
        // The true places take the place of the hand's.
        ...(flat && { dragged: undefined }),
        measured: false,
      }));
      return;
    }
    case 'figures':
      useBench.setState({ figures: event.figures, shells: event.figures.shells });
      return;
    case 'layout':
      useBench.setState({ layout: event, measured: true });
      return;
    case 'unmeasured':
      useBench.setState({
        measured: true,
        notice: {
          tone: 'error',
          text: `The figures could not be worked out, and are missing or of before. ${event.sentence} They are tried again after the next act.`,
        },
      });
      return;
    case 'occlusion':
      useBench.setState({ occlusion: event });
      return;
    case 'running': {
      const { doing, fraction, figure } = event;
      useBench.setState({ running: doing ? { doing, fraction, figure } : undefined });
      return;
    }
    case 'trials':
      useBench.setState({ trials: event.trials });
      return;
    case 'saved':
      useBench.setState({ saved: event.saved });
      return;
    case 'unsaved':
      useBench.setState({
        unsaved: true,
        notice: {
          tone: 'error',
          text: `${event.sentence} This project is in this tab alone: you can work on it and export it.`,
        },
      });
      return;
    case 'moving':
      return;
  }
}

/** Shells are numbered anew after a cut; the chosen ones stay chosen. */
function renumbered(
  { chosen, shells }: Pick<BenchStore, 'chosen'> & { readonly shells: readonly ShellRow[] },
  faceShell: Uint32Array,
  anotherMesh: boolean,
): ReadonlySet<number> {
  if (chosen.size === 0) return chosen;
  if (anotherMesh) return new Set();
  return new Set([...chosen].flatMap((s) => (shells[s] ? [faceShell[shells[s].name]] : [])));
}
