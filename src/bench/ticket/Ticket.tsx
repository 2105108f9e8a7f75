'use client';
import { pageById } from '@/core/model/tree';
import { sheetName } from '../session/naming';
import { ChevronLeft, ChevronRight, Redo2, Search, TriangleAlert, Undo2, CircleCheck } from 'lucide-react';
import { forwardRef, type ButtonHTMLAttributes, type ReactNode } from 'react';
import { hexOf } from '@/core/colour/spaces';
import { formatOf } from '@/core/units/formats';
import { formatLength, formatNumber, fromPoints } from '@/core/units/length';
import { Mark } from '@/ui/Mark';
import { Slip } from '@/ui/Slip';
import { explained } from '@/ui/terms';
import { usedChannels } from '@/core/scene/used';
import { COMMAND_TABLE, runCommand } from '../commands/commands';
import { useBench, useSession } from '../session/context';
import { keyText } from '../commands/keys';
import type { ViewId } from '../session/state';
import { comesLater } from '../session/comesLater';
import { FormatSlip } from './FormatSlip';
import { HandOver } from '../handOver/HandOver';
import { InksSlip } from './InksSlip';
import { PagesSlip } from './PagesSlip';

const ChecksSlip = comesLater(() => import('./ChecksSlip').then((m) => m.ChecksSlip));

/** What is being made? Reads left to right as the order of the work; each part opens its slip. */
export function Ticket({ onFind }: { onFind: () => void }) {
  const session = useSession();
  const design = useBench((s) => s.design);
  const pageId = useBench((s) => s.page);
  const totalInk = useBench((s) => s.totalInk);
  const findings = useBench((s) => s.findings);
  const notChecked = useBench((s) => s.notChecked);
  useBench((s) => s.fontsEpoch);
  const { setup } = session;
  const format = formatOf(setup.width, setup.height, setup.round);
  const size = `${formatNumber(fromPoints(setup.width, setup.unit), 1)} × ${formatLength(setup.height, setup.unit, 1)}`;
  const number = design.pages.findIndex((p) => p.id === pageId) + 1;
  const page = pageById(design, pageId) ?? design.pages[0];
  const limit = design.profile.totalInkLimit;
  const tooMuch = totalInk !== null && totalInk.total > limit + 0.02;
  const { palette } = session;
  const used = palette.screen ? [] : usedChannels(session.restingScene(design), palette);
  const spots = used.filter((i) => i >= 4);
  return (
    <header className="flex min-w-0 items-stretch border-b border-line bg-panel">
      <a
        href="/"
        aria-label="Go to the shelf"
        title="Shelf"
        className="grid w-16 shrink-0 place-items-center border-r border-line text-text"
      >
        <Mark />
      </a>
      <NameSegment />
      <Slip
        title="Format"
        width={360}
        trigger={<Segment label="Format" value={`${format ? `${format.name} · ` : ''}${size}`} />}
      >
        <FormatSlip />
      </Slip>
      <Slip
        title="Format"
        width={360}
        trigger={<Segment label="Bleed" value={setup.bleed > 0 ? formatLength(setup.bleed, setup.unit, 1) : 'none'} />}
      >
        <FormatSlip />
      </Slip>
      <div className="flex items-stretch border-r border-line">
        <Slip
          title="Pages"
          width={464}
          trigger={
            <Segment
              label={number ? 'Pages' : 'Master'}
              value={number ? `${number} of ${design.pages.length}` : sheetName(design, page)}
              bare
            />
          }
        >
          <PagesSlip />
        </Slip>
        {design.pages.length > 1 && (
          <span className="flex items-center pr-1">
            <IconButton label="Page before" disabled={number <= 1} onClick={() => runCommand(session, 'page.previous')}>
              <ChevronLeft size={16} aria-hidden />
            </IconButton>
            <IconButton
              label="Next page"
              disabled={number === design.pages.length}
              onClick={() => runCommand(session, 'page.next')}
            >
              <ChevronRight size={16} aria-hidden />
            </IconButton>
          </span>
        )}
      </div>
      {!palette.screen && (
        <>
          <Slip
            title="Inks"
            width={380}
            aside
            trigger={
              <Segment
                label="Inks"
                value={
                  <span className="flex items-center gap-1">
                    {used
                      .filter((i) => i < 4)
                      .map((i) => (
                        <span
                          key={i}
                          aria-label={palette.channels[i]}
                          role="img"
                          className="size-2.5 border border-edge"
                          style={{
                            background: hexOf(palette.lookOfMix(palette.channels.map((_, j) => (i === j ? 1 : 0)))),
                          }}
                        />
                      ))}
                    {spots.length
                      ? `+ ${spots.length === 1 ? palette.channels[spots[0]].split(' ')[0] : `${spots.length} spot`}`
                      : used.length
                        ? ''
                        : 'none yet'}
                  </span>
                }
              />
            }
          >
            <InksSlip />
          </Slip>
          <Slip
            title="Inks"
            width={380}
            aside
            trigger={
              <Segment
                label="Total ink"
                value={totalInk ? `${Math.round(totalInk.total * 100)} % of ${Math.round(limit * 100)}` : '…'}
                tone={tooMuch ? 'warn' : undefined}
              />
            }
          >
            <InksSlip />
          </Slip>
        </>
      )}
      <Slip
        title="Checks"
        width={360}
        trigger={
          <Segment
            label="Checks"
            tone={
              findings.some((f) => f.severity === 'stop') ? 'stop' : findings.length || notChecked ? 'warn' : undefined
            }
            value={
              <span className="flex items-center gap-1">
                {findings.length || notChecked ? (
                  <TriangleAlert size={13} aria-hidden />
                ) : (
                  notChecked === null && <CircleCheck size={13} aria-hidden />
                )}
                {findings.length
                  ? `${findings.length} to look at`
                  : notChecked === null
                    ? 'nothing found'
                    : notChecked
                      ? 'could not check'
                      : 'looking …'}
              </span>
            }
          />
        }
      >
        <ChecksSlip />
      </Slip>
      <div className="ml-auto flex shrink-0 items-center gap-1 px-2">
        <IconButton label={`Find a command (${keyText('Mod+K')})`} onClick={onFind}>
          <Search size={16} aria-hidden />
        </IconButton>
        <History />
        <Views />
        <HandOver />
      </div>
    </header>
  );
}

type SegmentProps = { label: string; value: ReactNode; tone?: 'warn' | 'stop' | undefined; bare?: boolean } & Omit<
  ButtonHTMLAttributes<HTMLButtonElement>,
  'value'
>;

/** A small label over a value. */
const Segment = forwardRef<HTMLButtonElement, SegmentProps>(function Segment(
  { label, value, tone, bare, ...rest },
  ref,
) {
  return (
    <button
      ref={ref}
      type="button"
      data-opens={label}
      title={explained(label)}
      className={`flex min-w-0 shrink flex-col justify-center border-0 px-2.5 text-left hover:bg-line aria-expanded:bg-field ${bare ? '' : 'border-r border-line'} bg-transparent`}
      {...rest}
    >
      <span className="text-[11px] leading-4 text-faint">{label}</span>
      <span
        className={`max-w-[190px] truncate leading-4 font-semibold ${tone === 'warn' ? 'text-warn' : tone === 'stop' ? 'text-stop' : ''}`}
      >
        {value}
      </span>
    </button>
  );
});

function IconButton({ label, ...rest }: { label: string } & ButtonHTMLAttributes<HTMLButtonElement>) {
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      className="grid size-8 place-items-center rounded-sm border-0 bg-transparent hover:bg-line disabled:opacity-35"
      {...rest}
    />
  );
}

function NameSegment() {
  const session = useSession();
  const name = useBench((s) => s.design.name);
  return (
    <label className="flex w-[150px] shrink flex-col justify-center border-r border-line px-2.5 focus-within:bg-field hover:bg-line">
      <span className="text-[11px] leading-4 text-faint">Design</span>
      <input
        key={name}
        defaultValue={name}
        maxLength={200}
        className="w-full min-w-0 truncate border-0 bg-transparent p-0 leading-4 font-semibold outline-none"
        onKeyDown={(e) => {
          e.stopPropagation();
          if (e.key === 'Enter') e.currentTarget.blur();
          if (e.key === 'Escape') {
            e.currentTarget.value = name;
            e.currentTarget.blur();
          }
        }}
        onBlur={(e) => {
          const next = e.currentTarget.value.trim();
          if (!next) e.currentTarget.value = name;
          else if (next !== name) session.commit('Name the design', (d) => void (d.name = next));
        }}
      />
    </label>
  );
}

function History() {
  const session = useSession();
  const cursor = useBench((s) => s.cursor);
  const entries = useBench((s) => s.entries);
  return (
    <>
      <IconButton
        label={cursor > 0 ? `Undo: ${entries[cursor - 1].label}` : 'Undo'}
        disabled={cursor === 0}
        onClick={() => session.undo()}
      >
        <Undo2 size={17} aria-hidden />
      </IconButton>
      <IconButton
        label={cursor < entries.length ? `Redo: ${entries[cursor].label}` : 'Redo'}
        disabled={cursor >= entries.length}
        onClick={() => session.redo()}
      >
        <Redo2 size={17} aria-hidden />
      </IconButton>
    </>
  );
}

const VIEWS: readonly { id: ViewId; word: string }[] = [
  { id: 'work', word: 'Work' },
  { id: 'clean', word: 'Clean' },
  { id: 'plates', word: 'Plates' },
];

function Views() {
  const session = useSession();
  const view = useBench((s) => s.view);
  const views = session.palette.screen ? VIEWS.slice(0, 2) : VIEWS;
  return (
    <div role="radiogroup" aria-label="View" className="mx-1 flex overflow-hidden rounded-sm border border-edge">
      {views.map((v) => (
        <button
          key={v.id}
          type="button"
          role="radio"
          aria-checked={view === v.id}
          title={`${v.word} (${keyText(COMMAND_TABLE[`view.${v.id}`].keys[0])})`}
          onClick={() => runCommand(session, `view.${v.id}`)}
          className={`h-7 border-0 px-2.5 not-first:border-l not-first:border-line ${view === v.id ? 'bg-field font-semibold' : 'bg-transparent hover:bg-line'}`}
        >
          {v.word}
        </button>
      ))}
    </div>
  );
}
