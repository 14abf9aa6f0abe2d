import { expect, type Page } from '@playwright/test';
import { at, benchReady, idle, openModel } from './hands.ts';
import { test } from './test.ts';

/** Plates of several sizes in a row, with UVs small in the tile. */
const PLATES = Array.from({ length: 14 }, (_, i) => {
  const [w, h] = [1 + (i % 4), 1 + (i % 3)];
  const corners = [
    [0, 0],
    [w, 0],
    [w, h],
    [0, h],
  ];
  return [
    ...corners.map(([x, y]) => `v ${6 * i + x} ${y} 0`),
    ...corners.map(
      ([x, y]) => `vt ${((i % 7) / 7 + x / 60).toFixed(5)} ${(Math.floor(i / 7) / 3 + y / 60).toFixed(5)}`,
    ),
    `f ${[1, 2, 3, 4].map((k) => `${4 * i + k}/${4 * i + k}`).join(' ')}`,
  ].join('\n');
}).join('\n');

const open = async (page: Page): Promise<void> => {
  await openModel(page, 'plates.obj', PLATES);
  await page.getByRole('button', { name: 'Keep UVs' }).click();
  await benchReady(page);
  await page.keyboard.press('5');
  await idle(page);
};

/** Part of the tile that is used, %, as the Board tells it. */
const used = async (page: Page): Promise<number> => {
  const text = await page.locator('.tile-labels span').first().textContent();
  return Number(/(\d+) %$/.exec(text ?? '')?.[1]);
};

const choose = async (page: Page, field: string, option: string): Promise<void> => {
  await page.locator(`#${field}`).click();
  await page.locator('.ant-select-dropdown:visible .ant-select-item-option', { hasText: option }).click();
};

test('a tile is packed by key, better until it is stopped, taken back and found again', async ({ page }) => {
  await open(page);
  const before = await used(page);
  await choose(page, 'pack-effort', 'until stopped');
  await choose(page, 'pack-turning', 'any way');
  await page.locator('.bench-header strong, .bench-header').first().click();
  await page.keyboard.press('m');
  const running = page.getByRole('status', { name: 'Running' });
  await expect(running).toContainText(/[\d.]+ % of the tile used/);
  await expect(running).toContainText(/\d+ s/);
  await page.getByRole('button', { name: 'Stop' }).click();
  await idle(page);
  const after = await used(page);
  expect(after).toBeGreaterThan(before + 30);
  await expect(page.getByTestId('figure-overlaps')).toContainText('0');
  await page.keyboard.press('Control+z');
  await idle(page);
  expect(await used(page)).toBe(before);
  await page.keyboard.press('Control+Shift+z');
  await idle(page);
  expect(await used(page)).toBe(after);
  await page.reload();
  await benchReady(page);
  await page.keyboard.press('5');
  await idle(page);
  expect(await used(page)).toBe(after);
});

test('shells are locked and kept together by key, and packed over a second tile', async ({ page }) => {
  await open(page);
  const rows = page.locator('.ant-table-row');
  await rows.nth(0).click();
  await page.keyboard.press('o');
  await idle(page);
  await rows.nth(1).click();
  await rows.nth(2).click({ modifiers: ['Shift'] });
  await expect(page.getByRole('button', { name: 'Keep together' })).toBeVisible();
  await page.keyboard.press('u');
  await idle(page);
  await expect(page.getByRole('button', { name: 'Let 2 apart' })).toBeVisible();
  await page.keyboard.press('Escape');
  await choose(page, 'pack-effort', 'at once');
  await page.getByRole('button', { name: 'Pack the tile' }).click();
  await idle(page);
  await expect(page.locator('.notice')).toContainText('1 locked shell left as it is.');
  await page.getByText('Tiles: 2048 px').click();
  await page.getByRole('button', { name: 'Add tile 1002' }).click();
  await idle(page);
  await choose(page, 'pack-spread', 'evenly');
  await page.getByRole('button', { name: 'Pack 2 tiles' }).click();
  await idle(page);
  for (const row of await page.locator('.tiles li').allInnerTexts())
    expect(Number(/(\d+) % used/.exec(row)?.[1])).toBeGreaterThan(0);
  await expect(page.getByTestId('figure-overlaps')).toContainText('0');
});

test('shells are packed into a region that is drawn, tidied by key, and said to be tidy', async ({
  page,
}) => {
  await open(page);
  await choose(page, 'pack-effort', 'at once');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Draw a region' }).click();
  const [left, low] = await at(page, 'board', 0.3, 0.7);
  const [right, high] = await at(page, 'board', 0.7, 0.4);
  await page.mouse.move(left, low);
  await page.mouse.down();
  await page.mouse.move((left + right) / 2, (low + high) / 2);
  await page.mouse.move(right, high);
  await page.mouse.up();
  await page.getByRole('button', { name: 'Pack region' }).click();
  await idle(page);
  await expect(page.getByTestId('figure-overlaps')).toContainText('0');
  const inRegion = await used(page);
  await page.getByRole('button', { name: 'Whole tiles again' }).click();
  await page.getByRole('button', { name: 'Tidy the tile' }).click();
  await idle(page);
  await expect(page.locator('.notice')).toContainText('All lies clear and at one density already.');
  expect(await used(page)).toBe(inRegion);
  await page.getByRole('button', { name: 'Pack the tile' }).click();
  await idle(page);
  expect(await used(page)).toBeGreaterThan(2 * inRegion);
});

test('shells in the way of a full tile are named, and the cut that helps is a key away', async ({ page }) => {
  // A strip of thirty faces beside the plates.
  const strip = [0, 1].flatMap((v) =>
    Array.from(
      { length: 31 },
      (_, i) => `v ${3 * i} ${v} 9\nvt ${(0.02 + i / 40).toFixed(5)} ${0.9 + v / 90}`,
    ),
  );
  const first = 1 + 4 * 14;
  const faces = Array.from(
    { length: 30 },
    (_, i) => `f ${[i, i + 1, i + 32, i + 31].map((k) => `${first + k}/${first + k}`).join(' ')}`,
  );
  await openModel(page, 'strip.obj', [PLATES, ...strip, ...faces].join('\n'));
  await page.getByRole('button', { name: 'Keep UVs' }).click();
  await benchReady(page);
  await page.keyboard.press('4');
  const finding = page.getByRole('listitem').filter({ hasText: '1 shell in the way of a full tile' });
  await expect(finding).toContainText('with shell 15 cut in two', { timeout: 30_000 });
  await finding.getByRole('button', { name: 'Select that cut' }).click();
  await expect(page.locator('.notice')).toContainText('A cuts them');
  await page.keyboard.press('a');
  await idle(page);
  await expect(page.getByTestId('figure-shells')).toContainText('16');
});
