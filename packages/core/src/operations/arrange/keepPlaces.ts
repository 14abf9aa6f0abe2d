import type { ValueChange } from '../../document/delta.ts';
import { current, type HemDocument } from '../../document/document.ts';
import { uvDifference } from '../../document/uvChange.ts';
import { about, flag, record } from '../../params.ts';
import { operation } from '../operation.ts';
import { layAfresh } from './layAfresh.ts';

/** Whether shells keep their places, or the Board lays them out afresh after every act; in that case it does so at once. */
export const keepPlaces = operation({
  name: 'keep-places',
  stage: 'arrange',
  params: record({ keep: about('whether shells keep their places from now on', flag()) }),
  label: ({ keep }) => (keep ? 'Keep shells in their places' : 'Lay shells out afresh'),
  doing: 'Laying out',
  run(document, { keep }) {
    const value = placedChange(document, keep ? 1 : 0);
    if (keep || !document.placed) return { changes: [value], notes: [] };
    const { uv } = current(document);
    const next = uv.slice();
    const notes = layAfresh(document, next);
    return { changes: [value, uvDifference(document, next)], notes };
  },
});

export const placedChange = (document: HemDocument, placed: 0 | 1): ValueChange => ({
  kind: 'value',
  field: 'placed',
  before: document.placed,
  after: placed,
});

/** Said by acts after which the Board is not laid out afresh any more. */
export const placingNotes = ({ placed }: HemDocument): string[] =>
  placed ? [] : ['From now on shells keep their places.'];
