/** Where moving pictures of a running solver go: past the store, straight to the renderer. */
export const moving: { show: (triangles: Uint32Array, uv: Float32Array) => void } = { show: () => undefined };
