/** A material as a file gives it. */
export interface Material {
  /** As the file writes it; several may have the same. */
  readonly name: string;
  /** Red, green and blue, linear, 0 to 1, where the file says so. */
  readonly colour?: Colour;
  /** Places among the images of the model, by what the material takes from them. */
  readonly images?: Readonly<Partial<Record<ImageUse, number>>>;
  /** Where the model is of a glTF file: its place among the materials of the file, which say more than is read here. */
  readonly inFile?: number;
}

export type Colour = readonly [red: number, green: number, blue: number];

/** What a material may take from an image, named as in glTF 2.0 (Khronos 2021, §3.9); heights are of Wavefront libraries. */
export const IMAGE_USES = [
  'colour',
  'metallicRoughness',
  'normal',
  'occlusion',
  'emissive',
  'height',
] as const;
export type ImageUse = (typeof IMAGE_USES)[number];

/** An image that materials of a model name. */
export interface ModelImage {
  /** Of its file, or as the file that holds it calls it; empty where it has none. */
  readonly name: string;
  /** `image/png` and so on, as its bytes tell, or its ending where there are none; empty where it is none that is known. */
  readonly mimeType: string;
  /** Its file; absent where it was not opened along with the model, and where it stands in the source of the model. */
  readonly bytes?: Uint8Array;
}
