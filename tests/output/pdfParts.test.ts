import { PDFArray, PDFDict, PDFDocument, PDFName, PDFRawStream, decodePDFRawStream } from '@cantoo/pdf-lib';
import { CLOSE, CUBIC, LINE, MOVE } from '@/core/geometry/path';
import { ContentStream } from '@/core/output/pdf/content';
import { pdfNumber } from '@/core/output/pdf/file';
import { hash128, pdfDate, uuidOf, xmpPacket } from '@/core/output/pdf/metadata';
import { QUIET } from '@/core/output/job';
import { writePdf } from '@/core/output/pdf/write';
import { prepare } from '@/core/engines';
import { sampleDesign } from '../support/sample';
import fc from '../support/seeded';
import { testEngines } from '../support/engines';

const text = (c: ContentStream) => Buffer.from(c.done()).toString('latin1');

describe('content streams', () => {
  test('numbers: the nearest of three decimals, never an exponent, never minus nothing', () => {
    fc.assert(
      fc.property(fc.double({ min: -99999, max: 99999, noNaN: true }), (x) => {
        const c = new ContentStream();
        c.number(x);
        const written = text(c).trim();
        expect(written).toMatch(/^-?\d+(\.\d{1,3})?$/);
        expect(Math.abs(Number(written) - x)).toBeLessThanOrEqual(0.0005 + 1e-9);
      }),
      { numRuns: 500 },
    );
    const c = new ContentStream();
    c.nums([0, 1, 10, 100, 1234567, 0.5, -0.25, 0.0004, 1e-9], 'x').nums([0.12345], 'y', 4).nums([1.0000004], 'z', 6);
    expect(text(c)).toBe('0 1 10 100 1234567 0.5 -0.25 0 0 x\n0.1235 y\n1 z\n');
  });
  test('anything not finite is refused, not written', () => {
    for (const x of [NaN, Infinity, -Infinity, 1e12])
      expect(() => new ContentStream().number(x)).toThrow('not a number for a PDF');
    expect(() => pdfNumber(NaN)).toThrow('not a number for a PDF: NaN');
    expect(String(pdfNumber(1e-7))).toBe('0');
  });
  test('paths and glyphs in the operators of PDF 32000-1 8.5 and 9.4', () => {
    const c = new ContentStream();
    c.path([MOVE, 0, 0, LINE, 10, 0, CUBIC, 10, 5, 5, 10, 0, 10, 3]).op('f');
    c.showGlyphs([[1, 255], -20.5, [4096]]);
    expect(text(c)).toBe('0 0 m\n10 0 l\n10 5 5 10 0 10 c\nh\nf\n[<000100ff> -20.5 <1000>] TJ\n');
    expect(() => c.path([9])).toThrow('unknown path opcode: 9 at 0');
  });
  test('an upright rectangle that runs across first is one operator; any other path keeps its points', () => {
    const drawn = (...path: number[]) => text(new ContentStream().path(path)).trim();
    const rect = (x0: number, y0: number, x1: number, y1: number) =>
      [MOVE, x0, y0, LINE, x1, y0, LINE, x1, y1, LINE, x0, y1, LINE, x0, y0, CLOSE] as const;
    expect(drawn(...rect(1.0004, 2, 11.0006, 22.5))).toBe('1 2 10.001 20.5 re');
    // To the left and up: the same way round (ISO 32000-1 8.5.2.1 lets width and height be less than nothing).
    expect(drawn(...rect(11, 22.5, 1, 2))).toBe('11 22.5 -10 -20.5 re');
    // Down first is the other way round, which the rule of nonzero winding tells apart.
    expect(drawn(MOVE, 0, 0, LINE, 0, 5, LINE, 5, 5, LINE, 5, 0, LINE, 0, 0, CLOSE)).toMatch(/^0 0 m\n0 5 l/);
    expect(drawn(MOVE, 0, 0, LINE, 5, 0, LINE, 5.1, 5, LINE, 0, 5, LINE, 0, 0, CLOSE)).toMatch(/^0 0 m\n5 0 l/);
    expect(drawn(MOVE, 0, 0, LINE, 5, 0, LINE, 5, 5, LINE, 0, 5, LINE, 0, 0)).toMatch(/^0 0 m\n5 0 l/);
    expect(drawn(...rect(0, 0, 5, 5), ...rect(1, 1, 2, 2))).toBe('0 0 5 5 re\n1 1 1 1 re');
    expect(() => drawn(...rect(0, 0, Infinity, 5))).toThrow('not a number for a PDF');
  });
  test('a stream longer than its first buffer stays whole', () => {
    const c = new ContentStream();
    for (let i = 0; i < 30_000; i++) c.nums([i, i + 1], 'l');
    const lines = text(c).trim().split('\n');
    expect([lines.length, lines[29_999]]).toEqual([30_000, '29999 30000 l']);
  });
});

describe('who made it, and when', () => {
  test('dates, ids and the packet agree', () => {
    expect(pdfDate('2026-11-21T17:04:05.678Z')).toBe('D:20261121170405Z');
    expect(hash128('a')).toMatch(/^[0-9A-F]{32}$/);
    expect(hash128('a')).not.toBe(hash128('b'));
    expect(uuidOf(hash128('a'))).toMatch(/^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/);
    const said = { title: 'Lamps & <quays>', modified: '2026-11-21T17:04:05Z', id: 'x', trapped: true, x4: true };
    const xmp = xmpPacket(said);
    expect(xmp).toContain('<pdf:Trapped>True</pdf:Trapped>');
    expect(xmp).toContain('Lamps &amp; &lt;quays&gt;');
    expect(xmp).toContain('2026-11-21T17:04:05+00:00');
    expect(xmp).toContain('PDF/X-4');
    const about = { author: 'Ebba Kell', subject: 'A walk', keywords: 'lamps; quay,, dusk ' };
    const plain = xmpPacket({ ...said, x4: false, about });
    expect(plain).not.toContain('PDF/X-4');
    expect(plain).toContain('<rdf:li>Ebba Kell</rdf:li>');
    expect(plain).toContain('<rdf:li>lamps</rdf:li><rdf:li>quay</rdf:li><rdf:li>dusk</rdf:li>');
  });
});

/** Runs a Type 4 function (PDF 32000-1 7.10.5), as far as ours go. */
function runProgram(program: string, input: number[]): number[] {
  const tokens = program
    .trim()
    .slice(1, -1)
    .match(/[{}]|[^\s{}]+/g)!;
  const stack = [...input];
  const run = (from: number): number => {
    let i = from;
    let block: [number, number] | null = null;
    for (; i < tokens.length && tokens[i] !== '}'; i++) {
      const t = tokens[i];
      if (t === '{') {
        const start = i + 1;
        while (tokens[i] !== '}') i++;
        block = [start, i];
      } else if (t === 'if') {
        if (stack.pop()) run(block![0]);
      } else if (t === 'index') {
        const k = stack.pop()!;
        stack.push(stack[stack.length - 1 - k]);
      } else if (t === 'mul') stack.push(stack.pop()! * stack.pop()!);
      else if (t === 'add') stack.push(stack.pop()! + stack.pop()!);
      else if (t === 'dup') stack.push(stack[stack.length - 1]);
      else if (t === 'gt') {
        const b = stack.pop()!;
        stack.push(stack.pop()! > b ? 1 : 0);
      } else if (t === 'pop') stack.pop();
      else if (t === 'roll') {
        const j = stack.pop()!;
        const n = stack.pop()!;
        const part = stack.splice(stack.length - n, n);
        const k = ((j % n) + n) % n;
        stack.push(...part.slice(n - k), ...part.slice(0, n - k));
      } else stack.push(Number(t));
    }
    return i;
  };
  run(0);
  return stack;
}

test('inks mixed in a gradient: on a device without their plates each shows as its stand-in, no more than full', async () => {
  const engines = await testEngines();
  const design = sampleDesign();
  const bytes = await writePdf(
    design,
    design.pages,
    engines.builder,
    await prepare(engines, design),
    engines.env,
    { marks: true },
    QUIET,
  );
  const doc = await PDFDocument.load(bytes, { updateMetadata: false });
  const { context } = doc;
  let tried = 0;
  for (const [, object] of context.enumerateIndirectObjects()) {
    if (!(object instanceof PDFArray) || object.size() < 4 || String(object.get(0)) !== '/DeviceN') continue;
    const names = (context.lookup(object.get(1)) as PDFArray).asArray().map((n) => (n as PDFName).decodeText());
    const tint = context.lookup(object.get(3)) as PDFRawStream;
    const program = Buffer.from(decodePDFRawStream(tint).decode()).toString('latin1');
    expect((context.lookup(object.get(4)) as PDFDict).get(PDFName.of('Colorants'))).toBeDefined();
    const standIn = (name: string): readonly number[] => {
      const process = ['Cyan', 'Magenta', 'Yellow', 'Black'].indexOf(name);
      return process >= 0
        ? [0, 1, 2, 3].map((i) => (i === process ? 1 : 0))
        : design.inks.find((i) => i.name === name)!.alternate;
    };
    for (const tints of [
      names.map(() => 0),
      names.map(() => 1),
      names.map((_, i) => 0.2 + 0.1 * i),
      names.map((_, i) => (i === 0 ? 1 : 0)),
    ]) {
      const out = runProgram(program, tints);
      const expected = [0, 1, 2, 3].map((p) =>
        Math.min(
          1,
          names.reduce((sum, n, i) => sum + tints[i] * standIn(n)[p], 0),
        ),
      );
      expect(out).toHaveLength(4);
      out.forEach((v, i) => expect(v).toBeCloseTo(expected[i], 3));
      tried++;
    }
  }
  expect(tried).toBeGreaterThanOrEqual(8);
});
