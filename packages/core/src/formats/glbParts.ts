import type { Document, Mesh, Node, Primitive } from '@gltf-transform/core';

/** One primitive as one node shows it. */
export interface GlbPart {
  readonly node: Node;
  readonly mesh: Mesh;
  readonly primitive: Primitive;
}

const TRIANGLES = 4;

/** All triangle primitives under the default scene, in the order of the node tree: reader and writer agree on it. */
export function glbParts(document: Document): GlbPart[] {
  const root = document.getRoot();
  const scene = root.getDefaultScene() ?? root.listScenes()[0];
  const parts: GlbPart[] = [];
  scene?.traverse((node) => {
    const mesh = node.getMesh();
    for (const primitive of mesh?.listPrimitives() ?? []) {
      if (primitive.getMode() === TRIANGLES && primitive.getAttribute('POSITION')) {
        parts.push({ node, mesh: mesh as Mesh, primitive });
      }
    }
  });
  return parts;
}
