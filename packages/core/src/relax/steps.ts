/**
 * Steps of relaxing that follow a change of seams, and by which it is judged beforehand how shells would lie; a shell that needs more wants
 * a relax of its own.
 */
export const RELAX_STEPS = 30;
