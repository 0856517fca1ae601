import { DateTime } from 'luxon';
import { DOCUMENT_MIME, VIDEO_MIME } from '../rules.ts';
import { shownIn, type Post } from '../entry.ts';
import type { StandinStore } from '../store.ts';
import { pick, share } from './chance.ts';
import { interestOf, type ShownKind, type Traits } from './effects.ts';
import { habits } from './habits.ts';
import { ownPostPhrases } from './phrases.ts';
import { figuresAt, followersAt, type Figures, type Met } from './reaction.ts';
import { commentsOn, letters, thanksFor, type Heard } from './talk.ts';

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
const EARLY_ANSWER_MS = 2 * HOUR_MS;
const OWN_POSTS_A_WEEK = 0.6;
const MIN_AUDIENCE = 100;

/** What a network says of one post's figures. */
export interface PostFigures {
  readonly id: string;
  readonly figures: Figures;
  /** How often a figure has been counted anew; missing: never. */
  readonly counted: Readonly<Record<string, number>>;
}

export interface DayFigures {
  readonly day: string;
  readonly figures: Figures;
}

/** What happens around one account of a stand-in network, worked out from what it posted and answered. */
export class AccountLife {
  constructor(
    private readonly store: StandinStore,
    readonly network: string,
    readonly handle: string,
    private readonly nowMs: number,
  ) {}

  #keptLife: ReturnType<StandinStore['lifeOf']> | null = null;

  /** The same for as long as one question takes. */
  get #life() {
    return (this.#keptLife ??= this.store.lifeOf(this.network, this.handle));
  }

  /** Moment from which the account's growth counts. */
  get #epochMs(): number {
    return this.#life.sinceMs ?? this.nowMs;
  }

  followers(atMs = this.nowMs): number {
    return followersAt(this.network, this.handle, atMs, this.#epochMs);
  }

  /** Posts by a moment from which they were published, also those that no program made; the newest first. */
  posts(sinceMs: number): readonly Post[] {
    this.#keepOwnPosts();
    return this.store.listPostsSince(this.network, this.handle, sinceMs, this.nowMs);
  }

  figuresOf(ids: readonly string[]): readonly PostFigures[] {
    this.#keepOwnPosts();
    const early = this.#answeredEarly();
    return ids.flatMap((id) => {
      const post = this.store.findPost(this.network, id);
      return post?.handle === this.handle ? [{ id, ...this.#counted(figuresAt(this.#met(post, early), this.nowMs, this.#epochMs)) }] : [];
    });
  }

  /** Everything that people wrote by now, the first first; what was removed is missing. */
  heard(): readonly Heard[] {
    const fates = this.store.talk.fates(this.network, this.handle);
    const posts = this.posts(this.nowMs - 60 * DAY_MS);
    const early = new Set<string>();
    const first = [...posts.flatMap((post) => commentsOn(this.#met(post, early), this.nowMs, this.#epochMs)), ...letters({ network: this.network, handle: this.handle, sinceMs: this.#life.sinceMs }, this.nowMs - 60 * DAY_MS, this.nowMs)];
    const all = [...first, ...thanksFor(first, this.store.talk.listAnswers(this.network, this.handle), this.nowMs)];
    return all.filter(({ id }) => fates.get(id) !== 'removed').toSorted((a, b) => a.atMs - b.atMs || (a.id < b.id ? -1 : 1));
  }

  /** The figures of whole days of the account, on its own clock, first to last day; the day that runs is left out. */
  days(from: string, until: string): readonly DayFigures[] {
    const zone = this.#life.zone;
    const days: DayFigures[] = [];
    const posts = this.posts(DateTime.fromISO(from, { zone }).toMillis() - 30 * DAY_MS);
    const early = this.#answeredEarly();
    const met = posts.map((post) => this.#met(post, early));
    const countAt = (atMs: number): readonly Figures[] => met.map((each) => figuresAt(each, atMs, this.#epochMs));
    let before: { readonly atMs: number; readonly counts: readonly Figures[] } | null = null;
    const tells = habits[this.network]?.tells ?? [];
    for (let day = DateTime.fromISO(from, { zone }); day <= DateTime.fromISO(until, { zone }) && day.plus({ days: 1 }).toMillis() <= this.nowMs; day = day.plus({ days: 1 })) {
      const [start, end] = [day.toMillis(), day.plus({ days: 1 }).toMillis()];
      // A day begins where the one before has ended.
      const begun: readonly Figures[] = before?.atMs === start ? before.counts : countAt(start);
      const ended = countAt(end);
      before = { atMs: end, counts: ended };
      const sum = (metric: string): number => ended.reduce((total, figures, index) => total + (figures[metric] ?? 0) - (begun[index]?.[metric] ?? 0), 0);
      const reach = Math.round(sum('reach') * 0.9);
      days.push({
        day: day.toISODate() ?? '',
        figures: {
          ...(this.followers() > 0 ? { followers: this.followers(end) } : {}),
          ...(tells.includes('reach') ? { reach } : {}),
          ...(tells.includes('impressions') ? { impressions: sum('impressions') } : {}),
          profileVisits: Math.round(12 + sum('reactions') * 0.35 + share(`${this.network} ${this.handle} ${day.toISODate()} visits`) * 9),
        },
      });
    }
    return days;
  }

  /** Who follows; null below a hundred followers. Shares of all, and the hours at which they are there. */
  audience(): Readonly<Record<string, Figures>> | null {
    if (this.followers() < MIN_AUDIENCE) return null;
    const shares = (about: string, names: readonly string[]): Figures => {
      const weights = names.map((name, index) => Math.exp(-index * 0.9) * (0.7 + share(`${this.network} ${this.handle} ${about} ${name}`) * 0.6));
      const total = weights.reduce((sum, weight) => sum + weight, 0);
      return Object.fromEntries(names.map((name, index) => [name, Math.round(((weights[index] ?? 0) / total) * this.followers())]));
    };
    return {
      countries: shares('countries', ['GB', 'IE', 'DE', 'NL', 'FR', 'NZ']),
      languages: shares('languages', ['en', 'de', 'nl', 'fr']),
      ages: shares('ages', ['35-44', '25-34', '45-54', '55-64', '18-24', '65+']),
      hours: Object.fromEntries(Array.from({ length: 24 }, (_, hour) => [String(hour), Math.round(this.followers() * (0.03 + 0.22 * Math.exp(-((hour - 19) ** 2) / 14) + 0.12 * Math.exp(-((hour - 12) ** 2) / 8)))])),
    };
  }

  #met(post: Post, early: ReadonlySet<string>): Met {
    const local = DateTime.fromMillis(post.publishedMs, { zone: this.#life.zone });
    const { kind, slides } = this.shows(post);
    const traits: Traits = { kind, slides, hour: local.hour, weekday: local.weekday, interest: interestOf(`${post.title} ${post.text}`), hasFirstComment: post.firstComment !== '', answeredEarly: early.has(post.id) };
    // Chance goes by what a post says: the same demo has the same audience whenever it is seeded.
    const { seed = `${post.network} ${post.handle} ${post.placement} ${post.text}` } = JSON.parse(post.shows) as { readonly seed?: string };
    return { network: this.network, handle: this.handle, postId: post.id, publishedMs: post.publishedMs, seed, traits };
  }

  /** What a post shows, as its network sees it. */
  shows(post: Post): { readonly kind: ShownKind; readonly slides: number } {
    const kept = JSON.parse(post.shows) as { readonly kind?: ShownKind; readonly slides?: number };
    if (kept.kind) return { kind: kept.kind, slides: kept.slides ?? 1 };
    const shown = shownIn(post).flatMap(({ mediaId }) => this.store.findMedia(mediaId) ?? []);
    const [first] = shown;
    if (!first) return { kind: 'text', slides: 1 };
    if (first.mime === VIDEO_MIME) return { kind: 'video', slides: 1 };
    if (first.mime === DOCUMENT_MIME) return { kind: 'document', slides: first.pages };
    return shown.length > 1 ? { kind: 'carousel', slides: shown.length } : { kind: 'picture', slides: 1 };
  }

  /** Posts of which a comment was answered soon after publishing. */
  #answeredEarly(): ReadonlySet<string> {
    return new Set(
      this.store.talk.listAnswers(this.network, this.handle).flatMap(({ target, atMs }) => {
        const postId = /^c(.+)-\d+$/.exec(target)?.[1];
        const post = postId === undefined ? null : this.store.findPost(this.network, postId);
        return post && atMs - post.publishedMs <= EARLY_ANSWER_MS ? [post.id] : [];
      }),
    );
  }

  /** What the network tells of figures: some it has stopped to tell, some it counts anew, which gives about half. */
  #counted(figures: Figures): Pick<PostFigures, 'figures' | 'counted'> {
    const changes = this.store.talk.metricChanges(this.network).filter(({ atMs }) => atMs <= this.nowMs);
    const stopped = new Set(changes.flatMap(({ kind, metric }) => (kind === 'stops' ? [metric] : [])));
    const anew = new Set(changes.flatMap(({ kind, metric }) => (kind === 'anew' ? [metric] : [])));
    return {
      figures: Object.fromEntries(Object.entries(figures).flatMap(([metric, value]) => (stopped.has(metric) ? [] : [[metric, anew.has(metric) ? Math.floor(value * 0.55) : value]]))),
      counted: Object.fromEntries([...anew].filter((metric) => figures[metric] !== undefined).map((metric) => [metric, 2])),
    };
  }

  /** People also post by hand, some weeks; such posts exist from their moment on. */
  #keepOwnPosts(): void {
    const { sinceMs, ownPosts } = this.#life;
    if (!ownPosts || sinceMs === null || (habits[this.network]?.followers ?? 0) === 0) return;
    for (let week = Math.floor(sinceMs / (7 * DAY_MS)) + 1; week * 7 * DAY_MS < this.nowMs; week += 1) {
      const key = `${this.network} ${this.handle} own ${week}`;
      const atMs = Math.round(week * 7 * DAY_MS + share(`${key} moment`) * 7 * DAY_MS);
      if (share(key) >= OWN_POSTS_A_WEEK || atMs > this.nowMs || this.store.findPostByKey(this.network, this.handle, key) !== null) continue;
      this.store.publishOnce({ network: this.network, handle: this.handle, mediaId: '', placement: '', text: pick(ownPostPhrases, key), altText: '', title: '', link: '', firstComment: '', more: '[]', along: '{}', details: '{}', shows: JSON.stringify({ kind: 'picture', slides: 1 }) }, key, atMs);
    }
  }
}
