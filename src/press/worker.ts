import { parentPort, workerData } from 'node:worker_threads';
import { readFacts } from '@/core/input/pdf/facts';
import { answerTo, type PressKind, type Told } from './answer';
import { MOST_PROOFS, proofsOf } from './proof';

const { bytes, kind } = workerData as { readonly bytes: Uint8Array; readonly kind: PressKind };
const tell = (told: Told) => parentPort!.postMessage(told);

async function read(): Promise<void> {
  tell({ step: 'Reading the file', done: 0, total: 1 });
  const facts = await readFacts(bytes);
  if (!facts.ok) return tell({ refused: facts.message });
  const answer = answerTo(facts.facts, kind);
  const pages = [...answer.pages];
  const total = Math.min(pages.length, MOST_PROOFS);
  try {
    let n = 0;
    for await (const png of proofsOf(bytes)) {
      tell({ step: `Proof of page ${n + 1} of ${total}`, done: n, total });
      pages[n] = { ...pages[n], proof: Buffer.from(png).toString('base64') };
      n++;
    }
  } catch {
    const remark = { code: 'proof', refuses: true, message: 'No proof of it could be drawn: a part of it is damaged.' };
    return tell({ answer: { ...answer, taken: false, pages, remarks: [...answer.remarks, remark] } });
  }
  tell({ answer: { ...answer, pages } });
}
// Whatever breaks in a strange file ends in an answer.
void read().catch(() => tell({ refused: 'It is damaged: it could not be read to its end.' }));
