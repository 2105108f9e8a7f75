'use client';
import { useRef, useState } from 'react';
import { asksOf, fillPicture, fillWords, wordsAsked } from '@/core/edit/asks';
import { readRecipes } from '@/core/edit/recipeLine';
import { recolourSwatch } from '@/core/edit/swatches';
import type { Ask, Story } from '@/core/model/schema';
import { FileButton } from '@/ui/FileButton';
import { Section } from '@/ui/Section';
import { openPicture, PICTURE_FILES } from '../commands/pictures';
import { useBench, usePlacedDesign, useSession } from '../session/context';

/** What the design asks to be filled in: words, pictures and colours, each shown on the sheet at once. */
export function FillInSection() {
  const design = usePlacedDesign();
  const asks = asksOf(design);
  if (!asks.length) return null;
  return (
    <Section title="Fill in">
      <div className="grid gap-2">
        {asks.map((ask) => {
          const Field = FIELDS[ask.kind];
          return <Field key={`${ask.kind} ${ask.of}`} ask={ask} />;
        })}
      </div>
    </Section>
  );
}

const FIELDS = { words: WordsAsked, picture: PictureAsked, colour: ColourAsked } as const;

function WordsAsked({ ask }: { ask: Ask }) {
  const session = useSession();
  const kept = useBench((s) => wordsAsked(s.design, ask.of));
  // What stands in the field while it is written in: the panels follow a little later.
  const [typed, setTyped] = useState<string | null>(null);
  // Lines look as they did when writing began, whatever was deleted meanwhile.
  const like = useRef<Story | undefined>(undefined);
  const text = typed ?? kept;
  return (
    <label className="grid gap-0.5">
      <span className="text-faint">{ask.label}</span>
      <textarea
        aria-label={ask.label}
        rows={Math.min(6, text.split('\n').length)}
        className="w-full resize-y rounded-sm border border-edge bg-field px-2 py-1 leading-5"
        value={text}
        maxLength={20_000}
        onFocus={() => {
          like.current = session.state.design.stories[ask.of];
        }}
        onChange={(e) => {
          const words = e.target.value;
          setTyped(words);
          // Kept as it is typed, so that “Saved” is true; a stretch of writing is one step.
          session.commit(`Fill in: ${ask.label}`, (d) => fillWords(d, ask.of, words, like.current), {
            merge: `fill in ${ask.of}`,
          });
        }}
        onKeyDown={(e) => e.stopPropagation()}
        onBlur={() => setTyped(null)}
      />
    </label>
  );
}

function PictureAsked({ ask }: { ask: Ask }) {
  const session = useSession();
  const name = useBench((s) => s.design.pictures?.find((p) => p.id === ask.of)?.name ?? '');
  const replace = async (f: File) => {
    const next = await openPicture(session, f.name, new Uint8Array(await f.arrayBuffer()));
    if (!next) return;
    if (session.commit(`Fill in: ${ask.label}`, (d) => fillPicture(d, ask.of, next)))
      session.say(`${next.name} stands in its place now.`);
  };
  return (
    <div className="flex items-center gap-2">
      <span className="min-w-0 flex-1">
        <span className="block truncate text-faint">{ask.label}</span>
        <span className="block truncate" title={name}>
          {name}
        </span>
      </span>
      <FileButton
        word="Another one"
        label={`Another picture for ${ask.label}`}
        accept={PICTURE_FILES}
        onFile={(f) => void replace(f)}
      />
    </div>
  );
}

function ColourAsked({ ask }: { ask: Ask }) {
  const session = useSession();
  const design = useBench((s) => s.design);
  const [typed, setTyped] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const swatch = design.swatches.find((s) => s.id === ask.of);
  if (swatch?.kind !== 'colour') return null;
  const take = () => {
    if (!typed.trim()) return setProblem(null);
    const [read] = readRecipes(typed, design);
    if (!read.ok) return setProblem(read.message);
    setProblem(null);
    setTyped('');
    session.commit(`Fill in: ${ask.label}`, (d) => recolourSwatch(d, ask.of, read.recipe.colour));
  };
  return (
    <div>
      <label className="flex items-center gap-2">
        <span
          aria-hidden
          className="size-7 shrink-0 rounded-sm border border-edge"
          style={{ background: session.palette.css({ swatch: ask.of, tint: 1 }) }}
        />
        <span className="w-24 shrink-0 truncate text-faint">{ask.label}</span>
        <input
          className="h-7 w-full min-w-0 rounded-sm border border-edge bg-field px-2"
          placeholder="another: pink, #0b3a5e"
          aria-label={`Another colour for ${ask.label}`}
          value={typed}
          maxLength={200}
          onChange={(e) => setTyped(e.target.value)}
          onKeyDown={(e) => {
            if (e.key === 'Enter') take();
          }}
          onBlur={take}
        />
      </label>
      {problem && (
        <p role="alert" className="m-0 text-[12px] text-stop">
          {problem}
        </p>
      )}
    </div>
  );
}
