import draco from 'draco3dgltf';
import { MeshoptEncoder } from 'meshoptimizer';

/** What writes compressed glTF, for tests alone. */
export async function encoder(): Promise<Record<string, unknown>> {
  await MeshoptEncoder.ready;
  const { createEncoderModule } = draco as unknown as { createEncoderModule(): Promise<unknown> };
  return { 'draco3d.encoder': await createEncoderModule(), 'meshopt.encoder': MeshoptEncoder };
}
