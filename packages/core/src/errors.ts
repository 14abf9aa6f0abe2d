/** What an artist reads when something cannot be done: one sentence, and the ids of what is wrong. */
export class HemError extends Error {
  /**
   * @param code  stable machine-readable name of the error
   * @param sentence  what happened, what was kept and what to do, for the artist
   * @param ids  indices of the offending edges, faces or shells; what they index follows from the code
   */
  constructor(
    readonly code: string,
    sentence: string,
    readonly ids: readonly number[] = [],
  ) {
    super(sentence);
    this.name = 'HemError';
  }
}

/** The file cannot be read as a model. */
export class FileError extends HemError {
  constructor(fileName: string, problem: string, remedy: string, line?: number) {
    super('file', `${fileName}${line === undefined ? '' : `, line ${line}`}: ${problem} ${remedy}`);
    this.name = 'FileError';
  }
}

/** A long function was told to stop before it had anything worth keeping. */
export class StoppedError extends HemError {
  constructor() {
    super('stopped', 'Stopped. Nothing was changed.');
    this.name = 'StoppedError';
  }
}
