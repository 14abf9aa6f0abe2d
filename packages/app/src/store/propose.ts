import type { AskedOf } from '@blunt-hem/core/questions/index';
import { reporting } from '../worker/reporting.ts';
import { fail, note, perform } from './acts.ts';
import { useBench } from './bench.ts';
import { namesOfChosen, select } from './select.ts';
import { bench, unwrap } from './worker.ts';

/** Steps of relaxing after a proposal was cut. */
const RELAX_STEPS = 30;

/** Has seams proposed for the selected shells, or for all; the last proposal goes. */
export async function propose(
  asked: Omit<AskedOf<'proposal'>, 'faces' | 'symmetric' | 'view'>,
): Promise<void> {
  const { symmetryBy, lookedAt, model } = useBench.getState();
  const names = namesOfChosen();
  stopped = false;
  useBench.setState({ proposal: undefined, proposing: 0, notice: undefined });
  try {
    const symmetric =
      symmetryBy === 'mirror' || symmetryBy === 'turn' || symmetryBy === 'off' ? 'auto' : symmetryBy;
    const faces = names.length > 0 ? names : undefined;
    const found = unwrap(
      await reporting(
        (fraction: number) => useBench.setState({ proposing: fraction }),
        (report) => bench.ask('proposal', { ...asked, symmetric, view: lookedAt, faces }, report),
      ),
    );
    if (!found && stopped) note('It was stopped before any seams were found. Nothing was changed.');
    if (!found || useBench.getState().model !== model) return;
    if (found.edges.length === 0)
      note('There is nothing to propose: every shell lies flat well enough as it is, or is locked.');
    else useBench.setState({ proposal: found });
  } catch (error) {
    fail(error);
  } finally {
    useBench.setState({ proposing: undefined });
  }
}

let stopped = false;

export function stopProposing(): Promise<void> {
  stopped = true;
  return bench.stopAsking('proposal');
}

export const discardProposal = (): void => useBench.setState({ proposal: undefined });

/** Cuts what is proposed, or the part of it round one shell. */
export async function takeProposal(edges: readonly number[]): Promise<void> {
  const { proposal } = useBench.getState();
  if (!proposal || !(await perform('cut', { edges: [...edges] }))) return;
  // What was told of stretch is told of relaxed shells.
  const own = new Set(edges);
  const faces = proposal.shells
    .filter((shell) => shell.edges.some((e) => own.has(e)))
    .map(({ face }) => face);
  await perform('relax', { shells: faces, steps: RELAX_STEPS });
  const cut = new Set(edges);
  const left = proposal.edges.filter((e) => !cut.has(e));
  useBench.setState({
    proposal:
      left.length === 0
        ? undefined
        : {
            ...proposal,
            edges: left,
            shells: proposal.shells
              .map((shell) => ({ ...shell, edges: shell.edges.filter((e) => !cut.has(e)) }))
              .filter((shell) => shell.edges.length > 0),
          },
  });
}

/** Makes what is proposed the selection, to be added to, taken from, and cut. */
export function selectProposal(): void {
  const { proposal } = useBench.getState();
  if (!proposal) return;
  useBench.setState({ target: 'edges', proposal: undefined });
  select('edges', proposal.edges, 'only');
}
