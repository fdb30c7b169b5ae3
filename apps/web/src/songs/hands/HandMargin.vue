<script setup lang="ts">
import { SONG_LIMITS, type Phrase } from '@jam-ledger/contract';
import { namesOf } from '@jam-ledger/core/fretboard';
import type { Drill } from '@jam-ledger/core/difficulty';
import type { Span } from '@jam-ledger/core/notation';
import type { PickingPolicy } from '@jam-ledger/core/picking';
import type { Key } from '@jam-ledger/core/pitch';
import type { VariantKind } from '@jam-ledger/core/variants';
import { h, shallowRef, watch } from 'vue';
import { askHands, jobOf, type HandReport, type HandsFor, type PlaceWishes, type WayReport } from '../../tab/index.ts';
import HandNote from './HandNote.vue';
import HardNote from './HardNote.vue';
import StrokeNote from './StrokeNote.vue';
import WaysNote from './WaysNote.vue';
import { useNotices } from '../../session/index.ts';
import { useSongPhrases } from '../songPhrases.ts';

const policy = defineModel<PickingPolicy>('policy', { required: true });
const inBox = defineModel<boolean>('inBox', { required: true });
const props = defineProps<{
  phrase: Phrase;
  report: HandReport;
  /** What is on the desk just now; the report may still be of the text before. */
  now: () => HandsFor;
  student: string;
  bpm: number;
  whyFirst: boolean;
  caret: Span | undefined;
  /** Puts a text in the place of the whole; the editor can undo that. */
  replace: (text: string) => void;
}>();
const emit = defineEmits<{ show: [span: Span]; open: [phraseId: string] }>();

/** The note on fingers, which stands in one of two columns. */
const here = () =>
  h(HandNote, {
    fretPositions: props.report.fretPositions,
    workMs: props.report.workMs,
    caret: props.caret,
    boxed: boxed.value,
    inBox: inBox.value,
    onWriteFingers: writeFingers,
    strings: props.now().tuning.openMidis.length,
    names: namesOf({ tuning: props.now().tuning, names: props.now().song.student.schools.naming }),
    onCheapest: (wishes: PlaceWishes) => take(askHands((worker) => worker.cheapestPlaces(jobOf(props.now()), wishes))),
    onOver: (strings: 1 | -1) => take(askHands((worker) => worker.overStrings(jobOf(props.now()), strings))),
    onTakeBox: takeBox,
    onToggleBox: () => (inBox.value = !inBox.value),
  });
const notices = useNotices();
const store = useSongPhrases();
const boxed = shallowRef<WayReport | null>(null);
watch(
  () => [inBox.value, props.report] as const,
  async ([asked]) => {
    boxed.value = asked ? await askHands((worker) => worker.boxPlaces(jobOf(props.now()))) : null;
  },
  { immediate: true },
);

/** Writes a text that the worker made, unless it says the same. */
async function write(made: Promise<string>, otherwise: string): Promise<void> {
  await notices.tell(async () => {
    const text = await made;
    if (text === props.now().text) notices.say(otherwise);
    else props.replace(text);
  });
}

async function take(made: Promise<WayReport>): Promise<void> {
  await notices.tell(async () => {
    const { text, says } = await made;
    const moves = text !== props.now().text;
    if (moves) props.replace(text);
    notices.say(moves ? `${says.charAt(0).toUpperCase()}${says.slice(1)}.` : `Nothing moves: ${says}.`);
  });
}

function writeFingers(): Promise<void> {
  return write(
    askHands((worker) => worker.writeFingers(jobOf(props.now()))),
    'The fingers stand there already.',
  );
}

async function takeBox(): Promise<void> {
  if (boxed.value) await take(Promise.resolve(boxed.value));
}

function writeStrokes(plan: PickingPolicy, reversed: boolean): Promise<void> {
  const first = props.report.strokes.signs.find(({ stroke }) => stroke === 'down' || stroke === 'up')?.stroke;
  const start = reversed ? (first === 'down' ? 'up' : 'down') : undefined;
  return write(
    askHands((worker) => worker.writeStrokes(jobOf(props.now()), plan, start)),
    'The strokes stand there already.',
  );
}

/** A variant kept beside the phrase, as arranged, and opened. */
function make(kind: VariantKind, options: { toKey?: Key; fewerFrets?: number }): Promise<void> {
  return notices.tell(async () => {
    const { text, changes } = await askHands((worker) => worker.variant(jobOf(props.now()), kind, options));
    const reason = changes.join(' ').slice(0, SONG_LIMITS.reason);
    const name = `${props.phrase.name.slice(0, 60)}, ${kind}`;
    const added = await store.addAlternate(props.phrase, { name, text, reason });
    notices.say(`“${name}” stands beside it. ${reason}`.slice(0, 300), () => store.strikePhrase(added, true));
    emit('open', added.id);
  });
}

function addDrill({ name, text, says }: Drill): Promise<void> {
  return notices.tell(async () => {
    const { sectionId } = props.phrase;
    const added = await store.addDrill(sectionId, { name, text, reason: says });
    notices.say(`“${name}” is added to the section. ${says}`, () => store.strikePhrase(added, true));
  });
}
</script>

<template>
  <!-- What tells of the caret stands last in its column, since it grows and shrinks. -->
  <div class="hands">
    <div class="column"><slot v-if="whyFirst" name="why" /><component :is="here" v-else /></div>
    <div class="column">
      <StrokeNote
        v-model:policy="policy"
        :strokes="report.strokes"
        :reversed="report.reversed"
        :cheapest="report.cheapest"
        @write="writeStrokes"
        @show="emit('show', $event)"
      />
      <WaysNote @make="make" />
    </div>
    <div class="column">
      <HardNote
        :difficulty="report.difficulty"
        :cells="report.cells"
        :news="report.news"
        :student="student"
        :bpm="bpm"
        @show="emit('show', $event)"
        @drill="addDrill"
      />
      <component :is="here" v-if="whyFirst" /><slot v-else name="why" />
    </div>
  </div>
</template>

<style scoped>
.hands {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(12.4rem, 1fr));
  gap: 1.2rem;
  align-items: start;
}
.column {
  display: flex;
  flex-direction: column;
  gap: 1rem;
  min-width: 0;
}
</style>
