import { current } from '../../document/document.ts';
import { chosenShells } from '../../document/shellChoice.ts';
import { uvDifference } from '../../document/uvChange.ts';
import { about, indices, record } from '../../params.ts';
import { plural } from '../../plural.ts';
import { operation } from '../operation.ts';
import { clearPlaces } from './clearPlaces.ts';
import { placedChange, placingNotes } from './keepPlaces.ts';

/** Moves shells, each by one of its faces, to where nothing else lies: inside the tile where there is room. */
export const moveClear = operation({
  name: 'move-clear',
  stage: 'arrange',
  params: record({ shells: about('shells, each by one of its faces', indices) }),
  label: ({ shells }, document) =>
    `Move ${plural(chosenShells(document, shells).length, 'shell')} to free space`,
  doing: 'Looking for free space',
  run(document, { shells }) {
    const { uv } = current(document);
    const next = uv.slice();
    const notes = clearPlaces(document, next, chosenShells(document, shells));
    return {
      changes: [uvDifference(document, next), placedChange(document, 1)],
      notes: [...notes, ...placingNotes(document)],
    };
  },
});
