import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { getAnswerTimes } from '../../../contract/reply-contracts.ts';
import { call } from '../../ui/call.ts';
import { Button } from '../../ui/Button.tsx';
import { ModalFrame } from '../../ui/ModalFrame.tsx';
import { weekdayNames } from '../../ui/weekdays.ts';
import { lengthOf } from '../figure-words.ts';
import type { Facets } from '../results/results-context.ts';

/** How long first answers took, by channel and by weekday. */
export function AnswerTimes({ brand, channels }: { readonly brand: { readonly slug: string }; readonly channels: Facets['channels'] }) {
  const [isOpen, setOpen] = useState(false);
  const times = useQuery({ queryKey: ['answer-times', brand.slug], enabled: isOpen, queryFn: () => call(getAnswerTimes, { params: { brand: brand.slug } }) });
  const { data } = times;
  return (
    <>
      <Button onClick={() => setOpen(true)}>Answer times</Button>
      {isOpen && (
        <ModalFrame title="How long first answers took" onClose={() => setOpen(false)}>
          {times.isError && <p className="text-sm text-coral-ink">{times.error.message}</p>}
          {data && data.channels.length === 0 && <p className="text-sm text-quiet">Nothing has been answered in the last 90 days. The times stand here once something is.</p>}
          {data && data.channels.length > 0 && (
            <div className="grid gap-4">
              <Times title="By channel" rows={data.channels.map((row) => ({ ...row, name: channels.find(({ id }) => id === row.key)?.name ?? 'A channel of before' }))} />
              <Times title="By weekday" rows={data.weekdays.toSorted((a, b) => Number(a.key) - Number(b.key)).map((row) => ({ ...row, name: weekdayNames[Number(row.key) - 1] ?? '' }))} />
            </div>
          )}
        </ModalFrame>
      )}
    </>
  );
}

function Times({ title, rows }: { readonly title: string; readonly rows: readonly { readonly key: string; readonly name: string; readonly medianMs: number; readonly ninetiethMs: number; readonly count: number }[] }) {
  return (
    <table className="w-full border-collapse text-sm tabular-nums">
      <caption className="mb-1 text-left font-semibold">{title}</caption>
      <thead>
        <tr className="text-xs text-quiet">
          <th scope="col" className="border-b border-line py-1 text-left font-medium">
            In the last 90 days
          </th>
          {['Half within', 'Nine of ten within', 'Answers'].map((each) => (
            <th key={each} scope="col" className="border-b border-line py-1 text-right font-medium">
              {each}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map(({ key, name, medianMs, ninetiethMs, count }) => (
          <tr key={key} className="border-b border-line">
            <th scope="row" className="py-1 text-left font-normal">
              {name}
            </th>
            <td className="text-right">{lengthOf(medianMs)}</td>
            <td className="text-right">{lengthOf(ninetiethMs)}</td>
            <td className="text-right">{count}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
