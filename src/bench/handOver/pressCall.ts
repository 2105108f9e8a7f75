import type { PressAnswer, PressKind, Told } from '@/press/answer';

/** What came of sending a file to a press. */
export type Sent =
  { readonly ok: true; readonly answer: PressAnswer } | { readonly ok: false; readonly message: string };

/** Sends a PDF to the simulated press; `progress` is told how far it is. Rejects only where `stop` says so. */
export async function sendToPress(
  bytes: Uint8Array,
  kind: PressKind,
  progress: (done: number, total: number, doing: string) => void,
  stop: AbortSignal,
): Promise<Sent> {
  let response: Response;
  try {
    response = await fetch(`/api/press?kind=${kind}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/pdf' },
      body: bytes as BodyInit,
      signal: stop,
    });
  } catch (e) {
    if (stop.aborted) throw e;
    return { ok: false, message: 'The press does not answer. Is the program still running? Try again in a moment.' };
  }
  try {
    return await readAnswer(response, progress);
  } catch (e) {
    if (stop.aborted) throw e;
    return { ok: false, message: 'The press broke off in the middle. Send the file again.' };
  }
}

/** Its answer comes line by line, how far it is before what it says. */
async function readAnswer(
  response: Response,
  progress: (done: number, total: number, doing: string) => void,
): Promise<Sent> {
  const reader = response.body!.pipeThrough(new TextDecoderStream()).getReader();
  let rest = '';
  for (;;) {
    const { done, value } = await reader.read();
    rest += value ?? '';
    const lines = rest.split('\n');
    rest = done ? '' : lines.pop()!;
    for (const line of lines) {
      if (!line.trim()) continue;
      const told = JSON.parse(line) as Told;
      if ('answer' in told) return { ok: true, answer: told.answer };
      if ('refused' in told) return { ok: false, message: told.refused };
      progress(told.done, told.total, told.step);
    }
    if (done) throw new Error('it ends without an answer');
  }
}
