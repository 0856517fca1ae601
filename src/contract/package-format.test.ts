import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { recordKinds, recordSchemas } from './package-format.ts';
import { packageJsonSchema } from './package-json-schema.ts';

describe('the format of packages', () => {
  it('is the one that docs/exchange.schema.json describes', () => {
    expect(JSON.parse(readFileSync('docs/exchange.schema.json', 'utf8'))).toEqual(JSON.parse(JSON.stringify(packageJsonSchema())));
  });

  it('names every kind of record in docs/exchange.md', () => {
    const text = readFileSync('docs/exchange.md', 'utf8');
    for (const kind of recordKinds) expect(text, kind).toContain(`\`${kind}\``);
  });

  it.each([
    ['another folder', { file: 'media/../../etc/passwd' }],
    ['an address', { file: 'https://elsewhere.example/a.jpg' }],
    ['a hash that is none', { sourceHash: 'abc' }],
    ['a focal point outside', { focal: { x: 2, y: 0 } }],
    ['an address that is a program', { sourceAddress: 'javascript:alert(1)' }],
    ['a field that is none', { secret: 'x' }],
  ])('takes no item of the media with %s', (_, change) => {
    const item = { id: 'm1', file: 'media/kite-m1.jpg', kind: 'picture', name: 'kite.jpg', altText: '', tags: [], credit: '', licence: '', licenceUntil: null, takenDay: null, sourceAddress: null, sourceHash: 'a'.repeat(64), focal: null, subject: null, isArchived: false, createdMs: 1 };
    expect(() => recordSchemas.media.validateSync(item, { strict: true })).not.toThrow();
    expect(() => recordSchemas.media.validateSync({ ...item, ...change }, { strict: true })).toThrow();
  });

  it.each([
    [['reach', 1, 2, 1], true],
    [['reach', 1, 2], false],
    [['reach', 1.5, 2, 1], false],
    [['reach', 1, -2, 1], false],
    [[7, 1, 2, 1], false],
  ])('a measurement %j is one: %s', (measurement, isOne) => {
    const publication = { id: 'p', channelId: 'c', pieceId: null, deliveryId: null, remoteId: 'r', address: '', publishedMs: 1, title: '', format: null, themeId: null, campaignId: null, templateKey: null, traits: { slides: 1, showsPeople: null }, aged: { 24: { engagement: 3, reach: null } }, figures: { impressions: null, reach: 4, reactions: null, comments: null, shares: null, saves: null, clicks: null, plays: null }, measurements: [measurement] };
    expect(recordSchemas.publications.isValidSync(publication, { strict: true })).toBe(isOne);
  });
});
