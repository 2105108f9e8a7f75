import { found, score } from '@/bench/finder/rank';
import { finderRows } from '@/bench/finder/rows';

// Questions as people put them (common practice), and what must come first: a title, or several that would all do.
const QUESTIONS: readonly (readonly [string, ...string[]])[] = [
  ['hole', 'Subtract front from back'],
  ['cut out', 'Subtract front from back', 'Picture with a transparent ground'],
  ['rotate', 'Turn to an angle', 'Turn a quarter right'],
  ['rotate 90', 'Turn a quarter right', 'Turn a quarter left'],
  ['transparent', 'Opacity', 'Picture with a transparent ground'],
  ['transparent background', 'Picture with a transparent ground'],
  ['no background', 'Picture with a transparent ground'],
  ['outline thickness', 'Outline weight'],
  ['line thickness', 'Outline weight'],
  ['thicker', 'Outline weight'],
  ['clip', 'Cut by the front one'],
  ['mask', 'Cut by the front one'],
  ['bigger', 'Width', 'Height'],
  ['smaller', 'Width', 'Height'],
  ['resize', 'Width', 'Height'],
  ['versions', 'Versions side by side', 'Earlier states'],
  ['history', 'Earlier states'],
  ['undo', 'Undo'],
  ['redo', 'Redo'],
  ['take back', 'Undo'],
  ['copy', 'Copy'],
  ['back side', 'Add a page'],
  ['paste', 'Paste'],
  ['duplicate', 'Duplicate'],
  ['delete', 'Delete'],
  ['remove', 'Delete'],
  ['erase', 'Delete'],
  ['group', 'Group'],
  ['ungroup', 'Ungroup'],
  ['front', 'Bring to front'],
  ['behind', 'Send to back'],
  ['send to back', 'Send to back'],
  ['lock', 'Lock'],
  ['hide', 'Hide'],
  ['mirror', 'Flip left to right', 'Flip top to bottom'],
  ['flip', 'Flip left to right'],
  ['upside down', 'Flip top to bottom'],
  ['align', 'Line up'],
  ['centre', 'Line up'],
  ['space evenly', 'Line up'],
  ['font', 'Face', 'Text'],
  ['font size', 'Letter size'],
  ['bold', 'Face'],
  ['line spacing', 'Line spacing'],
  ['letter spacing', 'Letter spacing'],
  ['kerning', 'Letter spacing'],
  ['justify', 'Text alignment'],
  ['text', 'Text'],
  ['write', 'Text'],
  ['picture', 'Picture'],
  ['photo', 'Picture'],
  ['insert image', 'Picture'],
  ['logo', 'Picture with a transparent ground', 'Picture'],
  ['circle', 'Shape'],
  ['rectangle', 'Shape'],
  ['star', 'Shape'],
  ['line', 'Pen', 'Outline'],
  ['gradient', 'Gradient'],
  ['fade', 'Gradient', 'Opacity'],
  ['colour', 'Fill', 'Recipe line'],
  ['color', 'Fill', 'Recipe line'],
  ['eyedropper', 'Sample'],
  ['pick a colour', 'Sample'],
  ['cmyk', 'Recipe line'],
  ['border', 'Outline', 'Outline weight'],
  ['round corners', 'Corner radius', 'Corners'],
  ['page size', 'Format'],
  ['landscape', 'Format'],
  ['margins', 'Format'],
  ['bleed', 'Format'],
  ['add page', 'Add a page', 'Pages'],
  ['new page', 'Add a page'],
  ['zoom', 'Whole page'],
  ['fit', 'Whole page'],
  ['print', 'PDF'],
  ['pdf', 'PDF'],
  ['export', 'PDF', 'Picture (PNG)', 'SVG drawing'],
  ['png', 'Picture (PNG)'],
  ['jpeg', 'Picture (PNG)'],
  ['svg', 'SVG drawing', 'Picture'],
  ['save', 'The design as a file'],
  ['download', 'The design as a file'],
  ['shadow', 'Give a shadow'],
  ['curved text', 'Words on a line, or bent'],
  ['mail merge', 'Fill in names'],
  ['template', 'Keep as a starter'],
  ['calendar', 'Put a ready-made on the page'],
  ['page numbers', 'Number the pages'],
  ['header', 'Make a master of this page'],
  ['background', 'Ground'],
  ['labels on a sheet', 'Many on a sheet'],
  ['preflight', 'Checks'],
  ['errors', 'Checks'],
  ['separations', 'Plates view', 'Inks'],
  ['preview', 'Clean view'],
  ['shortcuts', 'Keys'],
  ['help', 'Keys'],
  ['guides', 'Guides'],
  ['grid', 'Grid on or off'],
  ['layer', 'Add a layer'],
  ['pattern', 'Step and repeat', 'Repeat in a row'],
  ['copies in a circle', 'Repeat in a ring'],
  ['join shapes', 'Unite', 'Union', 'Group'],
  ['merge shapes', 'Unite', 'Union'],
  ['overprint', 'Overprint on or off'],
  ['aspect ratio', 'Keep proportions'],
  ['how do i rotate this', 'Turn to an angle', 'Turn a quarter right'],
  ['make it bigger', 'Width', 'Height'],
  ['rotat', 'Turn to an angle', 'Turn a quarter right'],
  ['dupicate', 'Duplicate'],
  ['grup', 'Group'],
  ['multipl', 'Blend'],
  ['spot colour', 'Spot library', 'Inks'],
];

test(`${QUESTIONS.length} everyday questions: what is meant comes first`, () => {
  expect(QUESTIONS.length).toBeGreaterThanOrEqual(80);
  const rows = finderRows();
  const wrong = QUESTIONS.flatMap(([question, ...meant]) => {
    const got = found(question, rows);
    return meant.includes(got[0]?.title ?? '')
      ? []
      : [
          `${question}: ${
            got
              .slice(0, 4)
              .map((r) => `${r.title} (${score(question, r).toFixed(2)})`)
              .join(', ') || 'nothing'
          }; wanted ${meant.join(' or ')}`,
        ];
  });
  expect(wrong).toEqual([]);
});

test('letters scattered over a row are nothing; nonsense finds nothing', () => {
  for (const nonsense of ['xqzt', 'gtp', 'bcd', 'qqq', 'lmnop', 'asdf', 'zzzz'])
    expect(found(nonsense, finderRows()).map((r) => r.title)).toEqual([]);
});

test('each row is found by its own title, and every command is there', () => {
  const rows = finderRows();
  for (const row of rows)
    expect(
      found(row.title, rows)
        .slice(0, 3)
        .map((r) => r.title),
    ).toContain(row.title);
  expect(new Set(rows.map((r) => r.id)).size).toBe(rows.length);
  expect(found('', rows)).toHaveLength(rows.length);
});
