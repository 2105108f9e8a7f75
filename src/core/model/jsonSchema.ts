import * as z from 'zod/mini';
import { designSchema } from './schema';

/** The document as a JSON Schema (draft 2020-12), for other programs. */
export function designJsonSchema(): object {
  // What is met in many places, paints above all, is told once.
  return z.toJSONSchema(designSchema, { io: 'input', reused: 'ref' });
}
