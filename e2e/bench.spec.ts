import { expect, type Page, test } from '@playwright/test';
import { at, benchReady, figure, idle, onPost, openModel, openRack, POST, RING } from './hands.ts';

/** A post whose ring is cut: a lower shell of five faces and an upper one. */
async function openCutPost(page: Page): Promise<void> {
  await openModel(page, 'post.obj', POST);
  await benchReady(page);
  const [x, y] = await onPost(page, RING);
  await page.mouse.dblclick(x, y);
  await expect(page.getByTestId('selection')).toHaveText('4 edges');
  await page.keyboard.press('a');
  await idle(page);
  expect(await figure(page, 'shells')).toBe('2');
}

test('sewing one edge of a ring joins the shells by a hinge, and undo parts them', async ({ page }) => {
  await openCutPost(page);
  const [x, y] = await onPost(page, RING);
  // One click, one edge of the ring: with a hinge sewn the post is one shell of two parts.
  await page.mouse.click(x, y);
  await expect(page.getByTestId('selection')).toHaveText('1 edge');
  await page.keyboard.press('Shift+A');
  await idle(page);
  expect(await figure(page, 'shells')).toBe('1');
  expect(await figure(page, 'flipped')).toBe('0');
  await expect(page.getByText('Sew 1 edge')).toBeVisible();

  await page.keyboard.press('Control+z');
  await idle(page);
  expect(await figure(page, 'shells')).toBe('2');
});

test('the Board, the Model and the table share one selection', async ({ page }) => {
  await openCutPost(page);
  await page.getByRole('button', { name: 'Frame the tile' }).click();
  await page.waitForTimeout(400);
  const [x, y] = await at(page, 'board', 0.3, 0.6);
  await page.mouse.move(x, y);
  await page.mouse.click(x, y);
  await expect(page.getByTestId('selection')).toHaveText(/^(1 edge|Nothing selected)$/);
  await page.keyboard.press('Escape');
  // Shells: the table, the Model and the Board share one selection.
  await page.keyboard.press('Shift+Q');
  await page.keyboard.press('Shift+Q');
  await page.locator('.details-table .ant-table-row').first().click();
  await expect(page.getByTestId('selection')).toHaveText('1 shell');
  await expect(page.locator('.row-chosen').first()).toBeVisible();
  const [mx, my] = await onPost(page, [0.5, 0.5, 0]);
  await page.mouse.click(mx, my);
  await expect(page.getByTestId('selection')).toHaveText('1 shell');
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('selection')).toHaveText('Nothing selected');
});

test('parts are hidden and shown, which can be undone', async ({ page }) => {
  await openRack(page);
  await page.getByRole('link', { name: /Gourd lantern/ }).click();
  await benchReady(page);
  await page.keyboard.press('1');
  await page.getByRole('button', { name: 'Hide Handle' }).click();
  await idle(page);
  await expect(page.getByRole('button', { name: 'Show Handle' })).toBeVisible();
  await expect(page.getByText('Hide 1 object')).toBeVisible();
  await page.keyboard.press('Control+z');
  await idle(page);
  await expect(page.getByRole('button', { name: 'Hide Handle' })).toBeVisible();
});

test('keys choose stage, overlay, checker and tool', async ({ page }) => {
  await openCutPost(page);
  for (const [key, name] of [
    ['3', 'Unfold'],
    ['4', 'Inspect'],
    ['2', 'Cut'],
  ]) {
    await page.keyboard.press(key);
    await expect(
      page.getByRole('button', { name: new RegExp(`^\\d? ?${name}`), expanded: true }),
    ).toBeVisible();
  }
  await page.keyboard.press('b');
  await expect(page.getByLabel('Area stretch', { exact: true })).toBeVisible();
  await page.keyboard.press('b');
  await expect(page.getByLabel('Angle stretch', { exact: true })).toBeVisible();
  await page.keyboard.press('b');
  await expect(page.locator('.legend')).toHaveCount(0);
  await page.keyboard.press('v');
  await expect(page.getByRole('switch', { name: 'Gingham checker' })).not.toBeChecked();
  await page.getByTestId('model').focus();
  await page.keyboard.press('Tab');
  await expect(page.getByTestId('board')).toBeFocused();
  await page.keyboard.press('Shift+Slash');
  await expect(page.getByRole('heading', { name: 'Keys' })).toBeVisible();
  await page.goBack();
  await benchReady(page);
  await page.keyboard.press('z');
  await expect(page.getByRole('button', { name: 'Pick with a box' })).toHaveAttribute('aria-pressed', 'true');
});

test('a figure of the strip selects what causes it', async ({ page }) => {
  await openCutPost(page);
  await page.getByTestId('figure-worst-stretch').click();
  await expect(page.getByTestId('selection')).toHaveText('1 shell');
  await expect(page.getByLabel('Area stretch', { exact: true })).toBeVisible();
  await page.getByTestId('figure-angle').click();
  await expect(page.getByLabel('Angle stretch', { exact: true })).toBeVisible();
  await page.getByTestId('figure-shells').click();
  await expect(page.getByTestId('selection')).toHaveText('2 shells');
});

test('the dark theme, the narrow Bench and what is not there', async ({ page }) => {
  await openCutPost(page);
  await page.getByRole('button', { name: 'Dark theme' }).click();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark');
  await page.getByRole('button', { name: 'Details', exact: true }).click();
  await expect(page.getByLabel('Details').getByText('Shells')).toHaveCount(0);
  await page.goto('/project/nowhere');
  await expect(page.getByRole('alert')).toContainText('not on the Rack any more');
  await page.goto('/elsewhere');
  await expect(page.getByRole('heading', { name: 'There is nothing here' })).toBeVisible();
});
