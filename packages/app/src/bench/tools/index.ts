import { box } from './box.ts';
import { pick } from './pick.ts';
import type { Tool } from './tool.ts';

/** Every tool. */
export const TOOLS: readonly Tool[] = [pick, box];

export const toolNamed = (name: string): Tool => TOOLS.find((tool) => tool.name === name) ?? pick;
