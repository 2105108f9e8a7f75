'use client';
import { firstLetters } from '@/core/model/textLooks';
import { type MouseEvent, type ReactNode } from 'react';
import { isText, layoutOf } from '@/core/derive/layout';
import { paintAt, type Aim } from '@/core/edit/aims';
import { dialOf } from '@/core/edit/window';
import { OP_NAMES } from '@/core/model/defaults';
import { copiesIn } from '@/core/model/copies';
import { faceName } from '@/core/text/faces';
import { shapeById, valuesOf } from '@/core/shapes/catalogue';
import { formatLength, type Unit } from '@/core/units/length';
import { runCommand, type CommandId } from '../commands/commands';
import { focusField } from './focusField';
import { selectionFrame, type Frame } from '../view/frame';
import { count } from '../session/commandDef';
import { useSession } from '../session/context';
import { paintName } from '../session/naming';
import { openColourHere } from '../tray/ColourHere';
import { link } from '@/ui/link';

/** A word of the sentence with what stands right behind it, a comma or a full stop: it never begins a line. */
function Word({
  then,
  onPress,
  children,
}: {
  then?: string;
  onPress: (e: MouseEvent<HTMLElement>) => void;
  children: ReactNode;
}) {
  return (
    <span className="whitespace-nowrap">
      <button type="button" onClick={onPress} className={`${link} whitespace-normal`}>
        {children}
      </button>
      {then}
    </span>
  );
}

/** Leads to its field. */
function Value({ to, then, children }: { to: string; then?: string; children: ReactNode }) {
  return (
    <Word then={then} onPress={() => focusField(to)}>
      {children}
    </Word>
  );
}

/** A colour word of the sentence: opens that colour right there. */
function ColourValue({ aim, then, children }: { aim: Aim; then?: string; children: ReactNode }) {
  const session = useSession();
  return (
    <Word
      then={then}
      onPress={(e) => {
        session.aimAt(aim);
        openColourHere(session, e);
      }}
    >
      {children}
    </Word>
  );
}

/** How large it is: from side to side, but of an upright line from end to end. */
function Extent({ frame: { box, matrix }, unit }: { frame: Frame; unit: Unit }) {
  const wide = (box.x1 - box.x0) * Math.hypot(matrix[0], matrix[1]);
  const high = (box.y1 - box.y0) * Math.hypot(matrix[2], matrix[3]);
  const upright = wide < HAIR && high > wide;
  return (
    <>
      <Value to={upright ? 'Height' : 'Width'}>{formatLength(upright ? high : wide, unit, 1)}</Value>{' '}
      {upright ? 'high' : 'across'}
    </>
  );
}
/** Points that are no width to speak of: under 0.05 mm it would read as nothing. */
const HAIR = 0.14;

/** What is chosen, as a sentence whose words lead to their fields. */
export function Sentence() {
  const session = useSession();
  const { design } = session;
  const { selection } = session.state;
  const frame = selectionFrame(session);
  const { unit } = design.setup;
  const size = frame && <Extent frame={frame} unit={unit} />;
  if (selection.length > 1)
    return (
      <p className="m-0 border-b border-line p-3 text-[14px] leading-6">
        {count(selection.length, 'object')}, {size} together.
      </p>
    );
  const node = design.nodes[selection[0]];
  if (!node) return null;
  if (node.kind === 'combination') {
    const named = node.name && node.name !== OP_NAMES[node.op] ? node.name : null;
    return (
      <p className="m-0 border-b border-line p-3 text-[14px] leading-6">
        {named && `${named}: `}
        <Value to="How they are combined">{named ? OP_NAMES[node.op].toLowerCase() : OP_NAMES[node.op]}</Value> of{' '}
        {count(node.children.length, 'object')}, {size}
        {node.op !== 'divide' && (
          <>
            {' '}
            · filled <Value to="Fill kind">{paintName(design, paintAt(design, node.id, 'fill'))}</Value>
          </>
        )}
        . Double-click to change what is combined.
      </p>
    );
  }
  if (node.kind === 'repeat')
    return (
      <p className="m-0 border-b border-line p-3 text-[14px] leading-6">
        {node.name || 'Repeat'}:{' '}
        <Value to={node.arrangement.kind === 'grid' ? 'Columns' : 'Count'}>
          {count(copiesIn(node.arrangement), 'copy', 'copies')}
        </Value>{' '}
        in a <Value to="Laid out as">{node.arrangement.kind}</Value>, {size}. Double-click to change the thing itself.
      </p>
    );
  if (node.kind === 'group')
    return (
      <p className="m-0 border-b border-line p-3 text-[14px] leading-6">
        {node.name || 'Group'}: {count(node.children.length, 'object')} together, {size}. Double-click to work inside.
      </p>
    );
  if (isText(node)) {
    const run = firstLetters(design, design.stories[node.story]);
    const { overset } = layoutOf(design, node, session.engines.fonts);
    return (
      <p className="m-0 border-b border-line p-3 text-[14px] leading-6">
        {node.kind === 'displayText'
          ? 'Display text'
          : dialOf(node)
            ? `${shapeById(dialOf(node)!.shape)?.name ?? 'Shape'} with text`
            : node.window
              ? 'Path with text'
              : 'Text frame'}{' '}
        in{' '}
        <Value to="Face" then=",">
          {faceName(design, run.face)}
        </Value>{' '}
        <Value to="Size" then=",">
          {formatLength(run.size, 'pt', 1)}
        </Value>{' '}
        {size} · letters{' '}
        <ColourValue aim="letters" then=".">
          {paintName(design, run.fill)}
        </ColourValue>
        {overset > 0 && (
          <span className="block text-stop">
            {count(overset, 'character')} do not fit.{' '}
            {node.kind === 'textFrame' && (
              <>
                <Repair command="text.fitFrame">Grow the frame</Repair> or{' '}
                <Repair command="text.fitWords">shrink the words</Repair>
                {', or choose a second frame as well and run them on.'}
              </>
            )}
          </span>
        )}
      </p>
    );
  }
  if (node.kind === 'unknown')
    return (
      <p className="m-0 border-b border-line p-3 text-[14px] leading-6">
        {node.name || 'This object'} was made by a later version: it is kept as it came, but not drawn here. Update
        Holvet to see and change it.
      </p>
    );
  const def = node.kind === 'shape' ? shapeById(node.shape) : undefined;
  if (node.kind === 'shape' && !def)
    return (
      <p className="m-0 border-b border-line p-3 text-[14px] leading-6">
        {node.name || 'This shape'} is a shape that this version does not know (“{node.shape}”): it is kept as it came,
        but not drawn here. Update Holvet to see and change it.
      </p>
    );
  const outline = node.outlines[node.outlines.length - 1];
  const fill = paintAt(design, node.id, 'fill');
  if (fill?.kind === 'picture')
    return (
      <p className="m-0 border-b border-line p-3 text-[14px] leading-6">
        {fill.tile ? 'Tiles of' : 'Picture'} <Value to="Fill kind">{paintName(design, fill)}</Value> in a{' '}
        {(def?.name ?? 'path').toLowerCase()}, {size}.{fill.tile ? '' : ' Double-click to crop.'}
      </p>
    );
  const overprints = fill && fill.kind !== 'none' && fill.overprint;
  const end = overprints ? undefined : '.';
  const words = def && node.kind === 'shape' ? def.describe(valuesOf(def, node.knobs)) : '';
  return (
    <p className="m-0 border-b border-line p-3 text-[14px] leading-6">
      {def?.name ?? 'Path'}
      {words && def!.params.length > 0 && (
        <>
          , <Value to={def!.params[0].label}>{words}</Value>
        </>
      )}
      , {size} · filled{' '}
      {fill?.kind === 'colour' ? (
        <ColourValue aim="fill">{paintName(design, fill)}</ColourValue>
      ) : (
        <Value to="Fill kind">{paintName(design, fill)}</Value>
      )}{' '}
      · outlined{' '}
      {outline && outline.paint.kind !== 'none' ? (
        <>
          <Value to="Weight">{formatLength(outline.width, 'mm', 2)}</Value>{' '}
          <Value to="Outline kind" then={end}>
            {paintName(design, outline.paint)}
          </Value>
        </>
      ) : (
        <Value to="Outline kind" then={end}>
          none
        </Value>
      )}
      {overprints && ' · overprints.'}
    </p>
  );
}

/** What mends what is said before it, as a word to press. */
function Repair({ command, children }: { command: CommandId; children: ReactNode }) {
  const session = useSession();
  return (
    <button
      type="button"
      className="cursor-pointer border-0 border-b-2 border-accent bg-transparent p-0 text-text"
      onClick={() => runCommand(session, command)}
    >
      {children}
    </button>
  );
}
