import sharp from 'sharp';
import ExcelJS from 'exceljs';
import Papa from 'papaparse';
import { contrastRatio } from '../../core/colour/contrast.ts';
import { resolveScheme, type BrandBook } from '../../core/brand/brand-book.ts';
import { fontWeight } from '../../core/compose/set-text.ts';
import { setReport, type ReportBlock, type ReportLook } from '../../core/results/report-pages.ts';
import { papers, type Report } from '../../core/results/report.ts';
import { fontKeysFor } from '../../core/text/font-shelf.ts';
import type { Brand } from '../db/brand-repository.ts';
import { findDelivery } from '../db/delivery-repository.ts';
import { deliveryPicture } from '../derived/delivery-picture.ts';
import { derivedFile } from '../derived/derived-file.ts';
import { startEngines } from '../render/engines.ts';
import type { PictureSource } from '../render/canvas-painter.ts';
import { scenesToPdf } from '../render/scene-to-pdf.ts';
import type { Services } from '../services.ts';
import { postTable, type ReportData } from './gather-report.ts';
import { reportBlocks, type ReportPicture } from './report-blocks.ts';
import type { ReportForm } from './report-forms.ts';

const SHOWN_PICTURES = 6;
const MIN_INK = 4.5;
const MIN_ACCENT = 3;

/** Makes a report's file. */
export function reportFile(services: Services, brand: Brand, report: Report, data: ReportData, form: ReportForm): Promise<Buffer> {
  switch (form) {
    case 'pdf':
      return reportPdf(services, brand, report, data);
    case 'xlsx':
      return reportXlsx(brand, report, data);
    case 'csv':
      return Promise.resolve(reportCsv(brand, data));
  }
}

async function reportPdf(services: Services, brand: Brand, report: Report, data: ReportData): Promise<Buffer> {
  const pictures = new Map<string, ReportPicture>();
  const sources = new Map<string, PictureSource>();
  for (const post of report.parts.includes('best') ? data.posts.filter(({ rate }) => rate !== null).slice(0, SHOWN_PICTURES) : []) {
    const delivery = post.deliveryId === null ? null : await findDelivery(services.db, brand.id, post.deliveryId);
    // A picture that cannot be made any more leaves its place empty.
    const filePath = delivery && (await derivedFile(services, deliveryPicture(services, delivery)).catch(() => null));
    if (!filePath) continue;
    const { width = 1, height = 1 } = await sharp(filePath).metadata();
    pictures.set(post.id, { pictureId: post.id, widthPx: width, heightPx: height });
    sources.set(post.id, { filePath, widthPx: width, heightPx: height });
  }
  const blocks = reportBlocks(report, brand.name, data, pictures);
  const engines = await startEngines(services.settings);
  const look = lookOf(brand.book, textOf(blocks));
  await engines.load({ fontKeys: [...new Set([...look.heading, ...look.text])], emoji: [], hyphenation: null }, Object.fromEntries(brand.book.typefaces.map(({ key, hash }) => [key, services.media.pathOf(hash)])));
  const { typesetter } = engines.engines;
  const size = papers[report.paper];
  const pages = setReport(blocks, size, look, typesetter, `${brand.name} · ${report.name}`);
  return scenesToPdf(pages.map(({ nodes, texts }) => ({ scene: { size, nodes }, texts, typesetter, sources, metadata: { title: report.name, altText: `${brand.name}, ${data.from} to ${data.until}`, credit: '', licence: '' } })));
}

/** The brand's colours as far as they can be read on each other, and its typefaces. */
function lookOf(book: BrandBook, text: string): ReportLook {
  const { ground, ink, accent } = resolveScheme(book, book.schemes[0]?.key ?? '');
  const readable = contrastRatio(ink, ground) >= MIN_INK ? ink : contrastRatio('#000000', ground) >= contrastRatio('#ffffff', ground) ? '#000000' : '#ffffff';
  const faces = (font: string): readonly string[] => fontKeysFor(text, font, fontWeight(book, font));
  return { ground, ink: readable, accent: contrastRatio(accent, ground) >= MIN_ACCENT ? accent : readable, heading: faces(book.type.heading.font), text: faces(book.type.text.font) };
}

const textOf = (blocks: readonly ReportBlock[]): string => JSON.stringify(blocks);

/** Cells that a spreadsheet would run as formulas begin with an apostrophe, as text. */
const harmless = (value: string | number | null): string | number | null => (typeof value === 'string' && /^[=+\-@\t\r]/.test(value) ? `'${value}` : value);

async function reportXlsx(brand: Brand, report: Report, data: ReportData): Promise<Buffer> {
  const book = new ExcelJS.Workbook();
  book.creator = 'Confetti';
  book.title = report.name;
  const sheet = (name: string, head: readonly string[], rows: readonly (readonly (string | number | null)[])[]): void => {
    const added = book.addWorksheet(name, { views: [{ state: 'frozen', ySplit: 1 }] });
    added.addRow([...head]).font = { bold: true };
    for (const row of rows) added.addRow(row.map(harmless));
    added.columns.forEach((column, index) => (column.width = Math.min(48, Math.max(10, (head[index] ?? '').length + 2, ...rows.slice(0, 60).map((row) => String(row[index] ?? '').length + 1)))));
  };
  const { now, beside } = data.overview;
  sheet('Totals', ['Figure', `${data.from} to ${data.until}`, `${data.overview.besideFrom} to ${data.overview.besideUntil}`], (['posts', 'reach', 'impressions', 'engagement', 'clicks', 'rate', 'followers'] as const).map((key) => [key, now[key], beside[key]]));
  sheet('Accounts', ['Account', 'Posts', 'Reach', 'Impressions', 'Engagement', 'Clicks', 'Rate', 'Followers'], data.overview.accounts.map(({ channelId, now: sums }) => [data.channelName(channelId), sums.posts, sums.reach, sums.impressions, sums.engagement, sums.clicks, sums.rate, sums.followers]));
  const posts = postTable(data, brand.zone);
  sheet('Posts', posts.head, posts.rows);
  sheet('Days', ['Day', 'Followers', 'Reach', 'Posts'], data.overview.days.map(({ day, followers, reach, posts: out }) => [day, followers, reach, out]));
  sheet('What works', ['Posts', 'Effect', 'From', 'To', 'Posts counted'], data.effects.map(({ name, effect, low, high, count }) => [name, effect, low, high, count]));
  sheet('Links', ['Code', 'Leads to', 'Clicks', 'Bots'], data.links.map(({ code, target, people, bots }) => [code, target, people, bots]));
  return Buffer.from(await book.xlsx.writeBuffer());
}

function reportCsv(brand: Brand, data: ReportData): Buffer {
  const { head, rows } = postTable(data, brand.zone);
  return Buffer.from(`${Papa.unparse({ fields: [...head], data: rows.map((row) => [...row]) }, { escapeFormulae: true })}\r\n`);
}
