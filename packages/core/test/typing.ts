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

const flat = fc.oneof(
  { weight: 10, arbitrary: event },
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
            .tuple(tie('items'), fc.constantFrom('2', '3', '4+', ''))
            .map(([inner, times]) => `[ ${inner} ]${times}`),
        },
        { weight: 1, arbitrary: fc.tuple(brace, tie('items')).map(([head, inner]) => `{${head}: ${inner}}`) },
        { weight: 1, arbitrary: fc.constantFrom('[', ']', '{m:', '}', '{') },
      ),
      { maxLength: 10 },
    )
    .map((items) => items.join(' ')),
}));

/** A shorthand text that is mostly sound and sometimes broken. */
export const typedText = nested.items;
