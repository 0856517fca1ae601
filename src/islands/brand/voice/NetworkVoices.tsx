import { usualNetworkVoice, type ComposedPart, type NetworkVoice, type Voice } from '../../../core/brand/brand-book.ts';
import type { NetworkSheet } from '../../../core/network/network-sheet.ts';
import { ChannelBadge } from '../../channel/ChannelBadge.tsx';
import { inputClasses } from '../../ui/Field.tsx';

interface VoicesProps {
  readonly voice: Pick<Voice, 'networks'>;
  readonly sheets: readonly NetworkSheet[];
  readonly readOnly: boolean;
  readonly onChange: (networks: Voice['networks']) => void;
}

/** The orders that make sense: the caption is always there. */
const orders: readonly { readonly key: string; readonly name: string; readonly order: readonly ComposedPart[] }[] = [
  { key: 'caption hashtags', name: 'Caption, hashtags', order: ['caption', 'hashtags'] },
  { key: 'caption link hashtags', name: 'Caption, link, hashtags', order: ['caption', 'link', 'hashtags'] },
  { key: 'caption hashtags link', name: 'Caption, hashtags, link', order: ['caption', 'hashtags', 'link'] },
  { key: 'link caption hashtags', name: 'Link, caption, hashtags', order: ['link', 'caption', 'hashtags'] },
  { key: 'hashtags caption link', name: 'Hashtags, caption, link', order: ['hashtags', 'caption', 'link'] },
];

/** How words go together on each network, and what stands there until a piece has its own. */
export function NetworkVoices({ voice, sheets, readOnly, onChange }: VoicesProps) {
  const set = (key: string, next: Partial<NetworkVoice>): void => onChange({ ...voice.networks, [key]: { ...usualNetworkVoice, ...voice.networks[key], ...next } });
  return (
    <section aria-labelledby="network-voices" className="md:col-span-2">
      <h2 id="network-voices" className="text-base font-semibold">
        On each network
      </h2>
      <p className="mb-2 text-xs text-quiet">In which order a text goes out, where its hashtags stand, and what is there where a piece has nothing of its own.</p>
      <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="On each network">
        <table className="w-full min-w-[46rem] text-left text-sm">
          <thead className="text-xs text-quiet">
            <tr className="border-b border-line">
              {['Network', 'Order', 'Hashtags in', 'First comment', 'Link'].map((name) => (
                <th key={name} scope="col" className="py-1 pr-2 font-medium">
                  {name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {sheets.map((sheet) => {
              const own = voice.networks[sheet.key] ?? usualNetworkVoice;
              const has = (field: string): boolean => sheet.words.fields.some(({ key }) => key === field);
              return (
                <tr key={sheet.key} className="border-b border-line align-top">
                  <th scope="row" className="py-2 pr-3 font-medium">
                    <span className="flex items-center gap-1.5">
                      <ChannelBadge badge={sheet.badge} size={16} />
                      {sheet.name}
                    </span>
                  </th>
                  <td className="py-1.5 pr-2">
                    <select aria-label={`Order on ${sheet.name}`} disabled={readOnly} value={own.order.join(' ')} onChange={(event) => set(sheet.key, { order: [...(orders.find(({ key }) => key === event.target.value)?.order ?? usualNetworkVoice.order)] })} className={inputClasses}>
                      {orders.some(({ key }) => key === own.order.join(' ')) ? null : <option value={own.order.join(' ')}>{own.order.join(', ')}</option>}
                      {orders.map(({ key, name }) => (
                        <option key={key} value={key}>
                          {name}
                        </option>
                      ))}
                    </select>
                  </td>
                  <td className="py-1.5 pr-2">
                    <select aria-label={`Hashtags on ${sheet.name} stand in`} disabled={readOnly || !has('firstComment')} value={own.hashtagsIn} onChange={(event) => set(sheet.key, { hashtagsIn: event.target.value === 'firstComment' ? 'firstComment' : 'caption' })} className={inputClasses}>
                      <option value="caption">the text</option>
                      {has('firstComment') && <option value="firstComment">the first comment</option>}
                    </select>
                  </td>
                  <td className="py-1.5 pr-2">{has('firstComment') ? <input aria-label={`First comment on ${sheet.name}`} value={own.firstComment} maxLength={2_000} readOnly={readOnly} onChange={(event) => set(sheet.key, { firstComment: event.target.value })} className={inputClasses} /> : <span className="text-xs text-quiet">none there</span>}</td>
                  <td className="py-1.5">{has('link') || own.order.includes('link') ? <input aria-label={`Link on ${sheet.name}`} type="url" value={own.link} maxLength={2_000} readOnly={readOnly} placeholder="the shared one" onChange={(event) => set(sheet.key, { link: event.target.value })} className={inputClasses} /> : <span className="text-xs text-quiet">none there</span>}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
    </section>
  );
}
