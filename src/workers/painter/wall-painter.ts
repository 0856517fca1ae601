import { LRUCache } from 'lru-cache';
import { loadYoga } from 'yoga-layout/load';
import type { Composed } from '../../core/compose/compose.ts';
import { Typesetter } from '../../core/text/typesetter.ts';
import { Batch, type AlikeCuts } from '../painted-batch.ts';
import type { PaintRequest, WallContent, WallMessage } from '../wall-protocol.ts';
import { CutComposer, groupAlike } from './cut-composer.ts';
import { CutPainter, type PaintContext } from './cut-painter.ts';
import { GlyphLoader } from './glyph-loader.ts';
import { PictureStore } from './picture-store.ts';
import { rehearsal } from './rehearsal.ts';

/** A request with the content that it is painted from. */
export interface Painting extends PaintRequest {
  readonly content: WallContent;
}

/** What was painted last under a key, so that what has not changed is not painted again. */
interface Painted {
  readonly composed: Composed;
  readonly scale: number;
  /** Whether the page shows it as it is composed: not where it is only checked, nor where it moves. */
  readonly isOnPage: boolean;
}

/** How many of them are kept. */
const MAX_SHOWN = 1_200;

interface LateCuts {
  readonly alike: AlikeCuts;
  readonly composed: Composed;
  /** Without its pictures it has been painted already. */
  readonly isPainted: boolean;
}

/** Paints requests one after the other. */
export class WallPainter {
  readonly #shown = new LRUCache<string, Painted>({ max: MAX_SHOWN });
  #content: WallContent | null = null;

  private constructor(
    readonly glyphs: GlyphLoader,
    readonly composer: CutComposer,
    readonly painter: CutPainter,
    readonly pictures: PictureStore,
  ) {}

  /** Starts the engines. */
  static async start(): Promise<WallPainter> {
    const typesetter = new Typesetter();
    const pictures = new PictureStore();
    return new WallPainter(new GlyphLoader(typesetter), new CutComposer({ typesetter, yoga: await loadYoga() }), new CutPainter(typesetter, pictures), pictures);
  }

  /**
   * Paints what has changed; cuts that wait for pictures come at once without them, and again once they are there.
   * @param isOvertaken whether a newer request waits: then nobody waits for the pictures of this one
   */
  async paint(request: Painting, isOvertaken: () => boolean): Promise<void> {
    const started = performance.now();
    await this.glyphs.load(request.content, request.cuts);
    const all = this.composer.compose(request);
    const clipPictures = new Map((request.clipPictures ?? []).map(({ mediaId, bitmap }) => [mediaId, bitmap] as const));
    const context: PaintContext = { all: new Map([...all].map(([cut, composed]) => [cut.key, { cut, composed }])), clipPictures, book: request.content.book };
    // The same scene of another content may show other files.
    if (request.content !== this.#content) this.#shown.clear();
    this.#content = request.content;
    const again = new Set(request.again === 'all' ? request.cuts.map(({ key }) => key) : request.again);
    // The page has nothing of these, or not what this painter painted last.
    for (const key of again) this.#shown.delete(key);
    const changed = new Map([...all].filter(([cut, composed]) => again.has(cut.key) || cut.moment || !this.#isShown(cut.key, composed, cut.scale)));
    const batch = new Batch(request.id);
    const late = this.#paintNow(changed, context, request, batch);
    try {
      for (const each of late) {
        if (isOvertaken()) return this.#paintWithout(late.slice(late.indexOf(each)), context, batch);
        // Nothing that is painted waits for a picture that has to come.
        if (each.isPainted || batch.isOld()) batch.send();
        await this.#paintLate(each, context, request.content, batch);
      }
    } finally {
      // What is painted counts as shown, also where a picture after it could not be cropped.
      batch.send();
    }
    tell({ kind: 'done', id: request.id, tookMs: performance.now() - started });
  }

  /**
   * Composes and paints, for nobody to see, what the next letters would ask for. Code that has run a few times runs several times as
   * fast: without it the first letters that somebody writes are the slow ones.
   * @param isOvertaken whether a request waits: then it ends
   */
  async rehearse(request: Painting, isOvertaken: () => Promise<boolean>): Promise<void> {
    const before = new Map<string, Composed>();
    for (const run of rehearsal(request.cuts)) {
      if (await isOvertaken()) return;
      const all = this.composer.compose({ ...request, cuts: run });
      const context: PaintContext = { all: new Map(), clipPictures: new Map(), book: request.content.book };
      for (const [cut, composed] of all) {
        if (!cut.unseen) this.painter.paint(cut, composed, context, before.get(cut.key) ?? null);
        before.set(cut.key, composed);
      }
    }
  }

  /** What the page shows of cuts that are alike, where it shows the same of all; else null. */
  #onPage(alike: AlikeCuts): Composed | null {
    const [first, ...others] = alike.map(({ key, scale, moment }) => {
      const shown = this.#shown.get(key);
      return shown?.isOnPage && shown.scale === scale && !moment ? shown.composed : null;
    });
    return first && others.every((other) => other === first) ? first : null;
  }

  #isShown(key: string, composed: Composed, scale: number): boolean {
    const shown = this.#shown.get(key);
    return shown?.composed === composed && shown.scale === scale;
  }

  #paintNow(changed: ReadonlyMap<AlikeCuts[number], Composed>, context: PaintContext, { content, again }: Painting, batch: Batch): readonly LateCuts[] {
    const late: LateCuts[] = [];
    for (const alike of groupAlike(changed)) {
      const [cut] = alike;
      const composed = changed.get(cut);
      if (!composed) continue;
      const missing = cut.unseen ? [] : this.painter.missing(cut, composed, context.clipPictures);
      const settled = missing.length === 0;
      // What only has to be cropped anew is there in a moment: it is painted once, with its new crop.
      if (!settled && again !== 'all' && missing.every(({ node }) => this.pictures.isAtHand(node, content))) {
        late.push({ alike, composed, isPainted: false });
        continue;
      }
      batch.add(alike, cut.unseen ? null : this.painter.paint(cut, composed, context, this.#onPage(alike)), composed.report, settled);
      this.#note(alike, composed, settled);
      if (!settled) late.push({ alike, composed, isPainted: true });
      if (batch.isOld()) batch.send();
    }
    return late;
  }

  /** A newer request waits: who types on sees the texts all the same, over the crop before. */
  #paintWithout(late: readonly LateCuts[], context: PaintContext, batch: Batch): void {
    for (const { alike, composed, isPainted } of late) {
      if (isPainted) continue;
      batch.add(alike, this.painter.paint(alike[0], composed, context, this.#onPage(alike)), composed.report, false);
      this.#note(alike, composed, false);
    }
    batch.send();
  }

  async #paintLate({ alike, composed }: LateCuts, context: PaintContext, content: WallContent, batch: Batch): Promise<void> {
    const [cut] = alike;
    await Promise.all(this.painter.missing(cut, composed, context.clipPictures).map(({ node, scale }) => this.pictures.fetch(node, scale, content)));
    batch.add(alike, this.painter.paint(cut, composed, context, this.#onPage(alike)), composed.report, true);
    this.#note(alike, composed, true);
  }

  #note(alike: AlikeCuts, composed: Composed, settled: boolean): void {
    for (const { key, scale, unseen, moment } of alike) {
      if (settled) this.#shown.set(key, { composed, scale, isOnPage: !unseen && !moment });
      else this.#shown.delete(key);
    }
  }
}

export function tell(message: WallMessage): void {
  self.postMessage(message);
}
