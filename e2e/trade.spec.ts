import { expect, type Page } from '@playwright/test';
import { decode } from 'fast-png';
import { at, benchReady, download, figure, idle, openModel } from './hands.ts';
import { test } from './test.ts';

/** Jobs of the trade by hand on the Board. */

const openFlat = async (page: Page, obj: string): Promise<void> => {
  await openModel(page, 'model.obj', obj);
  await page.getByRole('button', { name: 'Keep UVs' }).click();
  await benchReady(page);
  await page.keyboard.press('5');
  await idle(page);
};

/** Rows of quads of a surface; seams where a column of UVs begins anew. */
function patches(
  rows: number,
  columns: readonly (readonly [from: number, to: number])[],
  place: (i: number, j: number) => readonly number[],
  uv: (i: number, j: number, patch: number) => readonly number[],
): string {
  const last = columns[columns.length - 1][1];
  const lines: string[] = [];
  for (let i = 0; i <= rows; i++)
    for (let j = 0; j <= last; j++)
      lines.push(
        `v ${place(i, j)
          .map((x) => x.toFixed(6))
          .join(' ')}`,
      );
  let texture = 0;
  columns.forEach(([from, to], patch) => {
    const wide = to - from + 1;
    for (let i = 0; i <= rows; i++)
      for (let j = from; j <= to; j++)
        lines.push(
          `vt ${uv(i, j, patch)
            .map((x) => x.toFixed(6))
            .join(' ')}`,
        );
    for (let i = 0; i < rows; i++)
      for (let j = from; j < to; j++) {
        const corner = (di: number, dj: number) =>
          `${(i + di) * (last + 1) + j + dj + 1}/${texture + (i + di) * wide + j + dj - from + 1}`;
        lines.push(`f ${corner(0, 0)} ${corner(0, 1)} ${corner(1, 1)} ${corner(1, 0)}`);
      }
    texture += (rows + 1) * wide;
  });
  return lines.join('\n');
}

test('a sofa: the ragged border between seat and front is straightened on both, brought together and welded', async ({
  page,
}) => {
  const wobble = (i: number): number => 0.006 * Math.sin(2.3 * i);
  const sofa = patches(
    8,
    [
      [0, 6],
      [6, 9],
    ],
    (i, j) => (j <= 6 ? [j, 0, i] : [6, 6 - j, i]),
    (i, j, patch) => [
      0.1 + 0.05 * j + 0.004 * patch + (j === 6 ? (patch === 0 ? wobble(i) : -wobble(i + 1)) : 0),
      0.2 + 0.05 * i,
    ],
  );
  await openFlat(page, sofa);
  expect(await figure(page, 'shells')).toBe('2');
  await page.getByText('Edges', { exact: true }).first().click();
  // All that lies near its partner is the seam: selected by its button, each with a thread to its other side.
  await page.getByLabel('Within, px').fill('40');
  await page.getByLabel('Within, px').press('Enter');
  await page.getByRole('button', { name: 'Select 8 seams' }).click();
  await expect(page.getByTestId('selection')).toContainText('8 edges');
  await expect(page.locator('.pane-partners g')).toHaveCount(8);
  const sides = () =>
    page
      .locator('.pane-partners circle')
      .evaluateAll((all) => all.map((each) => Number(each.getAttribute('cx'))));
  const spread = (list: readonly number[]) => Math.max(...list) - Math.min(...list);
  const ragged = await sides();
  await page.getByRole('button', { name: 'Straighten, upright' }).click();
  await idle(page);
  const straight = await sides();
  // Each side is one line now: two places along u.
  for (const k of [0, 1]) {
    const every = (list: readonly number[]) => list.filter((_, i) => i % 2 === k);
    expect(spread(every(ragged))).toBeGreaterThan(1);
    expect(spread(every(straight))).toBeLessThan(0.01);
  }
  await page.getByRole('button', { name: 'Weld' }).click();
  await idle(page);
  expect(await figure(page, 'shells')).toBe('1');
  expect(await figure(page, 'flipped')).toBe('0');
  await expect(page.locator('.pane-partners g')).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await idle(page);
  expect(await figure(page, 'shells')).toBe('2');
});

test('a chair leg: its ragged rows come to lie level, as wide as on the model', async ({ page }) => {
  const [around, along] = [12, 9];
  const ring = (j: number): readonly [number, number] => [
    Math.cos((2 * Math.PI * j) / around),
    Math.sin((2 * Math.PI * j) / around),
  ];
  const leg = patches(
    along,
    [[0, around]],
    (i, j) => [ring(j)[0], 0.5 * i, ring(j)[1]],
    (i, j) => [0.1 + 0.06 * j + 0.01 * Math.sin(i), 0.1 + 0.06 * i + 0.015 * Math.sin(1.7 * j + i)],
  );
  await openFlat(page, leg);
  const angle = async () => Number.parseFloat((await figure(page, 'angle')).match(/[\d.]+/g)?.pop() ?? '');
  const before = await angle();
  await page.getByText('Faces', { exact: true }).first().click();
  await page.keyboard.press('z');
  const [left, high] = await at(page, 'board', 0.02, 0.02);
  const [right, low] = await at(page, 'board', 0.98, 0.98);
  await page.mouse.move(left, high);
  await page.mouse.down();
  await page.mouse.move((left + right) / 2, (high + low) / 2);
  await page.mouse.move(right, low);
  await page.mouse.up();
  await idle(page);
  await expect(page.getByTestId('selection')).toContainText('108 faces');
  await page.getByRole('button', { name: 'Lay them as a square grid, rows as wide as on the model' }).click();
  await idle(page);
  // Right angles everywhere, as a cylinder has them.
  expect(await angle()).toBeLessThan(0.05);
  expect(before).toBeGreaterThan(2);
  expect(await figure(page, 'flipped')).toBe('0');
});

test('a map to paint by is made of the tile, shown and saved, and can be stopped on its way', async ({
  page,
}) => {
  await openFlat(
    page,
    patches(
      4,
      [[0, 4]],
      (i, j) => [j, 0.2 * j * j, i],
      (i, j) => [0.1 + 0.2 * j, 0.1 + 0.2 * i],
    ),
  );
  await page.keyboard.press('6');
  await page.getByLabel('Rays a pixel').fill('4096');
  await page.getByLabel('Rays a pixel').press('Enter');
  await page.getByRole('button', { name: 'Make the map' }).click();
  await page.getByRole('button', { name: 'Stop the map' }).click();
  await expect(page.getByRole('button', { name: 'Make the map' })).toBeVisible();
  await expect(page.getByRole('button', { name: /Save/ })).toHaveCount(0);

  await page.getByRole('combobox', { name: 'Which map' }).click({ force: true });
  await page.locator('.ant-select-item-option').getByText('Position', { exact: true }).click();
  await page.getByLabel('Height, px').last().fill('128');
  await page.getByLabel('Height, px').last().press('Enter');
  await page.getByRole('button', { name: 'Make the map' }).click();
  await expect(page.getByRole('img', { name: 'Position of tile 1001' })).toBeVisible();
  const file = decode(await download(page, 'Save model-position.png'));
  expect([file.width, file.height, file.channels, file.depth]).toEqual([128, 128, 3, 16]);
  // The middle of the tile is the middle of the sheet, 2 of 4 along x and z, at a height of 0.8.
  const middle = [...file.data.subarray(3 * (64 * 128 + 64), 3 * (64 * 128 + 64) + 3)].map(
    (x) => (4 * x) / 65_535,
  );
  expect(Math.abs(middle[0] - 2)).toBeLessThan(0.05);
  expect(Math.abs(middle[1] - 0.8)).toBeLessThan(0.05);
});
