import { expect } from '@playwright/test';
import { decode } from 'fast-png';
import { at, benchReady, dome, drawn, figure, fromMenu, hills, idle, openModel, unfolded } from './hands.ts';
import { test } from './test.ts';

test('the checker is chosen; numbers that are mirrored read mirrored; no image is told as such', async ({
  page,
}) => {
  await unfolded(page, hills(2).replaceAll(/^(v \S+ \S+) .*$/gm, '$1 0'));
  await fromMenu(page, 'Which checker', 'Own image');
  await expect(page.getByText(/Drop an image on a pane/)).toBeVisible();
  await fromMenu(page, 'Which checker', 'Numbered squares');
  await page.getByRole('button', { name: 'Look from' }).click();
  await page.getByRole('menuitem', { name: 'Front' }).click();
  await page.keyboard.press('Escape');
  const seen = async () => {
    await drawn(page);
    await page.waitForTimeout(600);
    const { data, channels, width, height } = decode(await page.getByTestId('model').screenshot());
    // The middle of the sheet, as brightness.
    const [w, h] = [Math.floor(width * 0.5), Math.floor(height * 0.2)];
    const [left, top] = [Math.floor((width - w) / 2), Math.floor((height - h) / 2)];
    return Array.from({ length: h }, (_, y) =>
      Array.from({ length: w }, (_, x) => Number(data[channels * ((top + y) * width + left + x)])),
    );
  };
  const alike = (a: number[][], b: number[][]) => {
    const [p, q] = [a.flat(), b.flat()];
    const mean = (list: number[]) => list.reduce((sum, x) => sum + x, 0) / list.length;
    const [mp, mq] = [mean(p), mean(q)];
    const sum = (f: (i: number) => number) => p.reduce((total, _, i) => total + f(i), 0);
    return (
      sum((i) => (p[i] - mp) * (q[i] - mq)) /
      Math.sqrt(sum((i) => (p[i] - mp) ** 2) * sum((i) => (q[i] - mq) ** 2))
    );
  };
  const before = await seen();
  await page.getByText('Shells', { exact: true }).first().click();
  await page.mouse.click(...(await at(page, 'board', 0.5, 0.5)));
  await page.keyboard.press('5');
  await page.getByRole('button', { name: 'Mirror', exact: true }).click();
  await idle(page);
  await page.mouse.move(...(await at(page, 'board', 0.02, 0.02)));
  await page.keyboard.press('Escape');
  const after = await seen();
  const turned = before.map((row) => [...row].reverse());
  expect(alike(after, turned)).toBeGreaterThan(0.8);
  expect(alike(after, turned)).toBeGreaterThan(alike(after, before) + 0.2);
  const more = page.getByRole('button', { name: 'Board: more settings' });
  if (await more.isVisible()) await more.click();
  await page
    .getByLabel('Own image')
    .setInputFiles({ name: 'notes.png', mimeType: 'image/png', buffer: Buffer.from('no image at all') });
  await expect(page.getByText(/notes\.png could not be shown: it is no image/)).toBeVisible();
});

test('stretch is read at a face, drawn as ellipses, stepped through by worst places and selected by range', async ({
  page,
}) => {
  await unfolded(page, dome(16, 24));
  await page.keyboard.press('4');
  await page.getByRole('button', { name: 'Area stretch' }).click();
  await page.mouse.move(...(await at(page, 'model', 0.5, 0.5)));
  await expect(
    page.locator('.legend-reading').getByText(/^Texture .* texel \d+ × \d+ of 2048/),
  ).toBeVisible();
  // The ends of the map are drawn in, by keys and by the hand.
  const ends = page.getByRole('slider', { name: 'How far the ends of the map are out' });
  await ends.focus();
  for (let i = 0; i < 4; i++) await ends.press('ArrowRight');
  await expect(ends.getByText('stretched ×1.4')).toBeVisible();
  await ends.dblclick();
  await expect(ends.getByText('stretched ×2')).toBeVisible();
  const before = await page.getByTestId('board').screenshot();
  await page.keyboard.press('k');
  await expect(page.getByRole('button', { name: 'Ellipses' })).toHaveAttribute('aria-pressed', 'true');
  await expect.poll(async () => (await page.getByTestId('board').screenshot()).equals(before)).toBe(false);
  await page.keyboard.press('n');
  await expect(page.getByText(/Worst place 1 of \d+: .* × too (little|much) room/)).toBeVisible();
  // It is shown, and not selected.
  await expect(page.getByTestId('selection')).toHaveText('Nothing selected');
  await page.keyboard.press('n');
  await expect(page.getByText(/Worst place 2 of \d+/)).toBeVisible();
  const from = page.getByRole('slider', { name: 'Range from' });
  await from.focus();
  for (let i = 0; i < 60; i++) await from.press('ArrowRight');
  await page.getByRole('button', { name: 'Select the faces of this range' }).click();
  await expect(page.getByText(/\d+ faces of that range selected/)).toBeVisible();
});

/** Three quads with UVs of their own: two on each other, the third mirrored. */
const FAULTY = `${[0, 2, 4]
  .flatMap((x) => [`v ${x} 0 0`, `v ${x + 1} 0 0`, `v ${x + 1} 1 0`, `v ${x} 1 0`])
  .join('\n')}
${[
  [0.1, 0.1, 0.3],
  [0.2, 0.2, 0.4],
  [0.9, 0.1, 0.7],
]
  .flatMap(([a, v, b]) => [`vt ${a} ${v}`, `vt ${b} ${v}`, `vt ${b} ${v + 0.2}`, `vt ${a} ${v + 0.2}`])
  .join('\n')}
f 1/1 2/2 3/3 4/4
f 5/5 6/6 7/7 8/8
f 9/9 10/10 11/11 12/12
`;

test('findings are shown where they are, their remedies help, and one undo takes each back', async ({
  page,
}) => {
  await openModel(page, 'faulty.obj', FAULTY);
  await page.getByRole('button', { name: /Keep/ }).first().click();
  await benchReady(page);
  await page.keyboard.press('4');
  const findings = page.getByRole('region', { name: 'Findings' });
  const lapped = findings.getByRole('listitem').filter({ hasText: '1 pair of shells on each other' });
  const mirrored = findings.getByRole('listitem').filter({ hasText: '1 mirrored shell' });
  await expect(lapped).toBeVisible();
  await expect(mirrored).toBeVisible();
  await expect(page.getByRole('navigation').getByText('2 findings')).toBeVisible();
  await mirrored.getByRole('button', { name: 'Show' }).click();
  await expect(page.getByRole('group', { name: 'Place of the shell' })).toBeVisible();
  await lapped.getByRole('button', { name: 'Move one aside' }).click();
  await expect(page.locator('header').first()).toContainText('Move 1 shell to free space');
  await idle(page);
  expect(await figure(page, 'overlaps')).toBe('0');
  await expect(lapped).toBeHidden();
  await mirrored.getByRole('button', { name: 'Mirror back' }).click();
  await expect(mirrored).toBeHidden();
  await idle(page);
  expect(await figure(page, 'flipped')).toBe('0');
  await expect(page.getByText('Nothing wrong was found in the flat.')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(mirrored).toBeVisible();
});
