import { translation } from '@/core/geometry/matrix';
import { SPOT_LIBRARY } from '@/core/colour/spotLibrary';
import { boxIn } from '@/core/derive/box';
import { regionsIn } from '@/core/derive/regions';
import { copyNodes, pasteClip } from '@/core/edit/clip';
import { combineNodes } from '@/core/edit/combine';
import { depthToShapes, newDepth, setDepth } from '@/core/edit/depth';
import { newShadow, setShadow } from '@/core/edit/effects';
import type { Recipe } from '@/core/edit/history';
import { addAllRound, offsetNodes } from '@/core/edit/offsetShape';
import { outlinesToShapes } from '@/core/edit/outlineShape';
import { addPage, deletePage, duplicatePage, movePages } from '@/core/edit/pages';
import { FURTHER_AIMS } from '@/core/edit/aims';
import { addOutline, moveOutline, removeOutline, setColour, setOutlineStyle, setOverprint } from '@/core/edit/paint';
import { deleteNodes } from '@/core/edit/remove';
import { groupNodes, orderNodes, setNodeFlags, ungroupNodes } from '@/core/edit/pile';
import { moveNodes, scaleNodes, scalingAbout, turnNodes } from '@/core/edit/place';
import { hasRegions, makeRegions, paintAreas, regionsToShapes, setGap, settleRegions } from '@/core/edit/regions';
import { repeatNodes } from '@/core/edit/repeat';
import { sameSize } from '@/core/edit/sameSize';
import { addSpot, recolourSwatch, removeSwatch } from '@/core/edit/swatches';
import { replaceText } from '@/core/edit/text';
import { traceNodes } from '@/core/edit/trace';
import { setWhole } from '@/core/edit/whole';
import type { Engines } from '@/core/engines';
import { outlineOf } from '@/core/model/defaults';
import { BLENDS, type Colour, type Design, type Outline } from '@/core/model/schema';
import { cmyk } from './sample';
import fc from './seeded';

/** A random command: its kind, two numbers that choose what it is done to, and two that say how. */
export type Step = readonly [kind: number, a: number, b: number, x: number, y: number];
/** So many kinds there are of the plain commands, and with those of lines, regions and depth. */
export const [PLAIN, ALL] = [22, 36];
/** Sessions of up to 30 of the first `kinds` kinds of commands. */
export const stepsOf = (kinds: number) =>
  fc.array(
    fc.tuple(
      fc.nat(kinds - 1),
      fc.nat(200),
      fc.nat(200),
      fc.integer({ min: -300, max: 300 }),
      fc.integer({ min: -300, max: 300 }),
    ),
    { minLength: 1, maxLength: 30 },
  );

/**
 * A random command on whatever the design now holds, with what the bench does after each: coloured areas follow their
 * lines.
 */
export function recipeOf(step: Step, design: Design, engines: Engines): Recipe {
  const command = (step[0] < PLAIN ? plainCommand : lineCommand)(step, design, engines);
  return (d) => {
    command(d);
    settleRegions(d, design, engines.fonts);
  };
}

/** What of a page a command can reach, and what it is done to. */
function reached([, a, b]: Step, design: Design, engines: Engines) {
  const page = design.pages[a % design.pages.length];
  const mine = Object.keys(design.nodes)
    .sort()
    .filter((id) => boxIn(design, id, [1, 0, 0, 1, 0, 0], engines.fonts) && hangsFrom(design, page.id, id));
  const ids = mine.length ? [mine[a % mine.length], mine[b % mine.length]] : [];
  return { page, mine, ids, one: ids.slice(0, 1) };
}

/** One of objects, paints, texts and pages. */
function plainCommand([kind, a, b, x, y]: Step, design: Design, engines: Engines): Recipe {
  const { page, mine, ids, one } = reached([kind, a, b, x, y], design, engines);
  if (!mine.length) return (d) => void addPage(d, page.id, engines.env.newId);
  const texts = mine.filter((id) => 'story' in design.nodes[id]);
  const colours = design.swatches.filter((s) => s.kind === 'colour');
  switch (kind) {
    case 0:
      return (d) => moveNodes(d, page, ids, x, y);
    case 1:
      return (d) => turnNodes(d, page, ids, x, { x: 100, y: 100 });
    case 2:
      return (d) => scaleNodes(d, page, one, scalingAbout(1 + (x + 300) / 400, 1 + (y + 300) / 400, { x: 50, y: 50 }));
    case 3:
      return (d) => scaleNodes(d, page, ids, scalingAbout(-1, 1, { x: 50, y: 50 }));
    case 4:
      return (d) => void groupNodes(d, page, ids, engines.env.newId);
    case 5:
      return (d) => void ungroupNodes(d, page, ids);
    case 6:
      return (d) => orderNodes(d, page, ids, (['front', 'forward', 'backward', 'back'] as const)[b % 4]);
    case 7:
      return (d) => deleteNodes(d, page, one);
    case 8:
      return (d) => setNodeFlags(d, one, { hidden: b % 2 === 0, locked: x > 0, name: `n${y}` });
    case 9:
      return (d) =>
        setColour(
          d,
          ids,
          (['fill', 'outline', 'letters', 'letterOutline', 'frame'] as const)[b % 5],
          colours.length ? { swatch: colours[a % colours.length].id, tint: 0.5 } : cmyk(10, 20, 30, 0),
        );
    case 10:
      return (d) => setOverprint(d, ids, b % 2 ? 'fill' : 'letters', x > 0);
    case 11:
      return (d) => void addSpot(d, SPOT_LIBRARY[b % SPOT_LIBRARY.length], engines.env.newId);
    case 12:
      return (d) =>
        colours.length && recolourSwatch(d, colours[a % colours.length].id, { cmyk: [0.1, 0.2, Math.abs(x) / 300, 0] });
    case 13:
      return (d) => design.swatches.length && removeSwatch(d, design.swatches[a % design.swatches.length].id);
    case 14:
      return (d) => {
        if (!texts.length) return;
        const n = design.nodes[texts[b % texts.length]];
        if ('story' in n)
          d.stories[n.story] = replaceText(
            design.stories[n.story],
            a % 9,
            b % 9,
            y > 0 ? 'wick\nfjord' : '',
          ) as (typeof d.stories)[string];
      };
    case 15:
      return (d) => void duplicatePage(d, page.id, engines.env.newId);
    case 16:
      return (d) => (b % 2 ? movePages(d, [page.id], b % design.pages.length) : void deletePage(d, page.id));
    case 17:
      return (d) => setWhole(d, one, b % 3 ? { opacity: (b % 5) / 4 } : { blend: BLENDS[b % BLENDS.length] });
    case 18:
      return (d) => setWhole(d, one, { maskMode: ([null, 'outline', 'opacity', 'light'] as const)[b % 4] });
    case 19:
      return (d) => setShadow(d, ids, b % 4 ? { dx: x / 20, blur: b / 10 } : null, () => newShadow(design, 20));
    case 20:
      return (d) =>
        void (b % 2
          ? repeatNodes(d, page, one, 'row', null, engines.env.newId, engines.fonts)
          : combineNodes(d, page, ids, 'subtract', false, engines.env.newId, engines.fonts));
    default:
      return (d) => {
        const clip = copyNodes(design, page, ids);
        if (clip) pasteClip(d, page.id, clip, engines.env.newId, translation(5, 5));
      };
  }
}

function hangsFrom(d: Design, pageId: string, id: string): boolean {
  const holds = (ids: readonly string[]): boolean =>
    ids.some(
      (x) =>
        x === id ||
        (d.nodes[x].kind === 'group' &&
          holds((d.nodes[x] as Extract<Design['nodes'][string], { kind: 'group' }>).children)),
    );
  return holds(d.pages.find((p) => p.id === pageId)!.children);
}

const AIMS = ['outline', 'letterOutline', ...FURTHER_AIMS] as const;
/** One of outlines, edges, regions, depth, references and sizes. */
function lineCommand(step: Step, design: Design, engines: Engines): Recipe {
  const [kind, a, b, x, y] = step;
  const { page, mine, ids, one } = reached(step, design, engines);
  const { newId } = engines.env;
  const { fonts } = engines;
  if (!mine.length) return (d) => void addPage(d, page.id, newId);
  const paint = { kind: 'colour', colour: colourFor(a, design), overprint: false } as const;
  const aim = AIMS[b % AIMS.length];
  const style = (change: Partial<Omit<Outline, 'paint'>>) => (d: Parameters<Recipe>[0]) =>
    setOutlineStyle(d, ids, aim, change, paint);
  const groups = mine.filter((id) => hasRegions(design.nodes[id]));
  const grown = Math.abs(x) / 30;
  switch (kind) {
    case 22:
      return style(
        b % 3
          ? { dashes: [Math.abs(x) / 10, 1 + Math.abs(y) / 10], dashOffset: a - 100, cap: 'round', dashFit: true }
          : { dashes: undefined, dashFit: undefined },
      );
    case 23:
      return style(
        b % 4
          ? { wobble: { strength: 0.1 + grown, wave: 4 + Math.abs(y), passes: 1 + (a % 3), seed: a } }
          : { wobble: undefined },
      );
    case 24:
      return style({
        start: { kind: 'arrow', size: 1 + (a % 5) },
        end: y > 0 ? { kind: 'dot', size: 3 } : undefined,
        profile: [
          { at: 0, share: a / 200 },
          { at: 1, share: 1 },
        ],
      });
    case 25:
      return style({ side: x > 0 ? 'inside' : 'outside', away: y / 20, between: b % 2 ? paint : undefined });
    case 26:
      return (d) => addOutline(d, ids, outlineOf(paint, grown));
    case 27:
      return (d) =>
        void (a % 2 ? moveOutline(d, ids, aim, x > 0 ? 1 : -1) : removeOutline(d, ids, FURTHER_AIMS[b % 4]));
    case 28:
      return (d) => void outlinesToShapes(d, page, ids, newId, fonts);
    case 29: {
      const shift = { by: x / 20, join: (['round', 'miter', 'bevel'] as const)[a % 3] };
      if (b % 2)
        return (d) => void offsetNodes(d, page, ids, { ...shift, steps: 1 + (a % 3), place: 'behind' }, newId, fonts);
      const use = (['backing', 'cutLine', 'underlay'] as const)[a % 3];
      return (d) =>
        void addAllRound(
          d,
          page,
          ids,
          { ...shift, by: grown, fillHoles: y > 0, use, colour: cmyk(0, 0, 0, 0) },
          newId,
          fonts,
        );
    }
    case 30:
      return (d) => void makeRegions(d, page, ids, newId);
    case 31:
    case 32: {
      const group = groups[b % groups.length];
      const node = design.nodes[group];
      if (!hasRegions(node)) return (d) => void makeRegions(d, page, ids, newId);
      const { faces } = regionsIn(design, node, fonts);
      const which = new Set(faces.map((_, i) => i).filter((i) => (i + a) % 2 === 0));
      return (d) => paintAreas(d, group, which, y > -250 ? paint : null, fonts);
    }
    case 33: {
      const group = groups[b % groups.length];
      if (!group) return (d) => void makeRegions(d, page, ids, newId);
      return (d) => void (y > 0 ? setGap(d, group, grown) : regionsToShapes(d, group, newId, fonts));
    }
    case 34:
      if (b % 5 === 0) return (d) => void depthToShapes(d, page, ids, newId, fonts);
      return (d) =>
        setDepth(
          d,
          ids,
          b % 7
            ? {
                angle: x,
                length: Math.abs(y) / 5,
                kind: a % 3 ? 'solid' : 'shadow',
                ...(a % 2 && { vanish: { x, y, share: 0.3 } }),
              }
            : null,
          () => newDepth(design, 40),
        );
    default:
      return b % 3 ? sameSize(design, page, ids, one[0], fonts) : (d) => void traceNodes(d, page, one, newId);
  }
}
const colourFor = (a: number, design: Design): Colour => {
  const colours = design.swatches.filter((s) => s.kind === 'colour');
  return colours.length ? { swatch: colours[a % colours.length].id, tint: 0.8 } : cmyk(40, 20, 30, 0);
};
