import { describe, expect, it } from 'vitest';
import { alongRefusal, networks, refusalOf } from './rules.ts';

const petalry = networks.find((rules) => rules.key === 'petalry');
const quipline = networks.find((rules) => rules.key === 'quipline');
const tackboard = networks.find((rules) => rules.key === 'tackboard');
const post = { placement: 'feed-square', text: 'Hello', altText: '', title: '', link: '' };
const picture = (widthPx: number, heightPx: number) => [{ mime: 'image/png', widthPx, heightPx, pages: 1, seconds: 0 }];
const square = picture(1080, 1080);

describe('refusalOf', () => {
  it('takes a post that keeps the rules', () => {
    expect(petalry && refusalOf(petalry, post, square)).toBeNull();
  });

  it.each([
    ['a wrong shape', post, picture(1080, 1350), /1080 × 1350/],
    ['too small a picture', post, picture(500, 500), /500 pixels wide/],
    ['too long a text', { ...post, text: 'x'.repeat(2_201) }, square, /2201 characters/],
    ['too many hashtags', { ...post, text: '#a1 '.repeat(31) }, square, /31 hashtags/],
    ['an unknown place', { ...post, placement: 'billboard' }, square, /billboard/],
  ])('refuses %s with a reason', (_, given, media, reason) => {
    expect(petalry && refusalOf(petalry, given, media)).toMatch(reason);
  });

  it('asks for the fields it cannot do without', () => {
    const card = { ...post, placement: 'card', title: 'A kite', link: 'https://kites.example' };
    const tall = picture(1000, 1500);
    const [details, offers] = [{ board: 'Shop' }, { board: ['Shop'] }];
    expect(tackboard && refusalOf(tackboard, card, tall, details, offers)).toBeNull();
    expect(tackboard && refusalOf(tackboard, card, tall)).toMatch(/needs a board/);
    expect(tackboard && refusalOf(tackboard, card, tall, { board: 'Cakes' }, offers)).toMatch(/no board 'Cakes'/);
    expect(tackboard && refusalOf(tackboard, { ...card, title: '' }, tall, details, offers)).toMatch(/needs a title/);
    expect(tackboard && refusalOf(tackboard, { ...card, link: 'kites' }, tall, details, offers)).toMatch(/no web address/);
  });

  it('counts as its network counts', () => {
    expect(quipline?.countText('🪁 https://a.example/long/path')).toBe(2 + 1 + 23);
  });

  it('takes as many pictures as a place shows, and all in its shape', () => {
    const many = (count: number) => Array.from({ length: count }, () => square).flat();
    expect(petalry && refusalOf(petalry, post, many(10))).toBeNull();
    expect(petalry && refusalOf(petalry, post, many(11))).toMatch(/11 pictures; the most is 10/);
    expect(petalry && refusalOf(petalry, { ...post, placement: 'story' }, [...picture(1080, 1920), ...picture(1080, 1920)])).toMatch(/the most is 1/);
    expect(petalry && refusalOf(petalry, post, [...square, ...picture(1080, 1350)])).toMatch(/1080 × 1350/);
  });

  it('takes a document by its pages and its title where one goes, and nowhere else', () => {
    const guildrow = networks.find((rules) => rules.key === 'guildrow');
    const pdf = (pages: number) => [{ mime: 'application/pdf', widthPx: 1080, heightPx: 1350, pages, seconds: 0 }];
    const document = { ...post, placement: 'document', title: 'Five winds' };
    expect(guildrow && refusalOf(guildrow, document, pdf(6))).toBeNull();
    expect(guildrow && refusalOf(guildrow, document, pdf(1))).toMatch(/1 pages; this place takes 2 to 300/);
    expect(guildrow && refusalOf(guildrow, { ...document, title: '' }, pdf(6))).toMatch(/needs a title/);
    expect(guildrow && refusalOf(guildrow, document, picture(1080, 1350))).toMatch(/one document/);
    expect(petalry && refusalOf(petalry, post, pdf(6))).toMatch(/no documents/);
  });
});

describe('what goes along with a video', () => {
  const rulesOf = (key: string) => networks.find((rules) => rules.key === key) as (typeof networks)[number];
  const video = { mime: 'video/mp4', widthPx: 1080, heightPx: 1920, pages: 1, seconds: 10 };
  const cover = { mime: 'image/jpeg', widthPx: 1080, heightPx: 1920, pages: 1, seconds: 0 };
  const none = { cover: null, coverAtMs: null, subtitles: null };
  const vtt = { ...cover, mime: 'text/vtt' };

  it.each([
    ['petalry', 'vertical', { ...none, cover }, null],
    ['whirlo', 'clip', { ...none, coverAtMs: 2_000 }, null],
    ['longhall', 'film', { ...none, cover, subtitles: vtt }, null],
    ['whirlo', 'clip', { ...none, cover }, /a moment of the video/],
    ['petalry', 'story', { ...none, cover }, /takes no cover/],
    ['petalry', 'story', { ...none, coverAtMs: 0 }, /takes no cover/],
    ['whirlo', 'clip', { ...none, coverAtMs: 10_500 }, /outside the video/],
    ['petalry', 'vertical', { ...none, cover: vtt }, /a picture/],
    ['petalry', 'vertical', { ...none, subtitles: vtt }, /no subtitle files/],
    ['longhall', 'film', { ...none, subtitles: cover }, /WebVTT/],
  ] as const)('%s %s', (network, placement, along, reason) => {
    const refused = alongRefusal(rulesOf(network), placement, video, along);
    if (reason === null) expect(refused).toBeNull();
    else expect(refused).toMatch(reason);
  });
});
