import { describe, expect, it } from 'vitest';
import { mapColumns, signatureOf } from './map-columns.ts';
import { matchRows } from './match-rows.ts';
import { orderOf, readDay, readTime } from './read-day.ts';
import { ambiguousDates, cellsOf, readRow, type RowRules, type TableNames } from './read-row.ts';
import { decodeTable, tableFromText } from './read-table.ts';

const today = '2026-11-28';
const read = (text: string): { header: readonly string[]; rows: readonly (readonly string[])[] } => {
  const result = tableFromText(text);
  if (result.kind === 'none') throw new Error(result.sentence);
  return result.table;
};

describe('a table', () => {
  it.each([
    ['semicolons', 'Datum;Text\r\n1.12.2026;"Hallo; ihr"\r\n'],
    ['commas', 'Datum,Text\n1.12.2026,"Hallo; ihr"'],
    ['tabs, as a spreadsheet copies', 'Datum\tText\n1.12.2026\tHallo; ihr'],
    ['a line that names the mark', 'sep=;\r\nDatum;Text\r\n1.12.2026;"Hallo; ihr"'],
  ])('is read with %s', (_, text) => {
    expect(read(text)).toEqual({ header: ['Datum', 'Text'], rows: [['1.12.2026', 'Hallo; ihr']] });
  });

  it('keeps quotes in quotes and line breaks in cells', () => {
    expect(read('A;B\n"Noch warm: ""der Lange""";"zwei\nZeilen"').rows).toEqual([['Noch warm: "der Lange"', 'zwei\nZeilen']]);
  });

  it('is read in the encodings that spreadsheets write', () => {
    const text = 'Überschrift;Süße\nGrüße;é';
    const utf16 = new Uint8Array([0xff, 0xfe, ...[...text].flatMap((letter) => [letter.charCodeAt(0) & 0xff, letter.charCodeAt(0) >> 8])]);
    expect(decodeTable(utf16)).toContain('Grüße');
    expect(decodeTable(new TextEncoder().encode(text))).toContain('Grüße');
    expect(decodeTable(Uint8Array.from([...text].map((letter) => letter.charCodeAt(0))))).toContain('Grüße');
  });

  it.each([
    ['', /no table/],
    ['A;B', /no rows/],
    [`A;B\n${'x;y\n'.repeat(5_001)}`, /5,001 rows; at most 5,000/],
    [`${'c;'.repeat(80)}x\n${'1;'.repeat(80)}1`, /81 columns/],
    ['A;B\n"open;1\nx;2', /never ends/],
  ])('that cannot be used says why', (text, sentence) => {
    const result = tableFromText(text);
    expect(result.kind === 'none' ? result.sentence : '').toMatch(sentence);
  });
});

describe('columns', () => {
  it('are known by their names in several languages', () => {
    expect(mapColumns(read('Datum;Uhrzeit;Kanal;Überschrift;Text;Bild;Link\na;b;c;d;e;f;g'), [])).toEqual({ date: 0, time: 1, channels: 2, headline: 3, caption: 4, picture: 5, link: 6 });
    expect(mapColumns(read('Fecha,Hora,Red,Título,Texto,Imagen\na,b,c,d,e,f'), [])).toEqual({ date: 0, time: 1, channels: 2, headline: 3, caption: 4, picture: 5 });
  });

  it('are known by what stands in them where names say nothing', () => {
    const table = read('One,Two,Three,Four,Five\n2026-12-01,Petalry,Forty lanterns and not one went out on Saturday night,lamp.jpg,Forty lanterns\n2026-12-03,"Petalry, Quipline",The ferry leaves twenty minutes earlier from May on,boat.png,New timetable');
    expect(mapColumns(table, ['Petalry', 'Quipline'])).toEqual({ date: 0, channels: 1, caption: 2, picture: 3, headline: 4 });
  });

  it('make a signature that spelling does not change', () => {
    expect(signatureOf(['First comment', 'Date '])).toBe(signatureOf(['first-comment', 'date']));
  });
});

describe('dates and times', () => {
  it.each([
    ['2026-12-05', '2026-12-05'], ['5.12.2026', '2026-12-05'], ['5.12.26', '2026-12-05'], ['5. Dezember 2026', '2026-12-05'], ['Dec 5, 2026', '2026-12-05'], ['5 décembre 2026', '2026-12-05'],
    ['5 de diciembre de 2026', '2026-12-05'], ['Sat, 5 Dec 2026', '2026-12-05'], ['25/12/2026', '2026-12-25'], ['12/25/2026', '2026-12-25'], ['46361', '2026-12-05'], ['3.2.', '2027-02-03'],
  ])('%s is %s', (text, day) => {
    expect(readDay(text, today, null)).toEqual({ kind: 'day', day });
  });

  it('that exist in two ways are asked about, unless the table decides', () => {
    expect(readDay('3/12/2026', today, null)).toEqual({ kind: 'ambiguous', dayFirst: '2026-12-03', monthFirst: '2026-03-12' });
    expect(readDay('3/12/2026', today, 'month-first')).toEqual({ kind: 'day', day: '2026-03-12' });
    expect([orderOf(['3/12/2026', '25/12/2026']), orderOf(['3/12/2026', '12/25/2026']), orderOf(['3/12/2026'])]).toEqual(['day-first', 'month-first', null]);
    expect(ambiguousDates(read('Date;Text\n3/12/2026;a\n2026-12-09;b'), { date: 0 }, today)).toEqual(['3/12/2026']);
  });

  it('that do not exist are no dates', () => {
    expect([readDay('31.02.2026', today, null).kind, readDay('2026-13-01', today, null).kind, readDay('soon', today, null).kind]).toEqual(['no-such-day', 'no-such-day', 'none']);
  });

  it.each([['07:00', '07:00'], ['7 Uhr', '07:00'], ['7.30', '07:30'], ['6:30 pm', '18:30'], ['12am', '00:00'], ['18h30', '18:30'], ['18 h', '18:00'], ['0715', '07:15'], ['25:10', null], ['13pm', null], ['noonish', null], ['7', null]])('%s is %s', (text, time) => {
    expect(readTime(text)).toBe(time);
  });
});

const names: TableNames = {
  channels: [{ id: 'p', network: 'petalry', networkName: 'Petalry', name: 'Kornblick', handle: '@kornblick' }, { id: 'q', network: 'quipline', networkName: 'Quipline', name: 'Kornblick kurz', handle: '@kornblick.kurz' }],
  templates: [{ key: 'headland', name: 'Headland' }],
  themes: [{ id: 't', name: 'Aus dem Ofen' }],
  media: new Map([['img_2047.jpg', 'm1'], ['img_2047', 'm1']]),
};
const rules: RowRules = { now: `${today}T14:05`, order: null, usualTime: '09:00', usualChannelIds: ['p'] };

describe('a row', () => {
  it('is understood as a whole', () => {
    expect(readRow({ date: '01.12.2026', time: '7 Uhr', channels: 'Petalry, @kornblick.kurz', headline: 'Dinkel', picture: 'IMG_2047.JPG', theme: 'aus dem ofen', template: 'Headland', points: '- eins\n- zwei' }, names, rules)).toMatchObject({ wall: '2026-12-01T07:00', channelIds: ['p', 'q'], templateKey: 'headland', themeId: 't', picture: { kind: 'media', id: 'm1' }, points: ['eins', 'zwei'], faults: [] });
  });

  it.each([
    [{ date: '31.02.2026', headline: 'x' }, 'date', /no such day/],
    [{ date: '2026-12-05', time: '25:10', headline: 'x' }, 'time', /no such time/],
    [{ date: '2026-11-01', headline: 'x' }, 'date', /has passed/],
    [{ date: today, time: '14:05', headline: 'x' }, 'time', /14:05 has passed on that day: it is 14:05/],
    [{ date: today, headline: 'x' }, 'time', /09:00 has passed/],
    [{ headline: 'x', channels: 'Kerbside' }, 'channels', /no channel “Kerbside”/],
    [{ headline: 'x', picture: 'fehlt.jpg' }, 'picture', /No picture is called/],
    [{ headline: 'x', link: 'not an address' }, 'link', /no web address/],
    [{ caption: '#REF!' }, 'caption', /spreadsheet had an error/],
    [{ date: '2026-12-05' }, 'headline', /nothing to say/],
  ])('says what is wrong, in its cell', (cells, field, sentence) => {
    const [fault] = readRow(cells, names, rules).faults.filter(({ severity }) => severity === 'stops');
    expect(fault?.field).toBe(field);
    expect(fault?.sentence).toMatch(sentence);
  });

  it('goes out later on the same day', () => {
    expect(readRow({ date: today, time: '14:06', headline: 'x' }, names, rules)).toMatchObject({ wall: `${today}T14:06`, faults: [] });
  });

  it('offers what would mend it', () => {
    expect(readRow({ headline: 'x', channels: 'petralry, Quipline' }, names, rules).faults[0]?.fix).toEqual({ label: 'Use Petalry', value: 'Petalry, Quipline' });
    expect(readRow({ headline: 'x', link: 'kornblick.example' }, names, rules).faults[0]?.fix).toEqual({ label: 'Use https://kornblick.example', value: 'https://kornblick.example' });
  });

  it('with a formula in it is a text, which nothing runs', () => {
    expect(readRow({ headline: 'x', caption: '=HYPERLINK(1) steht hier' }, names, rules).cells.caption).toBe('=HYPERLINK(1) steht hier');
  });

  it('of the stranger’s table is read, with its three faults', () => {
    const table = read('Datum;Uhrzeit;Kanal;Überschrift;Text;Bild;Link\n01.12.2026;07:00;Petalry;"Dinkel";"Vierzig Stück.";IMG_2047.jpg;https://kornblick.example/dinkel\n31.02.2026;12:00;Petalry;Ein Tag, den es nicht gibt;Text;IMG_2047.jpg;\n2026-12-05;25:10;Petalry;Zu spät;x;;');
    const mapping = mapColumns(table, []);
    expect(table.rows.map((row) => readRow(cellsOf(row, mapping), names, rules).faults.map(({ field }) => field))).toEqual([[], ['date'], ['time']]);
  });
});

describe('a second upload of the same table', () => {
  const before = [{ number: 1, cells: { date: '1.12.', headline: 'Dinkel', caption: 'Vierzig Stück' } }, { number: 2, cells: { date: '3.12.', headline: 'Roggen', caption: 'Dunkel' } }, { number: 3, cells: { date: '4.12.', headline: 'Hefe', caption: 'Locker und leicht und gut' } }];

  it('finds its rows again, moved, edited and with new ones between', () => {
    const now = [{ date: '2.12.', headline: 'Neu' }, { date: '3.12.', headline: 'Roggen', caption: 'Dunkel, feucht' }, { date: '4.12.', headline: 'Hefezopf', caption: 'Locker' }, { date: '1.12.', headline: 'Dinkel', caption: 'Vierzig Stück' }];
    expect(matchRows(now, before).map((row) => row?.number ?? null)).toEqual([null, 2, 3, 1]);
  });

  it('goes by the key where there is one', () => {
    const keyed = before.map((row, index) => ({ ...row, cells: { ...row.cells, key: `k${index}` } }));
    expect(matchRows([{ key: 'k2', headline: 'anything' }, { key: 'k9', headline: 'Dinkel' }], keyed).map((row) => row?.number ?? null)).toEqual([3, 1]);
  });

  it('takes no row twice', () => {
    const matched = matchRows([before[0]?.cells ?? {}, before[0]?.cells ?? {}], before).map((row) => row?.number ?? null);
    expect(matched).toEqual([1, null]);
  });
});
