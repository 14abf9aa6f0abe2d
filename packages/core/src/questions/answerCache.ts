import type { HemDocument } from '../document/document.ts';

/** Something that a question has made ready on one document, to answer quickly when it is asked again. */
interface Kept {
  readonly document: HemDocument;
  readonly value: object;
  release?(): void;
}

/**
 * What questions keep from one answer to the next, one thing each, on one document. It belongs to a session, which lets go of it when the
 * document changes and when it is closed.
 */
export interface AnswerCache {
  /** What was kept under a name on this document; undefined where that was on another, or nothing was. */
  get(name: string, document: HemDocument): object | undefined;
  /** Takes the place of what was kept under the name. */
  put(name: string, kept: Kept): void;
  /** Lets go of all that is not of a document. */
  keepOnly(document?: HemDocument): void;
}

export function answerCache(): AnswerCache {
  const all = new Map<string, Kept>();
  const drop = (name: string): void => {
    all.get(name)?.release?.();
    all.delete(name);
  };
  return {
    get(name, document) {
      const kept = all.get(name);
      return kept?.document === document ? kept.value : undefined;
    },
    put(name, kept) {
      // A new value may go on from the old one: that is not let go of.
      if (all.get(name)?.value !== kept.value) drop(name);
      all.set(name, kept);
    },
    keepOnly(document) {
      for (const [name, kept] of all) if (kept.document !== document) drop(name);
    },
  };
}
