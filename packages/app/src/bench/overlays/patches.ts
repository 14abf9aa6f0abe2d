import { IconColorSwatch } from '@tabler/icons-react';
import type { Overlay } from './overlay.ts';

/** Colours before they come round again; the first is that of faces of no patch. */
const BANDS = 24;
const NONE = 'rgb(216, 210, 199)';
/** Hues as far apart as they come one after the other (the golden section). */
const STEP = (Math.sqrt(5) - 1) / 2;

/** The band of a patch, from 1 to 23 and round again. */
const bandOf = (patch: number): number => (patch === 0 ? 0 : 1 + ((patch - 1) % (BANDS - 1)));
const placeOf = (band: number): number => (band + 0.5) / BANDS;

/** Which faces are of one patch: named sets that are meant to become shells. */
export const patches: Overlay = {
  name: 'patches',
  label: 'Patches',
  icon: IconColorSwatch,
  title: 'Patches',
  everywhere: true,
  missing: 'There is no patch yet: paint one at Cut, or make it of faces you picked.',
  isOffered: ({ patches: { names } }) => names.some(Boolean),
  needs: ({ patches: { triangles } }) => [triangles],
  values: ({ patches: { triangles } }) => triangles,
  smooth: () => undefined,
  place: (patch) => placeOf(bandOf(patch)),
  colour(place) {
    const band = Math.floor(place * BANDS);
    return band === 0 ? NONE : `hsl(${Math.round(360 * ((band * STEP) % 1))}, 42%, ${band % 2 ? 58 : 70}%)`;
  },
};

export const colourOfPatch = (patch: number): string => patches.colour(patches.place(patch));
