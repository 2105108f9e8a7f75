import { exactColour } from '@/core/edit/sample';
import { addSwatch } from '@/core/edit/swatches';
import type { Aim } from '@/core/edit/aims';
import { proposedName } from '@/core/edit/recipeName';
import { referencesOn } from '@/core/edit/trace';
import type { Colour, Design } from '@/core/model/schema';
import type { Scene } from '@/core/scene/scene';
import { pageMatrix } from '@/core/model/tree';
import { sampleLook } from '@/core/render/sample';
import { holds } from '@/core/geometry/rect';
import { hitAll, nearEdge } from '@/core/scene/hit';
import { someLeaf } from '@/core/scene/walk';
import { applyColour } from './colouring';
import { AIM_WORDS } from '../session/naming';
import { noteColour } from '../session/settings';
import { colourName } from '../session/naming';
import type { Session } from '../session/session';
import { NEAR_PX, type PointerAt, type Tool, type ToolContext } from './tool';

export interface Sampled {
  readonly colour: Colour;
  readonly name: string;
  /** Where it was taken, in words. */
  readonly from: string;
}

const undimmed = new WeakMap<object, Design>();
/** What is sampled: references are dimmed for the eye only. */
function sampledScene(s: Session): Scene {
  const { design, page } = s;
  const layers = referencesOn(design, page).filter((l) => l.opacity !== undefined);
  if (!layers.length) return s.scene();
  let known = undimmed.get(design);
  if (!known) {
    const full = layers.map(({ opacity: _, ...rest }) => [rest.id, rest] as const);
    undimmed.set(design, (known = { ...design, nodes: { ...design.nodes, ...Object.fromEntries(full) } }));
  }
  return s.engines.builder.build(known, page);
}

/** The colour at a place: as the paper looks there, or the exact paint of the object under it. */
function sampleAt(s: Session, p: PointerAt): Sampled | null {
  const scene = sampledScene(s);
  if (s.state.sample.take === 'look') {
    const colour = sampleLook(scene, s.palette, p.page);
    return { colour, name: colourName(s.design, colour), from: 'as it looks' };
  }
  const slack = NEAR_PX / s.state.camera.scale;
  for (const hit of hitAll(scene, p.page, slack, true)) {
    const node = s.design.nodes[hit.node];
    const edge =
      hit.part === 'fill' &&
      'outlines' in node &&
      node.outlines.some((o) => o.paint.kind !== 'none') &&
      nearEdge(scene, hit.node, p.page, slack);
    const aim: Aim = edge
      ? node.kind === 'textFrame'
        ? 'frameOutline'
        : 'outline'
      : hit.part === 'fill' && node.kind === 'textFrame'
        ? 'frame'
        : hit.part;
    const colour = exactColour(s.design, hit.node, aim, pageMatrix(s.design, s.page, hit.node), p.page);
    if (colour)
      return {
        colour,
        name: colourName(s.design, colour),
        from: `${AIM_WORDS[aim].toLowerCase()} of ${node.name || 'the object'}`,
      };
  }
  return null;
}

/**
 * Is what is taken at a place (the front object's paint, or the look of all) a matter of a picture? The page itself has
 * no pixels.
 */
function pictured(s: Session, p: PointerAt): boolean {
  const scene = s.scene();
  if (s.state.sample.take === 'look')
    return someLeaf(scene.root, (i) => i.paint.kind === 'picture' && holds(i.inkBounds, p.page));
  const front = hitAll(scene, p.page, NEAR_PX / s.state.camera.scale, true)[0];
  return (
    front !== undefined &&
    front.part !== 'outline' &&
    someLeaf(scene.root, (i) => i.node === front.node && i.paint.kind === 'picture')
  );
}

/** The same, with pictures: the press worker looks. */
export async function sampleWithPictures(s: Session, p: PointerAt): Promise<Sampled | null> {
  if (!pictured(s, p)) return sampleAt(s, p);
  const colour = await s.press.sample(s.page.id, p.page.x, p.page.y).catch(() => null);
  return colour && { colour, name: colourName(s.design, colour), from: 'a picture, as it looks' };
}

/** Takes a colour off the page and sends it on. What is chosen stays chosen, so that it can be given the colour. */
export const sampleTool: Tool = {
  press(at, c) {
    const { session: s } = c;
    if (s.state.readOnly) return null;
    const give = (sampled: Sampled | null) => {
      if (!sampled) {
        s.say('There is no paint under the pointer. “As it looks” takes the paper too.');
        return;
      }
      const { colour, name } = sampled;
      if (s.state.sample.give === 'aim') {
        applyColour(s, colour, name);
        return;
      }
      if ('swatch' in colour && colour.tint === 1) {
        noteColour(s, colour);
        s.say(`${name} is in the tray already.`);
        return;
      }
      const own = s.palette.own(colour);
      if (own.tint !== 1 && 'swatch' in colour) {
        noteColour(s, colour);
        s.say(`${name} is a tint of a swatch in the tray. It waits under Recent.`);
        return;
      }
      noteColour(s, colour);
      s.commit(`Sample ${name}`, (d) =>
        addSwatch(d, { id: s.newId(), name: proposedName(own.colour) ?? name, kind: 'colour', colour: own.colour }),
      );
      s.say(`Sampled ${name} (${sampled.from}) into the tray.`);
    };
    let last = at;
    return {
      move(p) {
        last = p;
        hover(s, p, c.readout);
      },
      release() {
        if (pictured(s, last)) void sampleWithPictures(s, last).then(give);
        else give(sampleAt(s, last));
      },
      cancel() {
        c.readout(null);
      },
    };
  },
  cursor(at, c) {
    hover(c.session, at, c.readout);
    return 'crosshair';
  },
};

let asking = false;
function hover(s: Session, p: PointerAt, readout: ToolContext['readout']): void {
  if (!pictured(s, p)) {
    tell(s, sampleAt(s, p), readout);
    return;
  }
  if (asking) return;
  asking = true;
  void sampleWithPictures(s, p).then((sampled) => {
    asking = false;
    if (s.state.tool === 'sample') tell(s, sampled, readout);
  });
}

function tell(s: Session, sampled: Sampled | null, readout: ToolContext['readout']): void {
  readout(sampled ? `${sampled.name}\n${sampled.from}` : null, sampled ? s.palette.css(sampled.colour) : undefined);
}
