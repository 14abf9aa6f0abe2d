/** What a stop flag in shared memory says: go on, stop, and that the job has heard it. */
export const [GO_ON, STOP, HEARD] = [0, 1, 2] as const;
