import { BufferAttribute, BufferGeometry, DoubleSide, Ray, Vector3 } from 'three';
import { MeshBVH, type SerializedBVH } from 'three-mesh-bvh';

/** Loose triangles, xyz of three corners each, `9 × triangleCount`, with a bounding volume hierarchy over them. */
export interface RayTree {
  readonly points: Float32Array;
  /** Plain data, so that it can be made in one thread and used in another; undefined over no triangles. */
  readonly hierarchy: SerializedBVH | undefined;
}

/** Builds the hierarchy; the triangles keep their order. */
export function rayTree(points: Float32Array): RayTree {
  if (points.length === 0) return { points, hierarchy: undefined };
  const bvh = new MeshBVH(geometryOf(points), { indirect: true });
  return { points, hierarchy: MeshBVH.serialize(bvh, { cloneBuffers: false }) };
}

function geometryOf(points: Float32Array): BufferGeometry {
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(points, 3));
  return geometry;
}

export interface Hit {
  readonly triangle: number;
  readonly distance: number;
  readonly point: readonly [number, number, number];
}

/** What casts rays at a tree; triangles are met from either side, all or those for which something holds. */
export function rayCaster({ points, hierarchy }: RayTree) {
  const bvh = hierarchy && MeshBVH.deserialize(hierarchy, geometryOf(points), { setIndex: false });
  const ray = new Ray(new Vector3(), new Vector3());
  return (
    origin: readonly number[],
    direction: readonly number[],
    isMet?: (triangle: number) => boolean,
  ): Hit | undefined => {
    ray.origin.fromArray(origin as number[]);
    ray.direction.fromArray(direction as number[]).normalize();
    const hit = isMet
      ? bvh
          ?.raycast(ray, DoubleSide)
          .sort((a, b) => a.distance - b.distance)
          .find(({ faceIndex }) => isMet(faceIndex ?? -1))
      : bvh?.raycastFirst(ray, DoubleSide);
    if (!hit || hit.faceIndex === undefined || hit.faceIndex === null) return undefined;
    return {
      triangle: hit.faceIndex,
      distance: hit.distance,
      point: hit.point.toArray() as [number, number, number],
    };
  };
}

export type RayCaster = ReturnType<typeof rayCaster>;
