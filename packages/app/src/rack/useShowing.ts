import { useState } from 'react';
import { reporting } from '../worker/reporting.ts';
import type { Problem } from './ProjectCard.tsx';

/** What goes on, while it does. */
interface Working {
  readonly text: string;
  readonly canCancel: boolean;
  /** Part of it that is done, where that is told. */
  readonly part?: number;
}

/** What the Rack tells: what goes on, what came of it, and what went wrong. */
export function useShowing() {
  const [problem, setProblem] = useState<Problem>();
  const [note, setNote] = useState<string>();
  const [working, setWorking] = useState<Working>();
  return {
    problem,
    note,
    working,
    setProblem,
    setNote,
    /**
     * Shows what goes on while it does, and what went wrong.
     *
     * @param text  nothing is shown where undefined
     * @returns whether it came about
     */
    async showing(
      text: string | undefined,
      work: (report: (part: number) => void) => Promise<void>,
      canCancel = false,
    ): Promise<boolean> {
      setProblem(undefined);
      setNote(undefined);
      setWorking(text === undefined ? undefined : { text, canCancel });
      try {
        await reporting((part: number) => setWorking((now) => now && { ...now, part }), work);
        return true;
      } catch (error) {
        setProblem({ sentence: (error as Error).message });
        return false;
      } finally {
        setWorking(undefined);
      }
    },
  };
}

export type Showing = ReturnType<typeof useShowing>;
