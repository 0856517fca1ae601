/** A resource that runs short: lanes that take it share its places within one process. */
export type Resource = 'ffmpeg' | 'painting';

/** How many jobs may hold a resource at once: ffmpeg uses several threads of its own. */
export const resourcePlaces: Readonly<Record<Resource, number>> = { ffmpeg: 2, painting: 2 };

/** A queue within the queue. Work of one lane never waits for that of another, but for a resource that both take. */
export interface Lane {
  readonly name: string;
  /** Jobs that run at once. */
  readonly places: number;
  readonly takes: Resource | null;
  /** Its jobs can be stopped at any moment and begun anew. */
  readonly isInterruptible: boolean;
}

/** Jobs of one group that run at once in a process: a slow network keeps no other one waiting. */
export const PLACES_OF_GROUP = 2;

export const lanes = [
  // More places than one network may take: its deliveries are a group.
  { name: 'send', places: 8, takes: null, isInterruptible: false },
  // Videos are made before they are sent, which takes minutes.
  { name: 'send-video', places: 1, takes: 'ffmpeg', isInterruptible: false },
  { name: 'import', places: 1, takes: 'ffmpeg', isInterruptible: true },
  // A photograph takes a second, and waits for no clip.
  { name: 'import-picture', places: 2, takes: null, isInterruptible: true },
  { name: 'export', places: 1, takes: 'ffmpeg', isInterruptible: true },
  // Small copies and pictures that a page waits for.
  { name: 'picture', places: 2, takes: 'painting', isInterruptible: true },
  // Copies of clips and sounds that a page waits for.
  { name: 'recording', places: 1, takes: 'ffmpeg', isInterruptible: true },
  // What the plan foresees becomes posts.
  { name: 'plan', places: 1, takes: null, isInterruptible: true },
  // What the networks are asked for: a slow one keeps two places at most.
  { name: 'learn', places: 4, takes: null, isInterruptible: true },
  // Answers to people, who wait for them.
  { name: 'answer', places: 4, takes: null, isInterruptible: false },
  // Feeds are read, shelves looked after.
  { name: 'ideas', places: 2, takes: null, isInterruptible: true },
  { name: 'upkeep', places: 1, takes: null, isInterruptible: true },
] as const satisfies readonly Lane[];

export type LaneName = (typeof lanes)[number]['name'];

export const laneNames: readonly LaneName[] = lanes.map(({ name }) => name);
