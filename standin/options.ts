import type { Mailbox } from './mailbox.ts';
import type { Faults } from './faults.ts';
import type { StandinStore } from './store.ts';

export interface StandinOptions {
  readonly mailbox: Mailbox;
  readonly store: StandinStore;
  readonly faults: Faults;
  /** Address under which people see the networks' pages. */
  readonly publicOrigin: string;
  readonly slowMs: number;
}
