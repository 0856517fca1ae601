import { diffWords } from '../../core/words/word-diff.ts';

/** Two texts as one: what is gone is struck through, what is new is underlined. */
export function WordDiff({ before, now }: { readonly before: string; readonly now: string }) {
  return (
    <span className="break-words whitespace-pre-wrap">
      {diffWords(before, now).map((part, index) => {
        const key = `${index}${part.text}`;
        if (part.kind === 'removed') return <del key={key} className="text-coral-ink">{part.text}</del>;
        if (part.kind === 'added') return <ins key={key} className="text-mint-ink underline">{part.text}</ins>;
        return <span key={key}>{part.text}</span>;
      })}
    </span>
  );
}
