import { PRESS_KINDS, type PressKind } from '@/press/answer';
import { askPress, LIMITS } from '@/press/host';

export const runtime = 'nodejs';
export const dynamic = 'force-dynamic';

/** Files that are read at once: each takes a core. */
const MOST_AT_ONCE = 2;
let reading = 0;

/**
 * The simulated press: takes a PDF as the body of a POST, tells how far it is, a line of JSON each, and at the end
 * answers. Nothing of the job is kept.
 */
export async function POST(request: Request): Promise<Response> {
  const kind = new URL(request.url).searchParams.get('kind') ?? '';
  if (!(PRESS_KINDS as readonly string[]).includes(kind))
    return Response.json({ refused: `There is no such press. There are ${PRESS_KINDS.join(', ')}.` }, { status: 400 });
  if (reading >= MOST_AT_ONCE)
    return Response.json(
      { refused: 'The press is busy with other files. Send yours again in a moment.' },
      { status: 503 },
    );
  reading++;
  let bytes: Uint8Array | null;
  try {
    bytes = await inTime(bodyOf(request));
  } catch {
    reading--;
    return Response.json({ refused: 'The file did not arrive whole. Send it again.' }, { status: 400 });
  }
  if (!bytes?.length) {
    reading--;
    const refused = bytes
      ? 'Nothing arrived.'
      : `The file is larger than the press takes (${LIMITS.bytes / 1024 / 1024} MB).`;
    return Response.json({ refused }, { status: bytes ? 400 : 413 });
  }
  const told = askPress(bytes, kind as PressKind, request.signal);
  const encoder = new TextEncoder();
  // A stream that is cancelled while it waits ends twice.
  let over = false;
  const leave = () => {
    if (!over) reading--;
    over = true;
  };
  const lines = new ReadableStream<Uint8Array>({
    async pull(out) {
      const line = (what: unknown) => over || out.enqueue(encoder.encode(`${JSON.stringify(what)}\n`));
      try {
        const next = await told.next();
        if (!next.done) return void line(next.value);
      } catch {
        line({ refused: 'The press broke down. Send the file again.' });
      }
      if (!over) out.close();
      leave();
    },
    async cancel() {
      leave();
      await told.return(undefined);
    },
  });
  return new Response(lines, { headers: { 'Content-Type': 'application/x-ndjson', 'Cache-Control': 'no-store' } });
}

/** What takes too long to arrive holds no place at the press. */
function inTime<T>(body: Promise<T>): Promise<T> {
  let timer: ReturnType<typeof setTimeout>;
  const late = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(new Error('too slow')), LIMITS.arrivalMs);
  });
  return Promise.race([body, late]).finally(() => clearTimeout(timer));
}

/** The body, read no further than the limit; null where it is larger. */
async function bodyOf(request: Request): Promise<Uint8Array | null> {
  if (Number(request.headers.get('content-length') ?? 0) > LIMITS.bytes) return null;
  const parts: Uint8Array[] = [];
  let length = 0;
  const reader = request.body?.getReader();
  if (!reader) return new Uint8Array();
  for (;;) {
    const { done, value } = await reader.read();
    if (done) break;
    length += value.length;
    if (length > LIMITS.bytes) {
      await reader.cancel();
      return null;
    }
    parts.push(value);
  }
  const bytes = new Uint8Array(length);
  let at = 0;
  for (const p of parts) {
    bytes.set(p, at);
    at += p.length;
  }
  return bytes;
}
