import type { AnswerOf } from '../../contract/contract.ts';
import type { getMe } from '../../contract/account-contracts.ts';
import { Queries } from '../ui/Queries.tsx';
import { UntilReady } from '../ui/UntilReady.tsx';
import { Password } from './Password.tsx';
import { SecondStep } from './SecondStep.tsx';
import { Sessions } from './Sessions.tsx';
import { Tokens } from './Tokens.tsx';

/** A person's own account: password, second step, sessions, tokens. */
export default function Account({ me }: { readonly me: AnswerOf<typeof getMe> }) {
  return (
    <Queries>
      <main className="min-h-0 flex-1 overflow-auto">
        <div className="mx-auto max-w-2xl px-6 py-8">
          <h1 className="text-xl font-semibold">{me.person.name}</h1>
          <p className="text-sm text-quiet">{me.person.email}</p>
          <UntilReady>
            <Password />
            <SecondStep />
            <Sessions />
            <Tokens />
          </UntilReady>
        </div>
      </main>
    </Queries>
  );
}
