import { expect, it } from 'vitest';
import { openDocument } from '../../document/document.ts';
import { modelFromMesh } from '../../mesh/model.ts';
import { meshOfShell } from '../../surface/cutShell.ts';
import { after } from '../../testing/acts.ts';
import { glove } from '../../testing/sculpts.ts';
import { carryOut, request } from '../catalogue.ts';
import { localContext } from '../localContext.ts';

it('says of a shell that is still getting more even how fast, and nothing once it is even', async () => {
  const model = modelFromMesh('glove', meshOfShell(glove(60)));
  const document = await after(openDocument(model, { keepUvs: false }), request('unfold', {}));
  const notesOf = async (steps: number) =>
    (await carryOut(document, request('relax', { steps }), localContext)).delta.notes.join(' ');
  expect(await notesOf(31)).toMatch(
    /1 shell not as even as can be yet: the last ten steps took [\d.]+ % off/,
  );
  expect(await notesOf(300)).not.toMatch(/not as even/);
});
