import path from 'node:path';
import { openWorkshop, type Workshop } from '@/core/workshop';
import { nodeEnv } from '@/env/node';

export const publicFolder = path.resolve(process.cwd(), 'public');

/** A workshop with counted ids and a fixed clock, so that tests repeat exactly. */
export async function testShop(): Promise<Workshop> {
  let n = 0;
  return openWorkshop({ ...nodeEnv(publicFolder), newId: () => `t${n++}`, now: () => '2026-11-02T18:00:00.000Z' });
}
