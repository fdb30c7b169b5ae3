import { writeFileSync } from 'node:fs';
import { ROUTE_NAMES, ROUTES, type Of, type Route } from '@jam-ledger/contract';
import prettier from 'prettier';

/** Where the table stands. */
export const PERMISSIONS_PAGE = 'docs/permissions.md';

const ROLES = ['owner', 'teacher', 'student', 'guardian'] as const;

const WHOSE: Readonly<Record<Of, string>> = {
  studio: '',
  self: 'what is theirs to see',
  query: 'of the student named, else what is theirs to see',
  request: 'the student’s',
  piece: 'the student’s',
  series: 'the student’s',
  song: 'the student’s',
  sound: 'the student’s',
  entry: 'whoever posted it',
  pin: 'whoever pinned it',
};

/** The page that says who may do what, made of the table of routes. */
export async function permissionsPage(): Promise<string> {
  const lines = ROUTE_NAMES.map((name) => {
    const { method, path, who, of, does }: Route = ROUTES[name];
    const marks = ROLES.map((role) => (who === 'anybody' || who.includes(role) ? '●' : ''));
    return `| \`${method} /api${path}\` | ${does} | ${who === 'anybody' ? '●' : ''} | ${marks.join(' | ')} | ${WHOSE[of]} |`;
  });
  const text = `# Who may do what

Made by \`npm run permissions\` of the table of routes in \`packages/contract\`; a test holds the two together, and another asks every
route as everybody. Nobody comes to anything of another studio. Where a row is one student’s, teachers and the owner come to it, the
student to their own, a guardian to that of their wards.

| route | what it does | anybody | ${ROLES.join(' | ')} | whose |
|---|---|---|---|---|---|---|---|
${lines.join('\n')}
`;
  return prettier.format(text, { ...(await prettier.resolveConfig(PERMISSIONS_PAGE)), parser: 'markdown' });
}

if (process.argv[1]?.endsWith('permissions.ts')) writeFileSync(PERMISSIONS_PAGE, await permissionsPage());
