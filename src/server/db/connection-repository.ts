import type { Db } from './connection.ts';
import { fromRow } from './row.ts';

/** A person on the way to a network's consent page and back. */
export interface Connection {
  readonly id: string;
  readonly brandId: string;
  readonly personId: string;
  readonly networkKey: string;
  readonly origin: string;
  readonly site: string | null;
  readonly stateHash: string;
  /** Sealed. */
  readonly verifier: string;
  readonly tokenEndpoint: string;
  readonly redirectUri: string;
  /** Sealed: the accounts that the network offered, with their tokens; null until it has. */
  readonly offered: string | null;
  /** Why there are none. */
  readonly problem: string | null;
  readonly endsMs: number;
}

export async function insertConnection(db: Db, connection: Omit<Connection, 'offered' | 'problem'>): Promise<void> {
  await db('connections').insert({
    id: connection.id,
    brand_id: connection.brandId,
    person_id: connection.personId,
    network_key: connection.networkKey,
    origin: connection.origin,
    site: connection.site,
    state_hash: connection.stateHash,
    verifier: connection.verifier,
    token_endpoint: connection.tokenEndpoint,
    redirect_uri: connection.redirectUri,
    ends_ms: connection.endsMs,
  });
}

/** The open connection that a state belongs to. It is a person's own: nobody else comes back with it. */
export async function findConnectionByState(db: Db, stateHash: string, personId: string, machineNowMs: number): Promise<Connection | null> {
  const row: object | undefined = await db('connections').where({ state_hash: stateHash, person_id: personId }).where('ends_ms', '>', machineNowMs).first();
  return row ? fromRow<Connection>(row) : null;
}

export async function findConnection(db: Db, brandId: string, id: string, personId: string, machineNowMs: number): Promise<Connection | null> {
  const row: object | undefined = await db('connections').where({ brand_id: brandId, id, person_id: personId }).where('ends_ms', '>', machineNowMs).first();
  return row ? fromRow<Connection>(row) : null;
}

/** Keeps what came of it, once; false when something did before. */
export async function answerConnection(db: Db, id: string, answer: Pick<Connection, 'offered' | 'problem' | 'site'>): Promise<boolean> {
  return (await db('connections').where({ id, offered: null, problem: null }).update(answer)) > 0;
}

export async function endConnection(db: Db, id: string): Promise<void> {
  await db('connections').where({ id }).delete();
}

export async function pruneConnections(db: Db, machineNowMs: number): Promise<void> {
  await db('connections').where('ends_ms', '<', machineNowMs).delete();
}
