import { type HemDocument, shellsOf, topologyOf } from '../document/document.ts';
import type { Ground } from '../select/targets/target.ts';

/** What targets are looked for on. */
export function groundOf(document: HemDocument): Ground {
  const { mesh, connectivity } = topologyOf(document.model);
  return { mesh, connectivity, shells: shellsOf(document), hidden: document.hidden };
}
