import { useQuery } from '@tanstack/react-query';
import { useDeferredValue } from 'react';
import { getLinkPicture, readLinkCard } from '../../../contract/word-contracts.ts';
import { isWebAddress } from '../../../core/words/fields.ts';
import { addressOf, call } from '../../ui/call.ts';

/** What a page says of itself, as networks show it below a post. */
export function LinkCard({ brand, address }: { readonly brand: { readonly slug: string }; readonly address: string }) {
  const asked = useDeferredValue(address.trim());
  const card = useQuery({ queryKey: ['link-card', brand.slug, asked], queryFn: () => call(readLinkCard, { params: { brand: brand.slug }, query: { address: asked } }), enabled: isWebAddress(asked), staleTime: 600_000, retry: false });
  const host = isWebAddress(asked) ? new URL(asked).hostname : asked;
  return (
    <div className="border-t border-line text-xs">
      {card.data?.hasPicture && <img src={addressOf(getLinkPicture, { brand: brand.slug }, { address: asked })} alt="" className="aspect-[1.9] w-full object-cover" />}
      <div className="px-3 py-2">
        <p className="truncate text-quiet">{card.data?.site || host}</p>
        {card.data?.title && <p className="line-clamp-2 font-semibold">{card.data.title}</p>}
        {card.data?.description && <p className="line-clamp-2 text-quiet">{card.data.description}</p>}
        {card.data?.problem && <p className="text-quiet">No card: {card.data.problem}</p>}
      </div>
    </div>
  );
}
