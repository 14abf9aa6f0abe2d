import { WebIO } from '@gltf-transform/core';
import { ALL_EXTENSIONS } from '@gltf-transform/extensions';

/** Knows every ratified extension, so that none is lost on the way through. Reads bytes only, never an address. */
export const gltfIo = (): WebIO => new WebIO().registerExtensions(ALL_EXTENSIONS);
