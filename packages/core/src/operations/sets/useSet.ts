import { about, record, whole } from '../../params.ts';
import { operation } from '../operation.ts';
import { knownSet, quotedTitle } from './knownSet.ts';

/** Makes a UV set current: it is shown and solved from then on, with seams and marks of its own. */
export const useSet = operation({
  name: 'use-uv-set',
  stage: 'unfold',
  params: record({ set: about('the set, by its lasting id', whole(0)) }),
  label: ({ set }, document) => `Work on UV set ${quotedTitle(document, set)}`,
  doing: 'Changing the UV set',
  onLocked: true,
  run(document, { set }) {
    knownSet(document, set);
    const { currentUv: before } = document;
    return { changes: set === before ? [] : [{ kind: 'set-switched', before, after: set }], notes: [] };
  },
});
