import fc from 'fast-check';

/** The same random cases on every run, so that main is green or red for everyone; `SEED=7 npm run test:unit` tries others. */
declare const process: { env: Record<string, string | undefined> };
fc.configureGlobal({ seed: Number(process.env.SEED ?? 20_261_125) });
