import { TestEnvironment } from 'jest-environment-node';

/** So much of a page is told, characters, and so long it is waited for, milliseconds. Our choice. */
const MOST = { text: 3000, ms: 5000 };

/** Where a test of the real interface fails, tells what the pages of its browsers show: they are gone when somebody reads of it. */
export default class TellingEnvironment extends TestEnvironment {
  async handleTestEvent({ name, test }) {
    if (name !== 'test_fn_failure') return;
    const pages = [...(this.global.openBrowsers ?? [])]
      .flatMap((browser) => browser.contexts())
      .flatMap((one) => one.pages());
    const told = await Promise.all(pages.map(async (page) => `at ${page.url()}\n${await textOf(page)}`));
    console.error([`“${test.name}” failed with these pages open:`, ...told].join('\n\n'));
  }
}

async function textOf(page) {
  const text = await page
    .locator('body')
    .innerText({ timeout: MOST.ms })
    .catch((error) => `(says nothing: ${error.message})`);
  return text.slice(0, MOST.text);
}
