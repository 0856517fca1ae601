import { VIDEO_FPS } from '../../core/video/shot-times.ts';
import { voiceEndMs } from '../../core/video/speech.ts';
import type { Recording } from '../../core/video/recording.ts';
import { momentAt, type Moment, type TimedShot, type Timeline } from '../../core/video/timeline.ts';
import type { ClipPicture } from '../../workers/wall-protocol.ts';
import { nextDue, type PaintDue, type WhichCuts } from './paint-due.ts';

/** A sound that plays through all shots. */
export interface PlayedSound {
  readonly address: string;
  readonly volume: number;
  readonly loops: boolean;
  /** Lower the music while this clip has speech. */
  readonly speech: Recording | null;
}

/** What is played. */
export interface PlayedVideo {
  readonly timeline: Timeline;
  /** Where clips are played from, by media. */
  readonly addresses: ReadonlyMap<string, string>;
  readonly sounds: readonly PlayedSound[];
}

export interface PlayerState {
  readonly frame: number;
  readonly isPlaying: boolean;
}

/** Paints a moment of the video; answers whether it could, or is still at the one before. */
export type PaintMoment = (frame: number, moment: Moment, pictures: (mediaIds: readonly string[], copies: number) => Promise<readonly (readonly ClipPicture[])[]>, cuts: WhichCuts) => Promise<boolean>;

/** A clip that runs more than this apart from the video is set right, in seconds. */
const MAX_APART_S = 0.15;
/** A clip is set to its beginning so long before its shot, in frames. */
const READY_FRAMES = 20;
const GIVEN_WAY = 0.22;
const SEEK_MS = 1_500;
/** A clip that cannot be read is asked for again after this time, so often: its small copy may still be in the making. */
const AGAIN_MS = 2_000;
const MAX_AGAIN = 30;

/** Plays a video: one clock, a player a clip and sound, and a picture of every moment. */
export class VideoPlayer {
  #video: PlayedVideo = { timeline: { shots: [], lengthFrames: 0 }, addresses: new Map(), sounds: [] };
  readonly #clips = new Map<string, HTMLVideoElement>();
  /** The frame of each clip that the browser shows, and the one that was painted last, by its moment in the clip. */
  readonly #presented = new WeakMap<HTMLVideoElement, number>();
  readonly #painted = new WeakMap<HTMLVideoElement, number>();
  #sounds: { readonly element: HTMLAudioElement; readonly sound: PlayedSound }[] = [];
  #state: PlayerState = { frame: 0, isPlaying: false };
  #startedMs = 0;
  #startFrame = 0;
  #tick: number | null = null;
  #working = false;
  #due: PaintDue = 'seen';
  readonly #listeners = new Set<() => void>();

  constructor(readonly paint: PaintMoment) {}

  readonly subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };
  readonly getState = (): PlayerState => this.#state;

  show(video: PlayedVideo): void {
    const { sounds } = this.#video;
    this.#video = video;
    const wanted = new Set(video.timeline.shots.flatMap((shot, index) => (shot.clip ? [clipKey(shot, index)] : [])));
    for (const [key, element] of this.#clips) {
      if (wanted.has(key)) continue;
      element.pause();
      element.removeAttribute('src');
      this.#clips.delete(key);
    }
    if (JSON.stringify(sounds.map(({ address }) => address)) === JSON.stringify(video.sounds.map(({ address }) => address))) {
      this.#sounds = this.#sounds.map(({ element }, index) => ({ element, sound: video.sounds[index] as PlayedSound }));
    } else {
      for (const { element } of this.#sounds) element.pause();
      this.#sounds = video.sounds.map((sound) => ({ element: Object.assign(new Audio(sound.address), { loop: sound.loops, preload: 'auto' }), sound }));
    }
    this.repaint();
  }

  /** Paints the moment at hand anew, as after something on the page has changed. */
  repaint(): void {
    this.#due = nextDue(this.#due, 'change');
    this.#go();
  }

  play(): void {
    const { lengthFrames } = this.#video.timeline;
    if (lengthFrames === 0) return;
    const frame = this.#state.frame >= lengthFrames - 1 ? 0 : this.#state.frame;
    this.#startFrame = frame;
    this.#startedMs = performance.now();
    this.#set({ frame, isPlaying: true });
    for (const { element, sound } of this.#sounds) {
      const at = frame / VIDEO_FPS;
      element.currentTime = sound.loops && element.duration > 0 ? at % element.duration : at;
      element.volume = sound.volume;
      // Sound that a browser does not let begin is no reason to stop the pictures.
      if (sound.loops || !(at > element.duration)) element.play().catch(() => undefined);
    }
    this.#go();
  }

  pause(): void {
    for (const element of [...this.#clips.values(), ...this.#sounds.map(({ element }) => element)]) element.pause();
    this.#set({ ...this.#state, isPlaying: false });
    this.repaint();
  }

  seek(frame: number): void {
    const last = Math.max(0, this.#video.timeline.lengthFrames - 1);
    const at = Math.min(last, Math.max(0, Math.round(frame)));
    const wasPlaying = this.#state.isPlaying;
    this.#set({ ...this.#state, frame: at });
    if (wasPlaying) this.play();
    else this.repaint();
  }

  close(): void {
    if (this.#tick !== null) cancelAnimationFrame(this.#tick);
    this.#tick = null;
    for (const element of [...this.#clips.values(), ...this.#sounds.map(({ element }) => element)]) {
      element.pause();
      element.removeAttribute('src');
    }
    this.#clips.clear();
    this.#listeners.clear();
  }

  #set(state: PlayerState): void {
    this.#state = state;
    for (const listener of this.#listeners) listener();
  }

  #go(): void {
    this.#tick ??= requestAnimationFrame(() => {
      this.#tick = null;
      void this.#step();
    });
  }

  async #step(): Promise<void> {
    if (this.#working) return this.#go();
    const { timeline } = this.#video;
    if (this.#state.isPlaying) {
      const frame = Math.floor(this.#startFrame + ((performance.now() - this.#startedMs) * VIDEO_FPS) / 1000);
      if (frame >= timeline.lengthFrames) {
        this.#set({ frame: Math.max(0, timeline.lengthFrames - 1), isPlaying: true });
        return this.pause();
      }
      if (frame !== this.#state.frame) this.#due = nextDue(this.#due, 'change');
      this.#set({ frame, isPlaying: true });
      this.#giveWay(frame);
    }
    if (this.#due !== 'nothing') {
      this.#working = true;
      try {
        await this.#paintNow();
      } finally {
        this.#working = false;
      }
    }
    if (this.#state.isPlaying || this.#due !== 'nothing') this.#go();
  }

  async #paintNow(): Promise<void> {
    const { frame, isPlaying } = this.#state;
    const moment = momentAt(this.#video.timeline, frame);
    if (!moment) {
      this.#due = 'nothing';
      return;
    }
    const shown = [{ shot: moment.shot, index: moment.index }, ...(moment.over ? [moment.over] : [])];
    await Promise.all(shown.map(({ shot, index }) => this.#bring(shot, index, frame, isPlaying)));
    this.#rest(moment, frame);
    const cuts: WhichCuts = this.#due === 'unseen' ? 'unseen' : 'seen';
    // Whatever changes while this is painted is due again.
    this.#due = nextDue(this.#due, 'begin');
    const done = await this.paint(frame, moment, (mediaIds, copies) => this.#pictures(shown, mediaIds, copies), cuts);
    if (cuts === 'unseen') this.#due = nextDue(this.#due, done ? 'rest-painted' : 'rest-put-off');
    else if (!done || this.#state.frame !== frame) this.#due = nextDue(this.#due, 'change');
    else this.#due = nextDue(this.#due, isPlaying ? 'painted-on-the-way' : 'painted-at-rest');
  }

  /** Brings a clip to where the video is: along with it while it plays, to the very picture while it stands. */
  async #bring(shot: TimedShot, index: number, frame: number, isPlaying: boolean): Promise<void> {
    const element = this.#clipOf(shot, index);
    if (!element || !shot.clip) return;
    element.volume = shot.clip.volume;
    element.muted = !shot.clip.hasSound || shot.clip.volume === 0;
    const inside = Math.min(frame - shot.startFrame, shot.lengthFrames - 1);
    const at = (shot.clip.fromFrame + inside + 0.5) / VIDEO_FPS;
    if (isPlaying) {
      if (Math.abs(element.currentTime - at) > MAX_APART_S) element.currentTime = at;
      if (element.paused) await element.play().catch(() => undefined);
      return;
    }
    element.pause();
    if (Math.abs(element.currentTime - at) > 0.001) {
      element.currentTime = at;
      if (!(await happens(element, 'seeked'))) this.#repaintAfter(element, 'seeked');
    }
    if (element.readyState < HTMLMediaElement.HAVE_CURRENT_DATA && !(await happens(element, 'loadeddata'))) this.#repaintAfter(element, 'loadeddata');
  }

  /** What comes too late for a moment is painted when it has come. */
  #repaintAfter(element: HTMLMediaElement, event: 'seeked' | 'loadeddata'): void {
    element.addEventListener(event, () => { if (!this.#state.isPlaying) this.repaint(); }, { once: true });
  }

  /** Clips that are not shown stand still; the next one waits at its beginning. */
  #rest(moment: Moment, frame: number): void {
    this.#video.timeline.shots.forEach((shot, index) => {
      if (index === moment.index || index === moment.over?.index) return;
      const known = this.#clips.get(clipKey(shot, index));
      if (known && !known.paused) known.pause();
      if (shot.startFrame < frame || shot.startFrame - frame > READY_FRAMES || !shot.clip) return;
      const element = this.#clipOf(shot, index);
      const at = (shot.clip.fromFrame + 0.5) / VIDEO_FPS;
      if (element && Math.abs(element.currentTime - at) > MAX_APART_S) element.currentTime = at;
    });
  }

  #clipOf(shot: TimedShot, index: number): HTMLVideoElement | null {
    const address = shot.clip && this.#video.addresses.get(shot.clip.mediaId);
    if (!address) return null;
    const key = clipKey(shot, index);
    const known = this.#clips.get(key);
    if (known) return known;
    const element = document.createElement('video');
    element.src = address;
    element.preload = 'auto';
    element.playsInline = true;
    let again = 0;
    element.addEventListener('error', () => {
      if (again >= MAX_AGAIN) return;
      again += 1;
      setTimeout(() => {
        if (this.#clips.get(key) !== element) return;
        element.load();
        this.repaint();
      }, AGAIN_MS);
    });
    this.#clips.set(key, element);
    if ('requestVideoFrameCallback' in element) this.#follow(element, key);
    return element;
  }

  /** A busy browser shows the frame of a moment later than it says that it has come to it: what was painted before is painted anew. */
  #follow(element: HTMLVideoElement, key: string): void {
    element.requestVideoFrameCallback((_, { mediaTime }) => {
      if (this.#clips.get(key) !== element) return;
      this.#presented.set(element, mediaTime);
      if (!this.#state.isPlaying && this.#painted.has(element) && this.#painted.get(element) !== mediaTime) this.repaint();
      this.#follow(element, key);
    });
  }

  async #pictures(shown: readonly { readonly shot: TimedShot; readonly index: number }[], mediaIds: readonly string[], copies: number): Promise<readonly (readonly ClipPicture[])[]> {
    const clips = shown.flatMap(({ shot, index }) => {
      const element = shot.clip && mediaIds.includes(shot.clip.mediaId) ? this.#clips.get(clipKey(shot, index)) : undefined;
      return shot.clip && element && element.readyState >= HTMLMediaElement.HAVE_CURRENT_DATA ? [{ mediaId: shot.clip.mediaId, element }] : [];
    });
    return Promise.all(
      Array.from({ length: copies }, () =>
        Promise.all(
          clips.map(async ({ mediaId, element }): Promise<ClipPicture> => {
            this.#painted.set(element, this.#presented.get(element) ?? Number.NaN);
            return { mediaId, bitmap: await createImageBitmap(element) };
          }),
        ),
      ),
    );
  }

  #giveWay(frame: number): void {
    const atMs = (frame * 1000) / VIDEO_FPS;
    const speaks = this.#sounds.some(({ sound: { speech } }) => speech !== null && atMs < speech.durationMs && !speech.facts.silent.some(({ fromMs, toMs }) => atMs >= fromMs && atMs < toMs));
    for (const { element, sound } of this.#sounds) {
      if (sound.speech) {
        // A video that is shorter than its voice ends with whole words.
        element.muted = atMs >= voiceEndMs(sound.speech, (this.#video.timeline.lengthFrames * 1000) / VIDEO_FPS);
        continue;
      }
      const wanted = sound.volume * (speaks ? GIVEN_WAY : 1);
      element.volume += (wanted - element.volume) * 0.2;
    }
  }
}

function clipKey({ clip }: TimedShot, index: number): string {
  return `${clip?.mediaId ?? ''}@${index}`;
}

/** Waits for an event, but not for ever: a clip that cannot be read is shown as it is. Answers whether it came. */
function happens(element: HTMLMediaElement, event: string): Promise<boolean> {
  return new Promise((resolve) => {
    const timer = setTimeout(() => resolve(false), SEEK_MS);
    element.addEventListener(event, () => { clearTimeout(timer); resolve(true); }, { once: true });
  });
}
