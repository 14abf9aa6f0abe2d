import { isTooStretched } from '@blunt-hem/core/document/judgement';
import { LIMIT_PRESETS, type Limits } from '@blunt-hem/core/document/limits';
import type { AskedOf } from '@blunt-hem/core/questions/index';
import type { ProposedShell } from '@blunt-hem/core/questions/proposal';
import type { Chosen, SelectorsOf } from '@blunt-hem/core/selectors/index';
import { reporting } from '../worker/reporting.ts';
import { fail, note, notify, perform } from './acts.ts';
import { useBench } from './bench.ts';
import type { ShownProposal } from './cutting.ts';
import { namesOfChosen, select } from './select.ts';
import { bench, unwrap } from './worker.ts';

/** Has seams proposed for the selected shells, or for all; the last proposal goes, unless it is held. */
export async function propose(
  asked: Omit<AskedOf<'proposal'>, 'faces' | 'symmetric' | 'view'>,
): Promise<void> {
  const names = namesOfChosen();
  useBench.setState({ proposal: undefined });
  const found = await proposal({ ...asked, faces: names.length > 0 ? names : undefined });
  if (found?.edges.length === 0)
    note('There is nothing to propose: every shell lies flat well enough as it is, or is locked.');
  else if (found) useBench.setState({ proposal: found });
}

/** Asks for a proposal, with progress; undefined where it failed, was stopped too soon, or the model is another by then. */
export async function proposal(
  asked: Omit<AskedOf<'proposal'>, 'symmetric' | 'view'>,
): Promise<ShownProposal | undefined> {
  const { symmetryBy, lookedAt, model } = useBench.getState();
  stopped = false;
  useBench.setState({ proposing: 0, notice: undefined });
  try {
    const symmetric =
      symmetryBy === 'mirror' || symmetryBy === 'turn' || symmetryBy === 'off' ? 'auto' : symmetryBy;
    const found = unwrap(
      await reporting(
        // What was reached is never taken back.
        (fraction: number) => useBench.setState((s) => ({ proposing: Math.max(s.proposing ?? 0, fraction) })),
        (report) => bench.ask('proposal', { ...asked, symmetric, view: lookedAt }, report),
      ),
    );
    if (!found && stopped) note('It was stopped before any seams were found. Nothing was changed.');
    if (!found || useBench.getState().model !== model) return undefined;
    const { preset = 'clean', faces, ...others } = asked;
    return faces ? found : { ...found, by: { proposed: preset, ...others, symmetric, view: lookedAt } };
  } catch (error) {
    fail(error);
    return undefined;
  } finally {
    useBench.setState({ proposing: undefined });
  }
}

let stopped = false;

export function stopProposing(): Promise<void> {
  stopped = true;
  return bench.stopAsking('proposal');
}

export const discardProposal = (): void =>
  useBench.setState(({ heldProposal }) => ({ proposal: heldProposal, heldProposal: undefined }));

/** Holds the proposal that is shown, to be compared with the next, or shows the one that was held instead. */
export const holdProposal = (): void =>
  useBench.setState(({ proposal, heldProposal }) => ({
    proposal: heldProposal ?? proposal,
    heldProposal: proposal,
  }));

/** Edges of a proposal for a request: where it is all of them, with what they are told by. */
export const asProposed = (
  { by, edges: all }: ShownProposal,
  edges: readonly number[],
): readonly number[] | Chosen<SelectorsOf['edges']> =>
  by && edges.length === all.length ? { by, indices: edges } : edges;

/** Cuts what is proposed, or the part of it round one shell. */
export async function takeProposal(edges: readonly number[]): Promise<void> {
  const { proposal } = useBench.getState();
  if (!proposal) return;
  if (!(await perform('cut', { edges: asProposed(proposal, edges), relax: true }))) return;
  const own = new Set(edges);
  const faces = proposal.shells
    .filter((shell) => shell.edges.some((e) => own.has(e)))
    .map(({ face }) => face);
  offerRoughLimits(proposal.shells.filter(({ face }) => faces.includes(face)));
  // What was held is of seams as they were.
  useBench.setState({ heldProposal: undefined });
  const cut = new Set(edges);
  const left = proposal.edges.filter((e) => !cut.has(e));
  useBench.setState({
    proposal:
      left.length === 0
        ? undefined
        : {
            ...proposal,
            by: undefined,
            edges: left,
            shells: proposal.shells
              .map((shell) => ({ ...shell, edges: shell.edges.filter((e) => !cut.has(e)) }))
              .filter((shell) => shell.edges.length > 0),
          },
  });
}

/** How many shells would be stretched beyond what is put up with. */
export const countBeyond = (shells: readonly ProposedShell[], limits: Limits): number =>
  shells.filter(
    ({ l2, linf = 0, angleMean = 0, areaMean = 0 }) =>
      l2 !== undefined && isTooStretched({ l2, linf, angleMean, areaMean }, limits),
  ).length;

/** Where what was cut is rougher than the limits allow, and rough ones would do: offers those. */
function offerRoughLimits(shells: readonly ProposedShell[]): void {
  const { limits } = useBench.getState();
  const { rough } = LIMIT_PRESETS;
  const beyond = countBeyond(shells, limits);
  if (countBeyond(shells, rough) >= beyond) return;
  const told = beyond === 1 ? 'One of these shells is' : `${beyond} of these shells are`;
  notify({
    tone: 'note',
    text: `${told} stretched beyond the limits of this model. For a quick cut rougher limits may do.`,
    offer: { label: 'Take the rough limits', act: () => void perform('set-limits', { limits: rough }) },
  });
}

/** Makes what is proposed the selection, to be added to, taken from, and cut. */
export function selectProposal(): void {
  const { proposal } = useBench.getState();
  if (!proposal) return;
  useBench.setState({ target: 'edges', proposal: undefined, heldProposal: undefined });
  select('edges', proposal.edges, 'only', proposal.by);
}
