import { FIRST_TILE } from '@blunt-hem/core/surface/tiles';
import { expect, it } from 'vitest';
import { densityByPart } from './DensityByPart.tsx';

const row = (area: number, uvArea: number) => ({ box: [0, 0, 1, 1], stretch: { area, uvArea } });

it('tells each part what most of its surface has, the odd ones first, and leaves out what does not lie flat', () => {
  const rows = densityByPart({
    model: {
      parts: [
        {
          names: ['Body', 'Boot', 'Lace', 'Hat'],
          facePart: Uint32Array.of(0, 0, 1, 1, 2, 3),
        },
      ],
    },
    // The second shell lies over body and boot.
    faceShell: Uint32Array.of(0, 1, 1, 2, 3, 4),
    shells: [row(4, 0.04), row(1, 0.01), row(9, 0.01), row(1, 0.0001), { box: undefined }],
    tiles: [FIRST_TILE],
  } as never);
  expect(rows.map(({ name, density }) => [name, Number((density / 2048).toFixed(4))])).toEqual([
    ['Lace', 0.01],
    ['Body', 0.1],
    ['Boot', 0.0333],
  ]);
  expect([...rows[1].shells]).toEqual([0, 1]);
});
