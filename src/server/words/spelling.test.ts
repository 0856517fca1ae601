import { describe, expect, it } from 'vitest';
import { checkSpelling } from './spelling.ts';

const wordsOf = async (text: string, language: string, own: readonly string[] = []): Promise<readonly string[]> => (await checkSpelling([text], language, own)).mistakes.map(({ word }) => word);

describe('checkSpelling', () => {
  it('names what no dictionary knows, with what it may mean', async () => {
    expect((await checkSpelling(['Come wiht us.'], 'en', [])).mistakes).toMatchObject([{ word: 'wiht', proposals: expect.arrayContaining(['with']) as string[] }]);
    expect(await wordsOf('Wir baken Brot.', 'de')).toEqual(['baken']);
  });

  it('leaves opening hours alone in each language', async () => {
    expect(await wordsOf('Di–Sa, 7–13 Uhr. Mo zu. Sept. bis Dez.', 'de')).toEqual([]);
    expect(await wordsOf('Ouvert lun–sam, fermé dim et en févr.', 'fr')).toEqual([]);
    expect(await wordsOf('Open Tue–Sat, from Oct to Feb.', 'en')).toEqual([]);
  });

  it('knows nouns run together, words of the brand, and what is no word at all', async () => {
    expect(await wordsOf('Unser Roggenbrotteig ruht.', 'de')).toEqual([]);
    expect(await wordsOf('Try our wummel at https://wummel.example #wummell @wumm', 'en', ['Wummel'])).toEqual([]);
  });

  it('says that it has no dictionary', async () => {
    expect(await checkSpelling(['凧'], 'ja', [])).toEqual({ mistakes: [], language: null });
  });
});
