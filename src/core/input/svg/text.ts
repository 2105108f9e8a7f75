import { lettersPath } from '../../edit/area';
import { layoutOf } from '../../edit/layout';
import { alongContour, contourLength } from '../../geometry/measure';
import { angleOf, multiply, rotation, scaling, translation, type Matrix } from '../../geometry/matrix';
import { pathBounds, transformPath, type PathData } from '../../geometry/path';
import { strokeOutline } from '../../geometry/stroke';
import { contoursOf } from '../../geometry/segments';
import type { Design, NodeOf, Outline, Paint, Paragraph, Run } from '../../model/schema';
import { DEFAULT_FACE } from '../../model/defaults';
import type { Draws, Place } from './context';
import { faceFor } from './faces';
import { hrefOf } from './gradients';
import { patternFill } from './patterns';
import { drawnBy, lineOf } from './shapes';
import type { Style, Styles } from './style';
import { localId, readLength, readNumbers, readTransform } from './values';
import { elementsOf, textOf, type Element } from './xml';

/** Faces that a drawing's words are set in, or that stand in for others. */
export function facesIn(root: Element, styles: Styles): Set<string> {
  const faces = new Set<string>([DEFAULT_FACE]);
  const look = (e: Element): void => {
    if (e.name === 'text' || e.name === 'tspan' || e.name === 'textPath' || e.name === 'tref') faces.add(faceFor(styles.inPlace(e)).face);
    elementsOf(e).forEach(look);
  };
  look(root);
  return faces;
}

/** Words in one style that follow each other, and where they begin anew. */
interface Piece {
  text: string;
  readonly style: Style;
  readonly element: Element;
  readonly x: number | null;
  readonly y: number | null;
  readonly dx: number;
  readonly dy: number;
  readonly path: { readonly line: PathData; readonly offset: number } | null;
}

/**
 * The words of a text element: display texts that can be edited where their face is there and they stand straight, else
 * shapes of their letters.
 */
export function drawText(drawer: Draws, e: Element, place: Place, name: string): string[] {
  const pieces = collect(drawer, e, place);
  const out: string[] = [];
  let pen = { x: 0, y: 0 };
  for (let i = 0; i < pieces.length; ) {
    // A chunk goes on until a piece begins at a place of its own.
    let end = i + 1;
    while (end < pieces.length && pieces[end].x === null && pieces[end].y === null && !pieces[end].dx && !pieces[end].dy && pieces[end].path === pieces[i].path) end++;
    const chunk = pieces.slice(i, end).filter((p) => p.text);
    const first = pieces[i];
    pen = { x: (first.x ?? pen.x) + first.dx, y: (first.y ?? pen.y) + first.dy };
    i = end;
    if (!chunk.length) continue;
    if (first.path) {
      for (const id of onPath(drawer, chunk, first.path, place)) out.push(id);
      continue;
    }
    const made = straightText(drawer, chunk, pen, place, name);
    for (const id of made.ids) out.push(id);
    pen = { x: pen.x + made.advance, y: pen.y };
  }
  return out;
}

function collect(drawer: Draws, e: Element, place: Place): Piece[] {
  const { making } = drawer;
  const pieces: Piece[] = [];
  const preserve = (style: Style) => style['xml:space'] === 'preserve';
  const visit = (at: Element, style: Style, path: Piece['path'], depth: number): void => {
    const m = { ...place.measures, fontSize: Number(style['font-size']) };
    const list = (a: string, along: 'x' | 'y') => {
      const t = at.attributes.get(a);
      return t === undefined ? [] : t.trim().split(/[\s,]+/).map((v) => readLength(v, m, along) ?? 0);
    };
    const [xs, ys, dxs, dys] = [list('x', 'x'), list('y', 'y'), list('dx', 'x'), list('dy', 'y')];
    if (at.attributes.has('rotate') && readNumbers(at.attributes.get('rotate')!).some((v) => v !== 0)) making.note('Letters that are turned one by one stand straight.');
    if (style['text-decoration'] !== 'none') making.note('Lines under, over or through words are left out.');
    if (style['writing-mode'].startsWith('tb') || style['writing-mode'].startsWith('vertical')) making.note('Words that run downwards run across.');
    let n = 0;
    const put = (raw: string) => {
      const text = preserve(style) ? raw.replace(/[\n\t\r]/g, ' ') : raw.replace(/[\n\r]/g, '').replace(/\t/g, ' ').replace(/ +/g, ' ');
      const letters = Math.max(xs.length, ys.length, dxs.length, dys.length) > 1 ? [...text] : [text];
      for (const [k, part] of letters.entries()) {
        // Beyond the lists letters follow each other.
        const listed = n < Math.max(xs.length, ys.length, dxs.length, dys.length, 1);
        const last = pieces[pieces.length - 1];
        if ((!listed || (k > 0 && letters.length > 1 && n >= Math.max(xs.length, ys.length, dxs.length, dys.length))) && last?.element === at) last.text += part;
        else pieces.push({ text: part, style, element: at, x: xs[n] ?? null, y: ys[n] ?? null, dx: dxs[n] ?? 0, dy: dys[n] ?? 0, path });
        n++;
      }
    };
    for (const child of at.children) {
      if (typeof child === 'string') {
        put(child);
        continue;
      }
      if (child.space !== '' || depth > 50) continue;
      const inner = making.styles.of(child, style);
      if (inner.display === 'none' || inner.visibility !== 'visible') continue;
      if (child.name === 'tspan' || child.name === 'a') visit(child, inner, path, depth + 1);
      else if (child.name === 'tref') {
        const target = making.byId.get(localId(hrefOf(child)) ?? '');
        if (target) pieces.push({ text: textOf(target).replace(/\s+/g, ' '), style: inner, element: child, x: null, y: null, dx: 0, dy: 0, path });
      } else if (child.name === 'textPath') visit(child, inner, pathOf(drawer, child, place), depth + 1);
    }
  };
  visit(e, place.style, null, 0);
  // Spaces between pieces count once; those at both ends do not count.
  let spaced = true;
  for (const p of pieces) {
    if (preserve(p.style)) {
      spaced = false;
      continue;
    }
    if (spaced || p.x !== null) p.text = p.text.replace(/^ +/, '');
    if (p.text) spaced = p.text.endsWith(' ');
  }
  for (let i = pieces.length - 1; i >= 0; i--) {
    if (preserve(pieces[i].style)) break;
    pieces[i].text = pieces[i].text.replace(/ +$/, '');
    if (pieces[i].text) break;
  }
  return pieces.filter((p, i) => p.text || (p.x !== null && i < pieces.length - 1));
}

function pathOf(drawer: Draws, e: Element, place: Place): Piece['path'] {
  const { making } = drawer;
  const target = making.byId.get(localId(hrefOf(e)) ?? '');
  const drawn = target && drawnBy(target, place.measures, place.style);
  if (!target || !drawn) return null;
  const line = transformPath(lineOf(drawn), readTransform(target.attributes.get('transform')) ?? [1, 0, 0, 1, 0, 0]);
  const length = contoursOf(line).reduce((n, c) => n + contourLength(c), 0);
  const text = e.attributes.get('startOffset') ?? '0';
  const offset = text.trim().endsWith('%') ? (Number.parseFloat(text) / 100) * length : (readLength(text, place.measures, 'x') ?? 0);
  return { line, offset };
}

/** Runs of a chunk with their paints; `opacity` where all cover alike. */
function runsOf(drawer: Draws, chunk: readonly Piece[], place: Place): { readonly runs: Run[]; readonly opacity: number; readonly there: boolean; readonly asked: string } {
  let there = true;
  let asked = '';
  let opacity = 1;
  const runs = chunk.map((p): Run => {
    const size = Math.min(10_000, Math.max(0.1, Number(p.style['font-size'])));
    const face = faceFor(p.style);
    if (!face.there) {
      there = false;
      asked ||= face.asked;
    }
    const own: Place = { ...place, style: p.style };
    const box = { x0: 0, y0: -size, x1: size, y1: 0 };
    const fill = drawer.paint(p.style.fill, p.style['fill-opacity'], box, own, p.element, 'fill');
    const width = readLength(p.style['stroke-width'], place.measures, 'r') ?? 1;
    const stroke = width > 0 ? drawer.paint(p.style.stroke, p.style['stroke-opacity'], box, own, p.element, 'stroke') : null;
    const flat = (x: typeof fill): Paint => {
      return x && 'paint' in x ? x.paint : { kind: 'none' };
    };
    if (fill) opacity = fill.alpha;
    const outline: Outline | null = stroke ? { paint: flat(stroke), width, cap: 'butt', join: 'miter', miterLimit: 4 } : null;
    const spacing = p.style['letter-spacing'] === 'normal' ? 0 : (readLength(p.style['letter-spacing'], { ...place.measures, fontSize: size }, 'x') ?? 0);
    return { text: p.text, face: face.face, size, tracking: Math.min(5000, Math.max(-500, (spacing / size) * 1000)), fill: flat(fill), outline };
  });
  return { runs, opacity, there, asked };
}

const ALIGN: Readonly<Record<string, Paragraph['align']>> = { middle: 'middle', end: 'right' };

function straightText(drawer: Draws, chunk: readonly Piece[], at: { x: number; y: number }, place: Place, name: string): { readonly ids: string[]; readonly advance: number } {
  const { making } = drawer;
  const { runs, opacity, there, asked } = runsOf(drawer, chunk, place);
  const story = making.newId();
  making.stories[story] = { id: story, paragraphs: [{ align: ALIGN[chunk[0].style['text-anchor']] ?? 'left', leading: 1.2, runs }] };
  const words = chunk.map((p) => p.text).join('').trim();
  const patterned = chunk.some((p) => [p.style.fill, p.style.stroke].some((t) => making.byId.get(localId(t) ?? '')?.name === 'pattern'));
  const id = making.add<NodeOf<'displayText'>>({ name: (name === 'Text' ? words : name).slice(0, 60) || 'Text', kind: 'displayText', transform: translation(at.x, at.y), story, stretch: 1, ...(opacity < 1 && { opacity }) });
  const design = { nodes: making.nodes, stories: making.stories } as unknown as Design;
  const node = making.nodes[id] as NodeOf<'displayText'>;
  const layout = layoutOf(design, node, making.fonts);
  const advance = ALIGN[chunk[0].style['text-anchor']] ? layout.x1 : layout.x1 - Math.min(0, layout.x0);
  placeGradients(drawer, id, chunk, place);
  if (patterned) {
    making.note('Words filled with a pattern became shapes.');
    return { ids: inPatterns(drawer, id, chunk, place), advance };
  }
  if (there) return { ids: [id], advance };
  making.note(`Words in “${asked}”, which is not here, became shapes of another face.`);
  return { ids: asShapes(drawer, id), advance };
}

/** Gradients on the box of a text, now that its box is known. */
function placeGradients(drawer: Draws, id: string, chunk: readonly Piece[], place: Place): void {
  const { making } = drawer;
  const node = making.nodes[id] as NodeOf<'displayText'>;
  const story = making.stories[node.story];
  const runs = story.paragraphs[0].runs;
  if (!runs.some((r) => r.fill.kind === 'gradient' || r.outline?.paint.kind === 'gradient')) return;
  const design = { nodes: making.nodes, stories: making.stories } as unknown as Design;
  const l = layoutOf(design, node, making.fonts);
  const box = { x0: l.x0, y0: l.top, x1: l.x1, y1: l.bottom };
  const again = (p: Piece, which: 'fill' | 'stroke', old: Paint): Paint => {
    if (old.kind !== 'gradient') return old;
    const own: Place = { ...place, style: p.style };
    const moved = { x0: box.x0 + node.transform[4], y0: box.y0 + node.transform[5], x1: box.x1 + node.transform[4], y1: box.y1 + node.transform[5] };
    const made = drawer.paint(p.style[which], '1', moved, own, null, which);
    if (!made || !('paint' in made) || made.paint.kind !== 'gradient') return old;
    // From the element's space to the text's own.
    return { ...made.paint, geometry: multiply(translation(-node.transform[4], -node.transform[5]), made.paint.geometry) };
  };
  making.stories[node.story] = { ...story, paragraphs: [{ ...story.paragraphs[0], runs: runs.map((r, i) => ({ ...r, fill: again(chunk[i], 'fill', r.fill), outline: r.outline && { ...r.outline, paint: again(chunk[i], 'stroke', r.outline.paint) } })) }] };
}

/** A text's letters as paths, one a run. */
function asShapes(drawer: Draws, id: string): string[] {
  const { making } = drawer;
  const node = making.nodes[id] as NodeOf<'displayText'>;
  const design = { nodes: making.nodes, stories: making.stories } as unknown as Design;
  const runs = making.stories[node.story].paragraphs[0].runs;
  const ids = runs.length === 1 ? [letters(drawer, node, lettersPath(design, node, making.fonts), runs[0])] : runRegions(drawer, node, design);
  delete making.nodes[id];
  delete making.stories[node.story];
  return ids;
}

/** Letters of which some are filled or lined with patterns: each run's area with its paints, one after the other. */
function inPatterns(drawer: Draws, id: string, chunk: readonly Piece[], place: Place): string[] {
  const { making } = drawer;
  const node = making.nodes[id] as NodeOf<'displayText'>;
  const design = { nodes: making.nodes, stories: making.stories } as unknown as Design;
  const out: string[] = [];
  const runs = layoutOf(design, node, making.fonts).lines.flatMap((l) => l.runs);
  for (const [i, run] of runs.entries()) {
    const scale = run.run.size / run.face.upem;
    const path = run.glyphs.flatMap((g) => [...transformPath(run.face.outline(g.gid), multiply(node.transform, [scale, 0, 0, scale, g.x, g.y]))]);
    const piece = chunk[Math.min(i, chunk.length - 1)];
    const own: Place = { ...place, style: piece.style };
    const box = pathBounds(path);
    const width = readLength(piece.style['stroke-width'], place.measures, 'r') ?? 1;
    for (const which of ['fill', 'stroke'] as const) {
      const paint = which === 'stroke' && !(width > 0) ? null : drawer.paint(piece.style[which], piece.style[`${which}-opacity`], box, own, piece.element, which);
      if (!paint || !path.length) continue;
      const line = { width, cap: 'butt', join: 'miter', miterLimit: 4 } as const;
      const made = 'pattern' in paint ? patternFill(drawer, paint.pattern, which === 'fill' ? path : strokeOutline(path, line, 0.02), 'nonZero', box, own, node.name) : [drawer.pathNode(node.name, path, 'nonZero', which === 'fill' ? [paint.paint] : [], which === 'stroke' ? [{ ...line, paint: paint.paint }] : [])];
      if (paint.alpha < 1) for (const m of made) making.change(m, { opacity: paint.alpha });
      out.push(...made);
    }
  }
  delete making.nodes[id];
  delete making.stories[node.story];
  return out;
}

function letters(drawer: Draws, node: NodeOf<'displayText'>, path: PathData, run: Run): string {
  const made = drawer.pathNode(node.name, path, 'nonZero', run.fill.kind === 'none' ? [] : [run.fill], run.outline ? [run.outline] : []);
  drawer.making.change(made, { transform: node.transform, ...(node.opacity !== undefined && { opacity: node.opacity }) });
  return made;
}

function runRegions(drawer: Draws, node: NodeOf<'displayText'>, design: Design): string[] {
  const out: string[] = [];
  for (const line of layoutOf(design, node, drawer.making.fonts).lines)
    for (const run of line.runs) {
      const scale = run.run.size / run.face.upem;
      const path = run.glyphs.flatMap((g) => [...transformPath(run.face.outline(g.gid), [scale, 0, 0, scale, g.x, g.y])]);
      if (path.length) out.push(letters(drawer, node, path, run.run));
    }
  return out;
}

/** Words along a line, each letter set by its middle; what does not fit on the line is not shown. */
function onPath(drawer: Draws, chunk: readonly Piece[], path: NonNullable<Piece['path']>, place: Place): string[] {
  const { making } = drawer;
  making.note('Words on a path became shapes.');
  const contour = contoursOf(path.line)[0];
  if (!contour) return [];
  const length = contourLength(contour);
  const { runs, opacity } = runsOf(drawer, chunk, place);
  const story = making.newId();
  const design = { nodes: {}, stories: { [story]: { id: story, paragraphs: [{ align: 'left', leading: 1.2, runs }] } } } as unknown as Design;
  const node = { id: 'words', name: 'Words', kind: 'displayText', transform: [1, 0, 0, 1, 0, 0], hidden: false, locked: false, story, stretch: 1 } as NodeOf<'displayText'>;
  const layout = layoutOf(design, node, making.fonts);
  const anchor = chunk[0].style['text-anchor'];
  const begin = path.offset - (anchor === 'middle' ? layout.x1 / 2 : anchor === 'end' ? layout.x1 : 0);
  return layout.lines.flatMap((line) =>
    line.runs.flatMap((run) => {
      const scale = run.run.size / run.face.upem;
      const out: number[] = [];
      for (const g of run.glyphs) {
        const middle = begin + g.x + g.advance / 2;
        if (middle < 0 || middle > length) continue;
        const { point, tangent } = alongContour(contour, middle);
        const turn: Matrix = multiply(translation(point.x, point.y), rotation(angleOf([tangent.x, tangent.y, -tangent.y, tangent.x, 0, 0])));
        for (const v of transformPath(run.face.outline(g.gid), multiply(turn, multiply(translation(-g.advance / 2, g.y), scaling(scale, scale))))) out.push(v);
      }
      if (!out.length) return [];
      const id = drawer.pathNode(run.run.text.slice(0, 60), out, 'nonZero', run.run.fill.kind === 'none' ? [] : [run.run.fill], run.run.outline ? [run.run.outline] : []);
      if (opacity < 1) making.change(id, { opacity });
      return [id];
    }),
  );
}

