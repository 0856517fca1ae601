import type { ReadTable } from './read-table.ts';
import { readDay, readTime } from './read-day.ts';
import type { Mapping, TableField } from './table-fields.ts';

/** What columns are called, in the languages that are known; compared without case, marks and spaces. */
const names: Readonly<Record<TableField, string>> = {
  key: 'key id nr no number schlüssel clé clave chave reference ref',
  date: 'date day datum tag jour fecha día dia data publishdate postdate publicationdate',
  time: 'time hour uhrzeit zeit heure hora',
  channels: 'channel channels network networks kanal kanäle netzwerk netzwerke canal canaux canales canais réseau red rede account accounts platform where',
  template: 'template vorlage layout modèle plantilla modelo',
  theme: 'theme topic category thema rubrik kategorie thème sujet tema categoría rubrique',
  headline: 'headline title heading überschrift titel titre título titulo title text1 onpicture',
  line: 'line subline subtitle subheading unterzeile untertitel soustitre subtítulo text2',
  points: 'points list items bullets punkte liste puntos lista pontos',
  caption: 'caption text post copy message body beschreibung bildunterschrift beitrag légende texte texto leyenda legenda mensaje',
  hashtags: 'hashtags tags hashtag',
  firstComment: 'firstcomment comment ersterkommentar kommentar premiercommentaire primercomentario',
  altText: 'alttext alt alternativtext bildbeschreibung textealternatif textoalternativo description',
  link: 'link url address website lien enlace ligação adresse seite',
  picture: 'picture image photo file media bild foto datei image imagen imagem fichier archivo',
};

const plain = (text: string): string => text.toLowerCase().replaceAll(/[^\p{L}\p{N}]+/gu, '');
const byName: ReadonlyMap<string, TableField> = new Map((Object.entries(names) as [TableField, string][]).toReversed().flatMap(([field, words]) => words.split(' ').map((word): [string, TableField] => [plain(word), field])));

const SAMPLE = 40;
const MOST = 0.6;

/** Which column holds which field: by its name first, then by what stands in it. */
export function mapColumns({ header, rows }: ReadTable, channelNames: readonly string[]): Mapping {
  const mapping: Partial<Record<TableField, number>> = {};
  const free = new Set(header.keys());
  const take = (field: TableField, column: number): void => {
    if (mapping[field] !== undefined || !free.has(column)) return;
    mapping[field] = column;
    free.delete(column);
  };
  header.forEach((name, column) => {
    const field = byName.get(plain(name));
    if (field) take(field, column);
  });
  header.forEach((name, column) => {
    const field = [...byName].find(([word]) => word.length > 3 && plain(name).includes(word))?.[1];
    if (field) take(field, column);
  });
  const channels = new Set(channelNames.map(plain));
  const share = (column: number, is: (cell: string) => boolean): number => {
    const cells = rows.slice(0, SAMPLE).map((row) => row[column] ?? '').filter((cell) => cell !== '');
    return cells.length === 0 ? 0 : cells.filter(is).length / cells.length;
  };
  const looks: readonly (readonly [TableField, (cell: string) => boolean])[] = [
    ['date', (cell) => readDay(cell, '2026-01-01', 'day-first').kind !== 'none'],
    ['time', (cell) => readTime(cell) !== null],
    ['picture', (cell) => /\.(?:jpe?g|png|webp|avif|gif|heic|mp4|mov|webm)(?:\?\S*)?$/iu.test(cell)],
    ['link', (cell) => /^(?:https?:\/\/|www\.)\S+$/iu.test(cell)],
    ['channels', (cell) => cell.split(/[,;/\n]/u).some((part) => channels.has(plain(part)))],
    ['hashtags', (cell) => /^(?:#[\p{L}\p{N}_]+\s*)+$/u.test(cell)],
  ];
  for (const [field, is] of looks) {
    const best = [...free].map((column) => ({ column, share: share(column, is) })).toSorted((a, b) => b.share - a.share)[0];
    if (best && best.share >= MOST) take(field, best.column);
  }
  // Of what is left, the longest text is the caption and the next the headline.
  const lengthOf = (column: number): number => rows.slice(0, SAMPLE).reduce((sum, row) => sum + (row[column] ?? '').length, 0) / Math.max(1, Math.min(rows.length, SAMPLE));
  const texts = [...free].filter((column) => lengthOf(column) > 8).toSorted((a, b) => lengthOf(b) - lengthOf(a));
  const [longest, next] = texts;
  if (longest !== undefined && mapping.caption === undefined) take('caption', longest);
  const second = mapping.caption === longest ? next : longest;
  if (second !== undefined && mapping.headline === undefined) take('headline', second);
  return mapping;
}

/** Tables with the same columns are read the same way. */
export function signatureOf(header: readonly string[]): string {
  return header.map(plain).join('|');
}
