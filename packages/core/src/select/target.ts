/** What a hand picks. */
export const TARGETS = ['edges', 'faces', 'shells'] as const;
export type Target = (typeof TARGETS)[number];
