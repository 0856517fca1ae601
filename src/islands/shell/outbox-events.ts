import { useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { watchDeliveries } from '../../contract/send-contracts.ts';
import { addressOf } from '../ui/call.ts';

/** Keeps what is shown of the outbox fresh for as long as a view is open. */
export function useOutboxEvents(brand: string): void {
  const client = useQueryClient();
  useEffect(() => {
    const events = new EventSource(addressOf(watchDeliveries, { brand }));
    const refresh = (): void => void client.invalidateQueries({ queryKey: ['deliveries', brand] });
    // Also when the stream opens (again): what happened before it did is in the list.
    events.addEventListener('open', refresh);
    events.addEventListener('deliveries', refresh);
    events.addEventListener('clock', refresh);
    return () => events.close();
  }, [brand, client]);
}
