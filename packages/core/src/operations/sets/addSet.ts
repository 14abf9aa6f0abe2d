import { current, type DocumentSet, freshState, type HemDocument } from '../../document/document.ts';
import { setStateOf } from '../../document/fields.ts';
import { HemError } from '../../errors.ts';
import { about, choice, optional, otherwise, record, whole, words } from '../../params.ts';
import { operation } from '../operation.ts';
import { freeName } from './knownSet.ts';

/** What a new UV set begins with: nothing, what the current one has, or a set of the file. */
export const SET_STARTS = ['nothing', 'copy', 'file'] as const;

/** Adds a UV set behind the others, and makes it current. */
export const addSet = operation({
  name: 'add-uv-set',
  stage: 'unfold',
  params: record({
    name: about('what it is called', words(60)),
    from: about(
      'what it starts from: nothing, the current set, or a set of the file',
      otherwise(choice(...SET_STARTS), 'nothing'),
    ),
    place: about('which set of the file, from 0', optional(whole(0))),
  }),
  label: ({ name }) => `Add UV set “${name}”`,
  doing: 'Adding a UV set',
  onLocked: true,
  run(document, { name, from, place = 0 }) {
    const { uvSets, setsMade, currentUv } = document;
    const set: DocumentSet = {
      id: setsMade,
      name: freeName(document, name),
      ...startOf(document, from, place),
    };
    return {
      changes: [
        { kind: 'value', field: 'setsMade', before: setsMade, after: setsMade + 1 },
        { kind: 'set-added', at: uvSets.length, set },
        { kind: 'set-switched', before: currentUv, after: set.id },
      ],
      notes: [],
    };
  },
});

function startOf(
  document: HemDocument,
  from: (typeof SET_STARTS)[number],
  place: number,
): Required<Pick<DocumentSet, 'uv' | 'away'>> {
  const { model } = document;
  if (from === 'copy') return { uv: current(document).uv, away: setStateOf(document) };
  const uv =
    from === 'file'
      ? model.uvSets[place]?.uv
      : new Float64Array(2 * model.mesh.cornerVertex.length).fill(NaN);
  if (!uv) throw new HemError('no-such-set', 'The file has no such UV set.', [place]);
  return { uv, away: freshState(model, uv) };
}
