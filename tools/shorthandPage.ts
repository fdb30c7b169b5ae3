import { readFileSync, writeFileSync } from 'node:fs';
import {
  LINK_RECORDS,
  MARK_RECORDS,
  NOTE_MARK_RECORDS,
  SURENESS_RECORDS,
  type SurenessRecord,
} from '@jam-ledger/core/notation';
import prettier from 'prettier';

/** The page of the notation; what stands between the two comments is made of the records of marks. */
export const SHORTHAND_PAGE = 'docs/shorthand.md';
const [BEGINS, ENDS] = ['<!-- marks: made by `npm run shorthand` -->', '<!-- end of marks -->'];

/** The page with the table of marks as the records say it. @throws where the comments do not stand in it */
export async function shorthandPage(): Promise<string> {
  const text = readFileSync(SHORTHAND_PAGE, 'utf8');
  const [from, to] = [text.indexOf(BEGINS), text.indexOf(ENDS)];
  if (from < 0 || to < from) throw new Error(`${SHORTHAND_PAGE} has no place for the marks`);
  const made = `${text.slice(0, from)}${BEGINS}\n\n${table()}\n\n${text.slice(to)}`;
  return prettier.format(made, { ...(await prettier.resolveConfig(SHORTHAND_PAGE)), parser: 'markdown' });
}

function table(): string {
  const records: readonly SurenessRecord[] = [
    ...Object.values(LINK_RECORDS),
    ...Object.values(NOTE_MARK_RECORDS),
    ...Object.values(MARK_RECORDS),
    ...Object.values(SURENESS_RECORDS),
  ];
  const lines = records.map(
    ({ example, means, sign }) => `| \`${example}\` | ${means} | ${sign.replace('|', '\\|')} |`,
  );
  return ['| typed | means | on the page |', '|---|---|---|', ...lines].join('\n');
}

if (process.argv[1]?.endsWith('shorthandPage.ts')) writeFileSync(SHORTHAND_PAGE, await shorthandPage());
