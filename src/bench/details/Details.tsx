'use client';
import { Link2, Unlink2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import { moveNodes, turnNodes } from '@/core/edit/place';
import { sizeExactly, sizingMap } from '@/core/edit/size';
import { aimedNodes, FURTHER_AIMS, paintAt, type Aim } from '@/core/edit/aims';
import { angleOf, apply, rotation, translation } from '@/core/geometry/matrix';
import { centre, isEmpty } from '@/core/geometry/rect';
import { nodesOf } from '@/core/model/tree';
import { mm } from '@/core/units/length';
import { NumberField } from '@/ui/NumberField';
import { FoldingContext, Section, type Folding } from '@/ui/Section';
import { comesLater } from '../session/comesLater';
import { foldSection } from '../session/settings';
import { SectionIndex } from './SectionIndex';
import { selectionFrame } from '../view/frame';
import { freeSelection } from '../session/commandDef';
import { useBench, usePlacedDesign, useSession } from '../session/context';
import type { Again } from '../session/state';
import { AlikeSection } from './AlikeSection';
import { PicturesSection } from '../pictures/PicturesSection';
import { ArrangeSection } from './ArrangeSection';
import { CombineSection } from './CombineSection';
import { ContrastSection } from './ContrastSection';
import { PaintSection } from './PaintSection';
import { DrawingSection } from './DrawingSection';
import { PageDetails } from './PageDetails';
import { GroundSection } from './GroundSection';
import { GuidesSection } from './GuidesSection';
import { NodesSection } from './NodesSection';
import { RepeatSection } from './RepeatSection';
import { SampleSection } from './SampleSection';
import { CornersSection, ShapeSection, WriteSection } from './ShapeSection';
import { FrameSection } from './FrameSection';
import { LetteringSection } from './LetteringSection';
import { LineSection } from './LineSection';
import { LooksSection } from './LooksSection';
import { ParagraphSection } from './ParagraphSection';
import { TextSection } from './TextSection';
import { WholeSection } from './WholeSection';
import { Sentence } from './Sentence';

// Needed by few designs: fetched when the bench has been painted.
const TraceSection = comesLater(() => import('./TraceSection').then((m) => m.TraceSection));
const RegionsSection = comesLater(() => import('./RegionsSection').then((m) => m.RegionsSection));
const DepthSection = comesLater(() => import('./DepthSection').then((m) => m.DepthSection));
const EdgeSection = comesLater(() => import('./EdgeSection').then((m) => m.EdgeSection));
const FillInSection = comesLater(() => import('./FillInSection').then((m) => m.FillInSection));
const ReadySection = comesLater(() => import('./ReadySection').then((m) => m.ReadySection));
const LayerSection = comesLater(() => import('./LayerSection').then((m) => m.LayerSection));

/** What exactly is this? A sentence, then the full fields in the order of need. */
export function Details() {
  const session = useSession();
  const design = usePlacedDesign();
  const selection = useBench((s) => s.selection);
  const aim = useBench((s) => s.aim);
  const folded = useBench((s) => s.folded);
  useBench((s) => s.fontsEpoch);
  const nodes = nodesOf(design, selection);
  // While nodes are worked on, what is done to whole objects would only be in the way.
  const onNodes = useBench((s) => s.tool) === 'nodes';
  const kind = nodes.length === 0 ? 'page' : nodes.length > 1 ? 'several' : nodes[0].kind;
  const folding = useMemo<Folding>(
    () => ({
      folded: (title) => folded.includes(`${kind}: ${title}`),
      fold: (title, on) => foldSection(session, `${kind}: ${title}`, on),
    }),
    [session, folded, kind],
  );
  const aims = AIMS.filter((a) => aimedNodes(design, selection, a).length > 0);
  const first = aims.includes(aim) ? aim : aims[0];
  return (
    <aside
      aria-label="Details"
      data-region="details"
      tabIndex={-1}
      className="min-h-0 overflow-auto border-l border-line bg-panel outline-none"
    >
      <FoldingContext.Provider value={folding}>
        <SampleSection />
        <DrawingSection />
        {nodes.length === 0 ? (
          <>
            <FillInSection />
            <PageDetails />
            <GroundSection />
            <GuidesSection />
            <TraceSection />
            <PicturesSection />
          </>
        ) : (
          <>
            <Sentence />
            <ReadySection />
            <LayerSection />
            <RegionsSection />
            <SectionIndex on={`${selection.slice(0, 50).join()} ${selection.length} ${onNodes}`} />
            {first && <PaintSection key={first} aim={first} />}
            <NodesSection />
            <TextSection />
            <ShapeSection />
            <CornersSection />
            <Position />
            <LooksSection />
            <LineSection />
            <FrameSection />
            <LetteringSection />
            <ParagraphSection />
            {aims
              .filter((a) => a !== first)
              .map((a) => (
                <PaintSection key={a} aim={a} />
              ))}
            <WriteSection />
            {!onNodes && (
              <>
                <WholeSection />
                <CombineSection />
                <EdgeSection />
                <DepthSection />
                <TraceSection />
                <ArrangeSection />
                <RepeatSection />
                <AlikeSection />
              </>
            )}
            <ContrastSection />
          </>
        )}
      </FoldingContext.Provider>
    </aside>
  );
}
const AIMS: readonly Aim[] = ['letters', 'fill', 'outline', 'letterOutline', ...FURTHER_AIMS, 'frame', 'frameOutline'];

const SMALLEST = mm(0.1);

function Position() {
  const session = useSession();
  const design = usePlacedDesign();
  const selection = useBench((s) => s.selection);
  const [choice, setChoice] = useState<{ readonly on: string; readonly keep: boolean } | null>(null);
  const { unit } = design.setup;
  const frame = selectionFrame(session);
  const box = session.boxOf(selection);
  if (!frame || isEmpty(box)) return null;
  const ids = freeSelection(session);
  const { page } = session;
  const angle = frame.single ? angleOf(frame.matrix) : 0;
  const scale = [Math.hypot(frame.matrix[0], frame.matrix[1]), Math.hypot(frame.matrix[2], frame.matrix[3])];
  const w = (frame.box.x1 - frame.box.x0) * scale[0];
  const h = (frame.box.y1 - frame.box.y0) * scale[1];
  const proportional = frame.single !== null && design.nodes[frame.single]?.kind === 'displayText';

  /** Resizes to a typed measure about the frame's top left. */
  const sizing = (sx: number, sy: number) => sizingMap(frame, sx, sy);
  const sized = (sx: number, sy: number) =>
    sizeExactly(session.state.design, page, ids, frame, { x: sx, y: sy }, session.engines.fonts, session.state.growing);
  const shift = (dx: number, dy: number) => (d: Parameters<typeof moveNodes>[0]) => moveNodes(d, page, ids, dx, dy);
  const about = session.state.pivot ?? apply(frame.matrix, centre(frame.box));
  const turned = (to: number) => (d: Parameters<typeof turnNodes>[0]) => turnNodes(d, page, ids, to - angle, about);
  /** A typed change of place can be done again, as a dragged one can. */
  const put = (label: string, recipe: Parameters<typeof session.commit>[1], again: Omit<Again, 'copy'>) => {
    if (session.commit(label, recipe)) session.noteAgain({ ...again, copy: false });
  };
  const show = (recipe: ((v: number) => Parameters<typeof session.commit>[1]) | null) => (v: number | null) =>
    session.preview(v === null || !recipe ? null : recipe(v));
  const field = { unit, tight: true, disabled: ids.length === 0 };
  // A picture that is squashed is a mistake more often than not.
  const pictured = frame.single !== null && paintAt(design, frame.single, 'fill')?.kind === 'picture';
  const keeps = choice?.on === selection[0] ? choice.keep : pictured;
  const toWidth = (v: number) => sized(v / w, proportional || keeps ? v / w : 1);
  const toHeight = (v: number) => sized(proportional || keeps ? v / h : 1, v / h);
  const linked = proportional || keeps;
  return (
    <Section title="Place">
      <div className="grid grid-cols-3 gap-1.5">
        <NumberField
          label="X"
          name="X"
          {...field}
          value={box.x0}
          onPreview={show((v) => shift(v - box.x0, 0))}
          onCommit={(v) => put('Move', shift(v - box.x0, 0), { kind: 'keep', map: translation(v - box.x0, 0) })}
        />
        <NumberField
          label="Y"
          name="Y"
          {...field}
          value={box.y0}
          onPreview={show((v) => shift(0, v - box.y0))}
          onCommit={(v) => put('Move', shift(0, v - box.y0), { kind: 'keep', map: translation(0, v - box.y0) })}
        />
        <NumberField
          label="∠"
          name="Turn"
          tight
          suffix="°"
          disabled={ids.length === 0}
          value={angle}
          decimals={1}
          onPreview={show(turned)}
          onCommit={(v) => put('Turn', turned(v), { kind: 'keep', map: rotation(v - angle, about) })}
        />
        <NumberField
          label="W"
          name="Width"
          {...field}
          min={SMALLEST}
          value={w}
          onPreview={show(toWidth)}
          onCommit={(v) => w > 0 && put('Resize', toWidth(v), { kind: 'size', map: sizing(v / w, linked ? v / w : 1) })}
        />
        <NumberField
          label="H"
          name="Height"
          {...field}
          min={SMALLEST}
          value={h}
          onPreview={show(toHeight)}
          onCommit={(v) =>
            h > 0 && put('Resize', toHeight(v), { kind: 'size', map: sizing(linked ? v / h : 1, v / h) })
          }
        />
        <button
          type="button"
          aria-pressed={linked}
          disabled={proportional}
          title={
            proportional
              ? 'Display text always keeps its proportions'
              : linked
                ? 'Width and height change together'
                : 'Width and height change by themselves'
          }
          aria-label="Keep proportions"
          className="flex h-7 items-center justify-center gap-1 rounded-sm border border-edge bg-field text-[12px] aria-pressed:border-accent aria-pressed:font-semibold disabled:opacity-60"
          onClick={() => setChoice({ on: selection[0], keep: !linked })}
        >
          {linked ? <Link2 size={13} aria-hidden /> : <Unlink2 size={13} aria-hidden />}
          {linked ? 'Linked' : 'Free'}
        </button>
      </div>
      {ids.length === 0 && <p className="mt-2 mb-0 text-faint">Locked. Unlock it in the pile to change it.</p>}
    </Section>
  );
}
