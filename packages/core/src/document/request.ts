/** An operation with its parameters: plain JSON, enough to do it again on another document. */
export interface Request {
  readonly operation: string;
  readonly params: unknown;
}
