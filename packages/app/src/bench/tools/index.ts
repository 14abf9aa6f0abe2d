import { useBench } from '../../store/bench.ts';
import { box } from './box.ts';
import { brush } from './brush/brush.ts';
import { dart } from './dart.tsx';
import { grain } from './grain.ts';
import { lasso } from './lasso.ts';
import { paint } from './paint.tsx';
import { pick } from './pick.ts';
import { pin } from './pin.tsx';
import { project } from './project/project.ts';
import { region } from './region.ts';
import { route } from './route/route.ts';
import { shift } from './shift.tsx';
import type { Tool } from './tool.ts';

/** Every tool. */
export const TOOLS: readonly Tool[] = [
  pick,
  box,
  lasso,
  paint,
  route,
  dart,
  shift,
  pin,
  brush,
  project,
  region,
  grain,
];

export const toolNamed = (name: string): Tool => TOOLS.find((tool) => tool.name === name) ?? pick;

/** Takes a tool in hand; the last one is put away. */
export function takeTool(name: string): void {
  const { tool } = useBench.getState();
  if (tool === name) return;
  toolNamed(tool).leaveHand?.();
  useBench.setState({ tool: name });
}
