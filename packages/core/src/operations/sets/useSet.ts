import { record, whole } from '../../params.ts';
import { operation } from '../operation.ts';
import { knownSet, titleOf } from './knownSet.ts';

/** Makes a UV set current: it is shown and solved from then on, with seams and marks of its own. */
export const useSet = operation({
  name: 'use-uv-set',
  stage: 'unfold',
  params: record({ set: whole(0) }),
  label: ({ set }, { uvSets }) => {
    const own = uvSets.find(({ id }) => id === set);
    return `Work on UV set “${own ? titleOf(own) : set}”`;
  },
  doing: 'Changing the UV set',
  onLocked: true,
  run(document, { set }) {
    knownSet(document, set);
    const { currentUv: before } = document;
    return { changes: set === before ? [] : [{ kind: 'set-switched', before, after: set }], notes: [] };
  },
});
