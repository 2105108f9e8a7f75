// Writes docs/format.schema.json: what design.json of a design's file holds, by the model's own rules.
import { writeFileSync } from 'node:fs';
import { designJsonSchema } from '../src/core/model/jsonSchema';

writeFileSync('docs/format.schema.json', `${JSON.stringify(designJsonSchema(), null, 1)}\n`);
