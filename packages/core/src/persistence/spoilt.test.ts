import fc from 'fast-check';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { expect, it } from 'vitest';
import { applyDelta, inverse } from '../document/delta.ts';
import { shellOf, shellsOf } from '../document/document.ts';
import { FileError } from '../errors.ts';
import { keptFile } from '../testing/kept.ts';
import { faults, spoilt } from '../testing/spoil.ts';
import { manifestOf, readProject, writeManifest } from './projectFile.ts';
import { findFault } from './validateDocument.ts';

const kept = (version: number) => keptFile(`project-v${version}.hemproject`);

/** Whatever the file, one sentence comes of it, or a project that can be worked with. */
async function survives(bytes: Uint8Array): Promise<'read' | 'partly' | 'refused'> {
  let read: Awaited<ReturnType<typeof readProject>>;
  try {
    read = await readProject(bytes, 'x.hemproject');
  } catch (error) {
    expect(error).toBeInstanceOf(FileError);
    expect((error as Error).message).toMatch(/^x\.hemproject: .+\. .+\.$/s);
    return 'refused';
  }
  const { document, history } = read.project;
  const { acts, done } = history;
  expect(findFault(document)).toBeUndefined();
  const first = acts.slice(0, done).reduceRight((d, { delta }) => applyDelta(d, inverse(delta)), document);
  const last = acts.slice(done).reduce((d, { delta }) => applyDelta(d, delta), document);
  for (const each of [first, document, last]) {
    expect(findFault(each)).toBeUndefined();
    for (let s = 0; s < shellsOf(each).shellCount; s++) shellOf(each, s);
  }
  return read.loss ? 'partly' : 'read';
}

const RUNS = 1500;

it.each([3, 4])('survives changed, lost and added bytes in a file of version %i', async (version) => {
  const bytes = kept(version);
  const change = fc.tuple(fc.nat(bytes.length - 1), fc.nat(255));
  const seen = new Set<string>();
  await fc.assert(
    fc.asyncProperty(
      fc.array(change, { minLength: 1, maxLength: 8 }),
      fc.option(fc.nat(bytes.length)),
      async (changes, cut) => {
        const copy = bytes.slice();
        for (const [at, value] of changes) copy[at] = value;
        seen.add(await survives(cut === null ? copy : copy.subarray(0, cut)));
      },
    ),
    { numRuns: RUNS },
  );
  expect(seen.size).toBe(3);
});

it('survives a file whose checksums are right and whose contents are wrong', async () => {
  const manifest = manifestOf((await readProject(kept(4), 'x')).project);
  const seen = new Set<string>();
  await fc.assert(
    fc.asyncProperty(faults, async (list) => {
      seen.add(await survives(await writeManifest(spoilt(manifest, list))));
    }),
    { numRuns: RUNS },
  );
  expect(seen.size).toBe(3);
});

it('survives a file of version 3, which has no checksums, with anything wrong in it', async () => {
  const files = unzipSync(kept(3));
  const text = JSON.parse(strFromU8(files['project.json']));
  const seen = new Set<string>();
  await fc.assert(
    fc.asyncProperty(faults, faults, fc.boolean(), async (inText, inArrays, both) => {
      const others = Object.fromEntries(Object.entries(files).filter(([name]) => name !== 'project.json'));
      const wrong = spoilt(text, inText);
      const arrays = both ? spoilt(others, inArrays) : others;
      const whole = Object.entries(arrays).filter(([, bytes]) => bytes instanceof Uint8Array);
      const zip = { 'project.json': strToU8(JSON.stringify(wrong)), ...Object.fromEntries(whole) };
      seen.add(await survives(zipSync(zip, { level: 0 })));
    }),
    { numRuns: RUNS },
  );
  expect(seen.size).toBe(3);
});
