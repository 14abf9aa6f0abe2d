import { readFileSync } from 'node:fs';
import { expect, type Page } from '@playwright/test';
import { at, benchReady, dome, figure, idle, marked, nearestMarked, openModel } from './hands.ts';
import { test } from './test.ts';

/** A ball of triangles pushed about, mirrored in x = 0: a sculpt without loops. */
function sculpt(rings = 28, sectors = 36): string {
  const lines: string[] = ['v 0 1.3 0'];
  for (let i = 1; i < rings; i++) {
    for (let j = 0; j < sectors; j++) {
      const [a, b] = [(Math.PI * i) / rings, (2 * Math.PI * j) / sectors];
      const [x, y, z] = [Math.sin(a) * Math.sin(b), Math.cos(a), Math.sin(a) * Math.cos(b)];
      const r = 1.3 + 0.12 * Math.sin(5 * y) + 0.3 * Math.max(0, z) ** 6;
      lines.push(`v ${r * x} ${r * y} ${r * z}`);
    }
  }
  lines.push('v 0 -1.3 0');
  const last = lines.length;
  const id = (i: number, j: number) => 2 + (i - 1) * sectors + ((j + sectors) % sectors);
  for (let j = 0; j < sectors; j++) {
    lines.push(`f 1 ${id(1, j)} ${id(1, j + 1)}`, `f ${last} ${id(rings - 1, j + 1)} ${id(rings - 1, j)}`);
    for (let i = 1; i + 1 < rings; i++) {
      const [p, q, r, s] = [id(i, j), id(i + 1, j), id(i + 1, j + 1), id(i, j + 1)];
      // Diagonals mirrored as well.
      lines.push(
        ...(j < sectors / 2
          ? [`f ${p} ${q} ${r}`, `f ${p} ${r} ${s}`]
          : [`f ${p} ${q} ${s}`, `f ${q} ${r} ${s}`]),
      );
    }
  }
  return `${lines.join('\n')}\n`;
}

const edgesPicked = async (page: Page): Promise<number> =>
  Number(
    /([\d,]+) edge/.exec((await page.getByTestId('selection').textContent()) ?? '')?.[1].replace(',', '') ??
      0,
  );

test('a route is drawn point by point, shown before it is taken, taken back, ended and cut', async ({
  page,
}) => {
  await openModel(page, 'sculpt.obj', sculpt());
  await benchReady(page);
  await page.keyboard.press('w');
  await expect(page.getByRole('button', { name: /Route/ })).toHaveAttribute('aria-pressed', 'true');
  await page.mouse.click(...(await at(page, 'model', 0.4, 0.4)));
  await page.mouse.move(...(await at(page, 'model', 0.55, 0.45)));
  await expect.poll(() => marked(page, 'model')).toBeGreaterThan(60);
  await page.mouse.click(...(await at(page, 'model', 0.6, 0.45)));
  await page.mouse.move(...(await at(page, 'model', 0.6, 0.62)));
  await page.mouse.click(...(await at(page, 'model', 0.6, 0.62)));
  await page.keyboard.press('Enter');
  await expect.poll(() => edgesPicked(page)).toBeGreaterThan(6);
  const all = await edgesPicked(page);
  // The same with one point taken back is shorter.
  await page.keyboard.press('Escape');
  for (const [x, y] of [
    [0.4, 0.4],
    [0.6, 0.45],
    [0.6, 0.62],
  ] as const) {
    await page.mouse.click(...(await at(page, 'model', x, y)));
    await page.waitForTimeout(350); // two clicks in one place would be a double click
  }
  await page.keyboard.press('Backspace');
  await page.keyboard.press('Enter');
  await expect.poll(() => edgesPicked(page)).toBeGreaterThan(0);
  expect(await edgesPicked(page)).toBeLessThan(all);
  await page.keyboard.press('a');
  await idle(page);
  await expect(page.locator('header')).toContainText(/Cut \d+ edges?/);
});

test('five clicks part a face of a sculpt of 20 000 triangles, and a stroke is followed', async ({
  page,
}) => {
  await openModel(page, 'sculpt.obj', sculpt(100, 102));
  await benchReady(page);
  await page.keyboard.press('w');
  for (const [x, y] of [
    [0.42, 0.42],
    [0.58, 0.42],
    [0.58, 0.56],
    [0.42, 0.56],
    [0.42, 0.42],
  ] as const) {
    await page.mouse.click(...(await at(page, 'model', x, y)));
    await page.waitForTimeout(400);
  }
  await expect.poll(() => edgesPicked(page)).toBeGreaterThan(8);
  await page.keyboard.press('a');
  await idle(page);
  expect(await figure(page, 'shells')).toBe('2');
  // With Ctrl held the hand draws; without it, it would turn the view.
  await page.keyboard.down('Control');
  await page.mouse.move(...(await at(page, 'model', 0.35, 0.62)));
  await page.mouse.down();
  for (let k = 1; k <= 8; k++)
    await page.mouse.move(...(await at(page, 'model', 0.35 + 0.035 * k, 0.62 + 0.02 * Math.sin(k))));
  await page.mouse.up();
  await page.keyboard.up('Control');
  await page.waitForTimeout(600);
  await page.keyboard.press('Enter');
  await expect.poll(() => edgesPicked(page)).toBeGreaterThan(3);
});

test('symmetry takes the counterpart of every pick along, and is off where nothing is symmetric', async ({
  page,
}) => {
  await openModel(page, 'sculpt.obj', sculpt());
  await benchReady(page);
  await page.getByText('Symmetry', { exact: true }).click();
  await page.getByRole('combobox', { name: 'Symmetry' }).click();
  await page.getByTitle('Mirror plane, found').click();
  await expect(page.getByText('Mirrored across x. Every edge has its counterpart.')).toBeVisible();
  await page.mouse.click(...(await at(page, 'model', 0.62, 0.5)));
  await expect(page.getByTestId('selection')).toHaveText('2 edges');
  await page.getByRole('combobox', { name: 'Symmetry' }).click();
  await page.getByTitle('Mirror across y = 0').click();
  await expect(page.getByText(/The surface itself is not mirrored across y = 0/)).toBeVisible();
});

test('what is picked grows, shrinks, and gives its border; an outline and a brush pick on the Model', async ({
  page,
}) => {
  await openModel(page, 'sculpt.obj', sculpt());
  await benchReady(page);
  await page.getByRole('radio', { name: 'Faces' }).locator('..').click();
  await page.mouse.click(...(await at(page, 'model', 0.5, 0.5)));
  await expect(page.getByTestId('selection')).toHaveText('1 face');
  await page.getByText('What is picked').click();
  await page.getByRole('button', { name: 'Grow' }).click();
  await expect(page.getByTestId('selection')).not.toHaveText('1 face');
  await page.getByRole('button', { name: 'Shrink' }).click();
  await expect(page.getByTestId('selection')).toHaveText('1 face');
  await page.getByRole('button', { name: 'Border of the faces' }).click();
  await expect(page.getByTestId('selection')).toHaveText('3 edges');

  await page.keyboard.press('Escape');
  await page.keyboard.press('l');
  await page.mouse.move(...(await at(page, 'model', 0.3, 0.4)));
  await page.mouse.down();
  for (const [x, y] of [
    [0.7, 0.4],
    [0.7, 0.65],
    [0.3, 0.65],
  ] as const)
    await page.mouse.move(...(await at(page, 'model', x, y)), { steps: 5 });
  await page.mouse.up();
  await expect.poll(() => edgesPicked(page)).toBeGreaterThan(10);

  await page.keyboard.press('Escape');
  await page.getByRole('radio', { name: 'Faces' }).locator('..').click();
  await page.keyboard.press('t');
  await page.mouse.move(...(await at(page, 'model', 0.45, 0.5)));
  await page.mouse.down();
  for (let k = 0; k < 6; k++) await page.mouse.move(...(await at(page, 'model', 0.45 + 0.02 * k, 0.5)));
  await page.mouse.up();
  await expect(page.getByTestId('selection')).toHaveText(/\d+ faces/);
});

test('seams are proposed with what would come of them, cut in part, and the rest discarded', async ({
  page,
}) => {
  await openModel(page, 'sculpt.obj', sculpt(20, 26));
  await benchReady(page);
  await page.getByText('Proposed seams').click();
  await page.getByRole('button', { name: 'Propose seams for all' }).click();
  await expect(page.getByRole('table', { name: 'What is proposed' })).toContainText(/Worst L2\s*1\.0\d\d/);
  await expect.poll(() => marked(page, 'model')).toBeGreaterThan(40);
  expect(await figure(page, 'shells')).toBe('1');
  await page.getByRole('button', { name: 'Cut it out' }).first().click();
  await idle(page);
  await expect
    .poll(async () => Number(/\d+$/.exec(await figure(page, 'shells'))?.[0]))
    .toBeGreaterThanOrEqual(1);
  const rest = page.locator('.cut-details').getByRole('button', { name: /^Cut \d+ edges/ });
  if (await rest.isVisible()) {
    await rest.click();
    await idle(page);
  }
  await expect(page.getByTestId('figure-overlaps')).toContainText('0');
  await expect(page.getByRole('button', { name: 'Propose seams for all' })).toBeVisible();
});

test('about as many shells as are wished for are proposed, seen in the flat before they are cut', async ({
  page,
}) => {
  await openModel(page, 'sculpt.obj', sculpt(20, 26));
  await benchReady(page);
  await page.getByText('Proposed seams').click();
  await page.getByLabel('Cut limbs off where they join the body').check();
  await page.getByLabel('About so many shells').fill('3');
  await page.getByRole('button', { name: 'Propose seams for all' }).click();
  await expect(page.getByRole('table', { name: 'What is proposed' })).toContainText(/Shells\s*3/);
  // The ghost is of the cut alone, which relaxing makes better: that is said, and no card lies over it.
  await expect(page.getByText(/^This cut, relaxed: 3 shells/)).toBeVisible();
  await expect(page.getByText('Nothing lies flat yet')).toHaveCount(0);
  await page
    .locator('.cut-details')
    .getByRole('button', { name: /^Cut \d+ edges/ })
    .click();
  await idle(page);
  expect(await figure(page, 'shells')).toMatch(/3$/);
  expect(await figure(page, 'flipped')).toBe('0');
});

test('seams by rule are counted while the angle is set, and what is seen is an overlay', async ({ page }) => {
  await openModel(page, 'dome.obj', dome(8, 12));
  await benchReady(page);
  await page.getByText('Seams by rule').click();
  await expect(page.getByRole('button', { name: 'No edge that is not cut already' })).toBeVisible();
  const angle = page.getByRole('slider', { name: 'Angle, degrees' });
  await angle.focus();
  await angle.press('Home');
  await expect(page.getByRole('button', { name: /Select \d+ edges/ })).toBeVisible();
  await page.getByRole('button', { name: /Select \d+ edges/ }).click();
  expect(await edgesPicked(page)).toBeGreaterThan(10);
  await page.keyboard.press('Escape');
  await page.getByLabel('Overlay').click();
  await page.getByTitle('How much is seen').click();
  await expect(page.getByLabel('How much is seen')).toBeVisible();
});

test('a dart from the place that is clicked is tried, selected, cut, and brings what was told', async ({
  page,
}) => {
  await openModel(page, 'dome.obj', dome(12, 16, 1.9));
  await benchReady(page);
  await page.keyboard.press('s');
  await idle(page);
  const before = Number((await figure(page, 'stretch-l2')).replace(/^.*→\s*/, ''));
  await page.keyboard.press('e');
  await expect(page.getByText('Click where the texture pulls.')).toBeVisible();
  await page.mouse.click(...(await at(page, 'model', 0.5, 0.42)));
  await expect(page.locator('.dart-list li').first()).toHaveText(/\d+ edges?, L2 1\.\d\d/);
  expect(await edgesPicked(page)).toBeGreaterThan(2);
  const told = Number(
    /L2 ([\d.]+)/.exec((await page.locator('.dart-list li').first().textContent()) ?? '')?.[1],
  );
  expect(told).toBeLessThan(before);
  await page.keyboard.press('a');
  await idle(page);
  expect(await figure(page, 'shells')).toBe('1');
  const after = Number((await figure(page, 'stretch-l2')).replace(/^.*→\s*/, ''));
  expect(Math.abs(after - told)).toBeLessThan(0.02);
});

test('pieces of the same shape are found, and what was done to one is carried to the others', async ({
  page,
}) => {
  const lantern = readFileSync(new URL('../packages/app/public/demo/gourd-lantern.obj', import.meta.url));
  await openModel(page, 'gourd-lantern.obj', lantern);
  await benchReady(page);
  await page.keyboard.press('s');
  await idle(page);
  await page.getByText('Copies', { exact: true }).click();
  await expect(page.getByText('14 × 48 faces')).toBeVisible();
  await page.getByRole('button', { name: 'Carry seams and UVs from the selected piece' }).click();
  await expect(
    page.getByText('Pick a face or a shell of the piece that the others shall be like.'),
  ).toBeVisible();
  await page.locator('.copies').getByRole('button', { name: 'Select them' }).first().click();
  await expect(page.getByTestId('selection')).toHaveText('672 faces');
  await page.getByRole('button', { name: 'Carry seams and UVs from the selected piece' }).click();
  await idle(page);
  await expect(page.getByText('Carried to 13 pieces of the same shape.')).toBeVisible();
  expect(await figure(page, 'flipped')).toBe('0');
});

test('patches are painted on both sides of the mirror, named, undone and cut out', async ({ page }) => {
  await openModel(page, 'sculpt.obj', sculpt());
  await benchReady(page);
  await page.getByText('Symmetry', { exact: true }).click();
  await page.getByRole('combobox', { name: 'Symmetry' }).click();
  await page.getByTitle('Mirror plane, found').click();
  await expect(page.getByText('Mirrored across x. Every edge has its counterpart.')).toBeVisible();
  await page.locator('.ant-collapse-title', { hasText: 'Patches' }).click();
  await page.getByRole('button', { name: 'Paint a new patch' }).click();
  const stroke = async (x: number, y: number): Promise<void> => {
    await page.mouse.move(...(await at(page, 'model', x, y)));
    await page.mouse.down();
    await page.mouse.move(...(await at(page, 'model', x + 0.03, y + 0.02)), { steps: 4 });
    await page.mouse.up();
    await idle(page);
  };
  const faces = async (): Promise<number> =>
    Number(await page.locator('.patches li > span:not([class])').textContent());
  await stroke(0.66, 0.48);
  await expect(page.locator('.patches li')).toHaveCount(1);
  const first = await faces();
  expect(first).toBeGreaterThan(4);
  expect(first % 2).toBe(0);
  // The brush goes on with the patch it began; Alt takes away.
  await stroke(0.66, 0.54);
  const more = await faces();
  expect(more).toBeGreaterThan(first);
  await page.keyboard.down('Alt');
  await stroke(0.66, 0.54);
  await page.keyboard.up('Alt');
  expect(await faces()).toBeLessThan(more);
  await page.keyboard.press('Control+z');
  await idle(page);
  expect(await faces()).toBe(more);
  await page.getByRole('button', { name: 'Select their borders' }).click();
  await expect.poll(() => edgesPicked(page)).toBeGreaterThan(8);
  await page.keyboard.press('a');
  await idle(page);
  // One on either side, and what is left.
  expect(await figure(page, 'shells')).toBe('3');
});

test('a seam is dragged to another place, and moved on by rows', async ({ page }) => {
  await openModel(page, 'dome.obj', dome(16, 32));
  await benchReady(page);
  const middle = await at(page, 'model', 0.5, 0.6);
  await page.mouse.dblclick(...middle);
  await expect.poll(() => edgesPicked(page)).toBeGreaterThan(8);
  // Away from the panes, where nothing is pointed at that would be marked as well.
  await page.mouse.move(600, 20);
  await page.waitForTimeout(200);
  const [x, y] = await nearestMarked(page, 'model', ...middle);
  await page.keyboard.press('a');
  await idle(page);
  const shells = await figure(page, 'shells');
  await page.keyboard.press('Escape');
  await page.keyboard.press('r');
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 84, y + 8, { steps: 6 });
  await expect(page.getByText(/faces change sides\.$/)).toBeVisible();
  await page.mouse.up();
  await idle(page);
  await expect(page.locator('header')).toContainText(/Shift a seam of \d+ edges/);
  expect(await figure(page, 'shells')).toBe(shells);
  // It stays selected where it is now, to be moved on.
  expect(await edgesPicked(page)).toBeGreaterThan(8);
  await page.getByRole('button', { name: 'One row back' }).click();
  await idle(page);
  expect(await figure(page, 'flipped')).toBe('0');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await idle(page);
  await expect(page.locator('header')).toContainText(/Cut \d+ edges/);
});
