import { type Mesh, meshFromPolygons } from '@blunt-hem/core/mesh/mesh';
import { triangulate } from '@blunt-hem/core/mesh/triangulate';
import { Document, type Node, NodeIO } from '@gltf-transform/core';

/**
 * The reed punt, with a few honest faults for the health check: its left half is the right one mirrored by a negative scale,
 * a hair apart along the keel; the pole is stretched by an uneven scale; ballast lies in a closed locker where nobody sees it.
 */
export async function reedPunt(): Promise<Uint8Array> {
  const document = new Document();
  const buffer = document.createBuffer();
  const scene = document.createScene('Reed punt');
  const wood = document.createMaterial('Wet planks');
  const reed = document.createMaterial('Reed');
  const meshOf = (name: string, mesh: Mesh, material = wood) => {
    const { triangleCorners } = triangulate(mesh);
    const indices = Uint32Array.from(triangleCorners, (c) => mesh.cornerVertex[c]);
    const accessor = (type: 'VEC3' | 'SCALAR', array: Float32Array | Uint32Array) =>
      document.createAccessor().setType(type).setArray(array).setBuffer(buffer);
    const primitive = document
      .createPrimitive()
      .setAttribute('POSITION', accessor('VEC3', Float32Array.from(mesh.positions)))
      .setIndices(accessor('SCALAR', indices))
      .setMaterial(material);
    return document.createMesh(name).addPrimitive(primitive);
  };
  const place = (name: string, mesh: ReturnType<typeof meshOf>): Node => {
    const node = document.createNode(name).setMesh(mesh);
    scene.addChild(node);
    return node;
  };

  const half = meshOf('Half of the hull', hullHalf());
  place('Hull, right', half);
  place('Hull, left', half).setScale([-1, 1, 1]);
  place('Pole', meshOf('Pole', tube(16, 12), reed))
    .setScale([0.045, 2.6, 0.045])
    .setTranslation([0.5, 0.9, 0.6])
    .setRotation([Math.sin(0.28), 0, 0, Math.cos(0.28)]);
  const board = meshOf('Floor board', box(0.075, 0.02, 1.3));
  for (let i = 0; i < 5; i++) place(`Floor board ${i + 1}`, board).setTranslation([0.17 * (i - 2), 0.16, 0]);
  place('Locker', meshOf('Locker', box(0.3, 0.14, 0.2))).setTranslation([0, 0.42, -1.75]);
  place('Ballast', meshOf('Ballast', box(0.2, 0.07, 0.12), reed)).setTranslation([0, 0.4, -1.75]);
  return new NodeIO().writeBinary(document);
}

/** Right half of the hull, seen from outside: strakes from the keel up, pointed at both ends. */
function hullHalf(): Mesh {
  const [strakes, ribs] = [8, 40];
  const vertices: number[][] = [];
  const faces: number[][] = [];
  for (let i = 0; i <= strakes; i++) {
    for (let j = 0; j <= ribs; j++) {
      const [s, t] = [i / strakes, (2 * j) / ribs - 1];
      const beam = 0.75 * (1 - 0.92 * t ** 4);
      const sheer = 0.12 * t ** 4;
      const bend = 1 - (1 - s) ** 2.2;
      // A hair off the middle, so that the halves do not quite meet.
      vertices.push([2e-4 + beam * bend, 0.5 * s ** 1.8 + sheer, 2.4 * t]);
    }
  }
  const id = (i: number, j: number) => i * (ribs + 1) + j;
  for (let i = 0; i < strakes; i++)
    for (let j = 0; j < ribs; j++) faces.push([id(i, j), id(i + 1, j), id(i + 1, j + 1), id(i, j + 1)]);
  return meshFromPolygons(vertices, faces);
}

/** A closed tube of radius 1 about y, from −½ to ½ … of length 1. */
function tube(sides: number, rows: number): Mesh {
  const vertices: number[][] = [];
  const faces: number[][] = [];
  for (let i = 0; i <= rows; i++) {
    for (let j = 0; j < sides; j++) {
      const a = (2 * Math.PI * j) / sides;
      vertices.push([Math.cos(a), i / rows - 0.5, -Math.sin(a)]);
    }
  }
  const id = (i: number, j: number) => i * sides + (j % sides);
  for (let i = 0; i < rows; i++)
    for (let j = 0; j < sides; j++) faces.push([id(i, j), id(i, j + 1), id(i + 1, j + 1), id(i + 1, j)]);
  faces.push(Array.from({ length: sides }, (_, j) => id(rows, j)));
  faces.push(Array.from({ length: sides }, (_, j) => id(0, sides - 1 - j)));
  return meshFromPolygons(vertices, faces);
}

/** A box by its half sides. */
function box(x: number, y: number, z: number): Mesh {
  const corners = [-y, y].flatMap((h) => [
    [-x, h, -z],
    [x, h, -z],
    [x, h, z],
    [-x, h, z],
  ]);
  return meshFromPolygons(corners, [
    [0, 1, 2, 3],
    [7, 6, 5, 4],
    [4, 5, 1, 0],
    [5, 6, 2, 1],
    [6, 7, 3, 2],
    [7, 4, 0, 3],
  ]);
}

/**
 * The punt's thwart, a board with a square hole for the pole, as OBJ: its top and bottom are polygons with a bridge from the
 * rim to the hole, which glTF, made of triangles, could not hold.
 */
export function puntThwart(): string {
  const ring = (half: readonly [number, number], h: number) => [
    [-half[0], h, -half[1]],
    [half[0], h, -half[1]],
    [half[0], h, half[1]],
    [-half[0], h, half[1]],
  ];
  const vertices = [0, 0.05].flatMap((h) => [...ring([0.7, 0.16], h), ...ring([0.06, 0.06], h)]);
  const faces: number[][] = [
    [9, 12, 11, 10, 9, 13, 14, 15, 16, 13],
    [1, 2, 3, 4, 1, 5, 8, 7, 6, 5],
  ];
  for (let k = 0; k < 4; k++) {
    const next = (k + 1) % 4;
    faces.push([1 + next, 1 + k, 9 + k, 9 + next]);
    faces.push([5 + k, 5 + next, 13 + next, 13 + k]);
  }
  const lines = vertices.map(([x, y, z]) => `v ${x} ${y} ${z}`);
  return `# Made by demo/build.ts\no Thwart\nusemtl Wet planks\ns off\n${[...lines, ...faces.map((f) => `f ${f.join(' ')}`)].join('\n')}\n`;
}
