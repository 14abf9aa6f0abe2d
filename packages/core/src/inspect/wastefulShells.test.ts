import { describe, expect, it } from 'vitest';
import { type HemDocument, openDocument } from '../document/document.ts';
import { StoppedError } from '../errors.ts';
import { localJobs } from '../jobs/index.ts';
import { meshFromPolygons } from '../mesh/mesh.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { request } from '../operations/catalogue.ts';
import { unattended } from '../progress.ts';
import { answerQuestion } from '../questions/index.ts';
import { after } from '../testing/acts.ts';

/** Flat sheets of square faces side by side, each of so many columns and rows, with the UVs that they have as they lie. */
function sheets(...sizes: readonly (readonly [columns: number, rows: number])[]): HemDocument {
  const points: number[][] = [];
  const faces: number[][] = [];
  let left = 0;
  for (const [columns, rows] of sizes) {
    const first = points.length;
    for (let j = 0; j <= rows; j++) for (let i = 0; i <= columns; i++) points.push([left + i, j, 0]);
    const at = (i: number, j: number) => first + j * (columns + 1) + i;
    for (let j = 0; j < rows; j++)
      for (let i = 0; i < columns; i++) faces.push([at(i, j), at(i + 1, j), at(i + 1, j + 1), at(i, j + 1)]);
    left += columns + 1;
  }
  const mesh = meshFromPolygons(points, faces);
  const uv = Float64Array.from(
    [...mesh.cornerVertex].flatMap((v) => points[v].slice(0, 2).map((x) => x / left)),
  );
  return openDocument({ ...modelFromMesh('Sheets', mesh), uvSets: [{ name: 'UV', uv }] });
}

const context = { ...unattended, jobs: localJobs };
const asked = (document: HemDocument) => answerQuestion(document, 'wasteful-shells', {}, context);
const tiles = Array.from({ length: 12 }, () => [3, 2] as const);

describe('a shell in the way of a full tile', () => {
  it('is named with the cut that helps, across its middle, and what that gains is what packing gains', async () => {
    const document = sheets([36, 1], ...tiles);
    const found = await asked(document);
    if (!found?.remedy || !('cut' in found.remedy)) throw new Error('nothing found');
    expect([found.kind, found.count, found.shells]).toEqual(['wastes-room', 1, [0]]);
    // One edge across a strip one face wide, in its middle third.
    const { cut } = found.remedy;
    expect(cut).toHaveLength(1);
    const parted = await after(document, request('cut', { edges: cut }));
    const again = await asked(parted);
    const percent = Number(/uses (\d+) % more/.exec(found.effect)?.[1]);
    const areaOf = async (of: HemDocument) => {
      const packed = await after(of, request('pack', { steps: 0 }));
      const [covered] = await answerQuestion(packed, 'coverage', {}, context);
      return covered;
    };
    const gain = (await areaOf(parted)) / (await areaOf(document));
    expect(percent).toBeGreaterThan(40);
    expect(100 * (gain - 1)).toBeGreaterThan(0.8 * percent);
    // What is left is no longer worth as much.
    expect(Number(/uses (\d+) % more/.exec(again?.effect ?? 'uses 0 % more')?.[1])).toBeLessThan(percent);
  });

  it('is told with others that are as long, where only all of them cut gain', async () => {
    const found = await asked(sheets(...tiles, [36, 1], [36, 1]));
    expect(found?.shells.toSorted()).toEqual([12, 13]);
    expect(found?.effect).toMatch(/with shells 13 and 14 cut in two, a quick layout uses \d+ % more/);
    expect(found?.remedy && 'cut' in found.remedy && found.remedy.cut).toHaveLength(2);
  });

  it('is none where all are small, where it is locked or kept together, and where nothing lies flat', async () => {
    expect(await asked(sheets(...tiles))).toBeUndefined();
    const long = sheets([36, 1], ...tiles);
    expect(
      await asked(await after(long, request('lock-shells', { shells: [0], locked: true }))),
    ).toBeUndefined();
    const held = request('group-shells', { shells: [0, 36], together: true });
    expect((await asked(await after(long, held)))?.shells ?? []).not.toContain(0);
    const all = await after(long, request('lock-shells', { shells: 'all', locked: true }));
    expect(await asked(all)).toBeUndefined();
    const { model } = sheets([2, 2]);
    expect(await asked(openDocument({ ...model, uvSets: [] }))).toBeUndefined();
  });

  it('stops', async () => {
    const stopped = { ...context, signal: { aborted: true } };
    await expect(answerQuestion(sheets([36, 1], ...tiles), 'wasteful-shells', {}, stopped)).rejects.toThrow(
      StoppedError,
    );
  });
});
