'use client';
import { useState } from 'react';
import { isText, type TextNode } from '@/core/derive/layout';
import { adoptFace } from '@/core/edit/carryText';
import type { DesignDraft } from '@/core/edit/history';
import { lettersAt, runAt } from '@/core/edit/textPlace';
import { paragraphAt, setLineLook, setParagraphLook, setRunLook, type RunLook } from '@/core/edit/text';
import type { ParagraphSet, Story } from '@/core/model/schema';
import { runsIn, setStory, type SetParagraph, type SetRun } from '@/core/model/textLooks';
import { nodesOf } from '@/core/model/tree';
import { freeSelection } from '../session/commandDef';
import { useBench, usePlacedDesign, useSession } from '../session/context';

/** What the text fields of Details show and change. */
export interface TextTarget {
  readonly texts: readonly TextNode[];
  readonly node: TextNode;
  readonly story: Story;
  /** What stands where the caret is, or first. */
  readonly run: SetRun;
  readonly paragraph: SetParagraph;
  /** Letters are chosen: what is of letters reaches them alone. */
  readonly letters: boolean;
  /** With a caret alone: the paragraph it stands in is reached. */
  readonly line: boolean;
  readonly inText: boolean;
  /** The stretch that is chosen, or where the caret stands; in a text not written in, its beginning. */
  readonly at: { readonly from: number; readonly to: number };
  /** The number of the paragraph that is shown, and the looks that it and its letters follow. */
  readonly index: number;
  readonly paragraphLook: string | undefined;
  readonly lettersLook: string | undefined;
  /** Is it the same in all that is reached? */
  same(key: keyof RunLook): boolean;
  look(label: string, change: RunLook): void;
  preview(change: RunLook | null): void;
  para(label: string, change: Partial<ParagraphSet>): void;
}

export type Reach = 'line' | 'all';

/** Null where no text is chosen. */
export function useTextTarget(reach: Reach = 'line'): TextTarget | null {
  const session = useSession();
  const design = usePlacedDesign();
  const selection = useBench((s) => s.selection);
  const editing = useBench((s) => s.editing);
  const texts = nodesOf(design, selection).filter((n) => isText(n));
  const node = texts[0];
  if (!node) return null;
  const story = design.stories[node.story];
  const inText = editing?.node === node.id ? editing : null;
  const letters = inText !== null && inText.anchor !== inText.focus;
  const line = inText !== null && !letters && reach === 'line';
  const set = setStory(design, story).paragraphs;
  const at = inText ? Math.max(inText.anchor, inText.focus) : 0;
  const run = inText ? lettersAt(design, story, at) : set[0].runs[0];
  const index = inText ? paragraphAt(story, at).index : 0;
  const paragraph = set[index];
  const allRuns = texts.flatMap((n) => runsIn(design, design.stories[n.story]));

  const eachStory =
    (change: (s: Story, from: number, to: number, whole: boolean) => Story) =>
    (d: DesignDraft): void => {
      for (const id of freeSelection(session)) {
        const n = session.design.nodes[id];
        if (!n || !isText(n)) continue;
        const [from, to] =
          inText && n.id === node.id
            ? [Math.min(inText.anchor, inText.focus), Math.max(inText.anchor, inText.focus)]
            : [0, 0];
        d.stories[n.story] = change(
          session.state.design.stories[n.story],
          from,
          to,
          !letters && !line,
        ) as DesignDraft['stories'][string];
      }
    };
  const looked = (change: RunLook) => (d: DesignDraft) => {
    const own = session.state.ownFaces.find((f) => f.id === change.face);
    // A face of one's own joins the design with the first letters that ask for it.
    if (own) adoptFace(d, own);
    eachStory((s, from, to) =>
      line ? setLineLook(s, to, change) : letters ? setRunLook(s, from, to, change) : setRunLook(s, 0, 0, change),
    )(d);
  };
  return {
    texts,
    node,
    story,
    run,
    paragraph,
    letters,
    line,
    inText: inText !== null,
    at: inText
      ? { from: Math.min(inText.anchor, inText.focus), to: Math.max(inText.anchor, inText.focus) }
      : { from: 0, to: 0 },
    index,
    paragraphLook: story.paragraphs[index].look,
    lettersLook: runAt(story, at).look,
    same: (key) => letters || line || new Set(allRuns.map((r) => JSON.stringify(r[key]))).size === 1,
    look: (label, change) => void session.commit(label, looked(change)),
    preview: (change) => session.preview(change && looked(change)),
    para: (label, change) =>
      void session.commit(
        label,
        eachStory((s, from, to, whole) => setParagraphLook(s, from, to, change, whole)),
      ),
  };
}

/** Whether what is reached is all of a text or the paragraph where the caret stands. */
export const useReach = () => useState<Reach>('line');
