import { spawnSync } from 'node:child_process';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';
import { chanceOf } from '../apps/server/test/chance.ts';

/** A room whose tests are tried: its sources, the tests that are about it, and those of its package, which may notice what these do not. */
interface Room {
  readonly sources: string;
  readonly tests: readonly string[];
  readonly others: readonly string[];
}

const core = (name: string, ...tests: readonly string[]): Room => ({
  sources: `packages/core/src/${name}`,
  tests: tests.map((one) => `packages/core/test/${one}.test.ts`),
  others: ['packages/core/test'],
});
const ROOMS: Readonly<Record<string, Room>> = {
  notation: core(
    'notation',
    ...[
      'read',
      'perform',
      'score',
      'edit',
      'marks',
      'notation.property',
      'rules',
      'vectors',
      'heard',
      'cells',
      'evidence',
      'standing',
      'sayings',
    ],
  ),
  pieces: core('pieces', 'pieces', 'cutting', 'rules', 'edges'),
  progress: core('progress', 'progress', 'chances', 'forecast', 'rules', 'edges'),
  series: core('series', 'series', 'replanning', 'practiceToday', 'rules'),
  form: core('form', 'form', 'supposed', 'edges'),
  fretboard: core('fretboard', 'fretboard', 'edges', 'grips'),
  harmony: core('harmony', 'harmony', 'theory', 'heard', 'naming'),
  checks: core('checks', 'checks', 'judged'),
  guards: {
    sources: 'apps/server/src/studio/context',
    tests: ['apps/server/test/permissions.test.ts', 'apps/server/test/guards.test.ts'],
    others: [],
  },
  stores: { sources: 'apps/web/src', tests: ['apps/web/test'], others: [] },
};
/** Of the rooms of the web, what holds state. */
const STORES = /(?:session|song|ledger|requests|people|students|series|licks|desk|lessons|notices|songs)\.ts$/;

/** Changes of each room that are tried, unless told otherwise; chosen by a seed, so that a run can be repeated. Our choice. */
const SAMPLE = 15;
const SEED = 20_260_314;
/** A test that takes longer is stopped and counts as one that noticed, milliseconds. */
const LIMIT_MS = 120_000;

interface Change {
  readonly from: number;
  readonly to: number;
  readonly text: string;
}

const SWAPS: Readonly<Partial<Record<ts.SyntaxKind, string>>> = {
  [ts.SyntaxKind.LessThanToken]: '<=',
  [ts.SyntaxKind.LessThanEqualsToken]: '<',
  [ts.SyntaxKind.GreaterThanToken]: '>=',
  [ts.SyntaxKind.GreaterThanEqualsToken]: '>',
  [ts.SyntaxKind.EqualsEqualsEqualsToken]: '!==',
  [ts.SyntaxKind.ExclamationEqualsEqualsToken]: '===',
  [ts.SyntaxKind.PlusToken]: '-',
  [ts.SyntaxKind.MinusToken]: '+',
  [ts.SyntaxKind.AsteriskToken]: '/',
  [ts.SyntaxKind.SlashToken]: '*',
  [ts.SyntaxKind.AmpersandAmpersandToken]: '||',
  [ts.SyntaxKind.BarBarToken]: '&&',
};

/** Small changes to a source that still parses: an operator turned round, a condition denied, a number moved by one. */
function changesOf(text: string): readonly Change[] {
  const changes: Change[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isTypeNode(node) || ts.isImportDeclaration(node) || ts.isInterfaceDeclaration(node)) return;
    if (ts.isBinaryExpression(node)) {
      const { operatorToken } = node;
      const swap = SWAPS[operatorToken.kind];
      if (swap) changes.push({ from: operatorToken.getStart(), to: operatorToken.end, text: swap });
    } else if (ts.isIfStatement(node) || ts.isConditionalExpression(node)) {
      const condition = ts.isIfStatement(node) ? node.expression : node.condition;
      changes.push({ from: condition.getStart(), to: condition.end, text: `!(${condition.getText()})` });
    } else if (ts.isNumericLiteral(node) && Number(node.text) < 1000)
      changes.push({ from: node.getStart(), to: node.end, text: String(Number(node.text) + 1) });
    ts.forEachChild(node, visit);
  };
  visit(ts.createSourceFile('source.ts', text, ts.ScriptTarget.Latest, true));
  return changes;
}

function sourcesIn(folder: string): readonly string[] {
  return readdirSync(folder, { withFileTypes: true, recursive: true })
    .filter((entry) => entry.isFile() && entry.name.endsWith('.ts') && entry.name !== 'index.ts')
    .map((entry) => join(entry.parentPath, entry.name))
    .sort();
}

/** Whether the tests of a room, or others of its package, notice a change. */
function isNoticed({ tests, others }: Room): boolean {
  return fails(tests) || (others.length > 0 && fails(others));
}

function fails(tests: readonly string[]): boolean {
  const jest = [
    '--experimental-vm-modules',
    '--no-warnings',
    'node_modules/jest/bin/jest.js',
    '--config',
    'jest.config.mjs',
  ];
  const { status } = spawnSync(process.execPath, [...jest, '--bail', '--silent', ...tests], {
    stdio: 'ignore',
    timeout: LIMIT_MS,
  });
  return status !== 0;
}

function tryRoom(name: string, room: Room, sample: number): void {
  const files = sourcesIn(room.sources).filter((file) => name !== 'stores' || STORES.test(file));
  const texts = new Map(files.map((file) => [file, readFileSync(file, 'utf8')]));
  const all = [...texts].flatMap(([file, text]) => changesOf(text).map((change) => ({ file, change })));
  if (isNoticed(room)) throw new Error(`the tests of ${name} fail before anything is changed`);
  const chance = chanceOf(SEED);
  const tried = all
    .map((one) => ({ one, at: chance() }))
    .sort((a, b) => a.at - b.at)
    .slice(0, sample);
  let killed = 0;
  for (const { one } of tried) {
    const { file, change } = one;
    const text = texts.get(file) ?? '';
    const line = text.slice(0, change.from).split('\n').length;
    try {
      writeFileSync(file, text.slice(0, change.from) + change.text + text.slice(change.to));
      if (isNoticed(room)) killed += 1;
      else process.stdout.write(`  ${file}:${line}  ${text.slice(change.from, change.to)}  →  ${change.text}\n`);
    } finally {
      writeFileSync(file, text);
    }
  }
  process.stdout.write(`${name}: ${killed} of ${tried.length} noticed (${all.length} could be tried)\n`);
}

const [, , chosen, count] = process.argv;
const sample = Number(count ?? SAMPLE);
for (const [name, room] of Object.entries(ROOMS))
  if (chosen === undefined || chosen === name) tryRoom(name, room, sample);
