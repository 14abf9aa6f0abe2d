/** What can be opened as a model, by ending. */
export const MODEL_ENDINGS = ['obj', 'glb', 'gltf', 'ply', 'stl'] as const;
