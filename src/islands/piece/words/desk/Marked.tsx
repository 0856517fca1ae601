/** A text in which some spans are marked wherever they stand. */
export function Marked({ text, spans }: { readonly text: string; readonly spans: readonly string[] }) {
  if (spans.length === 0) return <>{text}</>;
  const parts: { readonly text: string; readonly isMarked: boolean }[] = [];
  let from = 0;
  while (from < text.length) {
    const found = spans.flatMap((span) => { const at = text.indexOf(span, from); return at === -1 || span === '' ? [] : [{ at, span }]; }).toSorted((a, b) => a.at - b.at || b.span.length - a.span.length)[0];
    if (!found) break;
    if (found.at > from) parts.push({ text: text.slice(from, found.at), isMarked: false });
    parts.push({ text: found.span, isMarked: true });
    from = found.at + found.span.length;
  }
  parts.push({ text: text.slice(from), isMarked: false });
  return (
    <>
      {parts.map((part, index) =>
        part.isMarked ? (
          <mark key={index} className="bg-marigold-soft text-marigold-ink">
            {part.text}
          </mark>
        ) : (
          <span key={index}>{part.text}</span>
        ),
      )}
    </>
  );
}
