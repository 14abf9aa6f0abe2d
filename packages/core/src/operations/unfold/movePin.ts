import { cornersBeside } from '../../document/constraints.ts';
import { applyDelta, markChange } from '../../document/delta.ts';
import { knownFaces } from '../../document/known.ts';
import { about, record, tuple, whole } from '../../params.ts';
import { RELAX_STEPS } from '../../relax/steps.ts';
import { type Operation, operation } from '../operation.ts';
import { cornerOf } from './handles.ts';
import { relax } from './relax.ts';
import { unfold } from './unfold.ts';

/**
 * A place of the flat is pinned elsewhere, and its shell laid flat anew round all that holds; one that was relaxed is relaxed again. All
 * of it or nothing: where the pins cannot be met the shell stays as it is.
 */
export const movePin = operation({
  name: 'move-pin',
  stage: 'unfold',
  params: record({
    vertex: about('the vertex of the model', whole()),
    face: about('a face at it, on the side of the seams that is meant', whole()),
    uv: about('where it comes to lie', tuple(2), 'heights of a tile'),
  }),
  label: () => 'Move a pin',
  doing: 'Moving a pin',
  async run(document, { vertex, face, uv }, context) {
    knownFaces(document.model.mesh, [face]);
    const corners = cornersBeside(document, cornerOf(document.model.mesh, vertex, face));
    const pin = markChange(document, 'pins', corners, 1);
    const anew = await carried(applyDelta(document, { changes: [pin], notes: [] }), unfold, {
      shells: [face],
      pins: [{ vertex, face, uv }],
    });
    const patch = { changes: [pin, ...anew.changes], notes: anew.notes };
    if (!document.relaxed[face]) return patch;
    const settled = await carried(applyDelta(document, patch), relax, { shells: [face], steps: RELAX_STEPS });
    return { changes: [...patch.changes, ...settled.changes], notes: patch.notes };

    /** Another operation, its defaults filled in. */
    function carried<Out, In>(on: typeof document, { params, run }: Operation<string, Out, In>, given: In) {
      return run(on, params.validate(given).value as Out, context);
    }
  },
});
