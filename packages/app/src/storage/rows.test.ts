import { describe, expect, it } from 'vitest';
import { viewSlice } from '../store/view.ts';
import { KEPT_LOOKS } from './looks.ts';
import { soundView } from './rows.ts';

const cameras = { model: { position: [1, 2, 3], target: [0, 0, 0] }, board: { u: 0.5, v: 0.5, scale: 300 } };
const looks = Object.fromEntries(KEPT_LOOKS.map((key) => [key, viewSlice[key]]));

describe('how the Bench was left', () => {
  it('is taken back with everything that is kept of it', () => {
    const view = { ...looks, overlay: 'area', scaleAgainst: 'chosen', chosenScale: 12.5, cameras };
    expect(soundView(view)).toEqual(view);
    // One that was kept before there were so many looks.
    expect(soundView({ stage: 'cut', cameras })).toBeDefined();
  });

  it('is left out where it is garbled', () => {
    expect(soundView({ ...looks, cameras: undefined })).toBeUndefined();
    for (const wrong of [{ chosenScale: 0 }, { scaleAgainst: 'nobody' }, { repeats: 0 }, { dust: 1 }])
      expect(soundView({ ...looks, cameras, ...wrong })).toBeUndefined();
  });
});
