/** Colours of the cutting room. */
export const PALETTE = {
  linen: '#F5F1E8',
  paper: '#FFFDF8',
  ink: '#22302E',
  pine: '#1F5A4E',
  ochre: '#B9801A',
  brick: '#A63D2A',
  fuchsia: '#C2186B',
  /** Text and lines on dark ground. */
  night: '#EFEAE0',
  /** Stitches on dark ground, and what lies under them. */
  moon: '#D9D2C0',
  dusk: '#1B2321',
} as const;
