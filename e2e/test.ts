import { test as base, expect } from '@playwright/test';

/** A test whose page never breaks the policy it was served with. */
export const test = base.extend({
  page: async ({ page }, use) => {
    const broken: string[] = [];
    page.on('console', (message) => {
      if (message.text().includes('Content Security Policy')) broken.push(message.text());
    });
    await use(page);
    expect(broken, 'what broke the content security policy').toEqual([]);
  },
});
