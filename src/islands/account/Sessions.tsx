import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { endOtherSessions, endSession, listSessions } from '../../contract/account-contracts.ts';
import { call } from '../ui/call.ts';
import { Button } from '../ui/Button.tsx';
import { toast } from '../ui/toast.tsx';

const browsers = [['Edg/', 'Edge'], ['Firefox/', 'Firefox'], ['Chrome/', 'Chromium'], ['Safari/', 'Safari']] as const;
const systems = [['Windows', 'Windows'], ['iPhone', 'iPhone'], ['iPad', 'iPad'], ['Android', 'Android'], ['Mac OS', 'macOS'], ['Linux', 'Linux']] as const;

/** What a browser calls itself, in two words. */
function clientName(client: string): string {
  const browser = browsers.find(([mark]) => client.includes(mark))?.[1] ?? 'A program';
  const system = systems.find(([mark]) => client.includes(mark))?.[1];
  return system ? `${browser} on ${system}` : browser;
}

/** Where somebody is signed in; any of it can be ended. */
export function Sessions() {
  const client = useQueryClient();
  const sessions = useQuery({ queryKey: ['sessions'], queryFn: () => call(listSessions) });
  const onSuccess = (): Promise<void> => client.invalidateQueries({ queryKey: ['sessions'] });
  const onError = (error: Error): void => toast('problem', error.message);
  const end = useMutation({ mutationFn: (session: string) => call(endSession, { params: { session } }), onSuccess, onError });
  const endOthers = useMutation({ mutationFn: () => call(endOtherSessions), onSuccess, onError });
  const moment = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' });
  const items = sessions.data?.sessions ?? [];
  return (
    <section aria-labelledby="sessions" className="mt-10">
      <div className="flex items-baseline justify-between gap-4">
        <h2 id="sessions" className="text-lg font-semibold">
          Where you are signed in
        </h2>
        {items.length > 1 && (
          <Button look="quiet" size="small" disabled={endOthers.isPending} onClick={() => endOthers.mutate()}>
            End all others
          </Button>
        )}
      </div>
      <p className="mt-1 text-sm text-quiet">A session ends after 30 days, or after 7 days without use.</p>
      <ul className="mt-3 border-t border-line">
        {items.map((session) => (
          <li key={session.id} className="flex items-center justify-between gap-4 border-b border-line py-2">
            <span>
              <span className="block font-medium">
                {clientName(session.client)}
                {session.isThis && <span className="ml-2 text-xs font-normal text-quiet">this one</span>}
              </span>
              <span className="block text-xs text-quiet">
                since {moment.format(session.createdMs)}, last used {moment.format(session.lastUsedMs)}
              </span>
            </span>
            {!session.isThis && (
              <Button look="stop" onClick={() => end.mutate(session.id)}>
                End
              </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
