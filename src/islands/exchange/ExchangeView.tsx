import { useState } from 'react';
import type { AnswerOf } from '../../contract/contract.ts';
import type { getMe } from '../../contract/account-contracts.ts';
import { Queries } from '../ui/Queries.tsx';
import { UntilReady } from '../ui/UntilReady.tsx';
import { ExportPackage } from './ExportPackage.tsx';
import { ImportPackage } from './ImportPackage.tsx';

interface ExchangeViewProps {
  readonly me: AnswerOf<typeof getMe>;
  /** The brand that a person came from; null: none. */
  readonly brand: string | null;
  /** A package that is on its way, from the address. */
  readonly packageId: string | null;
}

/** Export and import of brands, pieces, months and media. */
export default function ExchangeView({ me, brand, packageId }: ExchangeViewProps) {
  const [came] = useState(packageId);
  return (
    <Queries>
      <main className="min-h-0 flex-1 overflow-auto">
        <div className="mx-auto max-w-5xl px-6 py-7">
          <h1 className="text-xl font-semibold">Export and import</h1>
          <p className="mt-1 max-w-2xl text-sm text-quiet">
            A package is a ZIP of JSON and of the files themselves. Another Confetti takes it in under the same ids, so it can go there and come back without doubling anything. It has no passwords and no access to channels.
          </p>
          <UntilReady>
            <div className="mt-6 grid grid-cols-2 items-start gap-8 max-lg:grid-cols-1">
              <ExportPackage brands={me.brands} chosen={brand} />
              <ImportPackage packageId={came} />
            </div>
          </UntilReady>
        </div>
      </main>
    </Queries>
  );
}
