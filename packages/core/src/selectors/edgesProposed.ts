import { PROPOSAL_PARAMS, proposeFor } from '../derived/seamProposal.ts';
import { record } from '../params.ts';
import { selector } from './selector.ts';

const { preset, ...others } = PROPOSAL_PARAMS;

const WORDS = {
  clean: 'edges proposed for few clean shells',
  rough: 'edges proposed for a rough cut',
} as const;

/** Edges that are proposed as seams of the whole model. */
export const edgesProposed = selector({
  of: 'edges',
  key: 'proposed',
  params: record({ proposed: preset, ...others }),
  words: ({ proposed }) => WORDS[proposed],
  resolve: async (document, { proposed, ...wanted }, context) =>
    (await proposeFor(document, { ...wanted, preset: proposed }, context)).edges,
});
