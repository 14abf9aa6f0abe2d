const USUAL = 4180;

/** The port that a word asks for; the usual one without any, undefined where it is no port. */
export function portOf(word: string | undefined): number | undefined {
  if (word === undefined || word === '') return USUAL;
  return /^\d{1,5}$/.test(word) && Number(word) < 2 ** 16 ? Number(word) : undefined;
}
