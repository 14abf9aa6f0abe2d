import { expect, type Page } from '@playwright/test';
import { benchReady, figure, idle, marked, onPost, openModel, POST, RING } from './hands.ts';
import { test } from './test.ts';

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

test('the Board, the Model and the table share one selection', async ({ page }) => {
  await openCutPost(page);
  await page.getByRole('button', { name: 'Frame the tile' }).click();
  // Shells: what is chosen in the table is framed on the Board and hatched on the Model.
  await page.keyboard.press('Shift+Q');
  await page.keyboard.press('Shift+Q');
  await page.locator('.details-table .ant-table-row').first().click();
  await expect(page.getByTestId('selection')).toHaveText('1 shell');
  await expect(page.locator('.row-chosen').first()).toBeVisible();
  expect(await marked(page, 'model')).toBeGreaterThan(200);
  const frame = await page.locator('.frame').boundingBox();
  if (!frame) throw new Error('There is no frame.');
  // The handles go with the view.
  const handles = () => page.locator('.frame').boundingBox();
  await page.keyboard.press('f');
  await expect.poll(async () => ((await handles())?.width ?? 0) / frame.width).toBeGreaterThan(1.2);
  await page.getByRole('button', { name: 'Frame the tile' }).click();
  await expect.poll(handles).toEqual(frame);
  await page.keyboard.press('Escape');
  expect(await marked(page, 'model')).toBe(0);
  // In the middle of that shell a click picks the shell again, and an edge where edges are picked.
  const middle = [frame.x + frame.width / 2, frame.y + frame.height / 2] as const;
  await page.mouse.click(...middle);
  await expect(page.getByTestId('selection')).toHaveText('1 shell');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Shift+Q');
  await page.mouse.click(...middle);
  await expect(page.getByTestId('selection')).toHaveText('1 point');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Shift+Q');
  await page.mouse.click(...middle);
  await expect(page.getByTestId('selection')).toHaveText('1 edge');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Shift+Q');
  await page.keyboard.press('Shift+Q');
  const [mx, my] = await onPost(page, [0.5, 0.5, 0]);
  await page.mouse.click(mx, my);
  await expect(page.getByTestId('selection')).toHaveText('1 shell');
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('selection')).toHaveText('Nothing selected');
});

test('an edge that is pointed at lights up in both panes, and a cut is shown before it is made', async ({
  page,
}) => {
  await openCutPost(page);
  await page.getByRole('button', { name: 'Frame the tile' }).click();
  await page.mouse.move(5, 400);
  expect([await marked(page, 'model'), await marked(page, 'board')]).toEqual([0, 0]);
  // What a double click would take is told and drawn before: here the seam, all round.
  const one = await marked(page, 'board');
  await page.mouse.move(...(await onPost(page, RING)));
  await expect(page.getByText('A double-click here takes 4 edges.')).toBeVisible();
  await expect.poll(() => marked(page, 'board')).toBeGreaterThan(one + 40);
  await page.mouse.move(5, 400);
  await expect.poll(() => marked(page, 'board')).toBe(0);
  // An upright edge in front, above the ring: cutting it opens the upper shell.
  const [x, y] = await onPost(page, [1, 1.5, 0]);
  await page.mouse.move(x, y);
  await expect.poll(() => marked(page, 'model')).toBeGreaterThan(20);
  expect(await marked(page, 'board')).toBeGreaterThan(20);
  const before = [await figure(page, 'shells'), await figure(page, 'stretch-l2')];
  await page.mouse.click(x, y);
  await expect(page.getByText(/^This cut: one shell, L2 \d/)).toBeVisible();
  const predicted = Number((await page.getByText(/^This cut:/).textContent())?.match(/L2 ([\d.]+)/)?.[1]);
  // Nothing was done yet.
  expect([await figure(page, 'shells'), await figure(page, 'stretch-l2')]).toEqual(before);
  await expect(page.getByText('Cut 4 edges')).toBeVisible();
  // Where nothing is cut, nothing is shown of a cut.
  await page.keyboard.press('5');
  await expect(page.getByText(/^This cut/)).toBeHidden();
  await page.keyboard.press('2');
  await expect(page.getByText(/^This cut/)).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByText(/^This cut/)).toBeHidden();
  await page.mouse.click(x, y);
  await page.keyboard.press('a');
  await idle(page);
  await expect(page.getByText(/^This cut/)).toBeHidden();
  const table = await page.locator('.details-table .ant-table-row').allTextContents();
  expect(table.some((row) => row.includes(predicted.toFixed(3)))).toBe(true);
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
  await expect(page.getByLabel('Length stretch', { exact: true })).toBeVisible();
  await page.keyboard.press('b');
  await expect(page.getByLabel('Direction of stretch', { exact: true })).toBeVisible();
  await page.keyboard.press('b');
  await expect(page.getByLabel('Texture scale', { exact: true })).toBeVisible();
  await page.keyboard.press('b');
  await expect(page.getByLabel('How much is seen', { exact: true })).toBeVisible();
  await page.keyboard.press('b');
  await expect(page.locator('.legend')).toHaveCount(0);
  await page.keyboard.press('v');
  await expect(page.locator('.pane-bar').getByRole('button', { name: 'Which checker' })).toHaveAttribute(
    'aria-pressed',
    'false',
  );
  await page.getByTestId('model').focus();
  await page.keyboard.press('Tab');
  await expect(page.getByTestId('board')).toBeFocused();
  await page.keyboard.press('Shift+Slash');
  await expect(page.getByRole('heading', { name: 'Keys' })).toBeVisible();
  await page.keyboard.press('Escape');
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

test('keys work after a click on any control, and not while text is typed', async ({ page }) => {
  await openModel(page, 'post.obj', POST);
  await benchReady(page);
  const controls = page.locator(
    '.bench button:visible:not([disabled]), .bench .ant-segmented-item:visible, .bench .ant-switch:visible, .bench [role=slider]:visible',
  );
  const [x, y] = await onPost(page, RING);
  await page.mouse.dblclick(x, y);
  await page.keyboard.press('a');
  await idle(page);
  for (const name of ['Faces', 'Shells', 'Edges']) {
    await page.locator('.ant-segmented-item', { hasText: new RegExp(`^${name}$`) }).click();
    await page.keyboard.press('d');
    await idle(page);
    await expect(page.locator('.bench-last')).toHaveText(/^Relax/);
    await page.keyboard.press('Control+z');
    await idle(page);
    await expect(page.locator('.bench-last')).toHaveText(/^Cut/);
  }
  expect(await controls.count()).toBeGreaterThan(10);
  // Whatever has the focus: a button of a bar, a slider.
  await page.getByRole('button', { name: 'Board: more settings' }).click();
  for (const control of [
    page.getByRole('button', { name: 'Which checker' }),
    page.getByRole('combobox', { name: 'Overlay' }),
    page.getByRole('slider').first(),
  ]) {
    await control.focus();
    await page.keyboard.press('d');
    await idle(page);
    await expect(page.locator('.bench-last')).toHaveText(/^Relax/);
    await page.keyboard.press('Control+z');
    await idle(page);
  }
  // Figures that are typed are typed.
  await page.keyboard.press('5');
  const field = page.getByRole('spinbutton').first();
  await field.click();
  await field.press('Control+a');
  await page.keyboard.type('12');
  await expect(field).toHaveValue('12');
  await expect(page.locator('.rail-stage[data-open="true"] .rail-number')).toHaveText('5');
});

test('overlaps are dots where they are, and a click on the figure selects their faces', async ({ page }) => {
  // Two squares whose UVs lie on each other by a half.
  const text = `v 0 0 0\nv 1 0 0\nv 1 1 0\nv 0 1 0\nv 3 0 0\nv 4 0 0\nv 4 1 0\nv 3 1 0
vt 0.1 0.1\nvt 0.5 0.1\nvt 0.5 0.5\nvt 0.1 0.5\nvt 0.3 0.1\nvt 0.7 0.1\nvt 0.7 0.5\nvt 0.3 0.5
f 1/1 2/2 3/3 4/4\nf 5/5 6/6 7/7 8/8\n`;
  await openModel(page, 'pair.obj', text);
  await page.getByRole('button', { name: 'Keep UVs' }).click();
  await benchReady(page);
  expect(await figure(page, 'overlaps')).toBe('1');
  // 0.4 × 0.6 of the tile, although the areas add up to 0.32.
  expect(await figure(page, 'tile-use')).toBe('24 %');
  await expect(page.locator('.state').first()).toHaveText('On another');
  await page.getByTestId('figure-overlaps').click();
  await expect(page.getByTestId('selection')).toHaveText('2 faces');
  await expect(page.locator('.ant-segmented-item-selected', { hasText: 'Faces' })).toBeVisible();
  await page.keyboard.press('6');
  await expect(page.getByText('1 pair of shells on each other')).toBeVisible();
});

test('the best single cut is told for what stretches most, selected, made, and brings what was told', async ({
  page,
}) => {
  // A sleeve, open at both ends: as a ring it stretches, slit along one side it is a rectangle.
  const [rings, sectors] = [12, 8];
  const lines: string[] = [];
  const id = (i: number, j: number) => i * sectors + (j % sectors) + 1;
  for (let i = 0; i <= rings; i++) {
    for (let j = 0; j < sectors; j++) {
      const angle = (2 * Math.PI * j) / sectors;
      lines.push(`v ${Math.cos(angle)} ${i} ${-Math.sin(angle)}`);
      if (i < rings) lines.push(`f ${id(i, j)} ${id(i, j + 1)} ${id(i + 1, j + 1)} ${id(i + 1, j)}`);
    }
  }
  lines.sort((a, b) => (a[0] < b[0] ? 1 : a[0] > b[0] ? -1 : 0));
  await openModel(page, 'sleeve.obj', `${lines.join('\n')}\n`);
  await benchReady(page);
  await page.keyboard.press('s');
  await idle(page);
  await expect(page.getByText('Most stretched')).toBeVisible();
  await expect(page.getByText(/L2 1\.00, angle 0\.0° with 12 edges/)).toBeVisible();
  await page.getByRole('button', { name: 'Select them' }).click();
  await expect(page.getByTestId('selection')).toHaveText('12 edges');
  await page.keyboard.press('a');
  await idle(page);
  await expect(page.getByTestId('figure-stretch-l2')).toContainText('1.0000');
  await expect(page.getByText('Most stretched')).toBeHidden();
  await expect(page.locator('.state').first()).toHaveText('Ready');
});

test('Help opens over the Bench and closes back to it; an act that changes nothing says why', async ({
  page,
}) => {
  await openCutPost(page);
  const { pathname } = new URL(page.url());
  await page.getByRole('button', { name: 'Help' }).click();
  const help = page.getByRole('dialog', { name: 'Help' });
  await expect(help.getByText('Ten minutes with the toad')).toBeVisible();
  // Keys are not for the Bench under it.
  await page.keyboard.press('5');
  await page.keyboard.press('Escape');
  await expect(help).toHaveCount(0);
  expect(new URL(page.url()).pathname).toBe(pathname);
  await expect(page.locator('.rail-stage[data-open="true"] .rail-number')).toHaveText('2');
  await page.keyboard.press('Shift+Slash');
  await expect(help).toBeVisible();
  await page.keyboard.press('Shift+Slash');
  await expect(help).toBeHidden();
  const [x, y] = await onPost(page, RING);
  await page.mouse.dblclick(x, y);
  await expect(page.getByTestId('selection')).toHaveText('4 edges');
  await page.keyboard.press('a');
  await expect(page.getByRole('status').filter({ hasText: 'these edges are seams already' })).toBeVisible();
});
