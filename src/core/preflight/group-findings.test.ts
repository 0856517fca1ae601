import { describe, expect, it } from 'vitest';
import type { Finding } from './finding.ts';
import { groupFindings } from './group-findings.ts';

const cut = (network: string, placement: string) => ({ channelName: `${network} @gullwickkites`, sheet: { name: network }, placement: { name: placement } }) as unknown as Parameters<typeof groupFindings>[1][number];
const cuts = [cut('Petalry', 'Story'), cut('Petalry', 'Square'), cut('Quipline', 'Wide')];
const finding = (sentence: string, more: Partial<Finding> = {}): Finding => ({ severity: 'warns', sentence, cut: null, view: 'look', fix: null, ...more });
const said = (findings: readonly Finding[]): readonly string[] => groupFindings(findings, cuts).map(({ lead, others }) => `${lead.sentence} +${others.length}`);

describe('groups of findings', () => {
  it('is the same of several places, whatever the numbers', () => {
    expect(said([finding('Photo is enlarged 1.8 times in Petalry Story.'), finding('Photo is enlarged 2 times in Quipline Wide.'), finding('Line is enlarged 2 times in Quipline Wide.')])).toEqual(['Photo is enlarged 1.8 times in Petalry Story. +1', 'Line is enlarged 2 times in Quipline Wide. +0']);
    expect(said([finding('Petalry @gullwickkites has no alt text.'), finding('Quipline @gullwickkites has no alt text.')])).toEqual(['Petalry @gullwickkites has no alt text. +1']);
    expect(said([finding('Headline is too long for Petalry Story by 1 character.'), finding('Headline is too long for Petalry Square by 12 characters.')])).toHaveLength(1);
  });

  it('keeps apart what stops, what is mended elsewhere, and what is mended in another way', () => {
    const fix = { label: 'Leave it out here', change: { kind: 'hide-part' as const, cut: 'a.b', slot: 'line' } };
    expect(said([finding('No text.'), finding('No text.', { severity: 'stops' }), finding('No text.', { view: 'words' }), finding('No text.', { fix })])).toHaveLength(4);
  });

  it('begins with what stops, and keeps the order otherwise', () => {
    expect(said([finding('B'), finding('A'), finding('Z', { severity: 'stops' }), finding('Y', { severity: 'stops' })])).toEqual(['Z +0', 'Y +0', 'B +0', 'A +0']);
  });
});
