import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { serve } from '@hono/node-server';
import { createApp } from './app.ts';

const folder = fileURLToPath(new URL('../../app/dist', import.meta.url));
const port = Number(process.env.PORT ?? 4180);

if (!existsSync(folder)) {
  process.stderr.write('The app is not built yet: run npm start, which builds and serves it.\n');
  process.exit(1);
}
const server = serve({ fetch: createApp(folder).fetch, hostname: '127.0.0.1', port }, (info) => {
  process.stdout.write(`Blunt Hem is at http://127.0.0.1:${info.port}/\n`);
});
server.on('error', (error: NodeJS.ErrnoException) => {
  const sentence =
    error.code === 'EADDRINUSE'
      ? `Port ${port} is taken: stop what uses it, or choose another with PORT=4181 npm start.`
      : error.message;
  process.stderr.write(`${sentence}\n`);
  process.exit(1);
});
