import { existsSync } from 'node:fs';
import { mkdir, readFile, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { checkDesign } from '@/core/check/check';
import { damagedAssets, type Assets } from '@/core/file/assets';
import { refusalOf } from '@/core/colour/exchange';
import { isPurpose, PURPOSES } from '@/core/colour/lift';
import { addExchanged } from '@/core/edit/exchange';
import { record } from '@/core/edit/history';
import { openAsDesign } from '@/core/input/asDesign';
import { readSwatchFile } from '@/core/input/swatches/read';
import { liftFromScene } from '@/core/render/lifted';
import { SWATCH_FORMATS, writeSwatchFile } from '@/core/output/swatches/write';
import { packDesign, refusalText, unpackDesign } from '@/core/file/archive';
import { designJsonSchema } from '@/core/model/jsonSchema';
import type { Design } from '@/core/model/schema';
import { QUIET } from '@/core/output/job';
import { parsePages } from '@/core/output/pages';
import { writePdf } from '@/core/output/pdf/write';
import { pagePlates, platePng, thumbnail, tooManyPixels, writePng } from '@/core/output/png';
import { plateFileNames } from '@/core/output/plateNames';
import { writeSvg } from '@/core/output/svg/write';
import type { Palette } from '@/core/colour/palette';
import { asPrint, asScreen, facesOf, openEngines, paletteOf, prepare, type Engines } from '@/core/engines';
import { formatLength } from '@/core/units/length';
import { formatOf } from '@/core/units/formats';
import { printedOf } from '@/core/model/printed';
import { demoDesigns } from '@/demo/demos';
import { nodeEnv } from '@/env/node';

/** A mistake that one sentence explains; everything else is a fault of ours and keeps its stack. */
class Refused extends Error {}

const USAGE = `holvet: the same core from a shell

  holvet demo DIR                          writes the demo designs
  holvet pdf IN.holvet OUT.pdf             print PDF   [--pages 1-3,5] [--no-marks] [--keep-rgb]
  holvet svg IN.holvet OUT.svg             one page    [--page N] [--as-came]
  holvet png IN.holvet OUT.png --dpi N     one page    [--page N] [--transparent] [--as-came]
  holvet open IN OUT.holvet                a drawing (SVG) or picture (PNG, JPEG, WebP, GIF, TIFF) as a design of its size
  holvet plates IN.holvet DIR --dpi N      one grey PNG an ink and plates.json   [--page N]
  holvet swatches IN.holvet OUT            its swatches: OUT.txt CGATS, OUT.cxf CxF3, OUT.json design tokens
  holvet take IN.holvet COLOURS OUT.holvet adds the colours of a file (CGATS, CxF3, tokens, ICC named)
  holvet lift IN.holvet                    a palette as JSON   [--page N] [--count 5] [--for asSeen|farApart|…]
  holvet check IN.holvet                   findings as JSON
  holvet schema                            JSON Schema of design.json
  holvet info IN.holvet                    pages, formats, inks, fonts as JSON`;

const here = path.dirname(fileURLToPath(import.meta.url));
const publicFolder =
  [path.join(here, '../public'), path.join(here, '../../public')].find(existsSync) ?? path.join(here, '../public');
const env = nodeEnv(publicFolder);

const MAX_INPUT = 1024 * 1024 * 1024;

async function read(file: string): Promise<{ design: Design; assets: Assets }> {
  const label = path.basename(file);
  const info = await stat(file).catch(() => null);
  if (!info?.isFile()) throw new Refused(`There is no file ${file}.`);
  if (info.size > MAX_INPUT)
    throw new Refused(refusalText({ code: 'tooLarge', bytes: info.size, limit: MAX_INPUT }, label));
  const opened = unpackDesign(new Uint8Array(await readFile(file)));
  if (!opened.ok) throw new Refused(refusalText(opened, label));
  const damaged = await damagedAssets(opened.assets);
  if (damaged.length)
    throw new Refused(`${label} is damaged: what is inside under assets/${damaged[0]} is not what its name says.`);
  return { design: opened.design, assets: opened.assets };
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
      options: {
        dpi: { type: 'string' },
        page: { type: 'string' },
        pages: { type: 'string' },
        'no-marks': { type: 'boolean' },
        'keep-rgb': { type: 'boolean' },
        transparent: { type: 'boolean' },
        'as-came': { type: 'boolean' },
        count: { type: 'string' },
        for: { type: 'string' },
        help: { type: 'boolean', short: 'h' },
      },
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
  if (!page)
    throw new Refused(
      `There is no page ${text}: the design has ${design.pages.length === 1 ? 'one page' : `pages 1 to ${design.pages.length}`}.`,
    );
  return page;
}

/** `whole`: with layers that are for proof only, for what is written as a design again. */
async function ready(file: string, whole = false) {
  const { design, assets } = await read(file);
  const engines = await openEngines({
    ...env,
    asset: async (name) => assets.get(path.basename(name)) ?? env.asset(name),
  });
  const palette = await prepare(engines, design);
  if (engines.room.missing.has(design.profile.file))
    throw new Refused(
      `The profile “${design.profile.name ?? design.profile.file}” is not inside ${path.basename(file)}. Open the design on the bench, choose another paper or the profile again, and save it.`,
    );
  return { design: whole ? design : printedOf(design), engines, palette, assets };
}

/** The palette that a picture is shown by: as it prints, or as its parts came. */
const looked = (design: Design, palette: Palette, engines: Engines): Palette =>
  values['as-came'] ? paletteOf(asScreen(design), engines) : palette;

const COMMANDS: Record<string, () => Promise<void>> = {
  async demo() {
    const dir = argument(1, 'the folder to write to');
    const engines = await openEngines(env);
    for (const { file, design } of demoDesigns()) {
      const palette = await prepare(engines, design);
      const picture = thumbnail(engines.builder.build(design, design.pages[0]), palette);
      await write(path.join(dir, `${file}.holvet`), packDesign(design, picture));
    }
  },
  async pdf() {
    const out = argument(2, 'the file to write');
    const { design, engines } = await ready(argument(1, 'the design'));
    const palette = await prepare(engines, asPrint(design));
    const range = parsePages(values.pages ?? '', design.pages.length);
    if (!range.ok) throw new Refused(range.message);
    await write(
      out,
      await writePdf(
        design,
        range.pages.map((n) => design.pages[n - 1]),
        engines.builder,
        palette,
        engines.env,
        { marks: !values['no-marks'], keepRgb: values['keep-rgb'] === true },
        QUIET,
      ),
    );
  },
  async svg() {
    const out = argument(2, 'the file to write');
    const { design, engines, palette } = await ready(argument(1, 'the design'));
    const page = pageOption(design);
    const { svg, approximations } = await writeSvg(
      engines.builder.build(design, page),
      looked(design, palette, engines),
      design.name,
      (f) => engines.env.asset(f),
    );
    await write(out, svg);
    for (const note of approximations) process.stderr.write(`${note}\n`);
  },
  async png() {
    const out = argument(2, 'the file to write');
    const dpi = dpiOption();
    const { design, engines, palette } = await ready(argument(1, 'the design'));
    const scene = engines.builder.build(design, pageOption(design));
    const refusal = tooManyPixels(scene, dpi);
    if (refusal) throw new Refused(refusal);
    await write(out, writePng(scene, looked(design, palette, engines), dpi, values.transparent === true));
  },
  async plates() {
    const dir = argument(2, 'the folder to write to');
    const dpi = dpiOption();
    const { design, engines, palette } = await ready(argument(1, 'the design'));
    if (palette.screen) throw new Refused('This is a screen design: it is made of light and has no plates.');
    const scene = engines.builder.build(design, pageOption(design));
    const refusal = tooManyPixels(scene, dpi);
    if (refusal) throw new Refused(refusal);
    const plates = pagePlates(scene, palette, dpi);
    const files = plateFileNames(plates.channels);
    for (const [i, file] of files.entries()) await write(path.join(dir, file), platePng(plates, i));
    const { width, height } = plates.region;
    await write(
      path.join(dir, 'plates.json'),
      `${JSON.stringify({ size: { width, height }, dpi, inks: plates.channels, files: Object.fromEntries(plates.channels.map((ink, i) => [ink, files[i]])) }, null, 2)}\n`,
    );
  },
  async swatches() {
    const out = argument(2, 'the file to write');
    const { design, palette } = await ready(argument(1, 'the design'));
    const format = SWATCH_FORMATS.find((f) => out.toLowerCase().endsWith(`.${f.ending}`));
    if (!format)
      throw new Refused(
        `${path.basename(out)}: end the name with .txt for CGATS, .cxf for CxF3 or .json for design tokens.`,
      );
    const { bytes, notes } = writeSwatchFile(design, palette, format.id);
    await write(out, bytes);
    for (const note of notes) process.stderr.write(`${note}\n`);
  },
  async take() {
    const out = argument(3, 'the file to write');
    const colours = argument(2, 'the file with the colours');
    const { design, assets } = await ready(argument(1, 'the design'), true);
    const bytes = await readFile(colours).catch(() => null);
    if (!bytes) throw new Refused(`There is no file ${colours}.`);
    const read = readSwatchFile(new Uint8Array(bytes));
    if (!read.ok) throw new Refused(refusalOf(read, path.basename(colours)));
    let added = 0;
    const changed = record(design, 'Take colours', (d) => {
      added = addExchanged(d, read.swatches, read.ramps, env.newId);
      d.modified = env.now();
    });
    await write(out, packDesign(changed?.design ?? design, null, assets));
    for (const note of read.notes) process.stderr.write(`${note}\n`);
    process.stdout.write(`${added} added.\n`);
  },
  async lift() {
    const { design, engines, palette } = await ready(argument(1, 'the design'));
    const purpose = values.for ?? 'asSeen';
    if (!isPurpose(purpose))
      throw new Refused(`--for ${purpose} is not one of ${PURPOSES.map((p) => p.id).join(', ')}.`);
    const count = Number(values.count ?? 5);
    if (!(Number.isInteger(count) && count >= 3 && count <= 8))
      throw new Refused(`--count ${values.count} is not a number from 3 to 8.`);
    const scene = engines.builder.build(design, pageOption(design));
    process.stdout.write(`${JSON.stringify(liftFromScene(scene, palette, { count, purpose }), null, 2)}\n`);
  },
  async check() {
    const { design, engines, palette } = await ready(argument(1, 'the design'));
    process.stdout.write(`${JSON.stringify(checkDesign(design, engines.builder, palette), null, 2)}\n`);
  },
  async open() {
    const file = argument(1, 'the drawing or picture');
    const out = argument(2, 'the file to write');
    const bytes = await readFile(file).catch(() => null);
    if (!bytes) throw new Refused(`There is no file ${file}.`);
    const engines = await openEngines(env);
    const opened = await openAsDesign(new Uint8Array(bytes), path.basename(file), { ...env, fonts: engines.fonts });
    if (!opened.ok) throw new Refused(`${path.basename(file)} cannot be opened: ${opened.why}.`);
    const { design, assets, notes } = opened;
    await write(out, packDesign(design, null, assets));
    process.stdout.write(
      `${JSON.stringify({ objects: Object.keys(design.nodes).length, width: formatLength(design.setup.width, 'mm'), height: formatLength(design.setup.height, 'mm'), notKept: notes }, null, 2)}\n`,
    );
  },
  async schema() {
    process.stdout.write(`${JSON.stringify(designJsonSchema(), null, 2)}\n`);
  },
  async info() {
    const { design } = await read(argument(1, 'the design'));
    const { setup } = design;
    const size = ({ width, height }: Pick<Design['setup'], 'width' | 'height'>) =>
      `${formatLength(width, setup.unit)} × ${formatLength(height, setup.unit)}`;
    const others = design.pages.flatMap((p, i) => (p.format ? [[i + 1, size(p.format)] as const] : []));
    const summary = {
      name: design.name,
      format: formatOf(setup.width, setup.height, setup.round)?.name ?? 'own size',
      size: size(setup),
      bleed: formatLength(setup.bleed, setup.unit),
      medium: setup.medium,
      pages: design.pages.length,
      ...(others.length && { sizeOfPages: Object.fromEntries(others) }),
      inks: [
        ...(setup.medium === 'print' ? ['Cyan', 'Magenta', 'Yellow', 'Black'] : []),
        ...design.inks.flatMap((i) => (i.asStandIn ? [] : [i.name])),
      ],
      swatches: design.swatches.length,
      fonts: [...facesOf(design)],
      objects: Object.keys(design.nodes).length,
      profile: design.profile.name ?? design.profile.file,
    };
    process.stdout.write(`${JSON.stringify(summary, null, 2)}\n`);
  },
};

try {
  const command = positionals[0];
  if (values.help || !command) process.stdout.write(`${USAGE}\n`);
  else if (!Object.hasOwn(COMMANDS, command))
    throw new Refused(`“${command}” is not a command. “holvet --help” lists them.`);
  else await COMMANDS[command]();
} catch (e) {
  process.stderr.write(
    e instanceof Refused
      ? `${e.message}\n`
      : `Something went wrong inside: ${e instanceof Error ? e.message : String(e)}\n`,
  );
  if (!(e instanceof Refused) && process.env.HOLVET_DEBUG) console.error(e);
  process.exitCode = 2;
}
