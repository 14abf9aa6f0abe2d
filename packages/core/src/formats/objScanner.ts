const TAB = 9;
const NEWLINE = 10;
const RETURN = 13;
const SPACE = 32;
const HASH = 35;
const PLUS = 43;
const MINUS = 45;
const POINT = 46;
const SLASH = 47;
const ZERO = 48;
const NINE = 57;
const BACKSLASH = 92;

/** Powers of ten that are exact as numbers. */
const TENS = Array.from({ length: 23 }, (_, i) => 10 ** i);
/** Digits of which any number of them is exact. */
const MOST_DIGITS = 15;
/** No number is longer than so many letters. */
const LONGEST = 64;

/** The code of a keyword of two letters. */
export const keywordOf = (first: number, second: number): number => 256 * first + second;

/**
 * Reads numbers straight from the bytes of an OBJ file, for the statements that make up nearly all of one. Every function gives
 * up on what it does not know well, and leaves it to be read the long way.
 */
export function objScanner(bytes: Uint8Array) {
  let at = 0;
  let lines = 0;

  /** Past blanks and line continuations. */
  const skipBlanks = (): void => {
    for (;;) {
      const byte = bytes[at];
      if (byte === SPACE || byte === TAB || (byte === RETURN && bytes[at + 1] !== NEWLINE)) at++;
      else if (byte === BACKSLASH && bytes[at + 1] === NEWLINE) {
        at += 2;
        lines++;
      } else if (byte === BACKSLASH && bytes[at + 1] === RETURN && bytes[at + 2] === NEWLINE) {
        at += 3;
        lines++;
      } else return;
    }
  };

  const isBlank = (byte: number): boolean =>
    byte === SPACE || byte === TAB || byte === BACKSLASH || isEnd(byte);
  const isEnd = (byte: number): boolean => byte === NEWLINE || byte === RETURN || byte === undefined;

  return {
    get at(): number {
      return at;
    },
    set at(next: number) {
      at = next;
    },
    /** Line ends passed since this was last set. */
    get lines(): number {
      return lines;
    },
    set lines(next: number) {
      lines = next;
    },
    skipBlanks,

    /** Past a keyword of one or two letters and the blanks behind it; 0 where none stands here, otherwise its letters' codes. */
    keyword(): number {
      const first = bytes[at];
      const second = bytes[at + 1];
      const one = second === SPACE || second === TAB;
      if (!one && bytes[at + 2] !== SPACE && bytes[at + 2] !== TAB) return 0;
      at += one ? 1 : 2;
      skipBlanks();
      return one ? first : keywordOf(first, second);
    },

    /** Past a number and the blanks behind it; NaN where there is none. */
    decimal(): number {
      const start = at;
      let negative = false;
      if (bytes[at] === MINUS || bytes[at] === PLUS) negative = bytes[at++] === MINUS;
      const first = at;
      let mantissa = 0;
      let digits = 0;
      let places = 0;
      let fraction = 0;
      for (; ; at++) {
        const byte = bytes[at];
        if (byte >= ZERO && byte <= NINE) {
          mantissa = 10 * mantissa + (byte - ZERO);
          if (mantissa > 0) digits++;
          places += fraction;
        } else if (byte === POINT && fraction === 0) fraction = 1;
        else break;
      }
      // Few digits over a small power of ten are exact in one division (Clinger 1990); the rest goes the long way.
      let value = mantissa / TENS[places];
      if (digits > MOST_DIGITS || places >= TENS.length || at - first <= fraction || !isBlank(bytes[at])) {
        while (!isBlank(bytes[at])) at++;
        const text = String.fromCharCode(...bytes.subarray(start, Math.min(at, start + LONGEST)));
        value = at > start ? Number(text) : NaN;
        if (!Number.isFinite(value)) return NaN;
        negative = false;
      }
      skipBlanks();
      return negative ? -value : value;
    },

    /** Past a whole number; 0 where there is none. */
    whole(): number {
      const negative = bytes[at] === MINUS;
      if (negative) at++;
      let value = 0;
      for (; bytes[at] >= ZERO && bytes[at] <= NINE; at++) value = 10 * value + (bytes[at] - ZERO);
      if (value > 0xffffffff) return 0;
      return negative ? -value : value;
    },

    slash(): boolean {
      if (bytes[at] !== SLASH) return false;
      at++;
      return true;
    },

    /** Whether a word may end here. */
    blank: (): boolean => isBlank(bytes[at]),

    /** Past the end of the statement, comment and all; false when something else stands here. */
    end(): boolean {
      if (bytes[at] === HASH) {
        while (at < bytes.length && bytes[at] !== NEWLINE) at++;
        // A comment may be continued, too.
        if (bytes[at - 1] === BACKSLASH || (bytes[at - 1] === RETURN && bytes[at - 2] === BACKSLASH))
          return false;
      }
      if (bytes[at] === RETURN) at++;
      if (at < bytes.length && bytes[at] !== NEWLINE) return false;
      at = Math.min(at + 1, bytes.length);
      lines++;
      return true;
    },

    /** Where the statement that begins here ends, with its line ends counted: a line, or several joined by backslashes. */
    statementEnd(): number {
      let to = at;
      for (;;) {
        while (to < bytes.length && bytes[to] !== NEWLINE) to++;
        const last = bytes[to - 1] === RETURN ? to - 2 : to - 1;
        lines++;
        if (to >= bytes.length) return to;
        to++;
        if (bytes[last] !== BACKSLASH || last < at || to >= bytes.length) return to;
      }
    },
  };
}
