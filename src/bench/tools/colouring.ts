import { aimedNodes } from '@/core/edit/aims';
import { setColour } from '@/core/edit/paint';
import type { Colour } from '@/core/model/schema';
import { withBeadColour, withLastBead } from './beadColour';
import { chosenLetters, count, freeSelection } from '../session/commandDef';
import { AIM_WORDS } from '../session/naming';
import { aimsAtGround, groundSheet, withGroundColour } from '../session/ground';
import type { Session } from '../session/session';
import { noteColour } from '../session/settings';

/** Sends a colour where the aim points, and says so. With no objects chosen it says what to do. */
export function applyColour(s: Session, colour: Colour, name: string): void {
  const ids = freeSelection(s);
  const { aim } = s.state;
  if (s.state.tool === 'regions') {
    noteColour(s, colour);
    s.say(`Areas get ${name} now: click one, or drag across several.`);
    return;
  }
  if (aimsAtGround(s)) {
    noteColour(s, colour);
    const { id, name: master } = groundSheet(s);
    s.commit(`Ground: ${name}`, withGroundColour(s, colour));
    s.say(`Ground of ${id === s.page.id ? 'this page only' : `every page of ${master}`}: ${name}.`);
    return;
  }
  // Of a gradient a colour goes to a bead, the last one where none is chosen: it is made flat only by choosing Flat.
  const chosen = s.state.stop === null ? null : withBeadColour(s, s.state.stop, colour);
  const bead = chosen ? { ...chosen, index: s.state.stop! } : withLastBead(s, colour);
  if (bead) {
    noteColour(s, colour);
    s.commit(`${bead.what}: ${name}`, bead.recipe);
    s.say(
      `${bead.what} ${bead.index + 1} of ${bead.count}: ${name}.${chosen ? '' : ' Flat, in Details, makes it one colour.'}`,
    );
    s.set({ stop: bead.index });
    return;
  }
  const reached = aimedNodes(s.design, ids, aim);
  noteColour(s, colour);
  if (!reached.length) {
    s.say(
      ids.length
        ? `What is chosen has no ${AIM_WORDS[aim].toLowerCase()}. Click another word under the aim tile.`
        : 'Choose an object first, then click a colour. This one waits under Recent.',
    );
    return;
  }
  const letters = chosenLetters(s);
  s.commit(`${AIM_WORDS[aim]}: ${name}`, (d) => setColour(d, ids, aim, colour, letters));
  s.say(
    letters && aim.startsWith('letter')
      ? `${AIM_WORDS[aim]}, the chosen ones: ${name}.`
      : `${AIM_WORDS[aim]} of ${count(reached.length, 'object')}: ${name}.`,
  );
}
