import type { ChannelOffers } from '../../core/network/channel-offers.ts';
import type { Words } from '../../core/words/fields.ts';
import type { PublicView, ResultsReader, TalkLine } from './results-reader.ts';

/** A picture, document, video or subtitle file ready to go to a network: bytes at hand, or a file that is read while it is sent. */
export type OutgoingFile = { readonly kind: 'bytes'; readonly bytes: Uint8Array; readonly mime: string } | { readonly kind: 'file'; readonly path: string; readonly mime: string };

/** A picture (or a document) that the network holds already, and what it shows. */
export interface RemoteMedia {
  readonly id: string;
  readonly altText: string;
  readonly mime?: string;
}

export interface OutgoingPost {
  readonly placement: string;
  /** The fields that the network takes in this placement, and no other. */
  readonly words: Words;
  /** At least one; several make a carousel, in this order. */
  readonly media: readonly [RemoteMedia, ...RemoteMedia[]];
  /** What goes along with a video. */
  readonly along?: VideoAlong;
}

/** The cover of a video, a picture that the network holds or a moment of it, and its subtitles. */
export interface VideoAlong {
  readonly coverId?: string;
  readonly coverAtMs?: number;
  readonly subtitlesId?: string;
}

/** A follow-up of a published post: a further part of its thread, or its first comment. */
export interface OutgoingFollowUp {
  readonly kind: 'part' | 'comment';
  /** Position among the follow-ups, from 1. */
  readonly place: number;
  readonly text: string;
  readonly media: readonly RemoteMedia[];
}

/** What a network knows of a publication that was tried before. */
export type Publication = { readonly kind: 'published'; readonly address: string } | { readonly kind: 'processing' } | { readonly kind: 'absent' };

/** What a connector has to know of a channel; its token is open here. */
export interface ConnectorChannel {
  readonly network: string;
  readonly handle: string;
  /** Where the stand-ins are; empty for a site on the internet. */
  readonly origin: string;
  readonly site: string | null;
  readonly token: string;
}

/** What a network can do; work asks here instead of asking which network it is. */
export interface ConnectorCapabilities {
  /** After an uncertain outcome it can be asked whether a post exists. */
  readonly findsPublications: boolean;
}

/** A hashtag with how many people a month see posts that have it, as the network says it. */
export interface TagReach {
  readonly tag: string;
  readonly reach: number;
}

/** Somebody whom a network knows. */
export interface KnownPerson {
  readonly name: string;
  readonly handle: string;
}

/** What can be asked of a network beside publishing. Every method may throw a ConnectorError. */
export interface NetworkKnowledge {
  /** What the account has to choose from: boards, playlists. */
  offers(signal: AbortSignal): Promise<ChannelOffers>;
  /** Hashtags that begin like that, those that reach most first. */
  suggestTags(start: string, signal: AbortSignal): Promise<readonly TagReach[]>;
  reachOf(tags: readonly string[], signal: AbortSignal): Promise<readonly TagReach[]>;
  /** Places that the network knows, and what rises at one of them. */
  trends(place: string | null, signal: AbortSignal): Promise<{ readonly places: readonly string[]; readonly tags: readonly TagReach[] }>;
  people(start: string, signal: AbortSignal): Promise<readonly KnownPerson[]>;
}

/**
 * One channel's way to its network. Every method may throw a ConnectorError. `publish` makes a post
 * public; whoever calls it has written down that it will, and asks `findPublication` before calling it again.
 */
export interface Connector {
  readonly capabilities: ConnectorCapabilities;
  upload(file: OutgoingFile, signal: AbortSignal): Promise<{ readonly remoteMediaId: string }>;
  /** Networks that publish in two steps keep a draft first; others answer null. Drafts are not public. */
  prepare(post: OutgoingPost, signal: AbortSignal): Promise<{ readonly remoteDraftId: string | null }>;
  publish(post: OutgoingPost, handle: PublicationHandle, signal: AbortSignal): Promise<{ readonly address: string }>;
  findPublication(handle: PublicationHandle, signal: AbortSignal): Promise<Publication>;
  /** Adds a follow-up to a published post. A second request for the same place adds nothing. */
  follow(address: string, followUp: OutgoingFollowUp, signal: AbortSignal): Promise<void>;
  /** Removes what is public; what is gone already counts as removed. */
  remove(address: string, signal: AbortSignal): Promise<void>;
  /** Gives what is public another text; answers where it is then. */
  rewrite(address: string, words: Words, signal: AbortSignal): Promise<{ readonly address: string }>;
  /** Null where the network answers no such questions. */
  readonly knowledge: NetworkKnowledge | null;
  /** Null where the network tells no figures. */
  readonly results: ResultsReader | null;
  /** Null where nothing that people write can be read. */
  readonly talk: TalkLine | null;
  /** Null where nothing public can be looked at. */
  readonly others: PublicView | null;
}

/** What identifies a publication on the network's side, before and after it exists. */
export interface PublicationHandle {
  readonly idempotencyKey: string;
  readonly remoteDraftId: string | null;
}

/** Why a network did not do what it was asked. */
export class ConnectorError extends Error {
  override readonly name = 'ConnectorError';
  constructor(
    /**
     * `refused`: it will never take this. `ended`: the access has ended. `busy`: it asks to come back later.
     * `unreachable`: there was no answer. `broken`: it answered with a fault of its own. The last two leave open
     * whether the act was done. `processing`: it has what is needed and makes it public by itself.
     */
    readonly code: 'refused' | 'ended' | 'busy' | 'unreachable' | 'broken' | 'processing',
    message: string,
    readonly retryAfterMs: number | null = null,
    options?: ErrorOptions,
  ) {
    super(message, options);
  }
}
