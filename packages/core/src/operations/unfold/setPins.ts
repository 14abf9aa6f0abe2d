import { cornersBeside } from '../../document/constraints.ts';
import { markChange } from '../../document/delta.ts';
import { current } from '../../document/document.ts';
import { knownFaces } from '../../document/known.ts';
import { HemError } from '../../errors.ts';
import { about, flag, list, record } from '../../params.ts';
import { plural } from '../../plural.ts';
import { operation } from '../operation.ts';
import { cornerOf, placeInFace } from './handles.ts';

/** Places of the flat hold their UVs from now on, or let go of them: whatever unfolds or relaxes their shell goes round them. */
export const setPins = operation({
  name: 'set-pins',
  stage: 'unfold',
  params: record({
    places: about('places of the flat, each by a vertex and a face at it', list(placeInFace, { min: 1 })),
    pinned: about('whether they are pinned where they lie, or free again', flag()),
  }),
  label: ({ places, pinned }) => `${pinned ? 'Pin' : 'Unpin'} ${plural(places.length, 'place')}`,
  doing: 'Pinning',
  run(document, { places, pinned }) {
    const { uv } = current(document);
    knownFaces(
      document.model.mesh,
      places.map(({ face }) => face),
    );
    const corners = places.flatMap(({ vertex, face }) => {
      const corner = cornerOf(document.model.mesh, vertex, face);
      if (pinned && Number.isNaN(uv[2 * corner]))
        throw new HemError('nothing-unfolded', 'Only what lies flat can be pinned: unfold it first.', [face]);
      return cornersBeside(document, corner);
    });
    const mark = markChange(document, 'pins', corners, pinned ? 1 : 0);
    return { changes: [mark], notes: [] };
  },
});
