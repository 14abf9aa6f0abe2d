import type { HemDocument } from '@blunt-hem/core/document/document';
import { WEIGHTS } from '@blunt-hem/core/document/patchWeights';
import { FileError } from '@blunt-hem/core/errors';
import Joi from 'joi';
import { readJson } from './jsonFile.ts';

const name = Joi.string();
const schema = Joi.object({
  weights: Joi.array()
    .items(
      Joi.object({
        part: name,
        material: name,
        faces: Joi.array().items(Joi.number().integer().min(0)).min(1),
        times: Joi.number().min(WEIGHTS.least).max(WEIGHTS.most).required(),
      }).xor('part', 'material', 'faces'),
    )
    .min(1)
    .required(),
});
const SHAPE =
  'It should read {"weights": [{"part": "Head", "times": 2}, …]}, each with the name of a part or a material, or with faces.';

/** How much finer than on the rest the texture is to be on some faces. */
export interface FaceWeight {
  readonly name: string;
  readonly faces: readonly number[];
  readonly times: number;
}

/**
 * Reads which parts, materials or faces of a model are to have a finer texture than the rest.
 *
 * @throws FileError when the text is no such list, or the model has none of that name
 */
export function readWeights(
  text: string,
  fileName: string,
  { model }: Pick<HemDocument, 'model'>,
): FaceWeight[] {
  const value = readJson(text, fileName, schema, SHAPE);
  const facesWhere = (names: readonly string[], of: ArrayLike<number>, wanted: string, kind: string) => {
    const faces = Array.from(of, (i, f) => (names[i] === wanted ? f : -1)).filter((f) => f >= 0);
    if (faces.length === 0)
      throw new FileError(fileName, `the model has no ${kind} “${wanted}”.`, `It has ${inWords(names)}.`);
    return faces;
  };
  return value.weights.map(
    ({
      part,
      material,
      faces,
      times,
    }: {
      part?: string;
      material?: string;
      faces?: number[];
      times: number;
    }) => ({
      name: part ?? material ?? 'faces',
      times,
      faces:
        faces ??
        (part !== undefined
          ? facesWhere(model.objects, model.faceObject, part, 'part')
          : facesWhere(
              model.materials.map((each) => each.name),
              model.faceMaterial,
              material as string,
              'material',
            )),
    }),
  );
}

const inWords = (names: readonly string[]): string =>
  names.length === 0 ? 'none' : names.map((each) => `“${each}”`).join(', ');
