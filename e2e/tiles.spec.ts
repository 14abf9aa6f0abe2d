import { expect } from '@playwright/test';
import { benchReady, download, idle, openModel } from './hands.ts';
import { test } from './test.ts';

/** Two quads that lie in the tiles 1001 and 1002 of their file. */
const TWO_TILES = `v 0 0 0
v 1 0 0
v 1 1 0
v 0 1 0
v 3 0 0
v 4 0 0
v 4 1 0
v 3 1 0
vt 0.1 0.1
vt 0.6 0.1
vt 0.6 0.6
vt 0.1 0.6
vt 1.2 0.2
vt 1.6 0.2
vt 1.6 0.6
vt 1.2 0.6
f 1/1 2/2 3/3 4/4
f 5/5 6/6 7/7 8/8
`;

test('tiles are read from the file, told by themselves, changed, packed and handed over as templates', async ({
  page,
}) => {
  await openModel(page, 'tiles.obj', TWO_TILES);
  await page.getByRole('button', { name: 'Keep UVs' }).click();
  await benchReady(page);
  await page.keyboard.press('5');
  await idle(page);
  await page.getByText('Tiles: 2, 2048 px').click();
  await expect(page.locator('.tiles li')).toHaveText([/1001.*25 % used/, /1002.*16 % used/]);
  await expect(page.locator('.tile-labels span').first()).toHaveText('1001 · 2048 px · 25 %');
  // Another size of one of them, and a shape that the other has not.
  await page.locator('#tile-edited').click();
  await page.locator('.ant-select-item-option', { hasText: '1002' }).click();
  const width = page.locator('#tile-width');
  await width.fill('4096');
  await width.press('Enter');
  await expect(page.getByText(/one shape/)).toBeVisible();
  // For all at once it goes, and is taken back.
  await page.keyboard.press('Escape');
  await page.locator('#tile-edited').click();
  await page.locator('.ant-select-item-option', { hasText: 'all tiles' }).click();
  await width.fill('4096');
  await width.press('Enter');
  await idle(page);
  await expect(page.locator('.tiles li')).toHaveText([/4096 × 2048 px/, /4096 × 2048 px/]);
  await page.getByRole('button', { name: 'Pack 2 tiles' }).click();
  await idle(page);
  const obj = (await downloadAtTheEnd(page, 'Export OBJ')).toString();
  const uv = [...obj.matchAll(/^vt (\S+) (\S+)/gm)].map(([, u, v]) => [Number(u), Number(v)]);
  expect(Math.max(...uv.map(([u]) => u))).toBeGreaterThan(1);
  expect(Math.max(...uv.map(([u]) => u))).toBeLessThan(2);
  // Squares on a texture twice as wide as high are half as wide in its UVs.
  const spans = [uv.slice(0, 4), uv.slice(4)].map((four) =>
    [0, 1].map((k) => Math.max(...four.map((p) => p[k])) - Math.min(...four.map((p) => p[k]))),
  );
  for (const [du, dv] of spans) expect(dv / du).toBeCloseTo(2, 3);
  await page.getByLabel('Template of which tile').click();
  await page.getByTitle('Tile 1002').click();
  const svg = (await download(page, 'Template SVG')).toString();
  expect(svg).toContain('width="4096" height="2048"');
  await expect(page.getByText(/Every shell is flat and little stretched/)).toBeVisible();
  // One tile less: what lay there is told, shown and mended.
  await page.keyboard.press('5');
  await page.getByText(/^Tiles: 2/).click();
  await page.getByRole('button', { name: 'Remove tile 1002' }).click();
  await idle(page);
  await expect(page.getByText('1 shell lies outside the tiles now.')).toBeVisible();
  await page.keyboard.press('6');
  await page.getByRole('button', { name: 'Show', exact: true }).click();
  await idle(page);
  await expect(page.getByTestId('selection')).toHaveText('1 shell');
  await expect(page.getByText('1 shell outside the tiles')).toBeVisible();
  await page.keyboard.press('Control+z');
  await idle(page);
  await expect(page.getByText('Nothing wrong was found in the flat.')).toBeVisible();
});

async function downloadAtTheEnd(page: Parameters<typeof download>[0], button: string): Promise<Buffer> {
  await page.keyboard.press('6');
  await idle(page);
  return download(page, button);
}
