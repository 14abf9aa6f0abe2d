import type { ValueChange } from '../../document/delta.ts';
import { knownPatch } from '../../document/facePatches.ts';
import { WEIGHTS } from '../../document/patchWeights.ts';
import { about, number, record, whole } from '../../params.ts';
import { operation } from '../operation.ts';

/** Says how much finer than on the rest the texture is to be on a patch: packing keeps to it, and findings expect it. */
export const weighPatch = operation({
  name: 'weigh-patch',
  stage: 'arrange',
  params: record({
    patch: about('the patch, by number from 1', whole(1)),
    times: about(
      'how much finer its texture is than that of the rest, a factor',
      number(WEIGHTS.least, WEIGHTS.most),
    ),
  }),
  label: ({ patch, times }, { patchNames }) =>
    `Make “${patchNames[patch - 1] ?? patch}” ${Number(times.toPrecision(3))} times as fine`,
  doing: 'Weighing a patch',
  run(document, { patch, times }) {
    knownPatch(document, patch);
    const { patchWeights } = document;
    const after = [...patchWeights];
    while (after.length < patch) after.push(1);
    after[patch - 1] = times;
    const change: ValueChange = { kind: 'value', field: 'patchWeights', before: patchWeights, after };
    return {
      changes: (patchWeights[patch - 1] ?? 1) === times ? [] : [change],
      notes: ['Pack, and its shells are as much larger than the others.'],
    };
  },
});
