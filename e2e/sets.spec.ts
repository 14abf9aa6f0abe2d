import { expect } from '@playwright/test';
import { benchReady, download, figure, hills, idle, openModel, unfolded } from './hands.ts';
import { test } from './test.ts';

test('UV sets are added, worked on by themselves, renamed, removed, undone and handed over', async ({
  page,
}) => {
  await unfolded(page, hills(12));
  const sets = page.getByRole('region', { name: 'UV sets' });
  const first = await figure(page, 'stretch-l2');
  await sets.getByRole('button', { name: 'Add an empty one' }).click();
  await idle(page);
  await expect(sets.getByLabel('Work on UV 2')).toBeChecked();
  expect(await figure(page, 'stretch-l2')).toBe('–');
  await sets.getByLabel('Work on UV', { exact: true }).click();
  await idle(page);
  expect(await figure(page, 'stretch-l2')).toBe(first);
  // The copy is relaxed; what it was copied from stays.
  await sets.getByRole('button', { name: 'Copy this one' }).click();
  await idle(page);
  await page.keyboard.press('d');
  await idle(page);
  const relaxed = (await figure(page, 'stretch-l2')).split('→').pop()?.trim();
  expect(Number(relaxed)).toBeLessThan(Number(first));
  // Where there are several they are chosen above the list of shells in every stage.
  await page.keyboard.press('2');
  await page.getByRole('combobox', { name: 'UV set' }).click();
  await page.locator('.ant-select-item-option', { hasText: /^UV$/ }).click();
  await idle(page);
  // Two sets are not compared: there is no “from → to”.
  expect(await figure(page, 'stretch-l2')).toBe(first);
  await page.keyboard.press('6');
  const left = page.getByLabel('What each format leaves out');
  await expect(left).toContainText('UV set “UV” alone; cannot hold 2 UV sets');
  await expect(left).toContainText('all 3 UV sets');
  const glb = await download(page, 'Export GLB');
  const json = JSON.parse(glb.subarray(20, 20 + glb.readUInt32LE(12)).toString());
  const { attributes } = json.meshes[0].primitives[0];
  expect(Object.keys(attributes).filter((name) => name.startsWith('TEXCOORD'))).toEqual([
    'TEXCOORD_0',
    'TEXCOORD_1',
    'TEXCOORD_2',
  ]);
  // Removed, brought back by undo, and kept.
  await page.keyboard.press('3');
  await sets.getByRole('button', { name: 'Remove UV 2' }).click();
  await idle(page);
  await expect(sets.getByRole('listitem')).toHaveCount(2);
  await page.keyboard.press('Control+z');
  await idle(page);
  await expect(sets.getByRole('listitem')).toHaveCount(3);
  await page.reload();
  await benchReady(page);
  await expect(sets.getByRole('listitem')).toHaveCount(3);
  await expect(sets.getByLabel('Work on UV', { exact: true })).toBeChecked();
});

test('the last UV set stays, and where there is one there is nothing to choose', async ({ page }) => {
  await openModel(page, 'sheet.obj', hills(4));
  await benchReady(page);
  await page.keyboard.press('3');
  await expect(page.getByRole('region', { name: 'UV sets' }).getByRole('listitem')).toHaveCount(1);
  await expect(page.getByRole('button', { name: 'Remove UV', exact: true })).toBeDisabled();
  await expect(page.getByRole('combobox', { name: 'UV set' })).toHaveCount(0);
});
