'use client';
import { visitPaints } from '@/core/model/paints';
import { useRef, useState } from 'react';
import { parsePages } from '@/core/output/pages';
import { PROFILES } from '@/core/model/defaults';
import { Button } from '@/ui/Button';
import { Check, WordChoice } from '@/ui/Choice';
import { NumberField } from '@/ui/NumberField';
import { Slip } from '@/ui/Slip';
import { download, fileName } from '@/ui/download';
import type { HandOverRequest } from '@/workers/pressApi';
import { startHandOver, Stopped, type HandOverJob } from '@/workers/pressClient';
import { useBench, useSession } from '../session/context';

type Kind = HandOverRequest['kind'];
const KINDS: readonly { value: Kind; label: string }[] = [
  { value: 'pdf', label: 'Print PDF' },
  { value: 'svg', label: 'SVG' },
  { value: 'png', label: 'PNG' },
  { value: 'holvet', label: 'Design' },
];
const TYPES: Record<Kind, string> = {
  pdf: 'application/pdf',
  svg: 'image/svg+xml',
  png: 'image/png',
  holvet: 'application/zip',
};

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
  const [marks, setMarks] = useState(true);
  const [keepRgb, setKeepRgb] = useState(false);
  // A screen design has a pixel for each of its own at 96 dpi.
  const [dpi, setDpi] = useState(design.setup.medium === 'screen' ? 96 : 300);
  const [transparent, setTransparent] = useState(false);
  const [asCame, setAsCame] = useState(false);
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
  const paper = PROFILES.find((p) => p.file === design.profile.file);
  const several = design.pages.length > 1;
  const screen = design.setup.medium === 'screen';

  const start = async () => {
    if (!pages.ok) return;
    const now = session.state.design;
    // SVG and PNG hold one page: a range makes one file a page.
    const chosen = kind === 'pdf' || kind === 'holvet' ? [0] : range.trim() === '' ? [number] : pages.pages;
    setSaid(null);
    try {
      const notes = new Set<string>();
      for (const n of chosen) {
        const request: HandOverRequest =
          kind === 'pdf'
            ? { kind, pages: pages.pages, marks, keepRgb }
            : kind === 'svg'
              ? { kind, page: n, asCame }
              : kind === 'png'
                ? { kind, page: n, dpi, transparent, asCame }
                : { kind };
        setProgress({ done: 0, total: 1, doing: 'Setting up' });
        job.current = startHandOver(now, request, (done, total, doing) => setProgress({ done, total, doing }));
        const result = await job.current.result;
        if (!result.ok) {
          setSaid({ text: result.message, notes: [], bad: true });
          return;
        }
        const called = now.pages[n - 1]?.name;
        const name = fileName(chosen.length > 1 ? called || `${now.name} ${n}` : now.name, kind);
        download(result.bytes, name, TYPES[kind]);
        result.notes.forEach((x) => notes.add(x));
        setSaid({ text: `${name} is in your downloads.`, notes: [...notes], bad: false });
      }
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
      width={340}
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
        <p className="m-0 text-faint">{describe(kind, paper?.name.toLowerCase() ?? 'own', screen || asCame)}</p>
        {kind !== 'holvet' && several && (
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
        {kind === 'pdf' && (
          <Check
            label="Marks and colour bar"
            hint="Crop and registration marks outside the bleed, ink patches at the head."
            checked={marks}
            onChange={setMarks}
          />
        )}
        {open && kind === 'pdf' && usesRgb(session.design) && (
          <Check
            label="Keep screen colours RGB"
            hint="Flat screen colours stay as they are, tagged sRGB, for the printer to separate. Otherwise they become ink here."
            checked={keepRgb}
            onChange={setKeepRgb}
          />
        )}
        {kind === 'png' && (
          <NumberField label="Resolution" suffix="dpi" min={1} max={1200} decimals={0} value={dpi} onCommit={setDpi} />
        )}
        {kind === 'png' && (
          <Check
            label="Transparent ground"
            hint="Without the paper: for a logo that is laid on other things."
            checked={transparent}
            onChange={setTransparent}
          />
        )}
        {(kind === 'png' || kind === 'svg') && !screen && (
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
            Make {KINDS.find((k) => k.value === kind)!.label}
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
      </div>
    </Slip>
  );
}

function describe(kind: Kind, paper: string, light: boolean): string {
  switch (kind) {
    case 'pdf':
      return `For the printer: PDF/X-4 with real plates, bleed and fonts, made for ${paper} paper.`;
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

/** Are there colours that could stay RGB? */
function usesRgb(design: ReturnType<typeof useSession>['design']): boolean {
  let found = design.swatches.some((s) => s.kind === 'colour' && 'rgb' in s.colour);
  visitPaints(design, (p) => {
    if (p.kind === 'colour' && 'rgb' in p.colour) found = true;
  });
  return found;
}
