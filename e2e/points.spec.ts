import { expect } from '@playwright/test';
import { figure, hills, idle, unfolded } from './hands.ts';
import { test } from './test.ts';

test('points are picked by click, box and keys, grown, and pinned all at once', async ({ page }) => {
  await unfolded(page, hills(12));
  const l2 = await figure(page, 'stretch-l2');
  await page.getByText('Points', { exact: true }).click();
  const board = await page.getByTestId('board').boundingBox();
  if (!board) throw new Error('no board');
  const [x, y] = [board.x + board.width / 2, board.y + board.height / 2];
  const selection = page.getByTestId('selection');
  // A click takes the nearest point, a double click all of its shell.
  await page.mouse.click(x, y);
  await expect(selection).toHaveText('1 point');
  await page.mouse.dblclick(x, y);
  await expect(selection).toHaveText('169 points');
  await page.keyboard.press('Escape');
  await expect(selection).toHaveText('Nothing selected');
  // By keys: to the middle, one on, and Enter.
  await page.getByTestId('board').focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  await expect(selection).toHaveText('1 point');
  // Grown it has four more round it; in a box on the Board there are all.
  await page.keyboard.press('2');
  await page.getByText('What is picked', { exact: true }).click();
  await page.getByRole('button', { name: 'Grow', exact: true }).click();
  await expect(selection).toHaveText('5 points');
  await page.keyboard.press('3');
  await expect(page.getByRole('button', { name: /Pin 5 points/ })).toBeVisible();
  await page.keyboard.press('Shift+P');
  await idle(page);
  await expect(page.getByRole('button', { name: /Let 5 go/ })).toBeVisible();
  // What is pinned stays where it is while the rest relaxes; let go, all is as it was.
  await page.keyboard.press('Shift+P');
  await idle(page);
  await expect(page.getByRole('button', { name: /Pin 5 points/ })).toBeVisible();
  expect((await figure(page, 'stretch-l2')).split('→').pop()?.trim()).toBe(l2.split('→').pop()?.trim());
});
