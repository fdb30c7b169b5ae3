import fc from 'fast-check';

const fret = fc.integer({ min: 0, max: 24 }).map(String);
const letters = fc.constantFrom('E', 'A', 'D', 'G', 'B', 'e', 'GB', 'DGB', '@4', '@32');
const noteMark = fc.constantFrom(
  '',
  '',
  '',
  'b',
  'b1',
  'b.5',
  'b1.5',
  'b1r',
  'b1r.5b1r',
  'bb1',
  'b1rr',
  'b?',
  'b1-2',
  'pb1',
  'pb1r',
  'b>20',
  'b½',
  'r',
  'b1b.5r',
  '~',
  '~~',
  '*',
  '*p',
  'tr9',
  'w-1',
  'w-.5',
  'f1',
  'fT',
  'f3~',
  '^',
  '^r',
  '=E',
  '=b7',
  'b1.5>17',
  'b>E',
  'b1r>16',
  'f3&2',
  'f34',
  'w+1',
  'w-1w-.5',
  'full',
  'half',
);
const eventMark = fc.constantFrom(
  '',
  '',
  '',
  '',
  'm',
  'l',
  'd',
  'u',
  ',',
  '!',
  'k',
  'o',
  'q',
  'qi',
  'qm',
  'z',
  'qz',
  'ml',
  '<',
  '>',
);
const group = fc.tuple(fc.oneof(fret, fc.constant('x')), letters, noteMark).map((parts) => parts.join(''));
const stack = fc.oneof(
  group,
  fc.tuple(group, group).map((groups) => groups.join('+')),
  fc.constant('5A7D'),
);
const value = fc.constantFrom(
  '1',
  '2',
  '4',
  '8',
  '16',
  '32',
  '64',
  '8.',
  '4..',
  '8t',
  '16t5',
  '16t7',
  '32t9',
  '?',
  '12',
  '8t4',
);
const suffix = fc.oneof(
  { weight: 6, arbitrary: fc.constant('') },
  value.map((text) => `/${text}`),
  fc.constantFrom('/g', '%2', '%4', '/8%3'),
);
const link = fc.tuple(fc.constantFrom('h', 'p', 's', 'S', 't'), fret, noteMark).map((parts) => parts.join(''));

const event = fc.oneof(
  { weight: 5, arbitrary: fc.tuple(stack, eventMark, suffix).map((parts) => parts.join('')) },
  { weight: 1, arbitrary: stack.map((text) => `(${text})`) },
  { weight: 1, arbitrary: fc.tuple(fc.constantFrom('<', '>'), stack).map((parts) => parts.join('')) },
  { weight: 2, arbitrary: fc.tuple(group, link, link).map((parts) => parts.join('')) },
  { weight: 2, arbitrary: fc.tuple(link, suffix).map((parts) => parts.join('')) },
);

/** Signs of the second edition: bends that go on, names, degrees, places left open, and what stands in a stack. */
const second = fc.constantFrom(
  ...['r', 'rB', 'r.5', 'rr', 'b1', 'b1G', 'bb1.5', '12e+rB', 'r@2', 'full', 'b>17', '15B b1', '12Bb1 5G r'],
  ...["'F#", "'Bb", "'En", "'Bnb1", "'E+", "'G-", "h'G", "'F#+7B", "5G+'D", "(^1 'A)"],
  ...['^5', '^b7', '^#4+', 'p^3', ':A7 ^3', '7?', '7@?', '?G', '?@3', 'h?G', '12?~'],
  ...[
    '9',
    '7',
    'x',
    '12b1',
    '0/16',
    's+2',
    'S-1',
    'h+2',
    'd12B',
    'k14G~',
    'dm7G',
    ',7D',
    '7G_',
    '-/8',
    '7g',
    'd7',
    '9b',
  ],
  ...['0E+(9G)', '(9G)+7D', '0E7A+{optional: 9G}', '12Gqm+14Bqa', '10B S9G', '@1:09.5', '@0:10', 'box=5'],
);
/** The same signs at wrong places, and halves of them. */
const broken = fc.constantFrom(
  ...[
    "'",
    "''",
    "'H",
    '^',
    '^^',
    '^99',
    '?',
    '??',
    '@?',
    '=E',
    '-=E',
    '12B=',
    'rrr',
    'r9',
    'bB1',
    '//',
    '@9:99',
    '@1:5',
  ],
  ...[
    'box=0',
    'box=',
    '+(9G',
    '0E+(',
    '0E+{optional:',
    '0E+{zz: 9G}',
    '(9G)+',
    '9Gf&',
    '9Gf3&',
    'w+',
    'w-1',
    's+',
    's-99',
  ],
  ...[
    'B17',
    '9G/11',
    '7G-9G',
    '{either: 9G}',
    '{either: 9G // 7G // }',
    '{round: 9G}',
    '{w-: 9G}',
    '{fade}',
    '7G+{',
    '+{',
  ],
);

const flat = fc.oneof(
  { weight: 10, arbitrary: event },
  { weight: 6, arbitrary: second },
  { weight: 1, arbitrary: broken },
  { weight: 2, arbitrary: value.map((text) => `/${text}`) },
  { weight: 3, arbitrary: fc.constantFrom('-', '_', '|', '|') },
  {
    weight: 2,
    arbitrary: fc.constantFrom(
      ':Em',
      ':F#7/E',
      ':-',
      ':Zz',
      '"watch the jump"',
      'meter=3/4',
      'tempo=96',
      'feel=swing',
      'pickup',
      'meter=9',
      '# aside\n',
    ),
  },
);

const brace = fc.constantFrom(
  'm',
  'l',
  'm l',
  'k',
  'bar5',
  'likely',
  'guess',
  'seen',
  'arranged',
  'optional',
  '1',
  '1-2',
  'last',
  '1,last',
  'round last',
  'round 1-2',
  'quiet',
  'd',
  '~',
  'alt',
  'altu',
  'w-1',
  'fade',
  'grow',
  'l bar12',
  'zz',
);

/** Items as a teacher might type them, right and wrong, nested a few deep. */
const nested = fc.letrec<{ items: string }>((tie) => ({
  items: fc
    .array(
      fc.oneof(
        { maxDepth: 3, withCrossShrink: true },
        { weight: 8, arbitrary: flat },
        {
          weight: 1,
          arbitrary: fc
            .tuple(tie('items'), fc.constantFrom('2', '3', '4+', '', 'x3'))
            .map(([inner, times]) => `[ ${inner} ]${times}`),
        },
        { weight: 1, arbitrary: fc.tuple(brace, tie('items')).map(([head, inner]) => `{${head}: ${inner}}`) },
        {
          weight: 1,
          arbitrary: fc.tuple(tie('items'), tie('items')).map(([one, other]) => `{either: ${one} // ${other} }`),
        },
        { weight: 1, arbitrary: fc.constantFrom('[', ']', '{m:', '}', '{') },
      ),
      { maxLength: 10 },
    )
    .map((items) => items.join(' ')),
}));

/** A shorthand text that is mostly sound and sometimes broken. */
export const typedText = nested.items;
