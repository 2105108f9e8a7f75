import {
  PDFArray,
  PDFDict,
  PDFDocument,
  PDFHexString,
  PDFName,
  PDFNumber,
  PDFRawStream,
  PDFString,
  decodePDFRawStream,
  type PDFObject,
} from '@cantoo/pdf-lib';

/**
 * Rules of PDF/X-4, from memory of ISO 15930-7:2010 and PDF 1.6 (not checked against the text). Answers what is broken,
 * a line each; an empty list is a pass.
 */
export async function checkX4(bytes: Uint8Array): Promise<string[]> {
  const faults: string[] = [];
  const bad = (rule: string, what: string) => faults.push(`${rule}: ${what}`);
  const head = Buffer.from(bytes.subarray(0, 32)).toString('latin1');
  if (!/^%PDF-1\.[0-7][\r\n]+%[\x80-\xff]{4}/.test(head)) bad('file', 'no version and binary comment at its start');
  if (!/%%EOF\s*$/.test(Buffer.from(bytes.subarray(-32)).toString('latin1'))) bad('file', 'something follows its end');
  let doc: PDFDocument;
  try {
    doc = await PDFDocument.load(bytes, { updateMetadata: false });
  } catch (e) {
    return [...faults, `file: cannot be read (${(e as Error).message})`];
  }
  const context = doc.context;
  const look = (o: PDFObject | undefined): PDFObject | undefined => (o === undefined ? undefined : context.lookup(o));
  const get = (o: PDFObject | undefined, key: string): PDFObject | undefined => {
    const d = look(o);
    const dict = d instanceof PDFRawStream ? d.dict : d;
    return dict instanceof PDFDict ? look(dict.get(PDFName.of(key))) : undefined;
  };
  const nameOf = (o: PDFObject | undefined) => (o instanceof PDFName ? o.decodeText() : undefined);
  const text = (o: PDFObject | undefined) =>
    o instanceof PDFString || o instanceof PDFHexString ? o.decodeText() : undefined;
  const list = (o: PDFObject | undefined): PDFObject[] =>
    o instanceof PDFArray ? o.asArray().map((x) => look(x)!) : [];
  const numbers = (o: PDFObject | undefined) => list(o).map((n) => (n instanceof PDFNumber ? n.asNumber() : NaN));
  const data = (o: PDFObject | undefined) =>
    o instanceof PDFRawStream ? decodePDFRawStream(o).decode() : new Uint8Array();

  const { Root, Info, Encrypt, ID } = context.trailerInfo;
  if (Encrypt) bad('file', 'is encrypted');
  if (!ID) bad('file', 'has no ID');
  const root = look(Root as PDFObject);
  const info = look(Info as PDFObject);

  const xmp =
    Buffer.from(data(get(root, 'Metadata'))).toString('utf8') ||
    (get(root, 'Metadata') instanceof PDFRawStream
      ? Buffer.from((get(root, 'Metadata') as PDFRawStream).contents).toString('utf8')
      : '');
  if (!xmp.includes('<pdfxid:GTS_PDFXVersion>PDF/X-4</pdfxid:GTS_PDFXVersion>')) bad('xmp', 'does not say PDF/X-4');
  for (const field of [
    'xmp:CreateDate',
    'xmp:ModifyDate',
    'xmp:MetadataDate',
    'xmpMM:DocumentID',
    'xmpMM:VersionID',
    'xmpMM:RenditionClass',
    'dc:title',
  ])
    if (!xmp.includes(`<${field}>`)) bad('xmp', `no ${field}`);
  if (get(get(root, 'Metadata'), 'Filter')) bad('xmp', 'is compressed');
  const trapped = nameOf(get(info, 'Trapped'));
  if (trapped !== 'True' && trapped !== 'False') bad('info', `Trapped is ${trapped}`);
  if (trapped && !xmp.includes(`<pdf:Trapped>${trapped}</pdf:Trapped>`)) bad('info', 'Trapped differs from the XMP');
  if (!text(get(info, 'Title'))) bad('info', 'no Title');

  const intents = list(get(root, 'OutputIntents')).filter((i) => nameOf(get(i, 'S')) === 'GTS_PDFX');
  if (intents.length !== 1) bad('intent', `${intents.length} of them`);
  for (const i of intents) {
    if (!text(get(i, 'OutputConditionIdentifier'))) bad('intent', 'no OutputConditionIdentifier');
    const profile = data(get(i, 'DestOutputProfile'));
    if (profile.length < 128) bad('intent', 'no profile');
    else {
      const tag = (at: number) => Buffer.from(profile.subarray(at, at + 4)).toString('latin1');
      if (tag(12) !== 'prtr') bad('intent', `profile of class ${tag(12)}`);
      if (tag(16) !== 'CMYK') bad('intent', `profile for ${tag(16)}`);
      if (Buffer.from(profile).readUInt32BE(0) !== profile.length) bad('intent', 'profile is not whole');
    }
  }

  const separations = new Map<string, string>();
  const space = (o: PDFObject | undefined, where: string): void => {
    const n = nameOf(o);
    if (n === 'DeviceRGB') bad('colour', `DeviceRGB in ${where}`);
    if (n || !(o instanceof PDFArray)) return;
    const [kind, second, third, fourth, fifth] = list(o);
    if (nameOf(kind) === 'Separation') {
      const ink = nameOf(second)!;
      const made = `${third} ${fourth}`;
      if (separations.has(ink) && separations.get(ink) !== made) bad('colour', `two kinds of ${ink}`);
      separations.set(ink, made);
      space(third, where);
    }
    if (nameOf(kind) === 'DeviceN')
      for (const ink of list(second).map(nameOf))
        if (!['Cyan', 'Magenta', 'Yellow', 'Black', 'None'].includes(ink!) && !get(get(fifth, 'Colorants'), ink!))
          bad('colour', `${ink} is not among the Colorants`);
  };
  const each = (o: PDFObject | undefined, visit: (key: string, v: PDFObject) => void) => {
    if (o instanceof PDFDict) for (const [k, v] of o.entries()) visit(k.decodeText(), look(v)!);
  };
  const font = (f: PDFObject) => {
    const child = nameOf(get(f, 'Subtype')) === 'Type0' ? list(get(f, 'DescendantFonts'))[0] : f;
    const descriptor = get(child, 'FontDescriptor');
    if (!['FontFile', 'FontFile2', 'FontFile3'].some((k) => get(descriptor, k)))
      bad('font', `${nameOf(get(f, 'BaseFont'))} is not embedded`);
  };
  const stream = (bytesOf: Uint8Array, where: string) => {
    const source = Buffer.from(bytesOf).toString('latin1');
    let depth = 0;
    for (const op of source.match(/(?<=^|[\s\]])(q|Q|rg|RG)(?=\s|$)/g) ?? []) {
      if (op === 'q' && ++depth > 28) bad('content', `q too deep in ${where}`);
      if (op === 'Q' && --depth < 0) bad('content', `Q without q in ${where}`);
      if (op === 'rg' || op === 'RG') bad('colour', `${op} in ${where}`);
    }
    if (depth !== 0) bad('content', `q without Q in ${where}`);
  };

  doc.getPages().forEach((page, index) => {
    const node: PDFObject = page.node;
    const where = `page ${index + 1}`;
    const [media, trim, bleed, art] = ['MediaBox', 'TrimBox', 'BleedBox', 'ArtBox'].map((k) => numbers(get(node, k)));
    if (media.length !== 4) bad('box', `no MediaBox on ${where}`);
    if ((trim.length === 4) === (art.length === 4)) bad('box', `not exactly one of TrimBox and ArtBox on ${where}`);
    const inside = (a: number[], b: number[]) =>
      a[0] >= b[0] - 0.01 && a[1] >= b[1] - 0.01 && a[2] <= b[2] + 0.01 && a[3] <= b[3] + 0.01;
    if (trim.length === 4 && bleed.length === 4 && !(inside(trim, bleed) && inside(bleed, media)))
      bad('box', `boxes are not one in the other on ${where}`);
    if (get(node, 'UserUnit')) bad('box', `UserUnit on ${where}`);
    if (get(node, 'AA') || list(get(node, 'Annots')).length) bad('action', `actions or notes on ${where}`);
    space(get(get(node, 'Group'), 'CS'), where);
    const resources = get(node, 'Resources');
    each(get(resources, 'ColorSpace'), (k, v) => space(v, `${where} ${k}`));
    each(get(resources, 'Font'), (_, v) => font(v));
    each(get(resources, 'Pattern'), (k, v) => space(get(get(v, 'Shading'), 'ColorSpace'), `${where} ${k}`));
    each(
      get(resources, 'XObject'),
      (k, v) => nameOf(get(v, 'Subtype')) === 'Image' && space(get(v, 'ColorSpace'), `${where} ${k}`),
    );
    each(get(resources, 'ExtGState'), (k, v) => {
      for (const entry of ['TR', 'HTP']) if (get(v, entry)) bad('state', `${entry} in ${k}`);
    });
    stream(data(get(node, 'Contents')), where);
  });
  if (get(root, 'AcroForm')) bad('action', 'a form');
  if (get(get(root, 'Names'), 'JavaScript')) bad('action', 'a script');
  return [...new Set(faults)];
}
