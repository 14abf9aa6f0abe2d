import { describe, expect, it } from 'vitest';
import { modelFromMesh } from '../mesh/model.ts';
import { cube } from '../testing/shapes.ts';
import { applyDelta, inverse, markChange } from './delta.ts';
import { type HemDocument, openDocument, shellOf, shellsOf, shellUv, topologyOf } from './document.ts';
import { figuresOf, totalsOf } from './figures.ts';
import { emptyHistory, type History, record, redone, undone } from './history.ts';
import { overlappingFaces } from './overlappingFaces.ts';
import { uvChange } from './uvChange.ts';

const document = (): HemDocument => openDocument(modelFromMesh('Cube', cube()));

/** The flat box: every wedge at its vertex's x and y. */
function flattened(start: HemDocument): HemDocument {
  const uvOf = new Map<number, Float64Array>();
  for (let s = 0; s < shellsOf(start).shellCount; s++) {
    const { positions } = shellOf(start, s);
    uvOf.set(
      s,
      Float64Array.from({ length: (2 * positions.length) / 3 }, (_, i) => positions[3 * (i >> 1) + (i & 1)]),
    );
  }
  return applyDelta(start, { changes: [uvChange(start, uvOf)], notes: [] });
}

describe('patches', () => {
  it('change marks only where they differ, and never the document they are for', () => {
    const start = document();
    const change = markChange(start, 'seams', [3, 5, 3], 1);
    expect(change).toMatchObject({ kind: 'marks', index: Uint32Array.of(3, 5) });
    const cut = applyDelta(start, { changes: [change], notes: [] });
    expect([...cut.seams].filter((x) => x === 1)).toHaveLength(2);
    expect([...start.seams].some((x) => x === 1)).toBe(false);
    expect(markChange(cut, 'seams', [3, 4], 1)).toMatchObject({ index: Uint32Array.of(4) });
    expect(cut.uvSets).toBe(start.uvSets);
  });

  it('are taken back by their inverse, NaN and all', () => {
    const start = document();
    const flat = flattened(start);
    const change = uvChange(start, new Map([[0, new Float64Array(16).fill(0.5)]]));
    const delta = { changes: [change, markChange(start, 'stale', [0, 1], 1)], notes: ['x'] };
    expect(applyDelta(applyDelta(start, delta), inverse(delta))).toEqual(start);
    expect(start.uvSets[0].uv.every(Number.isNaN)).toBe(true);
    expect(flat.uvSets[0].uv.every(Number.isNaN)).toBe(false);
  });

  it('give every corner of a wedge one place', () => {
    const flat = flattened(document());
    const uv = shellUv(flat, shellOf(flat, 0)) as Float64Array;
    expect(uv).toHaveLength(16);
    const { mesh } = flat.model;
    for (let c = 0; c < mesh.cornerVertex.length; c++) {
      expect(flat.uvSets[0].uv[2 * c]).toBe(mesh.positions[3 * mesh.cornerVertex[c]]);
    }
  });
});

describe('history', () => {
  const act = (label: string, group: number) => ({ operation: 'cut', params: {}, label, group });

  it('forgets what could be redone when something new is done', () => {
    const one: History = record(emptyHistory, act('one', 0));
    const back = { ...one, done: undone(one) as number };
    expect(redone(back)).toBe(1);
    const two = record(back, act('two', 1));
    expect(two.acts.map(({ label }) => label)).toEqual(['two']);
    expect(redone(two)).toBeUndefined();
    expect(undone({ ...two, done: 0 })).toBeUndefined();
  });

  it('takes a group back and does it again as one', () => {
    let history: History = emptyHistory;
    for (const [i, group] of [0, 1, 1].entries()) history = record(history, act(`act ${i}`, group));
    expect(undone(history)).toBe(1);
    expect(redone({ ...history, done: 1 })).toBe(3);
  });
});

describe('figures', () => {
  it('of a shell without UVs say so', () => {
    const figures = figuresOf(document(), 0);
    expect(figures.stretch).toBeUndefined();
    expect(figures.box).toBeUndefined();
    expect(totalsOf([figures])).toMatchObject({ shells: 1, unfolded: 0, l2: 0, densitySpread: 1 });
  });

  it('of a box pressed flat show collapsed sides, flipped bottom and overlap', () => {
    const flat = flattened(document());
    const { stretch, box } = figuresOf(flat, 0);
    // Side faces of a flat projection collapse to lines: they get no texture (common practice).
    expect(stretch).toMatchObject({ collapsed: 4, flipped: 1, linf: Infinity });
    expect(box).toEqual([-1, -1, 1, 1]);
    expect([...overlappingFaces(flat).overlaps]).toEqual([0, 1]);
  });

  it('of a UV set in which everything lies at one place have no density to compare', () => {
    const flat = flattened(document());
    const zero = applyDelta(flat, {
      changes: [uvChange(flat, new Map([[0, new Float64Array(16)]]))],
      notes: [],
    });
    const [some, none] = [figuresOf(flat, 0), figuresOf(zero, 0)];
    expect(totalsOf([none, none])).toMatchObject({ density: 0, densitySpread: 1 });
    expect(totalsOf([some, none]).densitySpread).toBe(Infinity);
  });

  it('do not change when a shell is shrunk, but its density does', () => {
    const flat = flattened(document());
    const uv = shellUv(flat, shellOf(flat, 0)) as Float64Array;
    const half = applyDelta(flat, {
      changes: [uvChange(flat, new Map([[0, uv.map((x) => x / 2)]]))],
      notes: [],
    });
    const [before, after] = [flat, half].map((d) => figuresOf(d, 0));
    expect(after.stretch?.angleMean).toBeCloseTo(before.stretch?.angleMean as number, 9);
    expect(after.stretch?.areaMean).toBeCloseTo(before.stretch?.areaMean as number, 6);
    expect(totalsOf([after]).density).toBeCloseTo(totalsOf([before]).density / 2, 12);
    expect(totalsOf([before, after]).densitySpread).toBeCloseTo(2, 9);
  });
});

describe('opening', () => {
  it('keeps UVs of a file, with their breaks as seams, or discards them', () => {
    const flat = flattened(document());
    const uv = flat.uvSets[0].uv.slice();
    // Tear one face away: its four edges become seams.
    const { mesh } = flat.model;
    for (let c = mesh.faceStart[1]; c < mesh.faceStart[2]; c++) uv[2 * c] += 5;
    const model = { ...flat.model, uvSets: [{ name: 'UV', uv }] };
    const kept = openDocument(model);
    expect([...kept.seams].filter((x) => x === 1)).toHaveLength(4);
    expect(shellsOf(kept).shellCount).toBe(2);
    const discarded = openDocument(model, { keepUvs: false });
    expect(discarded.seams.includes(1)).toBe(false);
    expect(discarded.uvSets[0].uv.every(Number.isNaN)).toBe(true);
  });

  it('works a model out once', () => {
    const { model } = document();
    expect(topologyOf(model)).toBe(topologyOf(model));
  });
});
