import base from '../playwright.config.ts';

/** Takes the pictures of docs/screenshots anew: `npm run screenshots`. */
export default { ...base, testDir: '.', testMatch: 'screenshots.ts' };
