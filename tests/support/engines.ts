import path from 'node:path';
import { openEngines, type Engines } from '@/core/engines';
import { nodeEnv } from '@/env/node';

export const publicFolder = path.resolve(process.cwd(), 'public');

/** A engines with counted ids and a fixed clock, so that tests repeat exactly. */
export async function testEngines(): Promise<Engines> {
  let n = 0;
  return openEngines({ ...nodeEnv(publicFolder), newId: () => `t${n++}`, now: () => '2026-11-02T18:00:00.000Z' });
}
