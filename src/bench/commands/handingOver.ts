import { download } from '@/ui/download';
import type { PdfFacts } from '@/core/input/pdf/facts';
import { fileName } from '@/core/output/fileName';
import type { HandedOver, HandOverRequest } from '@/workers/pressApi';
import { startHandOver, type HandOverJob } from '@/workers/pressClient';
import { freeSelection, type CommandDef } from '../session/commandDef';
import type { Session } from '../session/session';

/** What a file is, by its ending. */
const TYPES: Readonly<Record<string, string>> = {
  pdf: 'application/pdf',
  svg: 'image/svg+xml',
  png: 'image/png',
  jpg: 'image/jpeg',
  webp: 'image/webp',
  holvet: 'application/zip',
  zip: 'application/zip',
};
function endingOf(r: HandOverRequest): string {
  switch (r.kind) {
    case 'png':
      return r.as === 'jpeg' ? 'jpg' : (r.as ?? 'png');
    case 'objects':
    case 'plates':
      return 'zip';
    case 'report':
      return 'pdf';
    default:
      return r.kind;
  }
}

export interface MadePdf {
  readonly name: string;
  readonly bytes: Uint8Array;
  readonly facts: PdfFacts;
}
export type Made =
  | {
      readonly ok: true;
      readonly names: readonly string[];
      readonly notes: readonly string[];
      /** The PDF that was made last. */
      readonly pdf: MadePdf | null;
    }
  | { readonly ok: false; readonly message: string };

/**
 * Makes files one after the other and gives them to the person; what was asked for is kept, so that it can be done
 * again. `begin` gets each job as it begins; rejects where one is stopped.
 */
export async function makeFiles(
  s: Session,
  requests: readonly HandOverRequest[],
  begin: (job: HandOverJob) => void = () => {},
  progress: (done: number, total: number, doing: string) => void = () => {},
): Promise<Made> {
  const now = s.state.design;
  const names: string[] = [];
  const notes = new Set<string>();
  let pdf: MadePdf | null = null;
  for (const request of requests) {
    const job = startHandOver(now, request, progress);
    begin(job);
    const result: HandedOver = await job.result;
    if (!result.ok) return result;
    const called = 'page' in request && requests.length > 1 ? now.pages[request.page - 1]?.name : '';
    const number = 'page' in request ? ` ${request.page}` : '';
    const name =
      result.name ?? fileName(requests.length > 1 ? called || `${now.name}${number}` : now.name, endingOf(request));
    download(result.bytes, name, TYPES[name.slice(name.lastIndexOf('.') + 1)] ?? 'application/octet-stream');
    result.notes.forEach((x) => notes.add(x));
    names.push(name);
    if (result.facts && result.bytes instanceof Uint8Array) pdf = { name, bytes: result.bytes, facts: result.facts };
  }
  s.set({ lastHandOver: requests });
  return { ok: true, names, notes: [...notes], pdf };
}

async function again(s: Session): Promise<void> {
  const { lastHandOver } = s.state;
  if (!lastHandOver) return;
  s.say('Making the last file once more …');
  try {
    const made = await makeFiles(s, lastHandOver);
    if (made.ok) s.say(`${made.names.join(', ')} ${made.names.length > 1 ? 'are' : 'is'} in your downloads.`);
    else s.say(made.message, 'stop');
  } catch (e) {
    s.say(`The file could not be made: ${e instanceof Error ? e.message : String(e)}`, 'stop');
  }
}

async function ticket(s: Session): Promise<void> {
  const last = s.state.lastHandOver;
  s.say('Making the job ticket …');
  try {
    const made = await makeFiles(s, [{ kind: 'report' }]);
    if (made.ok) s.say(`${made.names[0]} is in your downloads.`);
    else s.say(made.message, 'stop');
  } catch (e) {
    s.say(`The job ticket could not be made: ${e instanceof Error ? e.message : String(e)}`, 'stop');
  }
  // What is made again is the file, not its ticket.
  s.set({ lastHandOver: last });
}

/** Twice as fine as a screen's own pixels: for what is pasted elsewhere. */
const COPY_DPI = 192;

async function copyAs(s: Session, as: 'png' | 'svg'): Promise<void> {
  const request: HandOverRequest = {
    kind: 'objects',
    page: s.design.pages.findIndex((p) => p.id === s.page.id) + 1,
    ids: freeSelection(s),
    each: false,
    as,
    dpi: COPY_DPI,
    scales: [1],
    transparent: true,
  };
  const bytes = startHandOver(s.state.design, request, () => {}).result.then((r) => {
    if (!r.ok) throw new Error(r.message);
    return r.bytes;
  });
  const type = as === 'png' ? 'image/png' : 'text/plain';
  try {
    await navigator.clipboard.write([
      // Said at once, with what is still being made: the browser asks for that.
      new ClipboardItem({ [type]: bytes.then((b) => new Blob([b as BlobPart], { type })) }),
    ]);
    s.say(
      as === 'png' ? 'Copied as a picture, clear around.' : 'Copied as SVG text: paste it where drawings are taken.',
    );
  } catch (e) {
    const why = await bytes.then(
      () => (e instanceof Error ? e.message : String(e)),
      (b: unknown) => (b instanceof Error ? b.message : String(b)),
    );
    s.say(`It could not be copied: ${why}`, 'warn');
  }
}

const onPage = (s: Session): boolean => s.design.pages.some((p) => p.id === s.page.id) && freeSelection(s).length > 0;

export const HANDING_COMMANDS = {
  'handOver.again': {
    label: 'Hand over again as last time',
    keywords: ['repeat', 'export', 'save', 'same', 'output', 'once more'],
    keys: ['Mod+Shift+E'],
    applies: (s) => s.state.lastHandOver !== null,
    run: (s) => void again(s),
  },
  'handOver.ticket': {
    label: 'Make the job ticket',
    keywords: ['report', 'summary', 'sheet', 'printer', 'checks', 'inks', 'pdf', 'docket'],
    keys: [],
    applies: (s) => s.design.setup.medium === 'print',
    run: (s) => void ticket(s),
  },
  'copy.picture': {
    label: 'Copy as a picture',
    keywords: ['png', 'clipboard', 'image', 'paste elsewhere'],
    keys: [],
    applies: onPage,
    run: (s) => void copyAs(s, 'png'),
  },
  'copy.svg': {
    label: 'Copy as SVG',
    keywords: ['clipboard', 'code', 'vector', 'paste elsewhere'],
    keys: [],
    applies: onPage,
    run: (s) => void copyAs(s, 'svg'),
  },
} as const satisfies Record<string, CommandDef>;
