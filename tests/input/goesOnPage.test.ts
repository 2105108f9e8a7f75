import { readFileSync } from 'node:fs';
import { goesOnPage } from '@/core/input/goesOnPage';

const text = (s: string) => new TextEncoder().encode(s);

test('drawings and pictures go on a page, whatever they are called; designs and letters do not', () => {
  const thumbnail = new Uint8Array(readFileSync('public/thumbnails/guild-mark.png'));
  expect(goesOnPage('boat.svg', text('<svg/>'))).toBe(true);
  expect(goesOnPage('boat.holvet', text('<?xml version="1.0"?><!DOCTYPE svg><svg xmlns="…"/>'))).toBe(true);
  expect(goesOnPage('boat.holvet', thumbnail)).toBe(true);
  expect(goesOnPage('mask-words.holvet', new Uint8Array(readFileSync('tests/data/mask-words.holvet')))).toBe(false);
  expect(goesOnPage('letter.txt', text('Dear guild, the boats are in.'))).toBe(false);
  expect(goesOnPage('nothing', new Uint8Array())).toBe(false);
});
