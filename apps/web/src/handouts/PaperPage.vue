<script setup lang="ts">
import { onMounted, useTemplateRef, watch } from 'vue';
import { MUSIC_SCALE, type HandoutBlock, type WordsLook } from './handout.ts';
import type { PageLine, PlannedPage } from './pagePlan.ts';
import { paperPixels, type PaperName } from './paper.ts';
import { WORDS } from './wordLooks.ts';

const props = defineProps<{
  page: PlannedPage<HandoutBlock>;
  number: number;
  of: number;
  title: string;
  paper: PaperName;
  placeOf: (phraseId: string) => PageLine | undefined;
}>();

const root = useTemplateRef('root');

/** Music is drawn when the page comes near; the rest of a long handout waits. */
function draw(): void {
  for (const element of root.value?.querySelectorAll<HTMLDivElement>('.music') ?? []) {
    const { block } = props.page.blocks[Number(element.dataset['index'])] ?? {};
    if (element.childElementCount === 0) block?.system?.draw(element);
  }
}
onMounted(() => {
  const element = root.value;
  if (!element) return;
  const sight = new IntersectionObserver(
    ([entry]) => {
      if (!entry?.isIntersecting) return;
      sight.disconnect();
      draw();
    },
    { rootMargin: '900px' },
  );
  sight.observe(element);
  window.addEventListener('beforeprint', draw, { once: true });
});
watch(
  () => props.page,
  () => {
    for (const element of root.value?.querySelectorAll('.music') ?? []) element.replaceChildren();
    draw();
  },
  { flush: 'post' },
);

function styleOf(look: HandoutBlock['look']): Readonly<Record<string, string>> {
  if (look === 'music') return {};
  const { size, style, grey, above } = WORDS[look satisfies WordsLook];
  return {
    paddingTop: `${above}px`,
    fontSize: `${size}pt`,
    fontWeight: style === 'bold' ? '700' : '400',
    fontStyle: style === 'italic' ? 'italic' : 'normal',
    color: `rgb(${grey} ${grey} ${grey})`,
  };
}
const pixels = paperPixels(props.paper);
</script>

<template>
  <section
    ref="root"
    class="paper ink-on-white"
    :aria-label="`Page ${number}`"
    :style="{ width: `${pixels.width}px`, height: `${pixels.height}px` }"
  >
    <div
      v-for="({ block, y, line }, index) in page.blocks"
      :key="index"
      class="block"
      :style="{ top: `${pixels.margin + y}px`, left: `${pixels.margin}px`, ...styleOf(block.look) }"
    >
      <span v-if="line !== undefined" class="number" :style="{ top: `${block.height / 2 - 7}px` }">{{ line }}</span>
      <div
        v-if="block.system"
        class="music"
        role="img"
        aria-label="A line of tab"
        :data-index="index"
        :style="{ zoom: MUSIC_SCALE }"
      ></div>
      <component
        :is="block.look === 'title' ? 'h1' : block.look === 'section' || block.look === 'phrase' ? 'h2' : 'p'"
        v-else
        >{{ block.says?.(placeOf) }}</component
      >
      <ol v-if="block.sentences" class="unseen" aria-label="The tab in words">
        <li v-for="(sentence, at) in block.sentences" :key="at">{{ sentence }}</li>
      </ol>
    </div>
    <p class="foot">{{ title }} · page {{ number }} of {{ of }}</p>
  </section>
</template>

<style scoped>
.paper {
  position: relative;
  background: #fff;
  color: #000;
  box-shadow: 0 1px 6px rgb(0 0 0 / 25%);
  font-family: var(--type-plain);
  overflow: hidden;
}
.block {
  position: absolute;
  white-space: nowrap;
}
.block > h1,
.block > h2,
.block > p {
  margin: 0;
  font: inherit;
  color: inherit;
}
.number {
  position: absolute;
  left: -26px;
  width: 16px;
  text-align: right;
  font-size: 7pt;
  color: #666;
}
.foot {
  position: absolute;
  bottom: 18px;
  width: 100%;
  text-align: center;
  font-size: 7.5pt;
  color: #555;
  margin: 0;
}
@media print {
  .paper {
    page: handout;
    box-shadow: none;
  }
  .paper + .paper {
    break-before: page;
  }
}
</style>
