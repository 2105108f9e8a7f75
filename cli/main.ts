import { existsSync } from 'node:fs';
import { mkdir, readFile, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { checkDesign } from '@/core/check/check';
import { packDesign, refusalText, unpackDesign } from '@/core/file/archive';
import { designJsonSchema, type Design } from '@/core/model/schema';
import { QUIET } from '@/core/output/job';
import { parsePages } from '@/core/output/pages';
import { writePdf } from '@/core/output/pdf/write';
import { pagePlates, platePng, tooManyPixels, writePng } from '@/core/output/png';
import { plateFileNames } from '@/core/output/plateNames';
import { writeSvg } from '@/core/output/svg';
import { asPrint, facesOf, openWorkshop, prepare } from '@/core/workshop';
import { formatLength } from '@/core/units/length';
import { formatOf } from '@/core/units/formats';
import { demoDesigns } from '@/demo/demos';
import { nodeEnv } from '@/env/node';

/** A mistake that one sentence explains; everything else is a fault of ours and keeps its stack. */
class Refused extends Error {}

const USAGE = `holvet: the same core from a shell

  holvet demo DIR                          writes the demo designs
  holvet pdf IN.holvet OUT.pdf             print PDF   [--pages 1-3,5] [--no-marks]
  holvet svg IN.holvet OUT.svg             one page    [--page N]
  holvet png IN.holvet OUT.png --dpi N     one page    [--page N]
  holvet plates IN.holvet DIR --dpi N      one grey PNG an ink and plates.json   [--page N]
  holvet check IN.holvet                   findings as JSON
  holvet schema                            JSON Schema of design.json
  holvet info IN.holvet                    pages, formats, inks, fonts as JSON`;

const here = path.dirname(fileURLToPath(import.meta.url));
const publicFolder = [path.join(here, '../public'), path.join(here, '../../public')].find(existsSync) ?? path.join(here, '../public');
const env = nodeEnv(publicFolder);

const MAX_INPUT = 1024 * 1024 * 1024;

async function read(file: string): Promise<Design> {
  const label = path.basename(file);
  const info = await stat(file).catch(() => null);
  if (!info?.isFile()) throw new Refused(`There is no file ${file}.`);
  if (info.size > MAX_INPUT) throw new Refused(refusalText({ code: 'tooLarge', bytes: info.size, limit: MAX_INPUT }, label));
  const opened = unpackDesign(new Uint8Array(await readFile(file)));
  if (!opened.ok) throw new Refused(refusalText(opened, label));
  return opened.design;
}

async function write(file: string, data: Uint8Array | string): Promise<void> {
  await mkdir(path.dirname(path.resolve(file)), { recursive: true });
  await writeFile(file, data).catch((e: NodeJS.ErrnoException) => {
    throw new Refused(`${file} cannot be written (${e.code ?? e.message}).`);
  });
}

const { values, positionals } = (() => {
  try {
    return parseArgs({
      allowPositionals: true,
      options: { dpi: { type: 'string' }, page: { type: 'string' }, pages: { type: 'string' }, 'no-marks': { type: 'boolean' }, help: { type: 'boolean', short: 'h' } },
    });
  } catch (e) {
    process.stderr.write(`${(e as Error).message.split('\n')[0]}\n`);
    process.exit(2);
  }
})();

function argument(index: number, what: string): string {
  const value = positionals[index];
  if (!value) throw new Refused(`Say ${what}. “holvet --help” shows how.`);
  return value;
}

function dpiOption(): number {
  if (values.dpi === undefined) throw new Refused('Say the resolution, for example --dpi 300.');
  const dpi = Number(values.dpi);
  if (!(dpi >= 1 && dpi <= 2400)) throw new Refused(`--dpi ${values.dpi} is not between 1 and 2400.`);
  return dpi;
}

function pageOption(design: Design): Design['pages'][number] {
  const text = values.page ?? '1';
  const n = Number(text);
  if (!Number.isInteger(n)) throw new Refused(`--page ${text} is not a page number.`);
  const page = design.pages[n - 1];
  if (!page) throw new Refused(`There is no page ${text}: the design has ${design.pages.length === 1 ? 'one page' : `pages 1 to ${design.pages.length}`}.`);
  return page;
}

async function ready(file: string) {
  const design = await read(file);
  const shop = await openWorkshop(env);
  const palette = await prepare(shop, design);
  return { design, shop, palette };
}

const COMMANDS: Record<string, () => Promise<void>> = {
  async demo() {
    const dir = argument(1, 'the folder to write to');
    const shop = await openWorkshop(env);
    for (const { file, design } of demoDesigns()) {
      const palette = await prepare(shop, design);
      const thumbnail = writePng(shop.builder.build(design, design.pages[0]), palette, (72 * 320) / Math.max(design.setup.width, design.setup.height));
      await write(path.join(dir, `${file}.holvet`), packDesign(design, thumbnail));
    }
  },
  async pdf() {
    const out = argument(2, 'the file to write');
    const { design, shop } = await ready(argument(1, 'the design'));
    const palette = await prepare(shop, asPrint(design));
    const range = parsePages(values.pages ?? '', design.pages.length);
    if (!range.ok) throw new Refused(range.message);
    await write(out, await writePdf(design, range.pages.map((n) => design.pages[n - 1]), shop.builder, palette, env, { marks: !values['no-marks'] }, QUIET));
  },
  async svg() {
    const out = argument(2, 'the file to write');
    const { design, shop, palette } = await ready(argument(1, 'the design'));
    const page = pageOption(design);
    await write(out, writeSvg(shop.builder.build(design, page), palette, design.name).svg);
  },
  async png() {
    const out = argument(2, 'the file to write');
    const dpi = dpiOption();
    const { design, shop, palette } = await ready(argument(1, 'the design'));
    const scene = shop.builder.build(design, pageOption(design));
    const refusal = tooManyPixels(scene, dpi);
    if (refusal) throw new Refused(refusal);
    await write(out, writePng(scene, palette, dpi));
  },
  async plates() {
    const dir = argument(2, 'the folder to write to');
    const dpi = dpiOption();
    const { design, shop, palette } = await ready(argument(1, 'the design'));
    if (palette.screen) throw new Refused('This is a screen design: it is made of light and has no plates.');
    const scene = shop.builder.build(design, pageOption(design));
    const refusal = tooManyPixels(scene, dpi);
    if (refusal) throw new Refused(refusal);
    const plates = pagePlates(scene, palette, dpi);
    const files = plateFileNames(plates.channels);
    for (const [i, file] of files.entries()) await write(path.join(dir, file), platePng(plates, i));
    const { width, height } = plates.region;
    await write(path.join(dir, 'plates.json'), `${JSON.stringify({ size: { width, height }, dpi, inks: plates.channels, files: Object.fromEntries(plates.channels.map((ink, i) => [ink, files[i]])) }, null, 2)}\n`);
  },
  async check() {
    const { design, shop, palette } = await ready(argument(1, 'the design'));
    process.stdout.write(`${JSON.stringify(checkDesign(design, shop.builder, palette), null, 2)}\n`);
  },
  async schema() {
    process.stdout.write(`${JSON.stringify(designJsonSchema(), null, 2)}\n`);
  },
  async info() {
    const design = await read(argument(1, 'the design'));
    const { setup } = design;
    const summary = {
      name: design.name,
      format: formatOf(setup.width, setup.height, setup.round)?.name ?? 'own size',
      size: `${formatLength(setup.width, setup.unit)} × ${formatLength(setup.height, setup.unit)}`,
      bleed: formatLength(setup.bleed, setup.unit),
      medium: setup.medium,
      pages: design.pages.length,
      inks: [...(setup.medium === 'print' ? ['Cyan', 'Magenta', 'Yellow', 'Black'] : []), ...design.inks.map((i) => i.name)],
      fonts: [...facesOf(design)],
      objects: Object.keys(design.nodes).length,
      profile: design.profile.file,
    };
    process.stdout.write(`${JSON.stringify(summary, null, 2)}\n`);
  },
};

try {
  const command = positionals[0];
  if (values.help || !command) process.stdout.write(`${USAGE}\n`);
  else if (!Object.hasOwn(COMMANDS, command)) throw new Refused(`“${command}” is not a command. “holvet --help” lists them.`);
  else await COMMANDS[command]();
} catch (e) {
  process.stderr.write(e instanceof Refused ? `${e.message}\n` : `Something went wrong inside: ${e instanceof Error ? e.message : String(e)}\n`);
  if (!(e instanceof Refused) && process.env.HOLVET_DEBUG) console.error(e);
  process.exitCode = 2;
}
