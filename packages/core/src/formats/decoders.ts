import type { Extension } from '@gltf-transform/core';
import { EXTMeshoptCompression, KHRDracoMeshCompression } from '@gltf-transform/extensions';

/** What a host must bring along: in a browser the decoder's WebAssembly is a file of its own. */
export const host: { dracoBinary?: () => Promise<ArrayBuffer> } = {};

/** Decoders for the compressed parts of a glTF file that names these extensions; loaded only when named. */
export async function decodersFor(extensions: readonly string[]): Promise<Record<string, unknown>> {
  const decoders: Record<string, unknown> = {};
  if (extensions.includes(KHRDracoMeshCompression.EXTENSION_NAME)) {
    const { default: draco } = await import('draco3dgltf');
    const wasmBinary = await host.dracoBinary?.();
    decoders['draco3d.decoder'] = await draco.createDecoderModule(wasmBinary ? { wasmBinary } : {});
  }
  if (extensions.includes(EXTMeshoptCompression.EXTENSION_NAME)) {
    const { MeshoptDecoder } = await import('meshoptimizer');
    await MeshoptDecoder.ready;
    decoders['meshopt.decoder'] = MeshoptDecoder;
  }
  return decoders;
}

/** Compression is undone on reading; what is written is plain. */
export const isCompression = ({ extensionName }: Extension): boolean =>
  extensionName === KHRDracoMeshCompression.EXTENSION_NAME ||
  extensionName === EXTMeshoptCompression.EXTENSION_NAME;
