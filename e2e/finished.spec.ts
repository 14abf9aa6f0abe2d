import { expect, type Page } from '@playwright/test';
import { at, benchReady, figure, idle, openModel, POST } from './hands.ts';
import { test } from './test.ts';

/** What lies finished, and how much is put up with. */

/** The post with its lid cut off, both laid flat. */
async function twoShells(page: Page): Promise<void> {
  const uv = [
    'vt 0.1 0.1',
    'vt 0.4 0.1',
    'vt 0.4 0.4',
    'vt 0.1 0.4',
    'vt 0.55 0.55',
    'vt 0.85 0.55',
    'vt 0.85 0.85',
    'vt 0.55 0.85',
  ];
  const faces = ['f 1/1 2/2 3/3 4/4', 'f 5/5 6/6 7/7 8/8'];
  const points = POST.split('\n').filter((line) => line.startsWith('v '));
  await openModel(page, 'two.obj', `${[...points.slice(0, 8), ...uv, ...faces].join('\n')}\n`);
  await page.getByRole('button', { name: 'Keep UVs' }).click();
  await benchReady(page);
}

test('a finished shell is locked: what is meant for all leaves it alone and says so, what is meant for it is refused', async ({
  page,
}) => {
  await twoShells(page);
  await page.keyboard.press('5');
  const rows = page.locator('.details-table .ant-table-row');
  await rows.nth(0).click();
  const left = () =>
    page.getByRole('textbox', { name: 'Left, u' }).or(page.getByLabel('Left, u')).first().inputValue();
  const before = await left();
  await page.keyboard.press('o');
  await idle(page);
  await expect(rows.nth(0).getByLabel('Locked:')).toBeVisible();
  await expect(page.getByRole('button', { name: /^Unlock 1 shell/ })).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('s');
  await expect(page.getByText('This shell is locked, and stays as it is: unlock it first.')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Pack the tile' }).click();
  await idle(page);
  await expect(page.getByText(/1 locked shell left as it is/)).toBeVisible();
  await rows.nth(0).click();
  expect(await left()).toBe(before);
  // It is not taken along by the hand, and free again once it is unlocked.
  await page.keyboard.press('o');
  await idle(page);
  await expect(rows.nth(0).getByLabel('Locked:')).toHaveCount(0);
});

test('how far shells are dragged, and on what they would come to lie, is told meanwhile', async ({
  page,
}) => {
  await twoShells(page);
  await page.getByRole('radio', { name: 'Shells' }).locator('..').click();
  await page.locator('.details-table .ant-table-row').nth(0).click();
  const box = async (u: number, v: number) => {
    // The tile stands in the middle of the Board, as wide as the narrower side but for a rim.
    const pane = await page.getByTestId('board').boundingBox();
    if (!pane) throw new Error('no board');
    const side = 0.9 * Math.min(pane.width, pane.height);
    return [pane.x + pane.width / 2 + (u - 0.5) * side, pane.y + pane.height / 2 - (v - 0.5) * side] as const;
  };
  await page.mouse.move(...(await box(0.25, 0.25)));
  await page.mouse.down();
  await page.mouse.move(...(await box(0.3, 0.3)), { steps: 3 });
  await expect(page.getByText(/^Moved \d+, \d+ px of 2048 · \d+ px from 2$/)).toBeVisible();
  await page.mouse.move(...(await box(0.7, 0.7)), { steps: 3 });
  await expect(page.getByText(/on or too near to 2/)).toBeVisible();
  await page.mouse.up();
  await idle(page);
  await expect(page.getByText(/1 shell has come to lie on another/)).toBeVisible();
});

test('limits are set, judge shells anew, are taken back, and the list is filtered by state', async ({
  page,
}) => {
  await twoShells(page);
  await page.keyboard.press('4');
  const rows = page.locator('.details-table .ant-table-row');
  await expect(rows.filter({ hasText: 'Ready' })).toHaveCount(2);
  await page.getByText('Limits: as usual').click();
  const angle = page.getByLabel('Angle on average, up to');
  await angle.fill('0');
  await angle.press('Enter');
  await idle(page);
  await expect(page.getByText('Limits: your own')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByLabel('Limits', { exact: true }).click();
  await page.getByTitle('Clean', { exact: true }).click();
  await idle(page);
  await expect(page.getByText('Limits: clean')).toBeVisible();
  await page.locator('.ant-table-filter-trigger').click();
  await page.getByRole('menuitem', { name: 'Ready' }).click();
  await page.getByRole('button', { name: 'OK', exact: true }).click();
  await page.getByRole('button', { name: 'Select them' }).click();
  await expect(page.getByTestId('selection')).toHaveText('2 shells');
});

test('the details are drawn wider by hand and by keys, and stay so with the project', async ({ page }) => {
  await twoShells(page);
  const details = page.getByRole('complementary', { name: 'Details' });
  const width = async () => (await details.boundingBox())?.width ?? 0;
  const before = await width();
  const grip = page.getByRole('separator', { name: 'Width of the details' });
  await grip.focus();
  await grip.press('ArrowLeft');
  await expect.poll(width).toBeCloseTo(before + 20, -1);
  const box = await grip.boundingBox();
  if (!box) throw new Error('no grip');
  await page.mouse.move(box.x + 3, box.y + 200);
  await page.mouse.down();
  await page.mouse.move(box.x - 117, box.y + 200, { steps: 4 });
  await page.mouse.up();
  await expect.poll(width).toBeGreaterThan(before + 100);
  // More of the list is seen.
  await expect(details.getByRole('columnheader', { name: 'Worst' })).toBeVisible();
  await page.mouse.move(...(await at(page, 'model', 0.5, 0.5)));
  const wide = await width();
  await page.waitForTimeout(1500);
  await page.reload();
  await benchReady(page);
  await expect.poll(width).toBeCloseTo(wide, -1);
  expect(await figure(page, 'shells')).toBe('2');
});
