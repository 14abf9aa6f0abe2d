/** One statement of an OBJ file: a line, or several joined by backslashes. */
export interface ObjLine {
  /** Number of its first line, from 1. */
  readonly number: number;
  /** Where it begins and ends in the text, line ends included. */
  readonly from: number;
  readonly to: number;
  /** Without comment, continuations and outer blanks. */
  readonly text: string;
}

/** Statements of an OBJ file one after the other, blank ones too. */
export function* objLines(text: string): Generator<ObjLine> {
  let from = 0;
  let number = 1;
  while (from < text.length) {
    const first = number;
    let to = from;
    let joined = '';
    for (;;) {
      const newline = text.indexOf('\n', to);
      const end = newline < 0 ? text.length : newline;
      let line = text.slice(to, end);
      if (line.endsWith('\r')) line = line.slice(0, -1);
      to = newline < 0 ? end : end + 1;
      number++;
      if (line.endsWith('\\') && to < text.length) {
        joined += `${line.slice(0, -1)} `;
        continue;
      }
      joined += line;
      break;
    }
    const hash = joined.indexOf('#');
    yield { number: first, from, to, text: (hash < 0 ? joined : joined.slice(0, hash)).trim() };
    from = to;
  }
}
