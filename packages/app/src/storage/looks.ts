export const CHECKER_UNITS = ['repeats', 'texels', 'units'] as const;
export type CheckerUnit = (typeof CHECKER_UNITS)[number];

export const SCALES_AGAINST = ['shell', 'others', 'chosen'] as const;
/** What the texture scale of a shell is measured against: itself, what most of the surface has, or a number. */
export type ScaleAgainst = (typeof SCALES_AGAINST)[number];

/** What of how the artist looks at things a project keeps. */
export const KEPT_LOOKS = [
  'stage',
  'overlay',
  'checker',
  'checkerKind',
  'checkerStrength',
  'checkerUnit',
  'squareTexels',
  'squareUnits',
  'repeats',
  'visibleOnly',
  'parallel',
  'split',
  'notches',
  'ellipsesOn',
  'scaleAgainst',
  'chosenScale',
  'seamWeight',
  'detailsWidth',
] as const;
