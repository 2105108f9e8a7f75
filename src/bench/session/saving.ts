import { afterPaint } from './afterPaint';

/** Handing a design out as a file. Once it is here it works when nothing else can be fetched any more. */
export const saving = afterPaint(() => import('@/saving/saveCopy'));
