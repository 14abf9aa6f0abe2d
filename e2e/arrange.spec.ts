import { expect, type Page } from '@playwright/test';
import { at, benchReady, figure, fromMenu, idle, openModel, unfolded } from './hands.ts';
import { test } from './test.ts';

/** Three squares of side 1 side by side on the model, small on the Board, each with its lower left corner at a place. */
const squares = (...corners: readonly (readonly [u: number, v: number])[]): string =>
  corners
    .map(([u, v], i) =>
      [
        `v ${2 * i} 0 0`,
        `v ${2 * i + 1} 0 0`,
        `v ${2 * i + 1} 1 0`,
        `v ${2 * i} 1 0`,
        ...[
          [0, 0],
          [1, 0],
          [1, 1],
          [0, 1],
        ].map(([x, y]) => `vt ${u + x / 8} ${v + y / 8}`),
        `f ${[1, 2, 3, 4].map((k) => `${4 * i + k}/${4 * i + k}`).join(' ')}`,
      ].join('\n'),
    )
    .join('\n');

const open = async (page: Page): Promise<void> => {
  await openModel(page, 'squares.obj', squares([0.1, 0.1], [0.4, 0.3], [0.7, 0.6]));
  await page.getByRole('button', { name: 'Keep UVs' }).click();
  await benchReady(page);
  await page.keyboard.press('5');
  await idle(page);
};

/** Left and lower of what is chosen, as the fields tell it. */
const placed = async (page: Page): Promise<readonly [number, number]> => [
  Number(await page.getByLabel('Left, u').inputValue()),
  Number(await page.getByLabel('Lower, v').inputValue()),
];

test('shells are aligned, spread, swapped and made alike by buttons, each taken back by one undo', async ({
  page,
}) => {
  await open(page);
  const rows = page.locator('.ant-table-row');
  await rows.nth(0).click();
  await rows.nth(1).click({ modifiers: ['Shift'] });
  await rows.nth(2).click({ modifiers: ['Shift'] });
  await page.getByRole('button', { name: 'Align lower sides' }).click();
  await idle(page);
  await page.getByRole('button', { name: 'Even gaps across' }).click();
  await idle(page);
  await rows.nth(1).click();
  expect(await placed(page)).toEqual([0.4, 0.1]);
  await rows.nth(2).click({ modifiers: ['Shift'] });
  await page.getByRole('button', { name: 'Swap the two' }).click();
  await idle(page);
  await rows.nth(1).click();
  expect(await placed(page)).toEqual([0.7, 0.1]);
  await page.getByRole('button', { name: /To the padding of the tile: left/ }).click();
  await idle(page);
  expect((await placed(page))[0]).toBeCloseTo(8 / 2048, 4);
  for (let k = 0; k < 4; k++) {
    await page.keyboard.press('Control+z');
    await idle(page);
  }
  expect(await placed(page)).toEqual([0.4, 0.3]);
});

test('a shell takes hold of the padding under the hand, and moves by a texel by key', async ({ page }) => {
  await open(page);
  const rows = page.locator('.ant-table-row');
  await rows.nth(0).click();
  const number = await page.locator('.shell-numbers span[data-chosen=true]').boundingBox();
  if (!number) throw new Error('The shell has no number.');
  const [x, y] = [number.x + number.width / 2, number.y + number.height / 2 + 14];
  const board = await page.getByTestId('board').boundingBox();
  if (!board) throw new Error('There is no Board.');
  // The tile is as wide as the narrow side of the pane, but for a rim.
  const drag = async (du: number): Promise<void> => {
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.mouse.move(x - 10, y);
    await page.mouse.move(x + du, y, { steps: 4 });
    await page.mouse.up();
    await idle(page);
  };
  const scale = (await page.locator('.frame').boundingBox())?.width ?? 0;
  // Its side is an eighth of the tile: to within a few pixels of the left edge.
  await drag(-(0.1 * 8 * scale) + 4);
  expect((await placed(page))[0]).toBeCloseTo(8 / 2048, 4);
  await page.getByTestId('board').focus();
  await page.keyboard.press('Alt+ArrowRight');
  await idle(page);
  expect((await placed(page))[0]).toBeCloseTo(9 / 2048, 4);
  await page.keyboard.press('Alt+Shift+ArrowUp');
  await idle(page);
  expect((await placed(page))[1]).toBeCloseTo(0.1 + 10 / 2048, 3);
});

test('points come to one line, which is said where it spoils faces, and refused where the inside is to follow', async ({
  page,
}) => {
  const rows = Array.from({ length: 5 }, (_, i) =>
    Array.from({ length: 9 }, (_, j) => `v ${j} ${(Math.sin(i + j) / 4).toFixed(4)} ${i}`),
  ).flat();
  const faces = Array.from({ length: 32 }, (_, f) => {
    const a = 9 * Math.floor(f / 8) + (f % 8) + 1;
    return `f ${a} ${a + 9} ${a + 10} ${a + 1}`;
  });
  await unfolded(page, [...rows, ...faces].join('\n'));
  await page.keyboard.press('5');
  await page.getByText('Points', { exact: true }).first().click();
  await page.keyboard.press('z');
  const [left, high] = await at(page, 'board', 0.02, 0.02);
  const [right, low] = await at(page, 'board', 0.98, 0.98);
  await page.mouse.move(left, high);
  await page.mouse.down();
  await page.mouse.move((left + right) / 2, (high + low) / 2);
  await page.mouse.move(right, low);
  await page.mouse.up();
  await expect(page.getByTestId('selection')).toContainText('45 points');
  await page.getByRole('button', { name: 'Align to their mean v' }).click();
  await idle(page);
  await expect(page.locator('.notice')).toContainText('64 triangles came to have no area');
  await page.keyboard.press('Control+z');
  await idle(page);
  await page.getByText('Inside follows').click();
  await page.getByRole('button', { name: 'Align to their mean v' }).click();
  await idle(page);
  await expect(page.locator('.notice')).toContainText('The rest cannot follow there');
});

test('a point is dragged on the Board, and the wheel takes others along', async ({ page }) => {
  const rows = Array.from({ length: 9 }, (_, i) =>
    Array.from({ length: 9 }, (_, j) => `v ${j} 0 ${i}`),
  ).flat();
  const faces = Array.from({ length: 64 }, (_, f) => {
    const a = 9 * Math.floor(f / 8) + (f % 8) + 1;
    return `f ${a} ${a + 9} ${a + 10} ${a + 1}`;
  });
  await unfolded(page, [...rows, ...faces].join('\n'));
  await page.keyboard.press('5');
  await page.getByText('Points', { exact: true }).first().click();
  // The middle of the sheet is a point.
  const [x, y] = await at(page, 'board', 0.5, 0.5);
  await page.mouse.move(x, y);
  await page.mouse.click(x, y);
  await expect(page.getByTestId('selection')).toContainText('1 point');
  const worst = async () =>
    Number.parseFloat(
      (await page.getByTestId('figure-worst-stretch').textContent())?.match(/[\d.]+$/)?.[0] ?? '',
    );
  const drag = async (wheel: number): Promise<number> => {
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.mouse.move(x + 10, y + 2);
    if (wheel !== 0) for (let k = 0; k < 6; k++) await page.mouse.wheel(0, wheel);
    await page.mouse.move(x + 12, y + 2);
    await expect(page.locator('.drag-note')).toContainText(wheel === 0 ? 'alone' : 'go along');
    await page.mouse.up();
    await idle(page);
    const found = await worst();
    await page.keyboard.press('Control+z');
    await idle(page);
    return found;
  };
  const alone = await drag(0);
  expect(alone).toBeGreaterThan(1.2);
  // What goes along is stretched less.
  expect(await drag(-400)).toBeLessThan(alone);
  await page.getByTestId('board').focus();
});

/** A mask of 4 × 4 squares that is parted down the middle in its UVs, both halves apart. */
const MASK = [
  ...Array.from(
    { length: 25 },
    (_, k) => `v ${k % 5} ${Math.floor(k / 5)} ${(0.2 * Math.abs((k % 5) - 2)).toFixed(1)}`,
  ),
  ...[0, 1].flatMap((half) =>
    Array.from(
      { length: 15 },
      (_, k) => `vt ${0.1 + 0.4 * half + 0.1 * (k % 3)} ${0.1 + 0.3 * half + 0.1 * Math.floor(k / 3)}`,
    ),
  ),
  ...[0, 1].flatMap((half) =>
    Array.from({ length: 8 }, (_, f) => {
      const [i, j] = [Math.floor(f / 2), f % 2];
      const corners = [
        [0, 0],
        [0, 1],
        [1, 1],
        [1, 0],
      ].map(([di, dj]) => {
        const vertex = 5 * (i + di) + 2 * half + j + dj + 1;
        return `${vertex}/${15 * half + 3 * (i + di) + j + dj + 1}`;
      });
      return `f ${corners.join(' ')}`;
    }),
  ),
].join('\n');

const openMask = async (page: Page): Promise<void> => {
  await openModel(page, 'mask.obj', MASK);
  await page.getByRole('button', { name: 'Keep UVs' }).click();
  await benchReady(page);
  await page.keyboard.press('5');
  await idle(page);
};
const press = async (page: Page, name: string | RegExp): Promise<void> => {
  await page.getByRole('button', { name }).click();
  await idle(page);
};

test('a mask: halves are set apart and joined, a stroke lays one along its grain, and keys alone frame, scale, turn and square it', async ({
  page,
}) => {
  await openMask(page);
  const rows = page.locator('.ant-table-row');
  await rows.nth(0).click();
  await press(page, 'Its UVs to all copies, on top of it');
  await rows.nth(1).click({ modifiers: ['Shift'] });
  await press(page, /Set stacked ones apart, the right way/);
  await expect(page.locator('.notice')).toContainText('1 shell of 1 stack set apart');
  expect(await figure(page, 'overlaps')).toBe('0');
  await rows.nth(0).click();
  await press(page, /Join mirrored halves/);
  expect(await figure(page, 'shells')).toBe('1');
  expect(await figure(page, 'flipped')).toBe('0');
  await page.keyboard.press('Control+z');
  await idle(page);
  expect(await figure(page, 'shells')).toBe('2');

  // The grain.
  await page.locator('.ant-table-row').nth(1).click();
  const box = await page.locator('.frame').boundingBox();
  if (!box) throw new Error('There is no frame.');
  await page.keyboard.press('Shift+i');
  const y = box.y + box.height * 0.6;
  await page.mouse.move(box.x + 4, y);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2, y, { steps: 5 });
  await page.mouse.move(box.x + box.width - 4, y, { steps: 5 });
  await page.mouse.up();
  await idle(page);
  await expect(page.getByText('Grain along 2 edges')).toBeVisible();
  const lying = await page.locator('.frame').boundingBox();
  // It was higher than wide, and lies on its side.
  expect((lying?.width ?? 0) / (lying?.height ?? 1)).toBeGreaterThan(1.5);
  await page.keyboard.press('Control+z');
  await idle(page);
  await page.keyboard.press('q');

  // By keys alone.
  await page.keyboard.press('Escape');
  while (!(await page.getByRole('radio', { name: 'Shells' }).isChecked()))
    await page.keyboard.press('Shift+q');
  await page.getByTestId('board').focus();
  await page.keyboard.press('ArrowRight');
  // Once something is pointed at.
  await expect
    .poll(async () => {
      await page.keyboard.press('Enter');
      return page.getByTestId('selection').textContent();
    })
    .toContain('1 shell');
  const size = async () => (await page.locator('.frame').boundingBox()) as { width: number; height: number };
  const before = await size();
  await page.getByRole('button', { name: 'Scale along one way, right side' }).focus();
  await page.keyboard.press('Shift+ArrowRight');
  await idle(page);
  const wider = await size();
  expect(wider.width / before.width).toBeCloseTo(1.1, 2);
  expect(wider.height / before.height).toBeCloseTo(1, 2);
  const [left] = await placed(page);
  await page.getByRole('button', { name: 'Turn the selected shells' }).focus();
  for (let k = 0; k < 6; k++) {
    await page.keyboard.press('Shift+ArrowLeft');
    await idle(page);
  }
  const turned = await size();
  expect(turned.width / wider.height).toBeCloseTo(1, 2);
  expect((await placed(page))[0]).not.toBeCloseTo(left, 3);
  await page
    .getByRole('button', { name: 'Lay their borders on rectangles, the inside within them' })
    .press('Enter');
  await idle(page);
  await expect(page.getByText('Lay the border of 1 shell on a rectangle')).toBeVisible();
  expect(await figure(page, 'flipped')).toBe('0');
});

test('a corner of a shell takes hold of a corner of another, and the Board shows and lets touch only what it is told', async ({
  page,
}) => {
  await open(page);
  const rows = page.locator('.ant-table-row');
  await rows.nth(1).click();
  const middleOf = async (row: number): Promise<readonly [number, number]> => {
    await rows.nth(row).click();
    const number = await page.locator('.shell-numbers span[data-chosen=true]').boundingBox();
    if (!number) throw new Error('The shell has no number.');
    return [number.x + number.width / 2, number.y + number.height / 2];
  };
  const other = await middleOf(1);
  const [x, y] = await middleOf(0);
  const side = (await page.locator('.frame').boundingBox())?.width ?? 0;
  await page.mouse.move(x, y + 10);
  await page.mouse.down();
  await page.mouse.move(x + 12, y);
  await page.mouse.move(other[0] - side + 3, other[1] + 10 - 2, { steps: 4 });
  await page.mouse.up();
  await idle(page);
  const [u, v] = await placed(page);
  expect(u).toBeCloseTo(0.4 - 1 / 8, 4);
  expect(v).toBeCloseTo(0.3, 4);

  await rows.nth(0).click();
  await fromMenu(page, 'What the Board shows', 'Only the selected');
  await page.mouse.click(...other);
  await expect(page.getByTestId('selection')).toContainText('Nothing selected');
  await fromMenu(page, 'What the Board shows', 'All shells');
  await page.mouse.click(...other);
  await expect(page.getByTestId('selection')).toContainText('1 shell');
});

test('a point takes hold of a corner of another shell, and numbers move and size what is selected in texels', async ({
  page,
}) => {
  await open(page);
  await page.locator('.ant-table-row').nth(0).click();
  const frame = await page.locator('.frame').boundingBox();
  if (!frame) throw new Error('The shell has no frame.');
  // From the lower left corner of the first shell: 8 widths to a tile.
  const onBoard = (u: number, v: number): [number, number] => [
    frame.x + 8 * frame.width * (u - 0.1),
    frame.y + frame.height - 8 * frame.height * (v - 0.1),
  ];
  await page.getByText('Points', { exact: true }).first().click();
  await page.keyboard.press('Escape');
  // A little inside: off every shell a click lets go.
  await page.mouse.click(...onBoard(0.22, 0.22));
  await expect(page.getByTestId('selection')).toContainText('1 point');
  expect(await placed(page)).toEqual([0.225, 0.225]);
  const [x, y] = onBoard(0.395, 0.295);
  await page.mouse.move(...onBoard(0.22, 0.22));
  await page.mouse.down();
  await page.mouse.move(x - 30, y + 20);
  await page.mouse.move(x + 4, y - 3, { steps: 3 });
  await page.mouse.up();
  await idle(page);
  expect(await placed(page)).toEqual([0.4, 0.3]);

  const field = (name: string) => page.locator('.place-fields').getByLabel(name);
  const set = async (label: string, value: string): Promise<void> => {
    await field(label).fill(value);
    await page.keyboard.press('Enter');
    await idle(page);
  };
  await page.getByLabel('Unit of places and sizes').click();
  await page.getByText('texels', { exact: true }).last().click();
  await set('Left, u', '1e9');
  await expect(page.getByText(/“Left, u” goes from .* was not taken/)).toBeVisible();
  await set('Left, u', '1024');
  await page.locator('.ant-table-row').nth(2).click();
  await set('Width', '512');
  expect(Number(await field('Height').inputValue())).toBeCloseTo(256, 1);
  expect(Number(await page.getByLabel('Left, u').inputValue())).toBeCloseTo(0.7 * 2048, 1);
});
