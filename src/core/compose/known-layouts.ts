/** The room that a text is asked about, in pixels: a width that it takes, or the most that it may; `NaN` where nothing limits it. */
export interface TextRoom {
  readonly widthPx: number;
  readonly isExact: boolean;
}

/** The space that a text takes, in pixels. */
export interface TextSpace {
  readonly width: number;
  readonly height: number;
}

/** What layout asked a text, by its place among the texts, and what it was told. */
export interface Asked {
  readonly text: number;
  readonly room: TextRoom;
  readonly space: TextSpace;
}

/** A question and where each answer leads to. */
interface Question<Layout> {
  readonly text: number;
  readonly room: TextRoom;
  readonly nextByWidth: Map<number, Map<number, Step<Layout>>>;
}

type Step<Layout> = { readonly question: Question<Layout> } | { readonly layout: Layout };

/** With more layouts than this a tree of questions starts anew. */
const MAX_LAYOUTS = 160;

/**
 * Layouts of one arrangement in one cut, by the answers that led to them. Layout depends on texts by nothing but the space they
 * take, and asks the next question by the answers before: the same answers lead to the same layout, whatever the text. A letter
 * more seldom changes how many lines there are at a size, so that most of what a keystroke asks for is known.
 */
export class KnownLayouts<Layout> {
  #first: Step<Layout> | null = null;
  #count = 0;

  /** Goes through the questions. @returns the layout that the answers lead to; null when it is not known */
  find(answer: (text: number, room: TextRoom) => TextSpace): Layout | null {
    let step = this.#first ?? undefined;
    while (step && 'question' in step) {
      const { text, room, nextByWidth } = step.question;
      const { width, height } = answer(text, room);
      step = nextByWidth.get(width)?.get(height);
    }
    return step?.layout ?? null;
  }

  /** @param asked all questions, in their order */
  add(asked: readonly Asked[], layout: Layout): void {
    if (this.#count >= MAX_LAYOUTS) [this.#first, this.#count] = [null, 0];
    this.#count += 1;
    let put = (step: Step<Layout>): void => void (this.#first = step);
    let step = this.#first ?? undefined;
    for (const { text, room, space } of asked) {
      if (!step) put((step = { question: { text, room, nextByWidth: new Map() } }));
      if (!('question' in step)) return;
      const { nextByWidth } = step.question;
      const byHeight = nextByWidth.get(space.width) ?? new Map<number, Step<Layout>>();
      nextByWidth.set(space.width, byHeight);
      put = (next) => void byHeight.set(space.height, next);
      step = byHeight.get(space.height);
    }
    put({ layout });
  }
}
