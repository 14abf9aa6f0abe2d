import { LinearFilter, LinearMipmapLinearFilter, Texture } from 'three';

const made = new WeakMap<ImageBitmap, Texture>();

/** An image as a texture, made once. */
export function imageTexture(bitmap: ImageBitmap): Texture {
  let texture = made.get(bitmap);
  if (!texture) {
    texture = new Texture(bitmap);
    // It was turned when it was read: bitmaps cannot be turned on their way to the graphics card.
    texture.flipY = false;
    texture.minFilter = LinearMipmapLinearFilter;
    texture.magFilter = LinearFilter;
    texture.anisotropy = 16;
    texture.needsUpdate = true;
    made.set(bitmap, texture);
  }
  return texture;
}
