import type { HemDocument } from '../../document/document.ts';
import { repeatable } from '../../mesh/model.ts';

/** What an export can no longer do once the mesh or its names have changed. */
export function losses({ model }: HemDocument): string[] {
  return repeatable(model).format === 'none'
    ? []
    : ['Exports are composed anew from now on: comments, normals and textures of the file are not in them.'];
}
