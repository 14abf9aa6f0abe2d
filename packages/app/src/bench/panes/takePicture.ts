import {
  type Camera,
  PerspectiveCamera,
  type Scene,
  Vector3,
  type WebGLRenderer,
  WebGLRenderTarget,
} from 'three';
import { distanceToSee } from './fitting.ts';

/** Pixels of a picture for the Rack: those of a card, doubled. */
export const PICTURE = { width: 560, height: 364 };

/** Where the first look at a model comes from. */
export const FIRST_LOOK = [0.62, 0.42, 1] as const;

/** A camera that sees all of some points from where the first look comes, in a picture for the Rack. */
export function pictureCamera(
  points: readonly Vector3[],
  centre: Vector3,
  radius: number,
): PerspectiveCamera {
  const aspect = PICTURE.width / PICTURE.height;
  const camera = new PerspectiveCamera(35, aspect, 0.01 * radius, 100 * radius);
  const direction = new Vector3(...FIRST_LOOK).normalize();
  const back = distanceToSee(points, centre, direction, camera, aspect);
  camera.position.copy(centre).addScaledVector(direction, back);
  camera.near = Math.max(back - 2.5 * radius, 1e-3 * radius);
  camera.far = back + 3 * radius;
  camera.lookAt(centre);
  camera.updateProjectionMatrix();
  camera.updateMatrixWorld();
  return camera;
}

/** Draws a scene on no ground at all. */
export async function takePicture(renderer: WebGLRenderer, scene: Scene, camera: Camera): Promise<Blob> {
  const { width, height } = PICTURE;
  const target = new WebGLRenderTarget(width, height, { samples: 4 });
  renderer.setRenderTarget(target);
  renderer.setClearColor(0x000000, 0);
  renderer.clear();
  renderer.render(scene, camera);
  renderer.setRenderTarget(null);
  const pixels = new Uint8Array(4 * width * height);
  await renderer.readRenderTargetPixelsAsync(target, 0, 0, width, height, pixels);
  target.dispose();
  const upright = new Uint8ClampedArray(pixels.length);
  for (let y = 0; y < height; y++)
    upright.set(pixels.subarray(4 * width * y, 4 * width * (y + 1)), 4 * width * (height - 1 - y));
  const canvas = new OffscreenCanvas(width, height);
  canvas.getContext('2d')?.putImageData(new ImageData(upright, width), 0, 0);
  // Where a browser cannot write the smaller format it writes PNG by itself.
  return canvas.convertToBlob({ type: 'image/webp', quality: 0.9 });
}
