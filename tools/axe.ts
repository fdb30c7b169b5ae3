import { AxeBuilder } from '@axe-core/playwright';
import { onEveryPage, ROLES } from '../e2e/everyPage.ts';
import { openStage } from '../e2e/stage.ts';

/**
 * What the published accessibility rules find on every page of every role, on both papers and at every width: WCAG 2.2, levels A
 * and AA, by the axe-core rule set, the size of targets among them. Ends with 1 where they find anything.
 */
const TAGS = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];
const WIDTHS = [
  { width: 360, height: 800 },
  { width: 640, height: 400 },
  { width: 1280, height: 800 },
] as const;

const stage = await openStage();
const seen = new Set<string>();
let pages = 0;
for (const viewport of WIDTHS)
  for (const colorScheme of ['light', 'dark'] as const)
    for (const who of ROLES) {
      const page = await stage.enter(who, { viewport, colorScheme });
      await onEveryPage(page, who, async (name) => {
        pages += 1;
        const { violations } = await new AxeBuilder({ page }).withTags(TAGS).analyze();
        for (const { id, nodes } of violations)
          for (const { html } of nodes) {
            const line = `${id}: ${html.slice(0, 160)}`;
            if (seen.has(line)) continue;
            seen.add(line);
            process.stdout.write(`${who} ${name} ${viewport.width} ${colorScheme} ${line}\n`);
          }
      });
      await page.context().close();
    }
await stage.close();
process.stdout.write(`${pages} looks at pages, ${seen.size} faults\n`);
process.exit(seen.size > 0 ? 1 : 0);
