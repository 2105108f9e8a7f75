import type { Palette } from '../colour/palette';
import { driftedSets } from '../derive/drift';
import { localBox } from '../derive/box';
import { closeByBridge, closeByMoving, openGaps } from '../edit/combine';
import { plain, type DesignDraft } from '../edit/history';
import { deletePage } from '../edit/pages';
import { mapLinesOf, mapPaintsOf, mapWordPaints } from '../edit/paintsOf';
import { deleteNodes } from '../edit/remove';
import { moveNodes, scaleNodes } from '../edit/place';
import { sameSize } from '../edit/sameSize';
import { mergeInks, recolourSwatch, removeInk } from '../edit/swatches';
import { looksOf } from '../edit/textPlace';
import { changeRuns } from '../edit/text';
import { meanScale, multiply, scaling, translation } from '../geometry/matrix';
import { CLOSE, MOVE, COORDS } from '../geometry/path';
import { transformRect } from '../geometry/rect';
import { BLACK } from '../model/defaults';
import { mapColours } from '../model/paints';
import type { Colour, Design, Page, Paint, Story } from '../model/schema';
import { setupOn } from '../model/setupOn';
import { pageMatrix, type NodeId } from '../model/tree';
import type { FontBook } from '../text/fonts';
import { mapTuple } from '../units/tuple';
import { isBlackAlone, isFree } from '../scene/overprints';
import { isMixedBlack } from './seen';
import type { Finding, FindingCode, FindingFacts } from './types';

/** What a mend works with: the design as it was checked, and the page of the finding. */
export interface Mending {
  readonly design: Design;
  readonly page: Page;
  readonly palette: Palette;
  readonly fonts: FontBook;
  readonly newId: () => string;
}

/** Puts right what a finding tells, and touches nothing that it does not name. */
interface Mend<C extends FindingCode> {
  readonly label: string;
  run(d: DesignDraft, facts: FindingFacts[C], node: NodeId, m: Mending): void;
  /** Can it do so here? Absent: wherever its object is one of the page’s. */
  can?(facts: FindingFacts[C], node: NodeId | null, m: Mending): boolean;
  /** Of the design as one: of no object. */
  readonly whole?: true;
}

const remove = (label: string) => ({
  label,
  run: (d: DesignDraft, _: unknown, node: NodeId, { page }: Mending) => deleteNodes(d, page, [node]),
});
const isFlat = (p: Paint): p is Extract<Paint, { kind: 'colour' }> => p.kind === 'colour';
/** Flat paints of an object for which something holds, changed. */
const paintsWhere =
  (
    holds: (p: Extract<Paint, { kind: 'colour' }>, m: Mending) => boolean,
    next: (p: Extract<Paint, { kind: 'colour' }>, m: Mending) => Paint,
    map: typeof mapPaintsOf = mapPaintsOf,
  ) =>
  (d: DesignDraft, _: unknown, node: NodeId, m: Mending): void =>
    map(d, node, (p) => (isFlat(p) && holds(p, m) ? next(p, m) : p));

/** Black ink alone: the swatch of it, where there is one. */
function blackOf({ design }: Mending): Colour {
  const swatch = design.swatches.find(
    (s) => s.kind === 'colour' && 'cmyk' in s.colour && s.colour.cmyk.join() === '0,0,0,1',
  );
  return swatch ? { swatch: swatch.id, tint: 1 } : BLACK;
}
const toBlack = (p: Extract<Paint, { kind: 'colour' }>, m: Mending): Paint => ({ ...p, colour: blackOf(m) });
const scaleOf = ({ design, page }: Mending, node: NodeId): number => meanScale(pageMatrix(design, page, node)) || 1;

/** Lines that are thinner on the page than asked for, made as heavy. */
const heavier = {
  label: 'Make it heavier',
  run(d: DesignDraft, { least }: { readonly least: number }, node: NodeId, m: Mending): void {
    const width = least / scaleOf(m, node);
    mapLinesOf(d, node, (line) =>
      line.paint.kind !== 'none' && line.width > 0 && line.width < width ? { ...line, width } : line,
    );
  },
};

/** Letters that are smaller on the page than asked for, made as large. */
const larger = {
  label: 'Make it larger',
  run(d: DesignDraft, { least }: { readonly least: number }, node: NodeId, m: Mending): void {
    const n = d.nodes[node];
    if (!('story' in n)) return;
    const size = least / scaleOf(m, node);
    d.stories[n.story] = changeRuns(looksOf(d), plain(d.stories[n.story]) as Story, 0, 0, (r, set) =>
      set.size < size ? { ...r, size } : r,
    ) as DesignDraft['stories'][string];
  },
};

/** An ink recipe that prints as a colour of light does, in whole per cents. */
const recipeOf = (c: Colour, { palette }: Mending): Extract<Colour, { cmyk: unknown }> => {
  const [cyan, magenta, yellow, black] = palette.mix(c);
  return { cmyk: mapTuple([cyan, magenta, yellow, black], (v) => Math.round(v * 100) / 100) };
};

const MENDS: { readonly [C in FindingCode]?: Mend<C> } = {
  'bleed.missing': {
    label: 'Draw it out to the bleed',
    run(d, { sides, bleed }, node, { design, page, fonts }) {
      const box = transformRect(pageMatrix(design, page, node), localBox(design, design.nodes[node], fonts));
      const { width, height } = setupOn(design, page);
      const to = {
        x0: sides.includes('left') ? -bleed : box.x0,
        y0: sides.includes('top') ? -bleed : box.y0,
        x1: sides.includes('right') ? width + bleed : box.x1,
        y1: sides.includes('bottom') ? height + bleed : box.y1,
      };
      const [kx, ky] = [(to.x1 - to.x0) / (box.x1 - box.x0), (to.y1 - to.y0) / (box.y1 - box.y0)];
      if (!Number.isFinite(kx) || !Number.isFinite(ky)) return;
      const map = multiply(translation(to.x0, to.y0), multiply(scaling(kx, ky), translation(-box.x0, -box.y0)));
      scaleNodes(d, page, [node], map);
    },
  },
  'words.nearTrim': {
    label: 'Move it in',
    can: ({ dx, dy }) => dx !== 0 || dy !== 0,
    run: (d, { dx, dy }, node, { page }) => moveNodes(d, page, [node], dx, dy),
  },
  'place.nearTrim': {
    label: 'Move it in',
    can: ({ dx, dy }) => dx !== 0 || dy !== 0,
    run: (d, { dx, dy }, node, { page }) => moveNodes(d, page, [node], dx, dy),
  },
  'words.tiny': larger,
  'words.mixed': larger,
  'words.free': larger,
  'words.richBlack': {
    label: 'Use black ink alone',
    run: paintsWhere((p, { palette }) => isMixedBlack(palette.mix(p.colour)), toBlack, mapWordPaints),
  },
  'line.thin': heavier,
  'line.free': heavier,
  'black.mixed': {
    label: 'Use black ink alone',
    run: paintsWhere(
      (p, { palette }) =>
        palette
          .mix(p.colour)
          .slice(0, 4)
          .every((v) => v >= 0.6),
      toBlack,
    ),
  },
  'black.knocksOut': {
    label: 'Let it overprint',
    run: paintsWhere(
      (p, { palette }) => !p.overprint && isBlackAlone(palette.mix(p.colour)),
      (p) => ({ ...p, overprint: true }),
      mapWordPaints,
    ),
  },
  'overprint.white': {
    label: 'Let it cut out',
    run: paintsWhere(
      (p, { palette }) => p.overprint && palette.mix(p.colour).every((v) => v < 0.005),
      (p) => ({ ...p, overprint: false }),
    ),
  },
  'overprint.unsure': {
    label: 'Let it cut out',
    run: paintsWhere(
      (p, { palette }) => p.overprint && !isFree(palette.mix(p.colour)),
      (p) => ({ ...p, overprint: false }),
    ),
  },
  'overprint.lost': {
    label: 'Let it cut out',
    run: paintsWhere(
      (p, { palette }) => p.overprint && !isFree(palette.mix(p.colour)),
      (p) => ({ ...p, overprint: false }),
    ),
  },
  'colour.rgb': {
    label: 'Give it a recipe of inks',
    run(d, { swatch }, node, m) {
      if (swatch) {
        const old = m.design.swatches.find((s) => s.id === swatch);
        if (old?.kind === 'colour') recolourSwatch(d, swatch, recipeOf(old.colour, m));
        return;
      }
      mapPaintsOf(d, node, (p) => mapColours(p, (c) => ('rgb' in c ? recipeOf(c, m) : c)));
    },
  },
  'spot.unused': { label: 'Take it out', whole: true, run: (d, { ink }) => removeInk(d, ink) },
  'spot.twice': { label: 'Make them one', whole: true, run: (d, { ink, other }) => mergeInks(d, ink, other) },
  'picture.stretched': {
    label: 'Give it its proportions',
    run(d, { by }, node) {
      const middle = multiply(
        translation(0.5, 0.5),
        multiply(scaling(Math.max(1, by), Math.max(1, 1 / by)), translation(-0.5, -0.5)),
      );
      mapPaintsOf(d, node, (p) => (p.kind === 'picture' ? { ...p, geometry: multiply(p.geometry, middle) } : p));
    },
  },
  'object.outside': remove('Delete it'),
  'object.twice': remove('Delete this one'),
  'object.unseen': remove('Delete it'),
  'frame.empty': remove('Delete it'),
  'fill.open': {
    label: 'Close the line',
    run(d, _, node) {
      const n = d.nodes[node];
      if (n.kind !== 'path') return;
      const out: number[] = [];
      const path = plain(n.path);
      let open = false;
      for (let i = 0; i < path.length; i += 1 + COORDS[path[i] as 0]) {
        if (path[i] === MOVE && open) out.push(CLOSE);
        open = path[i] !== CLOSE;
        out.push(...path.slice(i, i + 1 + COORDS[path[i] as 0]));
      }
      if (open) out.push(CLOSE);
      n.path = out;
    },
  },
  'combination.gap': {
    label: 'Close the gap',
    run(d, _, node, { design, fonts, newId }) {
      const [gap] = openGaps(design, node, fonts);
      if (!gap) return;
      if (gap.moves.length) closeByMoving(d, gap);
      else closeByBridge(d, node, gap, newId);
    },
  },
  'size.drift': {
    label: 'Make it equal',
    run(d, _, node, { design, page, fonts }) {
      const set = driftedSets(design, page).find((s) => s.odd.some((o) => o.id === node));
      if (set) sameSize(design, page, [node, set.like], set.like, fonts)(d);
    },
  },
  'place.nearly': {
    label: 'Line it up',
    run: (d, { by, edge }, node, { page }) =>
      moveNodes(
        d,
        page,
        [node],
        edge === 'left' || edge === 'right' ? by : 0,
        edge === 'top' || edge === 'foot' ? by : 0,
      ),
  },
  'layer.hidden': {
    label: 'Show it',
    run(d, _, node) {
      d.nodes[node].hidden = false;
    },
  },
  'page.empty': { label: 'Delete the page', whole: true, run: (d, _, __, { page }) => void deletePage(d, page.id) },
};

/** What puts a finding right, in a word; null where nothing does by itself. */
export function mendLabel(f: Finding, m: Mending): string | null {
  const mend = MENDS[f.code] as Mend<FindingCode> | undefined;
  if (!mend) return null;
  // What a master puts on a page, and its ground, are mended where they are.
  if (!mend.whole && !isOn(m.design, m.page, f.node)) return null;
  return mend.can && !mend.can(f.facts, f.node, m) ? null : mend.label;
}

/** Puts a finding right in a draft of the design that it was found in. */
export function mendFinding(d: DesignDraft, f: Finding, m: Mending): void {
  if (mendLabel(f, m) === null || (f.node !== null && !d.nodes[f.node])) return;
  (MENDS[f.code] as Mend<FindingCode>).run(d, f.facts, f.node ?? '', m);
}

function isOn(d: Design, page: Page, node: NodeId | null): boolean {
  if (node === null || !d.nodes[node]) return false;
  const holds = (ids: readonly NodeId[]): boolean =>
    ids.some((id) => {
      const n = d.nodes[id];
      return id === node || (n !== undefined && 'children' in n && holds(n.children));
    });
  return holds(page.children);
}
