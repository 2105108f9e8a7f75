import type { Making } from '@/core/model/defaults';
import type { Ask, Design, DesignNode } from '@/core/model/schema';
import { workshopCertificate } from './certificate';
import { labelSheet } from './labelSheet';
import { guildLetterhead } from './letterhead';
import { lanternWalkPoster } from './poster';
import { walkProgramme } from './programme';
import { quaySign } from './sign';
import { stallCard } from './stallCard';
import { lanternStickers } from './stickers';
import { supperTicket } from './ticket';

/** A starter that ships: a design, and what of it is asked for. */
interface Starter {
  readonly file: string;
  /** What it is for. */
  readonly purpose: string;
  readonly make: (m: Making) => Design;
  /** Texts by the names of their objects, pictures and swatches by theirs; each with what it is called in the form. */
  readonly words: Readonly<Record<string, string>>;
  readonly pictures?: Readonly<Record<string, string>>;
  readonly colours: Readonly<Record<string, string>>;
}

const NIGHT = { 'Quay Night': 'Dark', 'Paper Glow': 'Light' };

export const STARTERS: readonly Starter[] = [
  {
    file: 'lantern-walk-poster',
    purpose: 'Poster',
    make: lanternWalkPoster,
    words: { Headline: 'Headline', 'Date line': 'Day and place' },
    pictures: { 'Harbour water': 'Picture in the water' },
    colours: { ...NIGHT, 'Ember 66-43': 'Glow' },
  },
  {
    file: 'workshop-certificate',
    purpose: 'Certificate',
    make: workshopCertificate,
    words: {
      Title: 'Title',
      'Over the name': 'Before the name',
      Name: 'Name',
      Citation: 'What for',
      'For the day': 'Under the first line',
      'For the hand': 'Under the second line',
    },
    colours: { 'Low Tide': 'Edge', 'Ember 66-43': 'Seal' },
  },
  {
    file: 'stall-card',
    purpose: 'Card',
    make: stallCard,
    words: { Headline: 'Headline', Guild: 'Who', Where: 'Where', When: 'When and how' },
    colours: { ...NIGHT, 'Ember 66-43': 'Flame' },
  },
  {
    file: 'guild-letterhead',
    purpose: 'Letterhead',
    make: guildLetterhead,
    words: { 'Guild name': 'Name', Address: 'Address', 'Foot words': 'Line at the foot' },
    colours: { 'Kelp 38-167': 'Main colour', 'Ember 66-43': 'Second colour' },
  },
  {
    file: 'walk-programme',
    purpose: 'Programme',
    make: walkProgramme,
    words: { Headline: 'Headline', Day: 'Day and place', Guild: 'On the back' },
    pictures: { 'Harbour water': 'Picture over two pages', 'Lantern glow': 'Second picture' },
    colours: { ...NIGHT, 'Low Tide': 'Main colour', Wick: 'Warm colour' },
  },
  {
    file: 'lantern-stickers',
    purpose: 'Sticker',
    make: lanternStickers,
    words: { Guild: 'Round the head', Year: 'Round the foot' },
    colours: { ...NIGHT, Wick: 'Rays' },
  },
  {
    file: 'supper-ticket',
    purpose: 'Ticket',
    make: supperTicket,
    words: { Title: 'Title', When: 'When and what', Price: 'Price', 'Stub words': 'On the stub', Number: 'Number' },
    colours: { 'Low Tide': 'Main colour', Wick: 'Stub' },
  },
  {
    file: 'quay-sign',
    purpose: 'Sign',
    make: quaySign,
    words: { Where: 'Where to', 'How far': 'How far', Of: 'Whose sign' },
    colours: { ...NIGHT, Wick: 'Arrow' },
  },
  {
    file: 'lantern-labels',
    purpose: 'Label sheet',
    make: labelSheet,
    words: { Heading: 'First line', Name: 'Name', Where: 'Last line' },
    colours: { 'Low Tide': 'Lantern', 'Paper Glow': 'Paper' },
  },
];

/** The design of a starter, with its questions. */
export function starterDesign(s: Starter, make: Making): Design {
  const design = s.make(make);
  const named = (name: string): DesignNode | undefined => Object.values(design.nodes).find((n) => n.name === name);
  const asks: Ask[] = [];
  for (const [name, label] of Object.entries(s.words)) {
    const node = named(name);
    if (node && 'story' in node) asks.push({ kind: 'words', of: node.story, label });
  }
  for (const [name, label] of Object.entries(s.pictures ?? {})) {
    const picture = design.pictures?.find((p) => p.name === name);
    if (picture) asks.push({ kind: 'picture', of: picture.id, label });
  }
  for (const [name, label] of Object.entries(s.colours)) {
    const swatch = design.swatches.find((x) => x.name === name);
    if (swatch) asks.push({ kind: 'colour', of: swatch.id, label });
  }
  return { ...design, ...(asks.length && { asks }) };
}
