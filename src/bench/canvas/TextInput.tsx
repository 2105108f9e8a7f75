'use client';
import { useEffect, useRef, type ClipboardEvent, type FormEvent, type KeyboardEvent } from 'react';
import { wordsOf } from '@/core/derive/fields';
import { isText } from '@/core/derive/layout';
import { replaceText, storyPart } from '@/core/edit/text';
import { adoptFace, packWords, unpackWords, WORDS_TYPE } from '@/core/edit/carryText';
import { beginsAnew, putParagraphs, takeStretch } from '@/core/edit/writing';
import type { Story } from '@/core/model/schema';
import type { DesignDraft } from '@/core/edit/history';
import { plainText } from '@/core/text/layout';
import { useBench, useSession } from '../session/context';
import { shownDesign, type BenchState } from '../session/state';
import { backToLetters, LETTERS } from '../session/focus';
import { endEditing } from '../tools/editing';
import { caretLine, shownIn } from '../view/caret';
import { useLettersInPlace } from './useLettersInPlace';

/** Does something else take keys now: a field, a slip, the finder? */
const isBusy = (): boolean =>
  Boolean(document.activeElement?.closest('input, textarea, select, [role=dialog], [contenteditable=true]'));

/**
 * Takes keys, composed characters and the clipboard while a text is written in. Of it, the browser's spelling marks
 * alone are seen: caret, selection and letters are drawn on the page, and steps are kept in the design's own history.
 */
export function TextInput() {
  const editing = useBench((s) => s.editing);
  // While nothing is written in, nothing is drawn with each move of the sheet and of what is on it.
  return editing && <Letters editing={editing} />;
}

function Letters({ editing }: { editing: NonNullable<BenchState['editing']> }) {
  const session = useSession();
  const design = useBench(shownDesign);
  const camera = useBench((s) => s.camera);
  const input = useRef<HTMLTextAreaElement>(null);
  const composing = useRef(false);
  /** Letters have begun to be composed, and none is there yet. */
  const begun = useRef(false);
  /** Where the last typing ended, and which word of it that was. */
  const typed = useRef({ end: -1, word: 0 });
  const withShift = useRef(false);
  const node = design.nodes[editing.node];
  const story = node && isText(node) ? design.stories[node.story] : undefined;
  const text = story ? plainText(story) : '';
  const place = useLettersInPlace(input, text);

  // The page leads: after an undo, or a click into the text, the hidden field follows.
  useEffect(() => {
    const field = input.current;
    if (!field || composing.current) return;
    if (field.value !== text) field.value = text;
    const [lo, hi] = [Math.min(editing.anchor, editing.focus), Math.max(editing.anchor, editing.focus)];
    if (field.selectionStart !== lo || field.selectionEnd !== hi)
      field.setSelectionRange(lo, hi, editing.focus < editing.anchor ? 'backward' : 'forward');
  }, [editing, text]);

  const target = editing.node;
  useEffect(() => {
    input.current?.focus({ preventScroll: true });
  }, [target]);

  // A card or a button that was pressed gives the keys back; a field does once it is done with.
  useEffect(() => {
    const back = () =>
      setTimeout(() => {
        if (!isBusy() && session.state.editing) backToLetters();
      }, 0);
    const away = (e: FocusEvent) => e.relatedTarget === null && back();
    // Enter and Esc are the last keys that a field takes; a key that comes before it has given way is for the letters
    // too.
    let giving: { readonly timer: ReturnType<typeof setTimeout>; readonly now: () => void } | null = null;
    const done = (e: globalThis.KeyboardEvent) => {
      giving?.now();
      const field = e.target;
      if (
        (e.key !== 'Enter' && e.key !== 'Escape') ||
        !(field instanceof HTMLInputElement) ||
        !field.closest('[data-region=details]')
      )
        return;
      const now = () => {
        if (giving) clearTimeout(giving.timer);
        giving = null;
        // What has been opened since, the finder say, keeps the keys.
        if (document.activeElement === field || !isBusy()) backToLetters();
      };
      giving = { timer: setTimeout(now, 0), now };
    };
    document.addEventListener('click', back);
    document.addEventListener('focusout', away);
    window.addEventListener('keydown', done, { capture: true });
    return () => {
      document.removeEventListener('click', back);
      document.removeEventListener('focusout', away);
      window.removeEventListener('keydown', done, { capture: true });
    };
  }, [session, target]);

  if (!story) return null;

  const takeSelection = () => {
    const field = input.current;
    const now = session.state.editing;
    if (!field || !now) return;
    const back = field.selectionDirection === 'backward';
    const anchor = back ? field.selectionEnd : field.selectionStart;
    const focus = back ? field.selectionStart : field.selectionEnd;
    if (now.anchor !== anchor || now.focus !== focus) session.set({ editing: { ...now, anchor, focus } });
  };

  const onInput = (e: FormEvent<HTMLTextAreaElement>) => {
    const field = e.currentTarget;
    const now = session.state.editing;
    const n = now && session.design.nodes[now.node];
    if (!now || !n || !isText(n)) return;
    const old = session.design.stories[n.story];
    const before = plainText(old);
    const change = difference(before, field.value);
    const next = replaceText(old, change.from, change.to, change.insert);
    // What goes on where the last typing ended is one step with it, word by word.
    const goesOn = typed.current.end === change.from || typed.current.end === change.to;
    const settled = !composing.current || begun.current;
    begun.current = false;
    if (settled && (!goesOn || beginsAnew(before, change))) typed.current.word++;
    typed.current.end = change.from + change.insert.length;
    session.commit('Type', (d) => void (d.stories[n.story] = next as DesignDraft['stories'][string]), {
      merge: `type:${n.id}:${typed.current.word}`,
    });
    session.set({ editing: { node: n.id, anchor: field.selectionStart, focus: field.selectionEnd } });
  };

  /** The text that is written in, with what is chosen of it. */
  const chosen = () => {
    const now = session.state.editing;
    const n = now && session.design.nodes[now.node];
    if (!now || !n || !isText(n)) return null;
    const [from, to] = [Math.min(now.anchor, now.focus), Math.max(now.anchor, now.focus)];
    return { node: n, story: session.design.stories[n.story], from, to };
  };

  /** Puts a story in place of the one that is written in; the caret behind what is new. */
  const put = (label: string, story: Story, caret: number) => {
    const c = chosen()!;
    session.commit(label, (d) => {
      d.stories[c.node.story] = story as DesignDraft['stories'][string];
      // Faces of one's own come along where this browser has them.
      for (const face of session.state.ownFaces)
        if (story.paragraphs.some((p) => p.runs.some((r) => r.face === face.id))) adoptFace(d, face);
    });
    session.set({ editing: { node: c.node.id, anchor: caret, focus: caret } });
  };

  const onCopy = (e: ClipboardEvent<HTMLTextAreaElement>) => {
    const c = chosen();
    if (!c || c.from === c.to) return;
    e.preventDefault();
    // Outside, a field is the words that it shows.
    const part = { ...session.design.stories, [c.node.story]: storyPart(c.story, c.from, c.to) };
    e.clipboardData.setData('text/plain', wordsOf({ ...session.design, stories: part }, c.node));
    e.clipboardData.setData(WORDS_TYPE, packWords(session.design, takeStretch(c.story, c.from, c.to)));
    if (e.type === 'cut') put('Cut words', replaceText(c.story, c.from, c.to, ''), c.from);
  };

  const onPaste = (e: ClipboardEvent<HTMLTextAreaElement>) => {
    const c = chosen();
    const words = withShift.current ? null : unpackWords(session.design, e.clipboardData.getData(WORDS_TYPE));
    // Plain words are the field's own affair.
    if (!c || !words) return;
    e.preventDefault();
    const next = putParagraphs(c.story, c.from, c.to, words);
    put('Paste words', next, c.from + plainText({ paragraphs: words }).length);
  };

  /** Takes a step back or on; the caret goes to where the text changed. */
  const travel = (step: () => void) => {
    const before = text;
    step();
    const now = session.state.editing;
    const n = now && session.design.nodes[now.node];
    if (!now || !n || !isText(n)) return;
    const after = plainText(session.design.stories[n.story]);
    const change = difference(before, after);
    const caret = after === before ? Math.min(now.focus, after.length) : change.from + change.insert.length;
    session.set({ editing: { ...now, anchor: caret, focus: caret } });
  };

  /** Moves the caret, in the hidden field at once: the next key may come before anything is drawn. */
  const moveTo = (focus: number, choosing: boolean) => {
    const now = session.state.editing!;
    const anchor = choosing ? now.anchor : focus;
    input.current?.setSelectionRange(
      Math.min(anchor, focus),
      Math.max(anchor, focus),
      focus < anchor ? 'backward' : 'forward',
    );
    session.set({ editing: { ...now, anchor, focus } });
  };

  const onKeyDown = (e: KeyboardEvent<HTMLTextAreaElement>) => {
    const mod = e.ctrlKey || e.metaKey;
    withShift.current = e.shiftKey;
    // Keys of looks go on to the bench.
    if (!(mod && e.altKey)) e.stopPropagation();
    if (e.nativeEvent.isComposing) return;
    if (e.key === 'Escape') {
      e.preventDefault();
      endEditing(session);
    } else if (mod && e.key.toLowerCase() === 'z') {
      e.preventDefault();
      travel(e.shiftKey ? () => session.redo() : () => session.undo());
    } else if (mod && e.key.toLowerCase() === 'y') {
      e.preventDefault();
      travel(() => session.redo());
    } else if ((e.key === 'Home' || e.key === 'End') && !mod) {
      const focus = lineEnd(session, e.key === 'End');
      if (focus === null) return;
      e.preventDefault();
      moveTo(focus, e.shiftKey);
    } else if ((e.key === 'ArrowUp' || e.key === 'ArrowDown') && !mod && !e.altKey) {
      const focus = lineStep(session, e.key === 'ArrowUp' ? -1 : 1);
      if (focus === null) return;
      e.preventDefault();
      moveTo(focus, e.shiftKey);
    }
  };

  const caret = caretLine(session);
  return (
    <textarea
      ref={input}
      id={LETTERS}
      aria-label={`Text of ${node!.name || 'the text'}`}
      // Over its letters where the browser can set them alike: nothing of it is seen but the marks under misspelt
      // words.
      className={`pointer-events-none absolute resize-none overflow-hidden border-0 p-0 ${place ? 'bg-transparent text-transparent caret-transparent outline-none selection:bg-transparent' : 'size-px opacity-0'}`}
      style={place ? place.style : { left: caret ? caret[0].x : 0, top: caret ? caret[0].y : 0 }}
      lang={place?.lang}
      wrap={place ? 'soft' : 'off'}
      spellCheck
      defaultValue={text}
      data-camera={camera.scale}
      onInput={onInput}
      onSelect={takeSelection}
      onKeyDown={onKeyDown}
      onCopy={onCopy}
      onCut={onCopy}
      onPaste={onPaste}
      onCompositionStart={() => (composing.current = begun.current = true)}
      onCompositionEnd={() => (composing.current = begun.current = false)}
    />
  );
}

/** The one stretch in which two texts differ. */
export function difference(a: string, b: string): { from: number; to: number; insert: string } {
  let from = 0;
  while (from < a.length && from < b.length && a[from] === b[from]) from++;
  let end = 0;
  while (end < a.length - from && end < b.length - from && a[a.length - 1 - end] === b[b.length - 1 - end]) end++;
  return { from, to: a.length - end, insert: b.slice(from, b.length - end) };
}

/** The lines of a text through all frames of the page. */
const linesOf = (session: ReturnType<typeof useSession>, node: string) =>
  shownIn(session, node).flatMap((t) => t.layout.lines);

/** The offset at which the caret's line begins, or ends before the spaces that hang over. */
function lineEnd(session: ReturnType<typeof useSession>, end: boolean): number | null {
  const e = session.state.editing;
  const lines = e ? linesOf(session, e.node) : [];
  const line = e && (lines.findLast((l) => l.start <= e.focus && e.focus <= l.end) ?? lines[lines.length - 1]);
  if (!line) return null;
  if (!end) return line.start;
  const soft = lines.some((l) => l.start === line.end && l !== line);
  return soft && line.end > line.start ? line.end - 1 : line.end;
}

/** The offset one line up or down at about the same place; null where there is no such line. */
function lineStep(session: ReturnType<typeof useSession>, by: number): number | null {
  const e = session.state.editing;
  if (!e) return null;
  const lines = linesOf(session, e.node);
  if (!lines.length) return null;
  let i = lines.findLastIndex((l) => l.start <= e.focus && e.focus <= l.end);
  if (i < 0) i = lines.length - 1;
  const x = lines[i].carets.find((c) => c.offset === e.focus)?.x ?? 0;
  // Stretches of one line stand beside what pushes them away.
  const beside = (a: number, b: number) => lines[a].baseline === lines[b].baseline;
  let to = i + by;
  while (lines[to] && beside(to, i)) to += by;
  if (!lines[to]) return null;
  const stops = [];
  for (let k = to; lines[k] && beside(k, to); k += by) stops.push(...lines[k].carets);
  return stops.reduce((best, c) => (Math.abs(c.x - x) < Math.abs(best.x - x) ? c : best)).offset;
}
