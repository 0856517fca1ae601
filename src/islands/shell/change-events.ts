import { useEffect, useRef } from 'react';
import { watchChanges } from '../../contract/send-contracts.ts';
import { addressOf } from '../ui/call.ts';

/** What a view hears of. */
export interface ChangeListeners {
  /** Something of a kind has changed, by its id: `plan`, `entry`, `queue`, `notice`, `piece`, `post`, `delivery`, `media`, `upload`, `export`, `clock`, `channel`, `review`, `results`, `conversation`, `idea`, `feed`, `table`. */
  readonly onChange?: (kind: string, id: string) => void;
  /** The stream has opened, or has missed too much: what is shown may be old. */
  readonly onReload?: () => void;
  /** Who has the watched piece open. */
  readonly onPresent?: (people: readonly PresentPerson[]) => void;
}

export interface PresentPerson {
  readonly personId: string;
  readonly name: string;
}

const KINDS = ['plan', 'entry', 'queue', 'notice', 'piece', 'post', 'delivery', 'media', 'upload', 'export', 'clock', 'channel', 'review', 'results', 'conversation', 'idea', 'feed', 'table'] as const;

/**
 * Listens to a brand's changes for as long as a view is open. The browser comes back by itself when the stream breaks, and is sent
 * what it has missed.
 * @param pieceId a piece that this view has open: others see that it is
 */
export function useChanges(brand: string, listeners: ChangeListeners, pieceId?: string): void {
  const current = useRef(listeners);
  useEffect(() => {
    current.current = listeners;
  });
  useEffect(() => {
    const events = new EventSource(addressOf(watchChanges, { brand }, { piece: pieceId }));
    const dataOf = <Data>(event: Event): Data => JSON.parse((event as MessageEvent<string>).data) as Data;
    let hasOpened = false;
    events.addEventListener('open', () => {
      // Later on, what was missed comes by itself.
      if (!hasOpened) current.current.onReload?.();
      hasOpened = true;
    });
    events.addEventListener('reload', () => current.current.onReload?.());
    events.addEventListener('present', (event) => current.current.onPresent?.(dataOf<{ people: PresentPerson[] }>(event).people));
    for (const kind of KINDS) events.addEventListener(kind, (event) => current.current.onChange?.(kind, dataOf<{ id: string }>(event).id));
    return () => events.close();
  }, [brand, pieceId]);
}
