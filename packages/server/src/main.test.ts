import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { expect, it } from 'vitest';
import { portOf } from './port.ts';

it('takes a port, or says what one is', () => {
  expect([portOf(undefined), portOf(''), portOf('0'), portOf('65535')]).toEqual([4180, 4180, 0, 65535]);
  for (const word of ['abc', '-1', '65536', '4180x', '1e3', '41.5', ' 4181'])
    expect(portOf(word)).toBeUndefined();
  const main = fileURLToPath(new URL('./main.ts', import.meta.url));
  const env = { ...process.env, PORT: 'lantern' };
  const { status, stderr } = spawnSync(process.execPath, ['--import', 'tsx', main], { env });
  expect(status).toBe(1);
  expect(stderr.toString()).toBe(
    'PORT is “lantern”: it must be a whole number from 0 to 65535. Leave it out for 4180.\n',
  );
});
