import { readFileSync } from 'node:fs';
import { expect, type Page } from '@playwright/test';
import {
  benchReady,
  dome,
  figure,
  fromMenu,
  idle,
  openEmptyRack,
  openModel,
  openRack,
  POST,
} from './hands.ts';
import { test } from './test.ts';

const demo = (name: string) => readFileSync(new URL(`../packages/app/public/demo/${name}`, import.meta.url));

/** Drags one part of the list on another, as a hand does: in small steps. */
async function dragPart(page: Page, part: string, onto: string): Promise<void> {
  const middle = async (name: string) => {
    const box = await page.getByText(name, { exact: true }).boundingBox();
    if (!box) throw new Error(`There is no part ${name}.`);
    return [box.x + box.width / 2, box.y + box.height / 2] as const;
  };
  const [from, to] = [await middle(part), await middle(onto)];
  await page.mouse.move(...from);
  await page.mouse.down();
  await page.mouse.move(from[0], from[1] + 8, { steps: 3 });
  await page.mouse.move(...to, { steps: 8 });
  await page.mouse.up();
}

const health = (page: Page) => page.getByRole('region', { name: 'Health' });
const finding = (page: Page, title: RegExp) => health(page).getByRole('listitem').filter({ hasText: title });

test('the punt is dropped: findings are read, shown, repaired, and taken back', async ({ page }) => {
  await openModel(page, 'reed-punt.glb', demo('reed-punt.glb'));
  await benchReady(page);
  await expect(page.getByText('The health check found 3 things that spoil the UVs.')).toBeVisible();
  await page.getByRole('button', { name: 'Look at it first' }).click();
  await expect(finding(page, /41 open crack points/)).toBeVisible();
  await expect(finding(page, /640 faces with a mirrored transform/)).toContainText('spoils the UVs');
  await expect(finding(page, /412 faces with an uneven scale/)).toContainText('ovals');
  await expect(finding(page, /never seen/)).toContainText('worth knowing');
  await expect(page.getByText('3 findings')).toBeVisible();

  await finding(page, /open crack points/)
    .getByRole('button', { name: 'Show' })
    .click();
  await expect(page.getByTestId('selection')).toHaveText('80 edges');
  await finding(page, /uneven scale/)
    .getByRole('button', { name: 'Show' })
    .click();
  await expect(page.getByTestId('selection')).toHaveText('412 faces');

  expect(await figure(page, 'shells')).toBe('10');
  await page.getByRole('button', { name: 'Repair all that is safe' }).click();
  await expect(page.getByText(/Join them: 41 open crack points\./)).toBeVisible();
  await idle(page);
  expect(await figure(page, 'shells')).toBe('9');
  await expect(page.getByText('3 findings')).toBeHidden();
  await expect(finding(page, /never seen/)).toBeVisible();

  // What deletes is asked about first, with the faces marked.
  await finding(page, /never seen/)
    .getByRole('button', { name: /Delete them/ })
    .click();
  await expect(page.getByTestId('selection')).toHaveText(/^\d+ faces$/);
  await page.getByRole('tooltip').getByRole('button', { name: 'Delete them' }).click();
  await expect(page.getByText('Nothing wrong was found with this model.')).toBeVisible();

  await page.keyboard.press('Control+z');
  await idle(page);
  await page.keyboard.press('Control+z');
  await idle(page);
  expect(await figure(page, 'shells')).toBe('10');
  await expect(finding(page, /41 open crack points/)).toBeVisible();

  await health(page).getByRole('button', { name: 'Report' }).click();
  const report = page.getByRole('region', { name: 'Health report' });
  await expect(report).toContainText('Hull, left');
  const saving = page.waitForEvent('download');
  await report.getByRole('button', { name: 'Save as JSON' }).click();
  const saved = JSON.parse(readFileSync(await (await saving).path(), 'utf8'));
  expect(saved.findings.map(({ kind }: { kind: string }) => kind)).toContain('cracks');
  expect(saved.figures.pieces).toHaveLength(10);
  await report.getByRole('button', { name: 'Close the report' }).click();
});

test('parts are picked, isolated, renamed and deleted', async ({ page }) => {
  await openRack(page);
  await page.getByRole('link', { name: /Reed punt/ }).click();
  await benchReady(page);
  await page.keyboard.press('1');
  await page.getByText('Pole', { exact: true }).click();
  await expect(page.getByTestId('selection')).toHaveText('412 faces');
  await page.keyboard.press('g');
  await idle(page);
  await expect(page.getByRole('button', { name: 'Show Locker' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Hide Pole' })).toBeVisible();
  await page.keyboard.press('g');
  await idle(page);
  await expect(page.getByRole('button', { name: 'Hide Locker' })).toBeVisible();

  await page.getByRole('button', { name: 'Rename' }).click();
  await page.getByLabel('Name').fill('Punting pole');
  await page.getByLabel('Name').press('Enter');
  await idle(page);
  await expect(page.getByText('Punting pole', { exact: true })).toBeVisible();

  await dragPart(page, 'Ballast', 'Locker');
  await idle(page);
  await expect(page.getByText('9 objects', { exact: true })).toBeVisible();
  await page.keyboard.press('Control+z');
  await idle(page);
  await expect(page.getByText('10 objects', { exact: true })).toBeVisible();

  await page.getByTitle('Materials: 2').click();
  await page.getByText('Reed', { exact: true }).click();
  await expect(page.getByTestId('selection')).toHaveText('424 faces');
  await page.keyboard.press('Delete');
  await idle(page);
  expect(await figure(page, 'shells')).toBe('8');
  await page.keyboard.press('Control+z');
  await idle(page);
  expect(await figure(page, 'shells')).toBe('10');
});

test('faces are picked one by one, with a box and by piece, and deleted', async ({ page }) => {
  await openModel(page, 'post.obj', POST);
  await benchReady(page);
  await page.keyboard.press('Shift+Q');
  const pane = await page.getByTestId('model').boundingBox();
  if (!pane) throw new Error('There is no Model.');
  const [x, y] = [pane.x + pane.width / 2, pane.y + pane.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.click(x, y);
  await expect(page.getByTestId('selection')).toHaveText('1 face');
  await page.mouse.dblclick(x, y);
  await expect(page.getByTestId('selection')).toHaveText(/^\d\d? faces$/);
  await page.keyboard.press('Escape');
  await page.mouse.move(x + 30, y);
  await page.mouse.click(x, y);
  await expect(page.getByTestId('selection')).toHaveText('1 face');
  await page.keyboard.press('Delete');
  await expect(page.getByText('Delete 1 face')).toBeVisible();
  await idle(page);
  await page.keyboard.press('Control+z');
  await idle(page);
  await expect(page.getByText('Taken back: Delete 1 face.')).toBeVisible();
});

test('the tolerance says at once what it would join', async ({ page }) => {
  await openRack(page);
  await page.getByRole('link', { name: /Reed punt/ }).click();
  await benchReady(page);
  await page.keyboard.press('1');
  await expect(page.getByTestId('crack-count')).toHaveText('41 would be joined');
  const slider = page.getByRole('slider', { name: /Points count as one/ });
  await slider.focus();
  await page.keyboard.press('Home');
  await expect(page.getByTestId('crack-count')).toHaveText('0 would be joined');
});

test('UV sets are told before they are kept or discarded', async ({ page }) => {
  const flat = 'v 0 0 0\nv 1 0 0\nv 1 1 0\nv 0 1 0\nvt 0 0\nvt 1 0\nvt 1 1\nvt 0 1\nf 1/1 2/2 3/3 4/4\n';
  await openModel(page, 'card.obj', flat);
  await expect(page.getByRole('dialog')).toContainText('One face, with one UV set: UV');
  await page.getByRole('button', { name: 'Discard them' }).click();
  await benchReady(page);
  expect(await figure(page, 'tile-use')).toBe('–');
});

test('several files make one model, and a missing one is asked for', async ({ page }) => {
  const buffer = Buffer.from(Float32Array.of(0, 0, 0, 1, 0, 0, 0, 1, 0).buffer);
  const gltf = Buffer.from(
    JSON.stringify({
      asset: { version: '2.0' },
      scene: 0,
      scenes: [{ nodes: [0] }],
      nodes: [{ mesh: 0, name: 'Flag' }],
      meshes: [{ primitives: [{ attributes: { POSITION: 0 } }] }],
      accessors: [{ componentType: 5126, count: 3, type: 'VEC3', bufferView: 0 }],
      bufferViews: [{ buffer: 0, byteLength: 36 }],
      buffers: [{ byteLength: 36, uri: 'flag.bin' }],
    }),
  );
  await openModel(page, 'flag.gltf', gltf);
  await expect(page.getByRole('alert')).toContainText('it needs the file “flag.bin”');
  await page.getByLabel('Model or project file').setInputFiles([
    { name: 'flag.bin', mimeType: 'application/octet-stream', buffer },
    { name: 'flag.gltf', mimeType: 'model/gltf+json', buffer: gltf },
  ]);
  await benchReady(page);
  expect(await figure(page, 'shells')).toBe('1');
});

test('axis views, without perspective, still pick what is under the pointer', async ({ page }) => {
  await openModel(page, 'post.obj', POST);
  await benchReady(page);
  await page.keyboard.press('Shift+Q');
  await page.keyboard.press('Shift+Q');
  await fromMenu(page, 'Look from', 'Without perspective');
  await fromMenu(page, 'Look from', 'Front');
  const pane = await page.getByTestId('model').boundingBox();
  if (!pane) throw new Error('There is no Model.');
  await page.mouse.move(pane.x + pane.width / 2, pane.y + pane.height / 2);
  await page.mouse.click(pane.x + pane.width / 2, pane.y + pane.height / 2);
  await expect(page.getByTestId('selection')).toHaveText('1 shell');
});

test('a model that is dropped on the Rack is opened', async ({ page }) => {
  await openEmptyRack(page);
  const dropped = await page.evaluateHandle((text) => {
    const transfer = new DataTransfer();
    transfer.items.add(new File([text], 'post.obj'));
    return transfer;
  }, POST);
  await page.locator('.rack').dispatchEvent('dragenter', { dataTransfer: dropped });
  await expect(page.locator('.rack')).toHaveAttribute('data-over', 'true');
  await page.locator('.rack').dispatchEvent('drop', { dataTransfer: dropped });
  await benchReady(page);
  await expect(page.getByRole('heading', { name: 'post' })).toBeVisible();
});

test('reading can be cancelled, and the next file is read', async ({ page }) => {
  // Large enough that it is still being read when the hand is at Cancel.
  await openModel(page, 'dome.obj', dome(300, 700));
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByText(/^Reading/)).toBeHidden();
  await expect(page).toHaveURL('/');
  await expect(page.locator('.rack-card')).toHaveCount(0);
  await page
    .getByLabel('Model or project file')
    .setInputFiles({ name: 'post.obj', mimeType: 'text/plain', buffer: Buffer.from(POST) });
  await benchReady(page);
});
