import { about, record, whole, words } from '../../params.ts';
import { operation } from '../operation.ts';
import { freeName, knownSet } from './knownSet.ts';

/** Gives a UV set another name. */
export const renameSet = operation({
  name: 'rename-uv-set',
  stage: 'unfold',
  params: record({
    set: about('the set, by its lasting id', whole(0)),
    name: about('its new name', words(60)),
  }),
  label: ({ name }) => `Rename a UV set to “${name}”`,
  doing: 'Renaming a UV set',
  onLocked: true,
  nonBlocking: true,
  run(document, { set, name }) {
    const { name: before } = knownSet(document, set);
    return {
      changes: [{ kind: 'set-renamed', set, before, after: freeName(document, name, set) }],
      notes: [],
    };
  },
});
