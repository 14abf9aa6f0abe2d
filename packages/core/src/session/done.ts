/** What an act has led to. */
export interface Done {
  /** What was done, for the artist. */
  readonly label: string;
  readonly notes: readonly string[];
  /** False when nothing came of it. */
  readonly changed: boolean;
}
