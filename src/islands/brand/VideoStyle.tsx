import { motionManners, resolveScheme, subtitleLooks, type BrandBook, type MotionManner, type SubtitleLook, type VideoStyle as Chosen } from '../../core/brand/brand-book.ts';
import { manners } from '../../core/video/manner.ts';
import { subtitleStyle } from '../../core/video/subtitle-style.ts';
import { VIDEO_FPS } from '../../core/video/shot-times.ts';
import { BookChoice } from './BookChoice.tsx';
import type { BookEdit } from './use-book.ts';

const mannerNames: Readonly<Record<MotionManner, { readonly name: string; readonly how: string }>> = {
  calm: { name: 'Calm', how: 'Each text rises a little' },
  brisk: { name: 'Brisk', how: 'Line by line, unveiled' },
  playful: { name: 'Playful', how: 'Word by word, from below' },
};
const lookNames: Readonly<Record<SubtitleLook, string>> = { band: 'Dark band', label: 'Bold label', edge: 'Letters with an edge' };

/** Two lines of two words: enough to see what comes one after the other. */
const SAMPLE = [
  ['Come', 'and'],
  ['see', 'it'],
] as const;

/** How videos of the brand move, and how their subtitles look. */
export function VideoStyle({ edit }: { readonly edit: BookEdit }) {
  const { book, mayChange, change } = edit;
  const style: Chosen = book.video ?? {};
  const choose = (next: Chosen): void => change((now) => ({ ...now, video: next }));
  const shown = subtitleStyle({ ...book, video: { ...style, coloursSaidWord: true } });
  return (
    <section aria-labelledby="videos">
      <h2 id="videos" className="text-base font-semibold">
        Videos
      </h2>
      <p className="mb-2 text-sm text-quiet">How texts come in and leave, in every video of the brand.</p>
      <div role="radiogroup" aria-label="How texts come in" className="grid grid-cols-3 gap-2">
        {motionManners.map((manner) => (
          <BookChoice key={manner} group="manner" name={mannerNames[manner].name} isChosen={(style.manner ?? 'calm') === manner} isDisabled={!mayChange} onChoose={() => choose({ ...style, manner })} note={mannerNames[manner].how}>
            <MovingSample manner={manner} book={book} />
          </BookChoice>
        ))}
      </div>
      <h3 className="mt-4 mb-2 text-sm font-semibold">Subtitles</h3>
      <div role="radiogroup" aria-label="How subtitles look" className="grid grid-cols-3 gap-2">
        {subtitleLooks.map((look) => (
          <BookChoice key={look} group="subtitles" name={lookNames[look]} isChosen={(style.subtitles ?? 'band') === look} isDisabled={!mayChange} onChoose={() => choose({ ...style, subtitles: look })}>
            <SubtitleSample book={book} look={look} coloursSaidWord={style.coloursSaidWord === true} />
          </BookChoice>
        ))}
      </div>
      <label className="mt-3 flex items-start gap-2 text-sm">
        <input type="checkbox" className="mt-0.5 size-4 accent-house" disabled={!mayChange} checked={style.coloursSaidWord === true} onChange={(event) => choose(event.target.checked ? { ...style, coloursSaidWord: true } : withoutSaidWord(style))} />
        <span>
          Highlight each word while it is spoken
          <span className="block text-xs text-quiet">{shown.said === null ? 'No colour of the book can be read beside these letters. Choose another look, or add a colour.' : shown.said.kind === 'plate' ? 'The word stands on a plate in the colour of the letters.' : 'In the colour of the book that stands out most and can be read.'}</span>
        </span>
      </label>
    </section>
  );
}

function withoutSaidWord({ coloursSaidWord: _, ...style }: Chosen): Chosen {
  return style;
}

/** The curves of the table of manners as a browser draws them, by their power. */
const curves: Readonly<Record<number, string>> = { 3: 'cubic-bezier(0.33, 1, 0.68, 1)', 4: 'cubic-bezier(0.25, 1, 0.5, 1)', 5: 'cubic-bezier(0.22, 1, 0.36, 1)' };

/** Plays a manner while it is pointed at or chosen with the keyboard. */
function MovingSample({ manner, book }: { readonly manner: MotionManner; readonly book: BrandBook }) {
  const { by, entrance, staggerFrames, enterFrames, enterPower } = manners[manner];
  const scheme = schemeOf(book, 'bold');
  let part = 0;
  return (
    <span aria-hidden className="grid h-20 place-items-center text-lg leading-6 font-bold" style={{ background: scheme.ground, color: scheme.ink }}>
      <span>
        {SAMPLE.map((words, line) => {
          if (by === 'line' || (by === 'text' && line === 0)) part += 1;
          return (
            <span key={line} className="block overflow-hidden">
              {words.map((word) => {
                if (by === 'word') part += 1;
                const delayMs = ((part - 1) * staggerFrames * 1000 * SLOWER) / VIDEO_FPS;
                return (
                  <span key={word} className={`mr-1.5 inline-block motion-safe:group-hover:animate-(--comes) motion-safe:group-has-focus-visible:animate-(--comes)`} style={{ '--comes': `text-${entrance} ${(enterFrames * 1000 * SLOWER) / VIDEO_FPS}ms ${curves[enterPower] ?? 'ease-out'} ${delayMs}ms both` } as React.CSSProperties}>
                    {word}
                  </span>
                );
              })}
            </span>
          );
        })}
      </span>
    </span>
  );
}

/** A sample is small and seen once: it takes a little longer than in a video. */
const SLOWER = 1.6;

function SubtitleSample({ book, look, coloursSaidWord }: { readonly book: BrandBook; readonly look: SubtitleLook; readonly coloursSaidWord: boolean }) {
  const { bare, said, template } = subtitleStyle({ ...book, video: { subtitles: look, ...(coloursSaidWord ? { coloursSaidWord: true as const } : {}) } });
  const scheme = schemeOf(book, template.scheme);
  const line = bare ? { color: bare.ink, WebkitTextStroke: `4px ${bare.edge}`, paintOrder: 'stroke fill' } : { color: scheme.ink, background: scheme.ground };
  const word = said === null ? {} : said.kind === 'colour' ? { color: said.colour } : { color: said.ink, background: said.plate };
  return (
    <span aria-hidden className="grid h-20 place-items-center bg-linear-to-b from-[#7d8a92] to-[#c9b99d]">
      <span className={`px-2 py-1 leading-5 ${look === 'band' ? 'text-sm' : 'text-base font-bold'}`} style={line}>
        Hold <span className="px-0.5" style={word}>the</span> line
      </span>
    </span>
  );
}

function schemeOf(book: BrandBook, wanted: string) {
  return resolveScheme(book, book.schemes.find(({ key }) => key === wanted)?.key ?? book.schemes[0]?.key ?? '');
}
