import type { Change } from '../../document/delta.ts';
import { withCurrent } from '../../document/document.ts';
import { HemError } from '../../errors.ts';
import { about, record, whole } from '../../params.ts';
import { operation } from '../operation.ts';
import { knownSet, quotedTitle } from './knownSet.ts';

/** Removes a UV set with its seams and all that was made of it; where it is current, the one before it becomes so. */
export const removeSet = operation({
  name: 'remove-uv-set',
  stage: 'unfold',
  params: record({ set: about('the set, by its lasting id', whole(0)) }),
  label: ({ set }, document) => `Remove UV set ${quotedTitle(document, set)}`,
  doing: 'Removing a UV set',
  onLocked: true,
  run(document, { set }) {
    knownSet(document, set);
    const { uvSets, currentUv } = document;
    if (uvSets.length === 1) throw new HemError('last-set', 'The last UV set stays: every model needs one.');
    const at = uvSets.findIndex(({ id }) => id === set);
    const changes: Change[] = [];
    let now = document;
    if (set === currentUv) {
      const next = uvSets[at === 0 ? 1 : at - 1].id;
      changes.push({ kind: 'set-switched', before: set, after: next });
      now = withCurrent(document, next);
    }
    return { changes: [...changes, { kind: 'set-removed', at, set: knownSet(now, set) }], notes: [] };
  },
});
