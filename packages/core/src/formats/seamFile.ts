import Joi from 'joi';
import { FileError } from '../errors.ts';
import { type Connectivity, findEdge } from '../mesh/connectivity.ts';

const schema = Joi.object({ edges: Joi.array().required() });

/** Looked at by hand: there may be millions. */
const isPair = (pair: unknown): pair is [number, number] =>
  Array.isArray(pair) && pair.length === 2 && pair.every((v) => Number.isInteger(v) && v >= 0);

/**
 * Reads a list of seams, `{"edges": [[a, b], …]}` with zero-based vertices.
 *
 * @returns edges of the model
 * @throws FileError when the text is no such list or names two vertices without an edge between them
 */
export function readSeams(text: string, fileName: string, connectivity: Connectivity): number[] {
  let parsed: unknown;
  try {
    parsed = JSON.parse(text);
  } catch {
    throw new FileError(fileName, 'this is not JSON.', 'It should read {"edges": [[a, b], …]}.');
  }
  const { error } = schema.validate(parsed, { convert: false });
  if (error) throw new FileError(fileName, `${error.message}.`, 'It should read {"edges": [[a, b], …]}.');
  const { edges } = parsed as { readonly edges: readonly unknown[] };
  const vertices = connectivity.vertexEdgeStart.length - 1;
  return edges.map((pair, i) => {
    if (!isPair(pair))
      throw new FileError(
        fileName,
        `entry ${i} of "edges" is not two numbers of vertices.`,
        'It should read {"edges": [[a, b], …]}.',
      );
    const [a, b] = pair;
    const edge = a < vertices && b < vertices ? findEdge(connectivity, a, b) : -1;
    if (edge < 0) {
      throw new FileError(
        fileName,
        `the model has no edge between vertices ${a} and ${b}.`,
        'Seams must follow edges of the model.',
      );
    }
    return edge;
  });
}

/** A list of seams as `readSeams` reads it. */
export const writeSeams = ({ edgeVertices }: Connectivity, edges: Iterable<number>): string =>
  `${JSON.stringify({ edges: Array.from(edges, (e) => [...edgeVertices.subarray(2 * e, 2 * e + 2)]) })}\n`;
