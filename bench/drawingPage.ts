import { readShorthand, scoreOf, type ScoreBar } from '@jam-ledger/core/notation';
import { Formatter, Renderer, StaveNote, TabNote, TabStave, Voice } from 'vexflow/core';
import { laySystems } from '../apps/web/src/tab/engraving/tabView.ts';

/** Draws a text as the application does: with bends, slides, strokes, beams, chords and words. */
function ours(text: string): void {
  const bars = scoreOf(readShorthand(text).phrase);
  for (const { draw, height } of laySystems({ bars, width: WIDTH, strings: 6 })) {
    const element = document.createElement('div');
    element.style.height = `${height}px`;
    document.body.append(element);
    draw(element);
  }
}

/** Draws the same notes with VexFlow and nothing of ours: frets on lines in bars, four to a line, without any of their marks. */
function raw(text: string): void {
  const bars = scoreOf(readShorthand(text).phrase);
  const element = document.createElement('div');
  document.body.append(element);
  const renderer = new Renderer(element, Renderer.Backends.SVG);
  renderer.resize(WIDTH, Math.ceil(bars.length / 4) * LINE_HEIGHT);
  const context = renderer.getContext();
  for (const [index, bar] of bars.entries()) {
    const [x, y] = [(index % 4) * (WIDTH / 4), Math.floor(index / 4) * LINE_HEIGHT];
    const stave = new TabStave(x, y, WIDTH / 4);
    stave.setContext(context).draw();
    const voice = new Voice({ numBeats: bar.meter.beats, beatValue: bar.meter.unit }).setMode(Voice.Mode.SOFT);
    voice.addTickables(notesOf(bar));
    new Formatter().joinVoices([voice]).format([voice], WIDTH / 4 - 40);
    voice.draw(context, stave);
  }
}

const WIDTH = 900;
const LINE_HEIGHT = 130;

function notesOf(bar: ScoreBar): (TabNote | StaveNote)[] {
  return bar.events.map(({ item, values: [value] }) => {
    const duration = String(value?.base ?? 4);
    if (!item) return new StaveNote({ keys: ['b/4'], duration: `${duration}r` });
    const positions = item.notes.map(({ string, fret }) => ({ str: string, fret: fret === null ? 'X' : String(fret) }));
    return new TabNote({ positions, duration }, true);
  });
}

/** Milliseconds of one drawing, laid out by the browser; nothing is left of it. */
function timed(draw: (text: string) => void, text: string): number {
  const from = performance.now();
  draw(text);
  document.body.getBoundingClientRect();
  const took = performance.now() - from;
  document.body.replaceChildren();
  return took;
}

Reflect.set(window, 'drawings', {
  ours: (text: string) => timed(ours, text),
  raw: (text: string) => timed(raw, text),
});
