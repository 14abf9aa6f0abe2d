import AxeBuilder from '@axe-core/playwright';
import { expect } from '@playwright/test';
import {
  at,
  benchReady,
  dome,
  download,
  drawn,
  figure,
  idle,
  onPost,
  openModel,
  openRack,
  POST,
  RING,
} from './hands.ts';
import { test } from './test.ts';

test('from the Rack to the exported file, with real mouse and keys', async ({ page }) => {
  const foreign: string[] = [];
  page.on('request', (request) => {
    const { protocol, hostname } = new URL(request.url());
    if (protocol.startsWith('http') && hostname !== '127.0.0.1') foreign.push(request.url());
  });
  await openModel(page, 'post.obj', POST);
  await benchReady(page);
  expect(await figure(page, 'shells')).toBe('1');

  // A post that is closed is cut open where it hides, which is said, and taken back.
  await page.keyboard.press('s');
  await expect(page.getByText(/All of it was closed, and was cut open where it hides/)).toBeVisible();
  await idle(page);
  expect(await figure(page, 'flipped')).toBe('0');
  await page.keyboard.press('Control+z');
  await idle(page);

  // Double-click takes the ring round the middle; cutting it makes two shells, each flat at once.
  const [x, y] = await onPost(page, RING);
  await page.mouse.move(x, y);
  await page.mouse.dblclick(x, y);
  await expect(page.getByTestId('selection')).toHaveText('4 edges');
  await page.keyboard.press('a');
  await idle(page);
  expect(await figure(page, 'shells')).toBe('2');
  expect(await figure(page, 'flipped')).toBe('0');
  const stretched = Number(await figure(page, 'stretch-l2'));
  expect(stretched).toBeGreaterThan(1.05);

  // Undo takes the cut and its unfold back together; redo brings both.
  await page.keyboard.press('Control+z');
  await idle(page);
  expect(await figure(page, 'shells')).toBe('1');
  await page.keyboard.press('Control+Shift+z');
  await idle(page);
  expect(await figure(page, 'shells')).toBe('2');
  expect(Number(await figure(page, 'stretch-l2'))).toBeCloseTo(stretched, 4);

  // Relaxing lowers the stretch, packing lays both into the tile without overlap.
  await page.keyboard.press('d');
  await idle(page);
  expect(Number(await figure(page, 'stretch-l2'))).toBeLessThan(stretched);
  await page.keyboard.press('5');
  await page.getByRole('button', { name: 'Pack the tile' }).click();
  await idle(page);
  await expect(page.getByTestId('figure-overlaps').locator('strong')).toHaveText('0');
  expect(await figure(page, 'density')).toBe('even');

  // The export is the file that came in, with UVs added and nothing else changed.
  await page.keyboard.press('6');
  const verdict = page.locator('.deliver-good, .deliver-findings');
  await expect(verdict).toHaveText(
    /^Every shell is flat|^○ \d shells? stretched more than is good to paint onShow$/,
  );
  const obj = (await download(page, 'Export OBJ')).toString();
  const bare = (text: string) =>
    text
      .split('\n')
      .filter((line) => !line.startsWith('vt '))
      .map((line) => (line.startsWith('f ') ? line.replaceAll(/\/\d+/g, '') : line));
  expect(bare(obj)).toEqual(bare(POST));
  const coordinates = [...obj.matchAll(/^vt (\S+) (\S+)$/gm)].flatMap(([, u, v]) => [Number(u), Number(v)]);
  expect(coordinates.length).toBeGreaterThan(24);
  expect(Math.min(...coordinates)).toBeGreaterThanOrEqual(8 / 2048 - 1e-9);
  expect(Math.max(...coordinates)).toBeLessThanOrEqual(1 - 8 / 2048 + 1e-9);
  const glb = await download(page, 'Export GLB');
  expect(glb.subarray(0, 4).toString()).toBe('glTF');
  const png = await download(page, 'Template PNG');
  expect(png.subarray(1, 4).toString()).toBe('PNG');
  expect(png.readUInt32BE(16)).toBe(2048);
  expect((await download(page, 'Template SVG')).toString()).toContain('<g id="shell-2">');
  expect(foreign).toEqual([]);
});

test('relax shows its figure, moves the picture, and stops half-way with the best so far', async ({
  page,
}) => {
  // Large and closed enough, and so with steps enough, that no machine is done before the hand is at Stop.
  await openModel(page, 'dome.obj', dome(90, 200, 2.8));
  await benchReady(page);
  await page.keyboard.press('s');
  await idle(page);
  const before = Number(await figure(page, 'stretch-l2'));
  expect(before).toBeGreaterThan(1.5);
  // Stop is pressed the moment the energy has fallen once: a hand from outside might come too late.
  const energies = page.evaluate(
    () =>
      new Promise<string[]>((resolve) => {
        const seen: string[] = [];
        const observer = new MutationObserver(() => {
          const text = document.querySelector('[data-testid="figure"]')?.textContent;
          if (!text || text === seen.at(-1)) return;
          seen.push(text);
          if (seen.length < 2) return;
          document.querySelector<HTMLButtonElement>('.bench-running button')?.click();
          observer.disconnect();
          resolve(seen);
        });
        observer.observe(document.body, { subtree: true, childList: true, characterData: true });
      }),
  );
  await page.keyboard.press('d');
  // By its name, and what would be perfect.
  const told = await energies;
  expect(told[0]).toMatch(/^energy [\d.]+, 4 is perfect$/);
  const [first, second] = told.map((text) => Number(/[\d.]+/.exec(text)?.[0]));
  expect(second).toBeLessThan(first);
  await idle(page);
  await expect(page.getByRole('status').filter({ hasText: 'the best so far is kept' })).toBeVisible();
  expect(Number(await figure(page, 'stretch-l2'))).toBeLessThan(before);
  expect(await figure(page, 'flipped')).toBe('0');
});

test('closing loses nothing: seams, UVs, undo and camera are there again', async ({ page }) => {
  await openModel(page, 'post.obj', POST);
  await benchReady(page);
  const [x, y] = await onPost(page, RING);
  await page.mouse.dblclick(x, y);
  await expect(page.getByTestId('selection')).toHaveText('4 edges');
  await page.keyboard.press('a');
  await idle(page);
  await page.keyboard.press('b');
  // The light of the sky comes a little later.
  await expect(page.locator('html')).toHaveAttribute('data-occlusion', 'true');
  const picture = () => page.getByTestId('model').screenshot();
  // The pane has the focus after a click, and after a reload it has not.
  await page.evaluate('document.activeElement.blur()');
  await page.mouse.move(5, 400);
  await drawn(page);
  const first = await picture();
  await page.mouse.move(x, y);
  await page.mouse.wheel(0, -400);
  await page.mouse.move(5, 400);
  // The view is kept once it has rested: the page tells nothing of that, so look until it is there.
  await expect(page.locator('html')).toHaveAttribute('data-view', 'kept');
  await drawn(page);
  const zoomed = await picture();
  expect(zoomed.equals(first)).toBe(false);
  const stretch = await figure(page, 'stretch-l2');
  await page.reload();
  await benchReady(page);
  expect(await figure(page, 'shells')).toBe('2');
  expect(await figure(page, 'stretch-l2')).toBe(stretch);
  await expect(page.getByLabel('Area stretch')).toBeVisible();
  await expect(page.getByText('Cut 4 edges')).toBeVisible();
  await page.mouse.move(5, 400);
  await expect(page.locator('html')).toHaveAttribute('data-occlusion', 'true');
  await expect.poll(async () => (await picture()).equals(zoomed)).toBe(true);
  await page.keyboard.press('Control+z');
  await idle(page);
  expect(await figure(page, 'shells')).toBe('1');
});

test('closing in the middle of an act leaves it done or not done, never half', async ({ page }) => {
  await openModel(page, 'dome.obj', dome(60, 130));
  await benchReady(page);
  await page.keyboard.press('s');
  await idle(page);
  const unfolded = await figure(page, 'stretch-l2');
  // A relax that has not ended is not there afterwards. No solver gives a result any more, only progress: a fast machine might be done.
  const solvers = page.workers().filter((worker) => worker.url().includes('jobWorker'));
  expect(solvers).not.toHaveLength(0);
  await Promise.all(solvers.map((solver) => solver.evaluate('self.postMessage = () => undefined')));
  await page.keyboard.press('d');
  await expect(page.getByTestId('figure')).toBeVisible();
  await page.reload();
  await benchReady(page);
  expect(await figure(page, 'stretch-l2')).toBe(unfolded);
  await expect(page.getByText('Unfold all shells, conformal')).toBeVisible();
  // A cut that was kept is there, and the unfold it brings is made up for.
  const [x, y] = await at(page, 'model', 0.5, 0.62);
  await page.mouse.dblclick(x, y);
  await expect(page.getByTestId('selection')).toHaveText(/^\d+ edges$/);
  await page.keyboard.press('a');
  await expect(page.locator('.bench-last')).toHaveText(/^Cut \d+ edges$/);
  await page.reload();
  await benchReady(page);
  await expect(page.locator('.bench-last')).toHaveText(/^Cut \d+ edges$/);
  await expect(page.getByText('changed since')).toHaveCount(0);
  expect(await figure(page, 'flipped')).toBe('0');
});

test('one selection for both panes; shells are moved, turned and scaled on the Board', async ({ page }) => {
  await openRack(page);
  await page.getByRole('link', { name: /Gourd lantern/ }).click();
  await benchReady(page);
  await page.keyboard.press('s');
  await idle(page);
  // Fourteen open studs lie flat; body, stem and handle are closed and say so.
  await expect(page.getByRole('status').filter({ hasText: '3 pieces left as they are' })).toBeVisible();
  await page.getByRole('button', { name: 'Frame the tile' }).click();
  await page.keyboard.press('Shift+Q');
  await page.keyboard.press('Shift+Q');
  await page.locator('.details-table .ant-table-row').nth(5).click();
  await expect(page.getByTestId('selection')).toHaveText('1 shell');
  const knob = page.getByLabel('Scale the selected shells', { exact: true });
  await expect(knob).toBeVisible();

  // It goes just where the hand goes.
  await page.keyboard.press('Shift+U');
  const frame = async () =>
    (await page.locator('.frame').boundingBox()) as { x: number; y: number; width: number; height: number };
  const start = await frame();
  await page.mouse.move(start.x + start.width / 2, start.y + start.height / 2);
  await page.mouse.down();
  await page.mouse.move(start.x + start.width / 2 - 60, start.y + start.height / 2 + 30, { steps: 4 });
  // The handles are in the hand too.
  await expect.poll(async () => Math.round((await frame()).x - start.x)).toBe(-60);
  await page.mouse.up();
  await idle(page);
  await expect(page.getByText('Move 1 shell')).toBeVisible();
  const moved = await frame();
  expect(moved.x - start.x).toBeCloseTo(-60, 0);
  expect(moved.y - start.y).toBeCloseTo(30, 0);

  await page.mouse.move(moved.x + moved.width + 9, moved.y - 9);
  await page.mouse.down();
  await page.mouse.move(moved.x + 1.5 * moved.width, moved.y - 0.5 * moved.height, { steps: 4 });
  await page.mouse.up();
  await idle(page);
  await expect(page.getByText('Scale 1 shell')).toBeVisible();
  expect((await frame()).width / moved.width).toBeGreaterThan(1.5);
  expect(await figure(page, 'density')).toMatch(/^1 : /);

  await page.keyboard.press('5');
  await page.getByRole('button', { name: 'Turn +90°' }).click();
  await idle(page);
  await expect(page.getByText('Turn 1 shell')).toBeVisible();
});

test('box picks visible edges only, or through; Shift adds and Alt removes', async ({ page }) => {
  await openModel(page, 'post.obj', POST);
  await benchReady(page);
  const box = async () => {
    const [x0, y0] = await at(page, 'model', 0.02, 0.06);
    const [x1, y1] = await at(page, 'model', 0.98, 0.97);
    await page.mouse.move(x0, y0);
    await page.mouse.down();
    await page.mouse.move(x1, y1, { steps: 3 });
    await page.mouse.up();
  };
  await page.keyboard.press('z');
  await box();
  await expect(page.getByTestId('selection')).toHaveText(/^\d+ edges$/);
  const seen = Number.parseInt((await page.getByTestId('selection').textContent()) ?? '', 10);
  expect(seen).toBeGreaterThan(8);
  expect(seen).toBeLessThan(20);
  await page.getByRole('button', { name: 'Visible only' }).click();
  await box();
  await expect(page.getByTestId('selection')).toHaveText('20 edges');
  await page.keyboard.press('q');
  await page.keyboard.down('Alt');
  const [x, y] = await onPost(page, RING);
  await page.mouse.click(x, y);
  await page.keyboard.up('Alt');
  await expect(page.getByTestId('selection')).toHaveText('19 edges');
});

test('a project file goes out and comes back; deleting can be undone', async ({ page }) => {
  await openModel(page, 'post.obj', POST);
  await benchReady(page);
  const [x, y] = await onPost(page, RING);
  await page.mouse.dblclick(x, y);
  await page.keyboard.press('a');
  await idle(page);
  await page.keyboard.press('6');
  const file = await download(page, 'Export project file');

  await page.getByRole('link', { name: 'Rack' }).click();
  await page.getByLabel('More for post').click();
  await page.getByText('Take off the Rack').click();
  await expect(page.getByRole('link', { name: /post/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'Put it back' }).click();
  await expect(page.getByRole('link', { name: /post/ })).toHaveCount(1);

  await page
    .getByLabel('Model or project file')
    .setInputFiles({ name: 'post.hemproject', mimeType: 'application/zip', buffer: file });
  await benchReady(page);
  expect(await figure(page, 'shells')).toBe('2');
  await page.keyboard.press('Control+z');
  await idle(page);
  expect(await figure(page, 'shells')).toBe('1');
});

test('bad files get one sentence and change nothing', async ({ page }) => {
  const cases: [string, string | Buffer, RegExp][] = [
    ['empty.obj', '', /empty\.obj: the file is empty/],
    [
      'index.obj',
      'v 0 0 0\nv 1 0 0\nf 1 2 9\n',
      /index\.obj, line 3: a face asks for vertex 9, but the lines above hold only 2/,
    ],
    ['nan.obj', 'v 0 zero 0\n', /nan\.obj, line 1: “zero” is not a number/],
    ['picture.obj', Buffer.from([0x89, 0x50, 0, 0, 1, 2, 3]), /picture\.obj: this is not a text file/],
    ['short.glb', Buffer.from('glTF\x02\0\0\0\xff\0\0\0'), /short\.glb: this is not a complete glTF file/],
  ];
  for (const [name, content, sentence] of cases) {
    await openModel(page, name, content);
    await expect(page.getByRole('alert')).toContainText(sentence);
    await expect(page.locator('.rack-card')).toHaveCount(0);
  }
});

test('a second tab does not write to the same project', async ({ page, context }) => {
  await openModel(page, 'post.obj', POST);
  await benchReady(page);
  const second = await context.newPage();
  await second.goto(page.url());
  await expect(second.getByRole('alert')).toContainText('open in another tab');
});

test('no view has an accessibility fault that axe knows', async ({ page }) => {
  const faults = async () =>
    (await new AxeBuilder({ page }).analyze()).violations.map(({ id, nodes }) => `${id}: ${nodes[0].html}`);
  await openRack(page);
  expect(await faults()).toEqual([]);
  await page.getByRole('link', { name: /Gourd lantern/ }).click();
  await benchReady(page);
  expect(await faults()).toEqual([]);
  for (const stage of ['1', '5', '6']) {
    await page.keyboard.press(stage);
    await expect(page.locator('.rail-stage[data-open="true"] .rail-number')).toHaveText(stage);
    if (stage === '6') await expect(page.getByAltText(/^Template/)).toBeVisible();
    expect(await faults()).toEqual([]);
  }
  await page.keyboard.press('1');
  await page.getByRole('button', { name: 'Report' }).click();
  await expect(page.getByRole('table').first()).toBeVisible();
  expect(await faults()).toEqual([]);
  await page.goto('/help');
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  expect(await faults()).toEqual([]);
});
