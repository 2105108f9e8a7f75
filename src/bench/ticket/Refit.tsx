'use client';
import { Dialog } from 'radix-ui';
import { useEffect, useEffectEvent, useMemo, useRef, useState } from 'react';
import { checkDesign } from '@/core/check/check';
import { copyPages, pastePages } from '@/core/edit/copyPages';
import { refit, type RefitTo } from '@/core/edit/refit';
import type { Design, Setup } from '@/core/model/schema';
import { pageById } from '@/core/model/tree';
import { verifyDesign } from '@/core/model/verify';
import { bleedRect } from '@/core/scene/scene';
import { FORMATS } from '@/core/units/formats';
import { formatLength, toPoints } from '@/core/units/length';
import { designStore } from '@/store/open';
import { Button } from '@/ui/Button';
import { Check, WordChoice } from '@/ui/Choice';
import { count } from '../session/commandDef';
import { useBench, useSession } from '../session/context';
import { backToBench } from '../session/focus';
import { later } from '../session/later';
import { painterOf } from '../session/painter';
import { fitPage } from '../view/inSight';

/** The formats that are offered, by name; those of screens are of light, and another job. */
const OFFERED = ['A2', 'A3', 'A4', 'A5', 'A6', 'Card', 'Round label 80', 'US letter', 'US tabloid'];
/** What was chosen last is chosen again; a poster and a sticker at first. */
let lastChosen: readonly string[] = ['A2', 'Round label 80'];
type Turn = 'upright' | 'across';

/** One page in other formats, all in one go: each shown beside the others before it becomes a design. */
export function Refit() {
  const session = useSession();
  const open = useBench((s) => s.refitting);
  const shut = () => session.set({ refitting: false });
  return (
    <Dialog.Root open={open} onOpenChange={(on) => !on && shut()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/25" />
        <Dialog.Content
          onCloseAutoFocus={backToBench}
          onKeyDown={(e) => e.stopPropagation()}
          style={{ boxShadow: 'var(--shadow)' }}
          className="fixed top-16 left-1/2 z-50 flex max-h-[84dvh] w-[880px] max-w-[94vw] -translate-x-1/2 flex-col gap-3 rounded-sm border border-line bg-panel p-4 outline-none"
        >
          <Dialog.Title className="m-0 text-[15px] font-semibold">This page in other formats</Dialog.Title>
          <Dialog.Description className="m-0 text-faint">
            Each becomes a design of its own, or a page behind this one; this one stays as it is.
          </Dialog.Description>
          <Choosing shut={shut} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function Choosing({ shut }: { shut: () => void }) {
  const session = useSession();
  const design = useBench((s) => s.design);
  const pageId = useBench((s) => s.page);
  const { width, height } = session.setup;
  const [turn, setTurn] = useState<Turn>(width > height ? 'across' : 'upright');
  const [chosen, setChosen] = useState<readonly string[]>(() => {
    const others = lastChosen.filter((name) => !sameAs(formatOf(name, turn), session.setup));
    return others.length ? others : ['A5'];
  });
  const [making, setMaking] = useState(false);
  const made = useMemo(
    () => chosen.map((name) => refit(design, pageId, formatOf(name, turn), session.engines.fonts, makingOf(session))),
    [chosen, turn, design, pageId, session],
  );
  const asPages = () => {
    let ids: string[] = [];
    const done = session.commit(
      made.length === 1 ? 'Add a page of another format' : 'Add pages of other formats',
      (d) => {
        ids = [];
        for (const m of made)
          ids.push(...pastePages(d, ids.at(-1) ?? pageId, copyPages(m, [m.pages[0].id]), session.newId));
        ids.forEach((id, i) => (pageById(d, id)!.name = chosen[i]));
      },
    );
    if (!done) return;
    session.goToPage(ids[0]);
    fitPage(session);
    session.say(`${count(ids.length, 'page')} of another format behind this one.`);
    shut();
  };
  const keep = async () => {
    setMaking(true);
    let kept = 0;
    try {
      // The same door as for what comes out of a file.
      for (const d of made) {
        const sound = verifyDesign(d);
        if (!sound.ok) throw new Error('this page cannot be fitted so');
        await designStore().add(sound.design);
        kept++;
      }
      const [only] = made;
      session.say(
        made.length === 1 ? `“${only.name}” is on the shelf.` : `${made.length} designs are on the shelf.`,
        'plain',
        made.length === 1 ? { label: 'Open it', run: () => window.location.assign(`/bench/${only.id}`) } : undefined,
      );
      shut();
    } catch (e) {
      session.say(
        `${kept ? `${kept} of ${made.length} designs are on the shelf; the next` : 'This'} could not be kept: ${e instanceof Error ? e.message : String(e)}. This design is as it was.`,
        'warn',
      );
    } finally {
      setMaking(false);
    }
  };
  return (
    <>
      <div className="flex min-h-0 flex-1 gap-4">
        <div className="grid w-[170px] shrink-0 content-start gap-1.5">
          <WordChoice
            label="Turn"
            value={turn}
            options={[
              { value: 'upright', label: 'Upright' },
              { value: 'across', label: 'Across' },
            ]}
            onChange={setTurn}
          />
          {OFFERED.map((name) => (
            <Check
              key={name}
              label={name}
              checked={chosen.includes(name)}
              onChange={(on) => {
                lastChosen = on ? [...chosen, name] : chosen.filter((n) => n !== name);
                setChosen(lastChosen);
              }}
            />
          ))}
        </div>
        <ul
          aria-label="As it would be"
          className="m-0 flex min-h-[260px] flex-1 list-none flex-wrap content-start gap-3 overflow-auto bg-bench p-3"
        >
          {made.map((d, i) => (
            <Preview key={chosen[i]} design={d} name={chosen[i]} />
          ))}
        </ul>
      </div>
      <div className="flex justify-end gap-2">
        <Button onClick={shut}>Leave it</Button>
        <Button disabled={!made.length || making} onClick={asPages}>
          {made.length === 1 ? 'Add as a page' : `Add as ${made.length} pages`}
        </Button>
        <Button kind="primary" disabled={!made.length || making} onClick={() => void keep()}>
          {made.length === 1 ? 'Make a design' : `Make ${made.length} designs`}
        </Button>
      </div>
    </>
  );
}

const makingOf = (session: ReturnType<typeof useSession>) => ({
  newId: session.newId,
  now: () => new Date().toISOString(),
});

function formatOf(name: string, turn: Turn): RefitTo {
  const f = FORMATS.find((x) => x.name === name)!;
  const sides = [toPoints(f.width, f.unit), toPoints(f.height, f.unit)].sort((a, b) => a - b);
  const [width, height] = turn === 'upright' ? sides : sides.toReversed();
  return { name, width, height, round: f.shape === 'round' };
}

const sameAs = (a: RefitTo, b: RefitTo | Setup): boolean =>
  Math.abs(a.width - b.width) < 1 && Math.abs(a.height - b.height) < 1 && (a.round ?? false) === (b.round ?? false);

/** The longer side of a picture, CSS pixels. */
const SIDE = 190;

/** A page in another format, and what the checks say of it. */
function Preview({ design, name }: { design: Design; name: string }) {
  const session = useSession();
  const epoch = useBench((s) => s.fontsEpoch + s.picturesEpoch);
  const canvas = useRef<HTMLCanvasElement>(null);
  const [found, setFound] = useState<number | null>(null);
  const { setup } = design;
  const k = SIDE / Math.max(setup.width, setup.height);
  const [w, h] = [setup.width * k, setup.height * k];
  const draw = useEffectEvent(() => {
    const ctx = canvas.current?.getContext('2d');
    const palette = session.palettes.get(design);
    if (!ctx) return;
    const scene = session.engines.builder.build(design, design.pages[0]);
    ctx.fillStyle = '#fff';
    ctx.fillRect(0, 0, w * 2, h * 2);
    painterOf(session).paint(ctx, scene.root.content, palette, { scale: k * 2, x: 0, y: 0 }, bleedRect(setup));
    setFound(checkDesign(design, session.engines.builder, palette).length);
  });
  useEffect(() => later(draw), [design, epoch]);
  const size = `${formatLength(setup.width, setup.unit, 0)} × ${formatLength(setup.height, setup.unit, 0)}`;
  return (
    <li className="grid justify-items-center gap-1">
      <canvas
        ref={canvas}
        aria-hidden
        width={w * 2}
        height={h * 2}
        style={{ width: w, height: h }}
        className={`block ${setup.round ? 'rounded-full' : ''}`}
      />
      <span className="text-[12px]">
        {name} · {size}
      </span>
      <span className="text-[12px]">
        {found === null ? 'looking …' : found ? `${count(found, 'thing')} to look at` : 'nothing found'}
      </span>
    </li>
  );
}
