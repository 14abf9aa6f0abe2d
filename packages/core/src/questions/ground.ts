import { type HemDocument, shellsOf, topologyOf } from '../document/document.ts';
import type { Ground } from '../select/targets/target.ts';

/** What targets are looked for on. */
export function groundOf(document: HemDocument): Ground {
  const { mesh, links } = topologyOf(document.model);
  return { mesh, links, shells: shellsOf(document), hidden: document.hidden };
}
