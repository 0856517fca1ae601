import { MutationCache, onlineManager, QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import { ApiProblem } from './call.ts';
import { closeToast, toast, Toasts } from './toast.tsx';

const MAX_RETRIES = 2;

const IT_WAITS = 'There is no connection. This is sent as soon as there is one; keep the page open.';

/** What is pressed without a connection waits for it: who pressed it has to know, until it is sent. */
function sayThatItWaits(): void {
  if (onlineManager.isOnline()) return;
  toast('problem', IT_WAITS);
  const stop = onlineManager.subscribe((isOnline) => {
    if (!isOnline) return;
    closeToast(IT_WAITS);
    stop();
  });
}

/** What every view stands in: its cache of server state, and the place where short messages appear. */
export function Queries({ children }: { readonly children: ReactNode }) {
  const [client] = useState(
    () =>
      new QueryClient({
        mutationCache: new MutationCache({ onMutate: sayThatItWaits }),
        defaultOptions: {
          queries: {
            staleTime: 10_000,
            // What the server has declined it declines again; only an unreachable server is worth another try.
            retry: (count, error) => count < MAX_RETRIES && (!(error instanceof ApiProblem) || error.status === 0 || error.status >= 500),
          },
        },
      }),
  );
  return (
    <QueryClientProvider client={client}>
      {children}
      <Toasts />
    </QueryClientProvider>
  );
}
