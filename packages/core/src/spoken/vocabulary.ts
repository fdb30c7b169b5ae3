/**
 * What teachers say, in English. A word is added here and nowhere else; another language would be a file like this one.
 * Source of the words: common practice.
 */

/** Numbers as words. */
export const NUMBERS: Readonly<Record<string, number>> = {
  ...{ zero: 0, nought: 0, one: 1, two: 2, three: 3, four: 4, five: 5, six: 6, seven: 7, eight: 8, nine: 9, ten: 10 },
  ...{ eleven: 11, twelve: 12, thirteen: 13, fourteen: 14, fifteen: 15, sixteen: 16, seventeen: 17, eighteen: 18 },
  ...{ nineteen: 19, twenty: 20, thirty: 30, forty: 40, fifty: 50, sixty: 60, seventy: 70, eighty: 80, ninety: 90 },
};

/** Places in a row as words. */
export const ORDINALS: Readonly<Record<string, number>> = {
  ...{ first: 1, second: 2, third: 3, fourth: 4, fifth: 5, sixth: 6, seventh: 7, eighth: 8, ninth: 9, tenth: 10 },
  ...{ eleventh: 11, twelfth: 12, thirteenth: 13, fourteenth: 14, fifteenth: 15, sixteenth: 16, seventeenth: 17 },
  ...{ eighteenth: 18, nineteenth: 19, twentieth: 20 },
};

/** How often, as one word. */
export const OFTEN: Readonly<Record<string, number>> = { once: 1, twice: 2, thrice: 3 };

/** What stands before a letter and says which of two strings it is: 1 the thin one, -1 the thick one. */
export const SIDES: Readonly<Record<string, 1 | -1>> = {
  ...{ high: 1, little: 1, thin: 1, top: 1, small: 1 },
  ...{ low: -1, big: -1, thick: -1, bottom: -1, fat: -1 },
};

/** Fingers of the fretting hand. */
export const FINGERS: Readonly<Record<string, '1' | '2' | '3' | '4' | 'T'>> = {
  ...{ index: '1', pointer: '1', middle: '2', ring: '3', little: '4', pinky: '4', pinkie: '4', thumb: 'T' },
};

/** How far a bend goes, in whole steps; the longer ones first. */
export const SIZES: readonly (readonly [words: string, steps: number])[] = [
  ['a step and a half', 1.5],
  ['one and a half steps', 1.5],
  ['a tone and a half', 1.5],
  ['one and three quarters of a step', 1.75],
  ['one and a quarter of a step', 1.25],
  ['two and a half steps', 2.5],
  ['three quarters of a step', 0.75],
  ['a quarter of a step', 0.25],
  ['a quarter step', 0.25],
  ['a quarter tone', 0.25],
  ['quarter tone', 0.25],
  ['quarter step', 0.25],
  ['half a step', 0.5],
  ['half a tone', 0.5],
  ['a half step', 0.5],
  ['half step', 0.5],
  ['a semitone', 0.5],
  ['two whole steps', 2],
  ['two steps', 2],
  ['two whole tones', 2],
  ['three whole steps', 3],
  ['three steps', 3],
  ['a whole step', 1],
  ['a whole tone', 1],
  ['whole step', 1],
  ['whole tone', 1],
  ['a full step', 1],
  ['a full tone', 1],
  ['full tone', 1],
  ['one whole step', 1],
  ['one whole tone', 1],
  ['two tones', 2],
  ['one and a half', 1.5],
  ['a tone', 1],
  ['a quarter', 0.25],
  ['quarter', 0.25],
  ['full step', 1],
  ['a full bend', 1],
  ['full', 1],
  ['whole', 1],
  ['a minor third', 1.5],
  ['half', 0.5],
];

/** Chords as they are held by the nut, thick to thin; x for a string that is not played. Source: common practice. */
export const OPEN_CHORDS: Readonly<Record<string, string>> = {
  ...{ 'e major': '022100', 'e minor': '022000', 'e seven': '020100', 'a major': 'x02220', 'a minor': 'x02210' },
  ...{ 'a seven': 'x02020', 'd major': 'xx0232', 'd minor': 'xx0231', 'd seven': 'xx0212', 'g major': '320003' },
  ...{ 'g seven': '320001', 'c major': 'x32010', 'c seven': 'x32310', 'b seven': 'x21202', 'f major': '133211' },
};

/** How many to the beat, and the value that is. */
export const TO_THE_BEAT: Readonly<Record<number, string>> = { 1: '4', 2: '8', 3: '8t', 4: '16', 6: '16t', 8: '32' };

/** What a step of a bend is called where it is not said whether it is whole or half. */
export const STEPS = ['a step', 'one step', 'a tone or so'];

/** What a few words do, the longer ones first among those that begin alike. */
export const ACTS = {
  'same fret': ['the same fret', 'same fret', 'that fret'],
  hammer: ['h', 'hammer on', 'hammered on', 'hammering on', 'hammer', 'hammered', 'hammering'],
  pull: ['p', 'pull off', 'pulled off', 'pulling off', 'pull', 'pulled', 'pulling'],
  slide: ['slide', 'slid', 'sliding', 'gliss', 'glissando', 'glide', 'gliding', 'scoop', 'scooped'],
  away: ['fall off', 'falls off', 'fall away', 'drop off'],
  'the high one': ['the high one', 'the thin one', 'the little one'],
  'the low one': ['the low one', 'the thick one', 'the big one'],
  'from nowhere': ['from nowhere', 'out of nowhere', 'from somewhere below', 'from below'],
  tap: ['tap', 'tapped', 'tapping'],
  'pre-bend': [
    'pre bend',
    'pre bent',
    'pre bending',
    'prebend',
    'prebent',
    'bent already',
    'reverse bend',
    'ghost bend',
  ],
  bend: ['bend', 'bent', 'bending', 'push'],
  release: [
    ...['let it back down', 'let it down again', 'let it down', 'let that down', 'let them down', 'let down'],
    ...['let it back', 'let back down', 'bring it back down', 'bring it down', 'come back down', 'back down'],
    ...[
      'release it',
      'release',
      'released',
      'releasing',
      'and let go',
      'let it fall back',
      'let it come down',
      'let it fall',
    ],
    ...['drop it down', 'drop it back', 'drop back down', 'bring it back', 'ease it down', 'lower it', 'let it drop'],
    ...['back down to pitch', 'back to pitch', 'down to pitch', 'down to nothing', 'let it go'],
  ],
  again: [
    ...['pick it again', 'pick again', 'picked again', 'hit it again', 'strike it again', 'struck again'],
    ...['pick that again', 'while it stands bent'],
  ],
  'held bend': ['hold it there', 'hold the bend', 'still bent', 'keep it bent'],
  'let ring': [
    'let them all ring',
    'let it all ring',
    'let all of them ring',
    'let all of it ring',
    'let it ring',
    'let them ring',
    'let that ring',
    'let ring',
    'letting it ring',
    'ringing on',
    'ringing',
  ],
  ring: ['ring together', 'ring out', 'ring on', 'rings', 'ring'],
  let: ['let'],
  'palm mute': ['palm muted', 'palm mute', 'palm mutes', 'palm muting', 'with the palm'],
  dead: [
    ...['dead hits', 'dead hit', 'dead strokes', 'dead stroke', 'dead strings'],
    'dead notes',
    'dead note',
    'muted notes',
    'muted note',
    'ghost notes',
    'ghost note',
    'muted strokes',
    'muted stroke',
    'muted hits',
    'dead',
    'muted',
    'x',
  ],
  harmonic: ['natural harmonics', 'natural harmonic', 'harmonics', 'harmonic'],
  pinch: [
    'artificial harmonics',
    'artificial harmonic',
    'squeal',
    'pinch harmonics',
    'pinch harmonic',
    'pinched harmonic',
    'pinched',
    'pinch',
  ],
  'wide vibrato': ['wide vibrato', 'big vibrato', 'wide shake', 'shake it wide'],
  vibrato: ['narrow vibrato', 'vibrato', 'shake it', 'shaking it', 'shake'],
  rake: ['rake into', 'raked into', 'rake', 'raked'],
  tremolo: ['tremolo picked', 'tremolo picking', 'tremolo pick', 'tremolo', 'as fast as it goes'],
  trill: ['trill it with', 'trill with', 'trill to', 'trill', 'trilled', 'trilling'],
  'held bent': ['held bent'],
  'struck bent': ['struck while bent'],
  shift: ['picked at its end', 'and pick it again at the end'],
  grace: ['as a grace note', 'grace note', 'just a flick'],
  'under barre': ['under a barre at', 'under a bar at'],
  likely: ['heard but not certain', 'i think it is', 'probably'],
  guess: ['as a guess', 'i guess', 'just guessing'],
  seen: ['as seen played', 'as seen live'],
  arranged: ['as arranged'],
  stacked: ['the chord', 'chord'],
  wide: ['wide', 'wider'],
  'same note': ['the same note', 'same note', 'that note again', 'the same one', 'the note again'],
  'off to': ['off to', 'off onto'],
  'from above': ['from above'],
  arm: [
    ...[
      'the arm takes it',
      'with the arm',
      'with the bar',
      'with the whammy',
      'whammy it',
      'dive',
      'dip',
      'tremolo arm',
    ],
  ],
  apart: [
    ...['one after the other', 'one after another', 'one note after another', 'one note after the other', 'one by one'],
    ...['one at a time', 'one note at a time', 'separately', 'in turn', 'as an arpeggio', 'arpeggiated'],
  ],
  'the last one': ['the last one', 'the last time', 'only the last', 'just the last'],
  every: ['everything at', 'everything on', 'all at', 'always at', 'all of them at'],
  'power chord with octave': ['power chord with the octave', 'full power chord', 'big power chord'],
  'power chords': ['power chords', 'powerchords', 'fifths'],
  'power chord': ['power chord', 'powerchord', 'fifth chord', 'power five'],
  unison: ['unison bends', 'unison bend'],
  sweep: ['sweep picked', 'sweep pick', 'sweep it', 'sweep', 'swept', 'sweeping'],
  mute: ['mute', 'muting', 'damp'],
  strike: ['hit them', 'hit it', 'strum them', 'strum it', 'strike them', 'strike it', 'hit those'],
  'one pick': ['all on one pick', 'on one pick', 'with one pick', 'picked once', 'without picking again', 'one pick'],
  chug: ['chug', 'chugs', 'chugging', 'chugged'],
  optional: ['may be left out', 'if you like', 'optional'],
  accent: ['accented', 'accent it', 'with an accent', 'accent', 'dig in', 'loud', 'loudly', 'louder'],
  cut: ['cut', 'cut it short', 'cut short', 'cut it off', 'cut off', 'staccato', 'short and dry'],
  quiet: [
    'ghost',
    'ghosted',
    'ghost it',
    'very quietly',
    'quietly',
    'very quiet',
    'quiet',
    'in brackets',
    'softly',
    'very softly',
    'very soft',
    'soft',
  ],
  rolled: ['rolled', 'roll it', 'one string after the other'],
  thumb: ['plucked by the thumb', 'plucked with the thumb'],
  pluckIndex: ['plucked by the index finger', 'plucked with the index finger'],
  pluckMiddle: ['plucked by the middle finger', 'plucked with the middle finger'],
  pluckRing: ['plucked by the ring finger', 'plucked with the ring finger'],
  pluckLittle: ['plucked by the little finger', 'plucked with the little finger'],
  plucked: ['plucked by any finger', 'plucked with a finger', 'plucked with fingers', 'plucked', 'pluck'],
  down: ['down strokes', 'down stroke', 'downstrokes', 'downstroke', 'downwards', 'with a down', 'down'],
  up: ['up strokes', 'up stroke', 'upstrokes', 'upstroke', 'upwards', 'with an up', 'up'],
  barre: ['bar it', 'barre it', 'bar the', 'barre the', 'bar at the', 'barre at the', 'bar at', 'barre at', 'barre'],
  octave: ['octaves', 'octave', 'double stops', 'double stop'],
  with: ['with'],
  'together with': ['together with', 'along with', 'at the same time as', 'on top of'],
  talk: ['while it rings', 'while that rings', 'as it rings', 'while they ring'],
  together: [
    'as a double stop',
    'as a chord',
    'as one chord',
    'as one',
    'all at once',
    'all together',
    'together',
    'at once',
    'both',
    'at the same time',
  ],
  'make it': ['make it'],
  correction: [
    'sorry',
    'no wait',
    'wait no',
    'i mean',
    'actually',
    'or rather',
    'rather',
    'make that',
    'correction',
    'no no',
    'scratch that',
    'excuse me',
    'i meant',
    'pardon',
  ],
  'the same': [
    ...['those notes', 'these notes', 'that figure', 'that pattern', 'that bit', 'the two of them', 'both notes again'],
    ...['the same thing again', 'same thing again', 'the same again', 'same again', 'the same thing', 'same thing'],
    ...[
      'all of that again',
      'all of that',
      'all of it',
      'all that',
      'do that again',
      'do that',
      'do it again',
      'do it',
      'the same',
    ],
    ...[
      'both of those',
      'both of them',
      'those again',
      'that again',
      'play that',
      'repeat that',
      'repeat it',
      'repeat all of that',
      'repeat',
      'and that',
    ],
  ],
  rest: ['rest', 'a rest', 'then silence', 'silence'],
  without: ['without', 'leave out', 'leaving out', 'instead of', 'rather than', 'not playing'],
  then: ['then', 'and then', 'after that', 'next'],
} as const satisfies Readonly<Record<string, readonly string[]>>;
/** What a few words do. */
export type Act = keyof typeof ACTS;

/** Words that say how long the notes after them are, and the value they are written with. */
export const VALUES: readonly (readonly [words: string, value: string])[] = [
  ['in sixteenth triplets', '16t'],
  ['in eighth triplets', '8t'],
  ['in triplets', '8t'],
  ['as triplets', '8t'],
  ['triplets', '8t'],
  ['a triplet', '8t'],
  ['triplet', '8t'],
  ['in sixteenths', '16'],
  ['in eighths', '8'],
  ['in quarters', '4'],
  ['in halves', '2'],
  ['sixteenths', '16'],
  ['eighths', '8'],
  ['quarters', '4'],
];

/** What a section of a page can be headed by. */
export const HEADINGS: readonly string[] = [
  ...[
    'intro',
    'verse',
    'pre-chorus',
    'chorus',
    'bridge',
    'solo',
    'outro',
    'interlude',
    'break',
    'main riff',
    'riff',
    'ending',
    'turnaround',
  ],
];

/** What is numbered, and its number no fret: “part two”, “verse one”. */
export const NUMBERED = ['part', 'verse', 'chorus', 'section', 'lick', 'phrase', 'riff', 'solo', 'take', 'number'];

/** What comes first or second, and is no fret: “first note”, “the twelfth position”, “the first two”. */
export const IN_A_ROW = [
  ...[...NUMBERED, 'note', 'notes', 'time', 'times', 'bar', 'beat', 'position', 'finger', 'line', 'half', 'thing'],
  ...['one', 'two', 'three', 'hit', 'chord', 'pass', 'round', 'is', 'was', 'comes', 'goes'],
];

/** What begins another phrase. */
export const NEXT_PHRASE: readonly string[] = [
  ...[
    'next (?:lick|phrase|riff|line|bit|part|one)',
    '(?:second|third|fourth|fifth|last|final) (?:lick|phrase|riff|line|part)',
  ],
  ...['another (?:lick|phrase|riff|line)', 'part (?:one|two|three|four|five|\\d+)', 'the answer', 'the whole thing'],
];

/** Words of talk that say nothing of notes. */
export const TALK = new Set(
  `intro verse chorus bridge solo outro interlude break ending turnaround hook bends slides next whole
  a an the and so ok okay now we you i he she it they this that these those is are was were be been being do does did done
  to of in on at by for from with as than but or if when while where which who what how why there here just like really very quite
  kind sort bit little lot lots much more most less some any all one's its it's that's there's here's let's you're we're
  i'm can could will would shall should may might must want need think know feel see hear listen look say said says call called
  guy thing things stuff part bit bits bar bars beat beats time times way ways place spot note notes lick licks riff phrase line
  bit sound sounds nice sweet good great lovely cool fine right left yeah yes yep no well oh uh um er hmm ah eh please thanks
  thank remember careful watch out slowly gently still only even again also too back over into off up out get gets got go goes going
  went come comes came start starts starting begin begins end ends ending finish play plays played playing hit hits hitting pick picks
  picked picking strike struck land lands landing string strings fret frets finger fingers hand hands his her their your my our me us
  him them easy hard tricky funny other another first last fret's very pretty bluesy classic typical basically maybe perhaps
  position count counting hold held holding sustain skip skipping jump jumping finally grab grabs grabbing
  strum strums strummed strumming
  opens opening worth whole minute minutes second seconds second's sounded ones
  die dies fade fades chords
  double alternate across under while give gives add adds use using keep keeps
  neck aside
  you've we've i've they've descending ascending climbing climb climbs falling drop drops walk walks run runs
  there'll you'll we'll it'll gonna wanna sit sits stay stays move moves quick fast slow then after before until because since`
    .split(/\s+/)
    .filter((word) => word !== ''),
);

/** Words that do say something of the hands, and are not read yet. */
export const UNREAD = new Set(
  `whammy arm thumb shape slap slapped pop popped harmonize capo
  detune mute fingerpick arpeggio arpeggiate scale pentatonic behind feedback wah`.split(/\s+/),
);
