import { expect, type Page } from '@playwright/test';
import { at, benchReady, dome, download, figure, idle, marked, openModel, unfolded } from './hands.ts';
import { test } from './test.ts';

/** UV of every corner of the exported model, as text. */
async function exportedUv(page: Page): Promise<string[]> {
  await page.keyboard.press('6');
  const text = (await download(page, 'Export OBJ')).toString();
  await page.keyboard.press('3');
  const places = [...text.matchAll(/^vt .*$/gm)].map(([line]) => line);
  return [...text.matchAll(/^f .*$/gm)].flatMap(([line]) =>
    [...line.matchAll(/\/(\d+)/g)].map(([, vt]) => places[Number(vt) - 1]),
  );
}

test('places are pinned on the Board, one is dragged with the shell following, undone, and all let go', async ({
  page,
}) => {
  await unfolded(page);
  await page.keyboard.press('p');
  for (const [x, y] of [
    [0.35, 0.45],
    [0.6, 0.6],
    [0.5, 0.4],
  ] as const) {
    await page.mouse.move(...(await at(page, 'board', x, y)));
    await expect.poll(() => marked(page, 'board')).toBeGreaterThan(20);
    await page.mouse.click(...(await at(page, 'board', x, y)));
    await expect(page.locator('header')).toContainText('Pin 1 place');
    await idle(page);
  }
  await expect(page.getByRole('button', { name: 'Let all 3 pins go' })).toBeVisible();
  // Pins hold their shell and change nothing for the others.
  await expect(page.getByRole('button', { name: 'Laid out afresh' })).toBeVisible();
  const before = await exportedUv(page);
  const [x, y] = await at(page, 'board', 0.6, 0.6);
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 25, y + 10, { steps: 5 });
  await page.mouse.move(x + 40, y + 20, { steps: 5 });
  await page.mouse.up();
  await expect(page.locator('header')).toContainText('Move a pin');
  await idle(page);
  expect(await figure(page, 'flipped')).toBe('0');
  const after = await exportedUv(page);
  expect(after.filter((place, i) => place !== before[i]).length).toBeGreaterThan(before.length / 2);
  // The other two stay on the very numbers they had.
  expect(after.filter((place, i) => place === before[i]).length).toBeGreaterThan(0);
  await page.keyboard.press('Control+z');
  await idle(page);
  expect(await exportedUv(page)).toEqual(before);
  await page.getByRole('button', { name: 'Let all 3 pins go' }).click();
  await expect(page.locator('header')).toContainText('Unpin 3 places');
});

test('a chain of edges is made a stay, a ring is refused, and a shell changes its method', async ({
  page,
}) => {
  await unfolded(page);
  await page.mouse.dblclick(...(await at(page, 'model', 0.5, 0.6)));
  await expect(page.getByTestId('selection')).toHaveText(/\d+ edges/);
  await page.keyboard.press('y');
  await expect(page.locator('header')).toContainText(/Make a stay of \d+ edges/);
  await idle(page);
  await page.keyboard.press('Shift+Y');
  await expect(page.locator('header')).toContainText(/Let go of a stay/);
  await idle(page);
  await page.getByLabel('Method').click();
  await page.getByTitle('Angle-based unfold').click();
  await page
    .getByRole('button', { name: /^Unfold/ })
    .last()
    .click();
  await expect(page.locator('header')).toContainText(/angle-based/);
  await idle(page);
  await unfolded(page, dome(8, 16));
  await page.mouse.dblclick(...(await at(page, 'model', 0.5, 0.55)));
  await expect(page.getByTestId('selection')).toHaveText(/16 edges/);
  await page.keyboard.press('y');
  await expect(page.getByText(/closes cannot lie straight/)).toBeVisible();
});

test('a region of faces is relaxed, and every other UV stays to the last digit', async ({ page }) => {
  await unfolded(page);
  const before = await exportedUv(page);
  await page.getByText('Faces', { exact: true }).first().click();
  await page.keyboard.press('z');
  const [x0, y0] = await at(page, 'board', 0.4, 0.42);
  const [x1, y1] = await at(page, 'board', 0.6, 0.58);
  await page.mouse.move(x0, y0);
  await page.mouse.down();
  await page.mouse.move(x1, y1, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByTestId('selection')).toHaveText(/\d+ faces/);
  const picked = Number(/\d+/.exec((await page.getByTestId('selection').textContent()) ?? '')?.[0]);
  await page.keyboard.press('d');
  await expect(page.locator('header')).toContainText(`Relax ${picked} faces`);
  await idle(page);
  const after = await exportedUv(page);
  const changed = after.filter((place, i) => place !== before[i]).length;
  expect(changed).toBeGreaterThan(0);
  // Corners inside the region, and those of its rim seen from it, at most.
  expect(changed).toBeLessThanOrEqual(4 * picked);
});

test('both methods are tried as trials, compared, one is used, kept by hand, and one let go', async ({
  page,
}) => {
  await unfolded(page);
  const list = page.getByRole('region', { name: 'Trials' });
  await expect(list.getByText('Unfold all shells, conformal')).toBeVisible();
  const before = await exportedUv(page);
  await list.getByRole('button', { name: /Try both methods/ }).click();
  const view = page.getByRole('region', { name: 'Trials compared' });
  await expect(view.getByText(/A is better on \d+ % of the surface, B on \d+ %/)).toBeVisible();
  // Nothing on the Board has changed; what was unfolded before is one of the two.
  await expect(page.locator('header').first()).toContainText('Unfold all shells, conformal');
  await expect(list.getByRole('listitem')).toHaveCount(2);
  await view.getByText('Angle', { exact: true }).click();
  await view.getByRole('button', { name: 'Use B' }).click();
  await expect(page.locator('header').first()).toContainText(
    'Take 1 shell of “Unfold all shells, angle-based”',
  );
  await page.keyboard.press('Escape');
  await expect(view).toBeHidden();
  await idle(page);
  const taken = await exportedUv(page);
  expect(taken).not.toEqual(before);
  await list.getByRole('button', { name: 'Use Unfold all shells, conformal' }).click();
  await idle(page);
  expect(await exportedUv(page)).toEqual(before);
  await page.keyboard.press('c');
  await expect(page.getByText(/Kept as trial/)).toContainText(/Kept as trial “Unfold all shells, conformal”/);
  await expect(list.getByLabel('Kept')).toHaveCount(1);
  await list.getByRole('button', { name: 'Let Unfold all shells, angle-based go' }).click();
  await expect(list.getByRole('listitem')).toHaveCount(1);
});

/** A flat ring of quads that goes on for a turn and a half, rising. */
function ramp(): string {
  const lines: string[] = [];
  for (let i = 0; i <= 4; i++)
    for (let j = 0; j <= 48; j++) {
      const a = (3 * Math.PI * j) / 48;
      lines.push(`v ${(2 + i / 4) * Math.cos(a)} ${0.1 * a} ${-(2 + i / 4) * Math.sin(a)}`);
    }
  const id = (i: number, j: number) => 49 * i + j + 1;
  for (let i = 0; i < 4; i++)
    for (let j = 0; j < 48; j++)
      lines.push(`f ${id(i, j)} ${id(i, j + 1)} ${id(i + 1, j + 1)} ${id(i + 1, j)}`);
  return `${lines.join('\n')}\n`;
}

test('what unfolds onto itself is laid beside itself by relaxing, and taken back', async ({ page }) => {
  await unfolded(page, ramp());
  const pairs = await figure(page, 'overlaps');
  expect(Number(pairs.replace(/\D/g, ''))).toBeGreaterThan(50);
  await page.keyboard.press('4');
  const lapped = page
    .getByRole('region', { name: 'Findings' })
    .getByRole('listitem')
    .filter({ hasText: 'of one shell on each other' });
  await lapped.getByRole('button', { name: 'Relax them' }).click();
  await expect(page.getByText('1 shell kept from lying on itself.')).toBeVisible();
  await idle(page);
  expect(await figure(page, 'overlaps')).toBe('0');
  expect(await figure(page, 'flipped')).toBe('0');
  await expect(lapped).toBeHidden();
  await page.keyboard.press('Control+z');
  await idle(page);
  expect(await figure(page, 'overlaps')).toBe(pairs);
});

/** An open pipe of quads, 4 long and of radius 1, upright. */
function pipe(sides: number): string {
  const ring = (y: number) =>
    Array.from({ length: sides }, (_, j) => {
      const a = (2 * Math.PI * j) / sides;
      return `v ${Math.sin(a)} ${y} ${Math.cos(a)}`;
    });
  const rows = Array.from({ length: 5 }, (_, i) => ring(i));
  const faces = Array.from({ length: 4 * sides }, (_, f) => {
    const [i, j] = [Math.floor(f / sides), f % sides];
    const [a, b] = [i * sides + j + 1, i * sides + ((j + 1) % sides) + 1];
    return `f ${a} ${b} ${b + sides} ${a + sides}`;
  });
  return `${[...rows.flat(), ...faces].join('\n')}\n`;
}

test('faces are projected from a cylinder, seen before it is taken, turned by numbers, taken back', async ({
  page,
}) => {
  await openModel(page, 'pipe.obj', pipe(16));
  await benchReady(page);
  await page.keyboard.press('3');
  await page.keyboard.press('j');
  const settings = page.getByRole('navigation');
  await expect(settings.getByText('Nothing collapses, and nothing is mirrored.')).toBeVisible();
  await page.getByLabel('Sweep').fill('180');
  await page.getByLabel('Sweep').press('Tab');
  await expect(settings.getByText(/\d+ faces beyond the sweep/)).toBeVisible();
  await page.getByLabel('Sweep').fill('360');
  await page.getByLabel('Sweep').press('Tab');
  await expect(settings.getByText('Nothing collapses, and nothing is mirrored.')).toBeVisible();
  await settings.getByRole('button', { name: /^Project \d+ faces$/ }).click();
  await expect(page.locator('header').first()).toContainText(/Project \d+ faces from a cylinder/);
  await idle(page);
  expect(await figure(page, 'flipped')).toBe('0');
  // Nothing is smeared over the wrap: no face is nearly as wide as the map.
  const places = (await exportedUv(page)).map((line) => line.split(' ').slice(1).map(Number));
  const us = places.map(([u]) => u);
  const width = Math.max(...us) - Math.min(...us);
  for (let i = 0; i < us.length; i += 4)
    expect(Math.max(...us.slice(i, i + 4)) - Math.min(...us.slice(i, i + 4))).toBeLessThan(0.3 * width);
  await page.keyboard.press('Control+z');
  await expect(page.locator('header').first()).not.toContainText('Project');
});

test('a pipe that is cut lengthwise is laid as a straight strip, one that is not gets a sentence', async ({
  page,
}) => {
  await openModel(page, 'pipe.obj', pipe(12));
  await benchReady(page);
  await page.keyboard.press('3');
  await page.keyboard.press('Shift+D');
  await expect(page.getByText('This is a tube: cut it lengthwise, then it lies straight.')).toBeVisible();
  // The edge that runs down the front, and the rest of its line.
  await page.keyboard.press('2');
  await page.keyboard.press('q');
  await page.mouse.dblclick(...(await at(page, 'model', 0.5, 0.5)));
  await page.keyboard.press('a');
  await expect(page.locator('header').first()).toContainText('Cut');
  await idle(page);
  await page.keyboard.press('Shift+D');
  await expect(page.locator('header').first()).toContainText(/Lay all shells straight/);
  await idle(page);
  expect(await figure(page, 'flipped')).toBe('0');
  const places = (await exportedUv(page)).map((line) => line.split(' ').slice(1).map(Number));
  const box = [0, 1].map((k) => {
    const list = places.map((place) => place[k]);
    return Math.max(...list) - Math.min(...list);
  });
  // Circumference × length (common practice): 12 chords by 4.
  const [short, long] = box.sort((a, b) => a - b);
  expect(long / short).toBeCloseTo((12 * 2 * Math.sin(Math.PI / 12)) / 4, 2);
});

test('a pen pushes the flat to its limit and no face folds; a hand that rests gathers; both are taken back exactly', async ({
  page,
}) => {
  await unfolded(page);
  const before = await exportedUv(page);
  await page.keyboard.press('h');
  const pen = await page.context().newCDPSession(page);
  const press = async (
    type: 'mousePressed' | 'mouseMoved' | 'mouseReleased',
    [x, y]: readonly [number, number],
  ) =>
    pen.send('Input.dispatchMouseEvent', {
      type,
      x,
      y,
      button: 'left',
      buttons: type === 'mouseReleased' ? 0 : 1,
      clickCount: 1,
      pointerType: 'pen',
      force: type === 'mouseReleased' ? 0 : 0.9,
      tiltX: 40,
    });
  await press('mouseMoved', await at(page, 'board', 0.45, 0.5));
  await press('mousePressed', await at(page, 'board', 0.45, 0.5));
  for (let i = 1; i <= 12; i++)
    await press('mouseMoved', await at(page, 'board', 0.45 + 0.045 * i, 0.5 - 0.02 * i));
  await press('mouseReleased', await at(page, 'board', 0.99, 0.26));
  await expect(page.locator('header').first()).toContainText('Push');
  await idle(page);
  expect(await figure(page, 'flipped')).toBe('0');
  expect(await figure(page, 'collapsed')).toBe('0');
  expect(await figure(page, 'folded')).toBe('0');
  const pushed = await exportedUv(page);
  expect(pushed.filter((place, i) => place !== before[i]).length).toBeGreaterThan(100);
  await page.getByLabel('What the hand does').click();
  await page.getByTitle('Gather', { exact: true }).click();
  const [x, y] = await at(page, 'board', 0.5, 0.55);
  await page.mouse.move(x, y);
  await page.mouse.down();
  await expect.poll(async () => (await page.locator('.pane-ring').count()) > 0).toBe(true);
  await page.waitForTimeout(700);
  await page.mouse.up();
  await expect(page.locator('header').first()).toContainText('Gather');
  await idle(page);
  expect(await figure(page, 'flipped')).toBe('0');
  await page.keyboard.press('Control+z');
  await idle(page);
  expect(await exportedUv(page)).toEqual(pushed);
  await page.keyboard.press('Control+z');
  await idle(page);
  expect(await exportedUv(page)).toEqual(before);
});
