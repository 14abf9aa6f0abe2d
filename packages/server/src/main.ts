import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { serve } from '@hono/node-server';
import { createApp } from './app.ts';
import { portOf } from './port.ts';

const folder = fileURLToPath(new URL('../../app/dist', import.meta.url));

function giveUp(sentence: string): never {
  process.stderr.write(`${sentence}\n`);
  process.exit(1);
}

const port =
  portOf(process.env.PORT) ??
  giveUp(`PORT is “${process.env.PORT}”: it must be a whole number from 0 to 65535. Leave it out for 4180.`);
if (!existsSync(join(folder, 'index.html')))
  giveUp('The app is not built, or only in part: run npm start, which builds and serves it.');

const server = serve({ fetch: createApp(folder).fetch, hostname: '127.0.0.1', port }, (info) => {
  process.stdout.write(`Blunt Hem is at http://127.0.0.1:${info.port}/\n`);
});
server.on('error', (error: NodeJS.ErrnoException) => {
  const sentence =
    error.code === 'EADDRINUSE'
      ? `Port ${port} is taken: stop what uses it, or choose another with PORT=4181 npm start.`
      : error.code === 'EACCES'
        ? `Port ${port} is not for everybody: choose one above 1023 with PORT=4181 npm start.`
        : `The app cannot be served: ${error.message}.`;
  giveUp(sentence);
});
