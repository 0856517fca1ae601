import { isMainThread, parentPort, Worker, workerData } from 'node:worker_threads';
import { fileURLToPath } from 'node:url';
import { gullwickBook } from '../../demo/brands/gullwick.ts';
import { lanternfallBook } from '../../demo/brands/lanternfall.ts';
import { neededGlyphs } from '../../src/core/compose/needed-glyphs.ts';
import { startEngines } from '../../src/server/render/engines.ts';
import { contents } from './contents.ts';
import { fillTemplate } from './fill.ts';
import type { Violation, ViolationKind } from './measure.ts';
import { bookFor, inLanguageOf } from './marks.ts';
import { corpusPictures } from './pictures.ts';
import { corpusPlacements } from './placements.ts';
import { runCut } from './run-cut.ts';
import { corpusTemplates } from './templates.ts';

/** What a thread answers for a template. */
interface TemplateResult {
  readonly template: string;
  readonly cuts: number;
  readonly violations: readonly (Violation & { readonly where: string })[];
}

const THREADS = 2;
const books = [['gullwick', gullwickBook], ['lanternfall', lanternfallBook]] as const;
const kinds: readonly ViolationKind[] = ['contrast', 'size', 'safe-zone', 'overlap', 'subject', 'unnamed-overflow', 'broken-word', 'lone-word', 'one-word-line', 'parted-number'];
/** Violations that are printed one by one, a template. */
const MAX_SHOWN = 12;

async function runTemplate(key: string): Promise<TemplateResult> {
  const template = corpusTemplates.find((each) => each.key === key);
  if (!template) throw new RangeError(`There is no template '${key}'`);
  const engines = await startEngines({ fontsFolder: 'fonts', emojiFolder: 'dist/emoji' });
  const pictures = await corpusPictures();
  const violations: (Violation & { readonly where: string })[] = [];
  let cuts = 0;
  for (const [brand, book] of books) {
    for (const [index, content] of contents.entries()) {
      const marked = inLanguageOf(bookFor(book, index), content);
      await engines.load(neededGlyphs(marked, [{ template, frame: fillTemplate(template, content) }]), {});
      for (const placement of corpusPlacements) {
        cuts += 1;
        const found = await runCut({ template, content, placement, book: marked }, engines.engines, pictures);
        for (const violation of found) violations.push({ ...violation, where: `${brand}, ${content.name}, ${placement.key}` });
      }
    }
  }
  return { template: key, cuts, violations };
}

async function main(): Promise<void> {
  const wanted = process.argv.slice(2);
  const queue = corpusTemplates.map((template) => template.key).filter((key) => wanted.length === 0 || wanted.includes(key));
  const results: TemplateResult[] = [];
  const write = (text: string): void => void process.stdout.write(`${text}\n`);
  write(`${contents.length} contents, ${queue.length} templates, ${corpusPlacements.length} placements, ${books.length} brands`);
  write(`${'template'.padEnd(19)}${'cuts'.padStart(6)}${kinds.map((kind) => kind.padStart(Math.max(9, kind.length + 2))).join('')}`);
  const work = async (): Promise<void> => {
    for (let key = queue.shift(); key !== undefined; key = queue.shift()) {
      const result = await inThread(key);
      results.push(result);
      const counts = kinds.map((kind) => String(result.violations.filter((each) => each.kind === kind).length).padStart(Math.max(9, kind.length + 2)));
      write(`${result.template.padEnd(19)}${String(result.cuts).padStart(6)}${counts.join('')}`);
      for (const { kind, where, what } of result.violations.slice(0, MAX_SHOWN)) write(`    ${kind}: ${where}: ${what}`);
      if (result.violations.length > MAX_SHOWN) write(`    and ${result.violations.length - MAX_SHOWN} more`);
    }
  };
  await Promise.all(Array.from({ length: THREADS }, work));
  const total = results.reduce((sum, each) => sum + each.violations.length, 0);
  // Every cut is looked at in each of these ways.
  write(`corpus: ${results.reduce((sum, each) => sum + each.cuts, 0) * kinds.length} checks, ${total} violations`);
  process.exitCode = total === 0 ? 0 : 1;
}

function inThread(template: string): Promise<TemplateResult> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(fileURLToPath(import.meta.url), { workerData: { template } });
    worker.once('message', resolve);
    worker.once('error', reject);
  });
}

if (isMainThread) await main();
else parentPort?.postMessage(await runTemplate((workerData as { template: string }).template));
