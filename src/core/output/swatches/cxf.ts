import { levelText, percentText, plainDecimal } from '../../colour/exchange';
import { escapeXml } from '../xml';
import type { WrittenSwatch } from './cgats';

/**
 * CxF3 (ISO 17972; structure from memory of the schema): one object a swatch with its Lab (D50, 2°), its recipe and its
 * screen colour. What a swatch is kept as stands in tags of our own.
 */
export function writeCxf(swatches: readonly WrittenSwatch[], title: string, created: string): string {
  const element = (name: string, value: string) => `<cc:${name}>${value}</cc:${name}>`;
  const objects = swatches.map((s, i) => {
    const c = s.colour;
    const tags: Record<string, string> = {
      kind: 'spot' in c ? 'spot' : 'cmyk' in c ? 'cmyk' : 'rgb' in c ? 'rgb' : 'lab' in c ? 'lab' : 'grey',
    };
    if (s.group) tags.group = s.group;
    if ('gray' in c) tags.grey = String(c.gray);
    if ('spot' in c) {
      tags.inkName = c.spot.name;
      tags.ink = [...c.spot.lab, ...c.spot.alternate].map(String).join(' ');
      tags.tint = String(c.tint);
    }
    return `<cc:Object ObjectType="Standard" Name="${escapeXml(s.name)}" Id="c${i + 1}">
<cc:CreationDate>${created}</cc:CreationDate>
<cc:ColorValues>
<cc:ColorCIELab ColorSpecification="d50">${['L', 'A', 'B'].map((n, j) => element(n, plainDecimal(s.lab[j]))).join('')}</cc:ColorCIELab>
<cc:ColorCMYK ColorSpecification="inks">${['Cyan', 'Magenta', 'Yellow', 'Black'].map((n, j) => element(n, percentText(s.cmyk[j]))).join('')}</cc:ColorCMYK>
<cc:ColorSRGB ColorSpecification="screen">${['R', 'G', 'B'].map((n, j) => element(n, levelText(s.rgb[j]))).join('')}</cc:ColorSRGB>
</cc:ColorValues>
<cc:TagCollection Name="Holvet">${Object.entries(tags)
      .map(([k, v]) => `<cc:Tag Name="holvet:${k}" Value="${escapeXml(v)}"/>`)
      .join('')}</cc:TagCollection>
</cc:Object>`;
  });
  return `<?xml version="1.0" encoding="UTF-8"?>
<cc:CxF xmlns:cc="http://colorexchangeformat.com/CxF3-core">
<cc:FileInformation>
<cc:Creator>Holvet</cc:Creator>
<cc:CreationDate>${created}</cc:CreationDate>
<cc:Description>${escapeXml(title)}</cc:Description>
</cc:FileInformation>
<cc:Resources>
<cc:ObjectCollection>
${objects.join('\n')}
</cc:ObjectCollection>
<cc:ColorSpecificationCollection>
<cc:ColorSpecification Id="d50"><cc:TristimulusSpec><cc:Illuminant>D50</cc:Illuminant><cc:Observer>2_Degree</cc:Observer></cc:TristimulusSpec></cc:ColorSpecification>
<cc:ColorSpecification Id="inks"/>
<cc:ColorSpecification Id="screen"/>
</cc:ColorSpecificationCollection>
</cc:Resources>
</cc:CxF>
`;
}
