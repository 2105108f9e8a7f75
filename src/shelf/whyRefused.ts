import { refusalText, type Refusal } from '@/core/file/archive';

/** Why a file cannot be opened as a design, and what to do with one that is meant for a page. */
export async function whyRefused(refusal: Refusal, name: string, bytes: Uint8Array): Promise<string> {
  const forPage = refusal.code === 'notOurs' && (await import('@/core/input/goesOnPage')).goesOnPage(name, bytes);
  return forPage
    ? `${name} goes on a page: open a design, or make a new one, and drop the file there.`
    : refusalText(refusal, name);
}
