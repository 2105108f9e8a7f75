import { table } from '../../model/own';
import { lettersPath } from '../../derive/area';
import { layoutOf } from '../../derive/layout';
import { alongContour, contourLength } from '../../geometry/measure';
import { angleOf, multiply, rotation, scaling, translation, type Matrix } from '../../geometry/matrix';
import { pathBounds, transformPath, type PathData } from '../../geometry/path';
import { strokeOutline } from '../../geometry/stroke';
import { contoursOf } from '../../geometry/segments';
import type { Design, Letters, NodeOf, Outline, Paint, ParagraphSet, Run } from '../../model/schema';
import { runsIn } from '../../model/textLooks';
import { runPath } from '../../text/outlines';
import { DEFAULT_FACE } from '../../model/defaults';
import type { Draws, Place } from './context';
import { faceFor } from './faces';
import { patternFill } from './patterns';
import type { Styles } from './style';
import { localId, readLength } from './values';
import { collect, type Piece } from './textPieces';
import { type Element } from './xml';

/** Faces that a drawing's words are set in, or that stand in for others. */
export function facesIn(root: Element, styles: Styles): Set<string> {
  const faces = new Set<string>([DEFAULT_FACE]);
  const look = (e: Element): void => {
    if (e.name === 'text' || e.name === 'tspan' || e.name === 'textPath' || e.name === 'tref')
      faces.add(faceFor(styles.inPlace(e)).face);
    e.elements.forEach(look);
  };
  look(root);
  return faces;
}

/**
 * The words of a text element: display texts that can be edited where their face is there and they stand straight, else
 * shapes of their letters.
 */
export function drawText(drawer: Draws, e: Element, place: Place, name: string): string[] {
  const pieces = collect(drawer, e, place);
  const out: string[] = [];
  let pen = { x: 0, y: 0 };
  for (let i = 0; i < pieces.length;) {
    // A chunk goes on until a piece begins at a place of its own.
    let end = i + 1;
    while (
      end < pieces.length &&
      pieces[end].x === null &&
      pieces[end].y === null &&
      pieces[end].path === pieces[i].path
    )
      end++;
    const chunk = pieces.slice(i, end);
    pen = { x: chunk[0].x ?? pen.x, y: chunk[0].y ?? pen.y };
    i = end;
    const { path } = chunk[0];
    if (path)
      for (const id of onPath(
        drawer,
        chunk.filter((p) => p.text),
        path,
        place,
      ))
        out.push(id);
    else pen = drawChunk(drawer, chunk, pen, place, name, out);
  }
  return out;
}

/**
 * One chunk: its parts between shifts and turns, one after the other, all of it anchored as one. Answers where the next
 * begins.
 */
function drawChunk(
  drawer: Draws,
  chunk: readonly Piece[],
  at: { x: number; y: number },
  place: Place,
  name: string,
  out: string[],
): { x: number; y: number } {
  const parts: Piece[][] = [];
  for (const p of chunk) {
    if (parts.length && !p.dx && !p.dy && !p.turn && !parts[parts.length - 1][0].turn) parts[parts.length - 1].push(p);
    else parts.push([p]);
  }
  const anchor = chunk[0].style['text-anchor'];
  const pen = { ...at };
  if (parts.length === 1) {
    const first = parts[0][0];
    pen.x += first.dx;
    pen.y += first.dy;
    const words = parts[0].filter((p) => p.text);
    if (!words.length) return pen;
    const made = straightText(drawer, words, pen, place, name, ALIGN[anchor] ?? 'left', first.turn);
    out.push(...made.ids);
    return { x: pen.x + made.advance * (anchor === 'middle' ? 0.5 : anchor === 'end' ? 0 : 1), y: pen.y };
  }
  const made: string[] = [];
  for (const [i, part] of parts.entries()) {
    if (i) pen.x += kerning(drawer, parts[i - 1].at(-1)!, part[0]);
    pen.x += part[0].dx;
    pen.y += part[0].dy;
    const words = part.filter((p) => p.text);
    if (!words.length) continue;
    const text = straightText(drawer, words, pen, place, name, 'left', part[0].turn);
    made.push(...text.ids);
    pen.x += text.advance;
  }
  const back = (pen.x - at.x) * (anchor === 'middle' ? 0.5 : anchor === 'end' ? 1 : 0);
  if (back)
    for (const id of made)
      drawer.making.change(id, { transform: multiply(translation(-back, 0), drawer.making.nodes[id].transform) });
  out.push(...made);
  return { x: pen.x - back, y: pen.y };
}

/** How much nearer two letters stand for being neighbours, where they are of one face and size. */
function kerning(drawer: Draws, a: Piece, b: Piece): number {
  const [size, id] = [Number(a.style['font-size']), faceFor(a.style).face];
  const face = drawer.making.fonts.get(id);
  const [left, right] = [a.text.slice(-1), b.text.slice(0, 1)];
  if (!face || !left || !right || size !== Number(b.style['font-size']) || id !== faceFor(b.style).face) return 0;
  const width = (text: string) => face.shape(text).reduce((sum, g) => sum + g.advance, 0);
  return ((width(left + right) - width(left) - width(right)) * size) / face.upem;
}

/** Runs of a chunk with their paints; `opacity` where all cover alike. */
function runsOf(
  drawer: Draws,
  chunk: readonly Piece[],
  place: Place,
): { readonly runs: Run[]; readonly opacity: number; readonly there: boolean; readonly asked: string } {
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
    const stroke =
      width > 0 ? drawer.paint(p.style.stroke, p.style['stroke-opacity'], box, own, p.element, 'stroke') : null;
    const flat = (x: typeof fill): Paint => {
      return x && 'paint' in x ? x.paint : { kind: 'none' };
    };
    if (fill) opacity = fill.alpha;
    const outline: Outline | null = stroke
      ? { paint: flat(stroke), width, cap: 'butt', join: 'miter', miterLimit: 4 }
      : null;
    const spacing =
      p.style['letter-spacing'] === 'normal'
        ? 0
        : (readLength(p.style['letter-spacing'], { ...place.measures, fontSize: size }, 'x') ?? 0);
    return {
      text: p.text,
      face: face.face,
      size,
      tracking: Math.min(5000, Math.max(-500, (spacing / size) * 1000)),
      fill: flat(fill),
      outline,
    };
  });
  return { runs, opacity, there, asked };
}

const ALIGN = table<ParagraphSet['align']>({ middle: 'middle', end: 'right' });

function straightText(
  drawer: Draws,
  chunk: readonly Piece[],
  at: { x: number; y: number },
  place: Place,
  name: string,
  align: ParagraphSet['align'],
  turn: number,
): { readonly ids: string[]; readonly advance: number } {
  const { making } = drawer;
  const { runs, opacity, there, asked } = runsOf(drawer, chunk, place);
  const story = making.newId();
  making.stories[story] = { id: story, paragraphs: [{ align, leading: 1.2, runs }] };
  const words = chunk
    .map((p) => p.text)
    .join('')
    .trim();
  const patterned = chunk.some((p) =>
    [p.style.fill, p.style.stroke].some((t) => making.byId.get(localId(t) ?? '')?.name === 'pattern'),
  );
  const id = making.add<NodeOf<'displayText'>>({
    name: (name === 'Text' ? words : name).slice(0, 60) || 'Text',
    kind: 'displayText',
    transform: turn ? multiply(translation(at.x, at.y), rotation(turn)) : translation(at.x, at.y),
    story,
    stretch: 1,
    ...(opacity < 1 && { opacity }),
  });
  const design = { nodes: making.nodes, stories: making.stories } as unknown as Design;
  const node = making.nodes[id] as NodeOf<'displayText'>;
  const layout = layoutOf(design, node, making.fonts);
  // Spaces at the end hang in a line of ours; here what follows begins behind them.
  const advance = (layout.lines[0]?.carets.at(-1)?.x ?? layout.x1) - layout.x0;
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
  const runs = runsIn({}, story);
  if (!runs.some((r) => r.fill.kind === 'gradient' || r.outline?.paint.kind === 'gradient')) return;
  const design = { nodes: making.nodes, stories: making.stories } as unknown as Design;
  const l = layoutOf(design, node, making.fonts);
  const box = { x0: l.x0, y0: l.top, x1: l.x1, y1: l.bottom };
  const again = (p: Piece, which: 'fill' | 'stroke', old: Paint): Paint => {
    if (old.kind !== 'gradient') return old;
    const own: Place = { ...place, style: p.style };
    const moved = {
      x0: box.x0 + node.transform[4],
      y0: box.y0 + node.transform[5],
      x1: box.x1 + node.transform[4],
      y1: box.y1 + node.transform[5],
    };
    const made = drawer.paint(p.style[which], '1', moved, own, null, which);
    if (!made || !('paint' in made) || made.paint.kind !== 'gradient') return old;
    // From the element's space to the text's own.
    return {
      ...made.paint,
      geometry: multiply(translation(-node.transform[4], -node.transform[5]), made.paint.geometry),
    };
  };
  making.stories[node.story] = {
    ...story,
    paragraphs: [
      {
        ...story.paragraphs[0],
        runs: runs.map((r, i) => ({
          ...story.paragraphs[0].runs[i],
          fill: again(chunk[i], 'fill', r.fill),
          outline: r.outline && { ...r.outline, paint: again(chunk[i], 'stroke', r.outline.paint) },
        })),
      },
    ],
  };
}

/** A text's letters as paths, one a run. */
function asShapes(drawer: Draws, id: string): string[] {
  const { making } = drawer;
  const node = making.nodes[id] as NodeOf<'displayText'>;
  const design = { nodes: making.nodes, stories: making.stories } as unknown as Design;
  const runs = runsIn({}, making.stories[node.story]);
  const ids =
    runs.length === 1
      ? [letters(drawer, node, lettersPath(design, node, making.fonts), runs[0])]
      : runRegions(drawer, node, design);
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
  const runs = layoutOf(design, node, making.fonts).lines.flatMap((line) => line.runs.map((run) => ({ line, run })));
  const set = runsIn({}, making.stories[node.story]);
  for (const { line, run } of runs) {
    const path = [...transformPath(runPath(run), multiply(node.transform, translation(line.x, line.baseline)))];
    const piece = chunk[Math.min(set.indexOf(run.run), chunk.length - 1)];
    const own: Place = { ...place, style: piece.style };
    const box = pathBounds(path);
    const width = readLength(piece.style['stroke-width'], place.measures, 'r') ?? 1;
    for (const which of ['fill', 'stroke'] as const) {
      const paint =
        which === 'stroke' && !(width > 0)
          ? null
          : drawer.paint(piece.style[which], piece.style[`${which}-opacity`], box, own, piece.element, which);
      if (!paint || !path.length) continue;
      const line = { width, cap: 'butt', join: 'miter', miterLimit: 4 } as const;
      const made =
        'pattern' in paint
          ? patternFill(
              drawer,
              paint.pattern,
              which === 'fill' ? path : strokeOutline(path, line, 0.02),
              'nonZero',
              box,
              own,
              node.name,
            )
          : [
              drawer.pathNode(
                node.name,
                path,
                'nonZero',
                which === 'fill' ? [paint.paint] : [],
                which === 'stroke' ? [{ ...line, paint: paint.paint }] : [],
              ),
            ];
      if (paint.alpha < 1) for (const m of made) making.change(m, { opacity: paint.alpha });
      out.push(...made);
    }
  }
  delete making.nodes[id];
  delete making.stories[node.story];
  return out;
}

function letters(
  drawer: Draws,
  node: NodeOf<'displayText'>,
  path: PathData,
  run: Pick<Letters, 'fill' | 'outline'>,
): string {
  const made = drawer.pathNode(
    node.name,
    path,
    'nonZero',
    run.fill.kind === 'none' ? [] : [run.fill],
    run.outline ? [run.outline] : [],
  );
  drawer.making.change(made, {
    transform: node.transform,
    ...(node.opacity !== undefined && { opacity: node.opacity }),
  });
  return made;
}

function runRegions(drawer: Draws, node: NodeOf<'displayText'>, design: Design): string[] {
  const out: string[] = [];
  for (const line of layoutOf(design, node, drawer.making.fonts).lines)
    for (const run of line.runs) {
      const path = transformPath(runPath(run), translation(line.x, line.baseline));
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
  const design = {
    nodes: {},
    stories: { [story]: { id: story, paragraphs: [{ align: 'left', leading: 1.2, runs }] } },
  } as unknown as Design;
  const node = {
    id: 'words',
    name: 'Words',
    kind: 'displayText',
    transform: [1, 0, 0, 1, 0, 0],
    hidden: false,
    locked: false,
    story,
    stretch: 1,
  } as NodeOf<'displayText'>;
  const layout = layoutOf(design, node, making.fonts);
  const anchor = chunk[0].style['text-anchor'];
  const begin = path.offset - (anchor === 'middle' ? layout.x1 / 2 : anchor === 'end' ? layout.x1 : 0);
  return layout.lines.flatMap((line) =>
    line.runs.flatMap((run) => {
      const scale = run.size / run.face.upem;
      const out: number[] = [];
      for (const g of run.glyphs) {
        const middle = begin + line.x + g.x + g.advance / 2;
        if (middle < 0 || middle > length) continue;
        const { point, tangent } = alongContour(contour, middle);
        const turn: Matrix = multiply(
          translation(point.x, point.y),
          rotation(angleOf([tangent.x, tangent.y, -tangent.y, tangent.x, 0, 0])),
        );
        for (const v of transformPath(
          run.face.outline(g.gid),
          multiply(turn, multiply(translation(-g.advance / 2, g.y), scaling(scale, scale))),
        ))
          out.push(v);
      }
      if (!out.length) return [];
      const id = drawer.pathNode(
        run.run.text.slice(0, 60),
        out,
        'nonZero',
        run.run.fill.kind === 'none' ? [] : [run.run.fill],
        run.run.outline ? [run.run.outline] : [],
      );
      if (opacity < 1) making.change(id, { opacity });
      return [id];
    }),
  );
}
