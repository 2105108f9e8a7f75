'use client';
import { useRef, useState } from 'react';
import type { Design } from '@/core/model/schema';
import { parsePages } from '@/core/output/pages';
import { Button } from '@/ui/Button';
import type { PdfOptions } from '@/core/output/pdf/options';
import { PDF_PRESETS } from '@/core/output/pdf/presets';
import { Check, WordChoice } from '@/ui/Choice';
import { NumberField } from '@/ui/NumberField';
import { Slip } from '@/ui/Slip';
import type { HandOverRequest } from '@/workers/pressApi';
import { Stopped, type HandOverJob } from '@/workers/pressClient';
import type { PictureKind } from '@/workers/pictureFiles';
import { runCommand } from '../commands/commands';
import { makeFiles, type MadePdf } from '../commands/handingOver';
import { useBench, useSession } from '../session/context';
import { comesLater } from '../session/comesLater';
import { usePreset } from './usePreset';

// What a PDF asks for comes when the slip is opened.
const PdfFields = comesLater(() => import('./PdfFields').then((m) => m.PdfFields));
const SendToPress = comesLater(() => import('./SendToPress').then((m) => m.SendToPress));
const WhatIsIn = comesLater(() => import('./WhatIsIn').then((m) => m.WhatIsIn));
const WhatWillBeIn = comesLater(() => import('./WhatIsIn').then((m) => m.WhatWillBeIn));

type Kind = Exclude<HandOverRequest['kind'], 'objects' | 'report' | 'plates'>;
type Of = 'page' | 'chosen' | 'each';
const KINDS: readonly { value: Kind; label: string }[] = [
  { value: 'pdf', label: 'PDF' },
  { value: 'svg', label: 'SVG' },
  { value: 'png', label: 'Picture' },
  { value: 'holvet', label: 'Design' },
];
/** `plates`: each ink by itself. */
type As = PictureKind | 'plates';
const PICTURES: readonly { value: As; label: string }[] = [
  { value: 'png', label: 'PNG' },
  { value: 'jpeg', label: 'JPEG' },
  { value: 'webp', label: 'WebP' },
  { value: 'plates', label: 'Plates' },
];
const SIZES = [1, 2, 3] as const;

interface Progress {
  readonly done: number;
  readonly total: number;
  readonly doing: string;
}

/** Giving out files: what is asked for, how far it is, and a way to stop it. */
export function HandOver() {
  const session = useSession();
  const design = useBench((s) => s.design);
  const page = useBench((s) => s.page);
  const findings = useBench((s) => s.findings);
  const [open, setOpen] = useState(false);
  const [kind, setKind] = useState<Kind>('pdf');
  const [range, setRange] = useState('');
  const [preset, setPreset] = useState(PDF_PRESETS[0].name);
  const presetOptions = usePreset(preset);
  const [changed, setChanged] = useState<PdfOptions | null>(null);
  const options = changed ?? presetOptions;
  const [made, setMade] = useState<{ readonly pdf: MadePdf; readonly of: string; readonly design: Design } | null>(
    null,
  );
  const asking = JSON.stringify([range, options]);
  // What was made of another state, or otherwise, is not what would be made now.
  const pdf = made?.of === asking && made.design === design ? made.pdf : null;
  // A screen design has a pixel for each of its own at 96 dpi.
  const [dpi, setDpi] = useState(design.setup.medium === 'screen' ? 96 : 300);
  const [transparent, setTransparent] = useState(false);
  const [asCame, setAsCame] = useState(false);
  const [as, setAs] = useState<As>('png');
  const [by, setBy] = useState<'dpi' | 'width'>('dpi');
  const [width, setWidth] = useState(1200);
  const [smaller, setSmaller] = useState(false);
  const [of, setOf] = useState<Of>('page');
  const [sizes, setSizes] = useState<readonly number[]>([1]);
  const [progress, setProgress] = useState<Progress | null>(null);
  const [said, setSaid] = useState<{ text: string; notes: readonly string[]; bad: boolean } | null>(null);
  const job = useRef<HandOverJob | null>(null);

  const asked = useBench((s) => s.handOver);
  const [taken, setTaken] = useState(asked);
  if (asked !== taken) {
    setTaken(asked);
    if (asked) {
      setOpen(true);
      setKind(asked.kind);
      if (asked.transparent !== undefined) setTransparent(asked.transparent);
    }
  }

  const pages = parsePages(range, design.pages.length);
  const number = design.pages.findIndex((p) => p.id === page) + 1;
  const several = design.pages.length > 1;
  const selection = useBench((s) => s.selection);
  // Of a page that holds them; what is chosen on a master is on no page by itself.
  const chosen = number > 0 ? selection : [];
  const plates = kind === 'png' && as === 'plates';
  const objects = (kind === 'svg' || kind === 'png') && of !== 'page' && chosen.length > 0 && !plates;
  const word =
    kind === 'png' ? PICTURES.find((p) => p.value === as)!.label : KINDS.find((k) => k.value === kind)!.label;
  const screen = design.setup.medium === 'screen';

  const start = async () => {
    if (!pages.ok) return;
    // SVG and pictures hold one page: a range makes one file a page.
    const sized = by === 'width' ? { width } : {};
    const once = kind === 'pdf' || kind === 'holvet' || objects;
    const numbers = once ? [0] : range.trim() === '' ? [number] : pages.pages;
    const requests = numbers.map((n): HandOverRequest =>
      objects
        ? {
            kind: 'objects',
            page: number,
            ids: chosen,
            each: of === 'each',
            as: kind === 'svg' ? 'svg' : (as as PictureKind),
            dpi,
            ...sized,
            smaller,
            scales: sizes,
            transparent,
            asCame,
          }
        : kind === 'pdf'
          ? { kind, pages: pages.pages, options }
          : kind === 'svg'
            ? { kind, page: n, asCame, smaller }
            : kind === 'png'
              ? plates
                ? { kind: 'plates', page: n, dpi }
                : { kind, page: n, dpi, ...sized, transparent, asCame, as: as as PictureKind }
              : { kind },
    );
    setSaid(null);
    setMade(null);
    setProgress({ done: 0, total: 1, doing: 'Setting up' });
    try {
      const done = await makeFiles(
        session,
        requests,
        (begun) => (job.current = begun),
        (done, total, doing) => setProgress({ done, total, doing }),
      );
      if (done.ok && done.pdf) setMade({ pdf: done.pdf, of: asking, design });
      setSaid(
        done.ok
          ? {
              text: `${done.names.length > 1 ? `${done.names.length} files are` : `${done.names[0]} is`} in your downloads.`,
              notes: done.notes,
              bad: false,
            }
          : { text: done.message, notes: [], bad: true },
      );
    } catch (e) {
      setSaid({
        text:
          e instanceof Stopped
            ? 'Stopped. No file was made.'
            : `The file could not be made: ${e instanceof Error ? e.message : String(e)}`,
        notes: [],
        bad: !(e instanceof Stopped),
      });
    } finally {
      job.current = null;
      setProgress(null);
    }
  };

  return (
    <Slip
      title="Hand over"
      width={360}
      open={open}
      onOpenChange={setOpen}
      trigger={
        <Button kind="primary" className="h-8 px-4" data-hand-over>
          Hand over
        </Button>
      }
    >
      <div className="grid gap-3">
        <WordChoice label="Kind of file" value={kind} options={KINDS} onChange={setKind} />
        {kind !== 'pdf' && <p className="m-0 text-faint">{describe(kind, screen || asCame)}</p>}
        {(kind === 'svg' || kind === 'png') && chosen.length > 0 && (
          <WordChoice
            label="What is handed over"
            value={of}
            options={[
              { value: 'page', label: several ? 'Pages' : 'The page' },
              { value: 'chosen', label: 'Chosen' },
              ...(chosen.length > 1 ? [{ value: 'each' as const, label: `Each of ${chosen.length}` }] : []),
            ]}
            onChange={(v) => {
              setOf(v);
              if (v !== 'page') setTransparent(true);
            }}
          />
        )}
        {kind !== 'holvet' && several && !objects && (
          <label className="grid gap-1">
            <span className="text-faint">Pages {kind === 'pdf' ? '(empty: all)' : `(empty: page ${number})`}</span>
            <input
              className={`h-7 rounded-sm border bg-field px-2 ${pages.ok ? 'border-edge' : 'border-stop'}`}
              placeholder="1-3, 5"
              value={range}
              onChange={(e) => setRange(e.target.value)}
              aria-invalid={!pages.ok}
            />
            {!pages.ok && (
              <span role="alert" className="text-[12px] text-stop">
                {pages.message}
              </span>
            )}
          </label>
        )}
        {open && kind === 'pdf' && (
          <PdfFields
            preset={preset}
            options={options}
            onPreset={(name) => {
              setPreset(name);
              setChanged(null);
            }}
            onOptions={setChanged}
          />
        )}
        {open && kind === 'pdf' && pages.ok && !pdf && <WhatWillBeIn pages={pages.pages} options={options} />}
        {kind === 'png' && (
          <WordChoice
            label="Kind of picture"
            value={as}
            options={screen ? PICTURES.filter((p) => p.value !== 'plates') : PICTURES}
            onChange={setAs}
          />
        )}
        {plates && (
          <p className="m-0 text-faint">Each ink by itself, in grey, with the bleed: black is full ink. One zip.</p>
        )}
        {kind === 'png' && (
          <div className="grid grid-cols-[auto_1fr] gap-2">
            {!plates && (
              <WordChoice
                label="Size by"
                value={by}
                options={[
                  { value: 'dpi', label: 'By dpi' },
                  { value: 'width', label: 'By width' },
                ]}
                onChange={setBy}
              />
            )}
            {by === 'width' && !plates ? (
              <NumberField
                label="Width"
                name="Width in pixels"
                suffix=" px"
                min={1}
                max={20000}
                decimals={0}
                value={width}
                onCommit={setWidth}
              />
            ) : (
              <NumberField
                label="Resolution"
                suffix=" dpi"
                min={1}
                max={1200}
                decimals={0}
                value={dpi}
                onCommit={setDpi}
              />
            )}
          </div>
        )}
        {kind === 'svg' && (
          <Check
            label="As small as can be"
            hint="For web pages: it looks the same, and opened here again it is plain shapes."
            checked={smaller}
            onChange={setSmaller}
          />
        )}
        {kind === 'png' && objects && (
          <div role="group" aria-label="Sizes" className="flex items-center gap-3">
            <span className="text-faint">In sizes</span>
            {SIZES.map((size) => (
              <label key={size} className="flex items-center gap-1.5">
                <input
                  type="checkbox"
                  className="size-4 accent-(--accent)"
                  checked={sizes.includes(size)}
                  onChange={(e) => {
                    const next = SIZES.filter((x) => (x === size ? e.target.checked : sizes.includes(x)));
                    // One at least is made.
                    if (next.length) setSizes(next);
                  }}
                />
                {size}×
              </label>
            ))}
          </div>
        )}
        {kind === 'png' && as !== 'jpeg' && !plates && (
          <Check
            label="Transparent ground"
            hint="Without the paper: for a logo that is laid on other things."
            checked={transparent}
            onChange={setTransparent}
          />
        )}
        {(kind === 'png' || kind === 'svg') && !screen && !plates && (
          <div className="grid gap-1">
            <span className="text-faint">Pictures and blends look</span>
            <WordChoice
              label="Pictures and blends"
              value={asCame ? 'came' : 'printed'}
              options={[
                { value: 'printed', label: 'As printed' },
                { value: 'came', label: 'As they came' },
              ]}
              onChange={(v) => setAsCame(v === 'came')}
            />
          </div>
        )}
        {kind === 'pdf' && findings.length > 0 && (
          <p className="m-0 text-warn">Checks found {findings.length} to look at. The file is made all the same.</p>
        )}
        {progress ? (
          <div className="grid gap-2" role="status">
            <progress
              className="w-full accent-(--accent)"
              max={progress.total}
              value={progress.done}
              aria-label={progress.doing}
            />
            <div className="flex items-center justify-between">
              <span>{progress.doing} …</span>
              <Button onClick={() => job.current?.stop()}>Stop</Button>
            </div>
          </div>
        ) : (
          <Button kind="primary" disabled={!pages.ok} onClick={() => void start()}>
            Make {objects && (of === 'each' || (kind === 'png' && sizes.length > 1)) ? `${word} files` : word}
          </Button>
        )}
        {kind === 'pdf' && !progress && design.setup.medium === 'print' && (
          <Button kind="quiet" onClick={() => runCommand(session, 'handOver.ticket')}>
            Make the job ticket: one page for the printer
          </Button>
        )}
        {said && (
          <div role="status" className={said.bad ? 'text-stop' : ''}>
            <p className="m-0">{said.text}</p>
            {said.notes.length > 0 && (
              <ul className="mt-1 mb-0 pl-4 text-faint">
                {said.notes.map((n) => (
                  <li key={n}>{n}</li>
                ))}
              </ul>
            )}
          </div>
        )}
        {pdf && kind === 'pdf' && <WhatIsIn facts={pdf.facts} />}
        {pdf && kind === 'pdf' && <SendToPress pdf={pdf} onAnswered={() => setOpen(false)} />}
      </div>
    </Slip>
  );
}

function describe(kind: Exclude<Kind, 'pdf'>, light: boolean): string {
  switch (kind) {
    case 'svg':
      return 'For screens and other programs: shapes in screen colours, cut at the trim.';
    case 'png':
      return light
        ? 'A picture as on screen, cut at the trim.'
        : 'A picture as it will look on paper, cut at the trim.';
    case 'holvet':
      return 'The design itself as one file, to keep or to open elsewhere.';
    default:
      return kind satisfies never;
  }
}
