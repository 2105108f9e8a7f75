import { alikeNodes, inverseOf, type AlikeBy } from '@/core/edit/alike';
import { joinPaths, splitPath } from '@/core/edit/compound';
import { addNode, groupNodes, setNodeFlags } from '@/core/edit/pile';
import { isHolder, parentOf } from '@/core/model/tree';
import { choose } from '../tools/pick';
import { openPileHere } from '../tools/pileHere';
import { enterHolder } from '../tools/select';
import { chosen, count, free, freeSelection, type CommandDef } from '../session/commandDef';
import type { Session } from '../session/session';

/** Selects everything on the page that is like the selection in the given ways. */
export function selectAlike(s: Session, by: readonly AlikeBy[], tolerance = s.state.alikeTolerance): void {
  const found = alikeNodes(s.design, s.page, s.state.selection, by, s.palette, tolerance);
  if (!found.length) {
    s.say('Nothing else on this page is like it.');
    return;
  }
  s.leave();
  choose(s, found);
  s.say(
    `Selected ${count(found.length, 'object')} alike by ${by.join(' and ')}${by.some((b) => b === 'fill' || b === 'outline') ? `, within ΔE ${tolerance}` : ''}.`,
  );
}

function isolate(s: Session): void {
  if (s.state.isolated) {
    s.isolate(false);
    s.leave();
    s.say('Everything can be chosen again.');
    return;
  }
  const [id] = s.state.selection;
  const node = s.state.selection.length === 1 ? s.design.nodes[id] : undefined;
  const inside = node && isHolder(node) ? id : s.state.entered;
  if (!inside) return;
  if (inside !== s.state.entered) enterHolder(s, inside, null);
  s.isolate(true);
  s.say(`Only what is in ${s.design.nodes[inside].name || 'the group'} can be chosen or moved now. Esc comes out.`);
}

const alike = (label: string, by: readonly AlikeBy[], keywords: readonly string[]): CommandDef => ({
  label,
  keywords: ['same', 'similar', 'alike', ...keywords],
  keys: [],
  applies: chosen,
  harmless: true,
  run: (s) => selectAlike(s, by),
});

export const SELECT_COMMANDS = {
  'select.alikeFill': alike('Select alike: fill', ['fill'], ['colour']),
  'select.alikeOutline': alike('Select alike: outline', ['outline'], ['colour', 'line']),
  'select.alikeBoth': alike('Select alike: fill and outline', ['fill', 'outline'], ['colour', 'look']),
  'select.alikeWeight': alike('Select alike: outline weight', ['weight'], ['thickness', 'line']),
  'select.alikeKind': alike('Select alike: kind', ['kind'], ['shape', 'type']),
  'select.alikeOpacity': alike('Select alike: opacity', ['opacity'], ['transparent']),
  'select.alikeName': alike('Select alike: name', ['name'], ['called']),
  'select.inverse': {
    label: 'Select the others instead',
    keywords: ['inverse', 'invert', 'rest', 'not selected'],
    keys: ['Mod+Shift+A'],
    harmless: true,
    run: (s) => {
      const ids = inverseOf(s.design, s.page, s.state.selection, s.state.entered);
      choose(s, ids);
      s.say(`Selected the other ${count(ids.length, 'object')}.`);
    },
  },
  'select.pileHere': {
    label: 'Pile here',
    keywords: ['under', 'stack', 'heap', 'choose below'],
    keys: ['Q'],
    harmless: true,
    run: openPileHere,
  },
  'select.isolate': {
    label: 'Only this',
    keywords: ['isolate', 'free', 'alone', 'dim the rest', 'group', 'focus', 'protect the rest'],
    keys: ['I'],
    harmless: true,
    applies: (s) =>
      s.state.isolated ||
      s.state.entered !== null ||
      (s.state.selection.length === 1 &&
        s.design.nodes[s.state.selection[0]] !== undefined &&
        isHolder(s.design.nodes[s.state.selection[0]])),
    run: isolate,
  },
  'select.holder': {
    label: 'Select the group round it',
    keywords: ['parent', 'up', 'whole'],
    keys: ['Shift+Enter'],
    harmless: true,
    applies: (s) => s.state.selection.length > 0 && parentOf(s.design, s.page, s.state.selection[0]) !== null,
    run: (s) => {
      const parent = parentOf(s.design, s.page, s.state.selection[0]);
      if (!parent || s.state.isolated) return;
      s.leave(parentOf(s.design, s.page, parent));
      choose(s, [parent]);
    },
  },
  'layer.add': {
    label: 'Add a layer',
    keywords: ['layer', 'new layer', 'pile', 'level'],
    keys: [],
    run: (s) => {
      const id = s.newId();
      const n = s.page.children.filter((c) => isLayer(s, c)).length + 1;
      if (
        s.commit('Add a layer', (d) =>
          addNode(d, s.page.id, {
            id,
            name: `Layer ${n}`,
            kind: 'group',
            layer: true,
            transform: [1, 0, 0, 1, 0, 0],
            hidden: false,
            locked: false,
            children: [],
          }),
        )
      ) {
        s.enter(id, []);
        s.say(`Layer ${n}: what is drawn now goes into it. Drag rows of the pile in and out.`);
      }
    },
  },
  'layer.make': {
    label: 'Put into a layer of its own',
    keywords: ['layer', 'from selection', 'level'],
    keys: [],
    applies: free,
    run: (s) => {
      const ids = freeSelection(s);
      let made: string | null = null;
      const n = s.page.children.filter((c) => isLayer(s, c)).length + 1;
      s.commit('Into a layer', (d) => {
        const lone = ids.length === 1 && d.nodes[ids[0]].kind === 'group' && s.page.children.includes(ids[0]);
        made = lone ? ids[0] : groupNodes(d, s.page, ids, s.newId, `Layer ${n}`);
        const node = made ? d.nodes[made] : null;
        if (node?.kind === 'group') node.layer = true;
      });
      if (made) s.say('It is a layer now: its objects are chosen one by one, and hidden or locked as one in the pile.');
    },
  },
  'path.compound': {
    label: 'One path of several',
    keywords: ['compound', 'join', 'holes', 'combine paths'],
    keys: [],
    applies: (s) => freeSelection(s).filter((id) => s.design.nodes[id].kind === 'path').length > 1,
    run: (s) => {
      const ids = freeSelection(s).filter((id) => s.design.nodes[id].kind === 'path');
      let made: string | null = null;
      s.commit('One path of several', (d) => {
        made = joinPaths(d, s.page, ids);
      });
      if (made) s.select([made]);
      s.say(`${count(ids.length, 'path')} are one path now, holes where they overlap.`);
    },
  },
  'path.release': {
    label: 'Split a path into its parts',
    keywords: ['compound', 'release', 'contours', 'apart'],
    keys: [],
    applies: (s) => freeSelection(s).some((id) => s.design.nodes[id].kind === 'path'),
    run: (s) => {
      let made: string[] = [];
      const ids = freeSelection(s).filter((id) => s.design.nodes[id].kind === 'path');
      const done = s.commit('Split the path', (d) => {
        made = ids.flatMap((id) => splitPath(d, s.page, id, s.newId));
      });
      if (done) s.select(made);
      s.say(done ? `${count(made.length, 'path')} now.` : 'It is of one part only.');
    },
  },
  'object.showAll': {
    label: 'Show everything hidden',
    keywords: ['unhide', 'reveal', 'visible'],
    keys: [],
    applies: (s) => Object.values(s.design.nodes).some((n) => n.hidden),
    run: (s) =>
      void s.commit('Show everything', (d) =>
        setNodeFlags(
          d,
          Object.values(s.design.nodes).flatMap((n) => (n.hidden ? [n.id] : [])),
          { hidden: false },
        ),
      ),
  },
} as const satisfies Record<string, CommandDef>;

const isLayer = (s: Session, id: string): boolean => {
  const n = s.design.nodes[id];
  return n.kind === 'group' && n.layer === true;
};
