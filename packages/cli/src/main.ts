import { hem } from './program.ts';

await hem(process.argv.slice(2));
