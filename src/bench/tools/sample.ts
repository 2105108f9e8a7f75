import { exactColour } from '@/core/edit/sample';
import { addSwatch } from '@/core/edit/swatches';
import type { Aim } from '@/core/edit/paint';
import { proposedName } from '@/core/edit/recipeName';
import type { Colour } from '@/core/model/schema';
import { pageMatrix } from '@/core/model/tree';
import { sampleLook } from '@/core/render/sample';
import { hitAll, nearEdge } from '@/core/scene/hit';
import { AIM_WORDS, applyColour } from '../session/commands';
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

/** The colour at a place: as the paper looks there, or the exact paint of the object under it. */
export function sampleAt(s: Session, p: PointerAt): Sampled | null {
  const scene = s.scene();
  if (s.state.sample.take === 'look') {
    const colour = sampleLook(scene, s.palette, p.page);
    return { colour, name: colourName(s.design, colour), from: 'as it looks' };
  }
  const slack = NEAR_PX / s.state.camera.scale;
  for (const hit of hitAll(scene, p.page, slack, true)) {
    const node = s.design.nodes[hit.node];
    const edge = hit.part === 'fill' && 'outlines' in node && node.outlines.some((o) => o.paint.kind !== 'none') && nearEdge(scene, hit.node, p.page, slack);
    const aim: Aim = edge ? 'outline' : hit.part === 'fill' && node.kind === 'textFrame' ? 'frame' : hit.part;
    const colour = exactColour(s.design, hit.node, aim, pageMatrix(s.design, s.page, hit.node), p.page);
    if (colour) return { colour, name: colourName(s.design, colour), from: `${AIM_WORDS[aim].toLowerCase()} of ${node.name || 'the object'}` };
  }
  return null;
}

/** Takes a colour off the page and sends it on. What is chosen stays chosen, so that it can be given the colour. */
export const sampleTool: Tool = {
  press(at, c) {
    const { session: s } = c;
    if (s.state.readOnly) return null;
    const give = (p: PointerAt) => {
      const sampled = sampleAt(s, p);
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
      s.commit(`Sample ${name}`, (d) => addSwatch(d, { id: s.newId(), name: proposedName(own.colour) ?? name, kind: 'colour', colour: own.colour }));
      s.say(`Sampled ${name} (${sampled.from}) into the tray.`);
    };
    let last = at;
    return {
      move(p) {
        last = p;
        hover(s, p, c.readout);
      },
      release() {
        give(last);
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

function hover(s: Session, p: PointerAt, readout: ToolContext['readout']): void {
  const sampled = sampleAt(s, p);
  readout(sampled ? `${sampled.name}\n${sampled.from}` : null, sampled ? s.palette.css(sampled.colour) : undefined);
}
