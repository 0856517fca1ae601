import type { ReactNode } from 'react';

/** A chart with its figures as a table, for those who want to read or copy them. */
export function ChartFrame({ title, about, head, rows, children }: { readonly title: string; readonly about?: string; readonly head: readonly string[]; readonly rows: readonly (readonly string[])[]; readonly children: ReactNode }) {
  return (
    <figure className="m-0">
      <figcaption className="mb-1 text-sm font-semibold">
        {title} {about !== undefined && <span className="font-normal text-quiet">{about}</span>}
      </figcaption>
      <div aria-hidden>{children}</div>
      <details className="mt-1 text-xs">
        <summary className="cursor-pointer text-quiet hover:text-ink">Show as a table</summary>
        <div className="mt-1 max-h-64 overflow-auto rounded-md border border-line">
          <table className="w-full border-collapse tabular-nums">
            <caption className="sr-only">{title}</caption>
            <thead className="sticky top-0 bg-panel">
              <tr>
                {head.map((each, index) => (
                  <th key={each} scope="col" className={`border-b border-line px-2 py-1 font-semibold ${index === 0 ? 'text-left' : 'text-right'}`}>
                    {each}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {rows.map((row) => (
                <tr key={row[0]}>
                  {row.map((cell, index) => (
                    <td key={head[index]} className={`border-b border-line px-2 py-0.5 ${index === 0 ? 'text-left' : 'text-right'}`}>
                      {cell}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </details>
    </figure>
  );
}
