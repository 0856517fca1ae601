import type { Figures } from '../../core/results/measures.ts';

/** What a network says of one post. */
export interface RemoteFigures {
  readonly remoteId: string;
  readonly figures: Figures;
  /** How often a figure was counted anew; missing: never. */
  readonly counted: Readonly<Record<string, number>>;
}

/** A post as its network lists it, whoever made it. */
export interface RemotePost {
  readonly remoteId: string;
  readonly address: string;
  readonly publishedMs: number;
  readonly text: string;
  /** `picture`, `carousel`, `video`, `document` or `text`; null where the network does not say. */
  readonly format: string | null;
  readonly slides: number;
}

/** Figures of an account on one of its days. */
export interface RemoteDay {
  readonly day: string;
  readonly figures: Figures;
}

/** Who follows: counts by country, language, age and hour of presence. */
export type RemoteAudience = Readonly<Record<'countries' | 'languages' | 'ages' | 'hours', Figures>>;

/** Posts that may be asked for at once. */
export const POSTS_AT_ONCE = 50;

/** What can be asked of a network about what came back. Every method may throw a ConnectorError. */
export interface ResultsReader {
  /** Figures of at most `POSTS_AT_ONCE` posts; posts that are gone are missing. */
  figures(remoteIds: readonly string[], signal: AbortSignal): Promise<readonly RemoteFigures[]>;
  /** Posts of the account since a moment, the newest first. */
  posts(sinceMs: number, signal: AbortSignal): Promise<readonly RemotePost[]>;
  /** Whole days, first to last, as `2026-05-01`. */
  days(from: string, until: string, signal: AbortSignal): Promise<readonly RemoteDay[]>;
  /** Null where too few follow. */
  audience(signal: AbortSignal): Promise<RemoteAudience | null>;
}

/** A public post of somebody else. */
export interface PublicPost {
  readonly id: string;
  readonly handle: string;
  readonly name: string;
  readonly address: string;
  readonly publishedMs: number;
  readonly text: string;
  readonly kind: string;
  readonly tags: readonly string[];
  readonly reactions: number;
  readonly comments: number;
}

export interface PublicAccount {
  readonly handle: string;
  readonly name: string;
  readonly followers: number;
  /** Of the last two months, the newest first. */
  readonly posts: readonly PublicPost[];
}

/** What anybody can see at a network. Every method may throw a ConnectorError. */
export interface PublicView {
  /** Null where there is nobody of that name. */
  account(handle: string, signal: AbortSignal): Promise<PublicAccount | null>;
  search(words: string, signal: AbortSignal): Promise<readonly PublicPost[]>;
}

/** Something that a person wrote to the account or about it. */
export interface Heard {
  readonly remoteId: string;
  readonly kind: 'comment' | 'mention' | 'message';
  readonly thread: string;
  /** The post that it stands below. */
  readonly remotePostId: string | null;
  readonly author: { readonly handle: string; readonly name: string; readonly followers: number };
  readonly text: string;
  readonly atMs: number;
}

/** What people write at a network, and what can be done about it. Every method may throw a ConnectorError. */
export interface TalkLine {
  /** What came in after a place in the list; `next` is the place to go on from. */
  heard(after: string, signal: AbortSignal): Promise<{ readonly items: readonly Heard[]; readonly next: string; readonly more: boolean }>;
  /** Answers under a key: the same key answers once. */
  answer(remoteId: string, text: string, key: string, signal: AbortSignal): Promise<{ readonly remoteId: string }>;
  /** What was answered under a key; null when nothing was. */
  findAnswer(key: string, signal: AbortSignal): Promise<{ readonly remoteId: string } | null>;
  hide(remoteId: string, hidden: boolean, signal: AbortSignal): Promise<void>;
  remove(remoteId: string, signal: AbortSignal): Promise<void>;
  /** Has the network tell an address of what comes in, signed with a secret. */
  tell(address: string, secret: string, signal: AbortSignal): Promise<void>;
}
