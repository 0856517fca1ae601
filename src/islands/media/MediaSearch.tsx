import { useQuery } from '@tanstack/react-query';
import { listMediaTags } from '../../contract/media-contracts.ts';
import { call } from '../ui/call.ts';
import { inputClasses } from '../ui/Field.tsx';

/** What is shown of the media. */
export interface MediaFilter {
  readonly words: string;
  readonly tag: string | null;
}

export const allMedia: MediaFilter = { words: '', tag: null };

/** Tags beyond these are found by their names. */
const SHOWN_TAGS = 10;

/** The same as the server takes it. */
export function mediaQuery({ words, tag }: MediaFilter): { readonly words?: string; readonly tag?: string } {
  return { ...(words.trim() === '' ? {} : { words: words.trim() }), ...(tag === null ? {} : { tag }) };
}

/** Media are found by words and by the tags that most of them have. */
export function MediaSearch({ brand, filter, onChange }: { readonly brand: string; readonly filter: MediaFilter; readonly onChange: (filter: MediaFilter) => void }) {
  const tags = useQuery({ queryKey: ['media', brand, 'tags'], queryFn: () => call(listMediaTags, { params: { brand } }) });
  return (
    <>
      <div className="mr-2 w-72 max-w-full">
        <input type="search" aria-label="Search media" placeholder="Search names, alt texts, tags, credits" value={filter.words} onChange={(event) => onChange({ ...filter, words: event.target.value })} className={inputClasses} />
      </div>
      {tags.data?.tags.slice(0, SHOWN_TAGS).map((each) => (
        <button
          key={each.tag}
          type="button"
          aria-pressed={filter.tag === each.tag}
          onClick={() => onChange({ ...filter, tag: filter.tag === each.tag ? null : each.tag })}
          className={`rounded-md border px-2 py-0.5 text-xs ${filter.tag === each.tag ? 'border-house bg-house-soft font-semibold text-house' : 'border-line text-quiet hover:border-edge'}`}
        >
          {each.tag} <span className="tabular-nums">{each.count}</span>
        </button>
      ))}
    </>
  );
}
