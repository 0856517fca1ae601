import type { DeliveryState } from '../../../core/post/delivery-state.ts';
import type { ChosenMoment } from '../../post/MomentFields.tsx';
import { usualCut, type Place as PlaceOfCuts } from '../../../core/cut/places.ts';
import type { Cut } from '../use-cuts.ts';

/** A place of a channel on the proof wall. */
export type Place = PlaceOfCuts<Cut>;

/** What a person has decided for a place; what is missing follows from the piece, its posts and the shared moment. */
export interface PlaceChoice {
  readonly isOn?: boolean;
  readonly cutKey?: string;
  /** A moment of its own. */
  readonly moment?: ChosenMoment;
}

export type Choices = Readonly<Record<string, PlaceChoice>>;

/** What of a piece is on its way or out already. */
export interface EarlierDelivery {
  readonly channelId: string;
  readonly placement: string;
  readonly state: DeliveryState;
  readonly dueMs: number;
}

export interface PlaceRow<Earlier extends EarlierDelivery = EarlierDelivery> {
  readonly place: Place;
  readonly cut: Cut;
  readonly isOn: boolean;
  readonly moment: ChosenMoment;
  readonly hasOwnMoment: boolean;
  /** The latest outing of this piece in this place that waits, is being sent or is out; null for none. */
  readonly earlier: Earlier | null;
}

const isThere = ({ state }: EarlierDelivery): boolean => state !== 'failed' && state !== 'cancelled' && state !== 'removed';

/**
 * A row a place: what goes out there and when. All are ticked until the piece is scheduled or out somewhere: then somebody has decided where it goes, and ticks any other.
 * While its deliveries are not known (null) none is ticked, so that no tick goes away under a person's eyes.
 */
export function rowsOf<Earlier extends EarlierDelivery>(places: readonly Place[], choices: Choices, shared: ChosenMoment, known: readonly Earlier[] | null): readonly PlaceRow<Earlier>[] {
  const deliveries = known ?? [];
  const isDecided = known === null || known.some(isThere);
  return places.map((place) => {
    const choice = choices[place.key] ?? {};
    const earlier = deliveries.filter((each) => isThere(each) && place.cuts.some((cut) => cut.channel.id === each.channelId && cut.placement.key === each.placement)).toSorted((a, b) => b.dueMs - a.dueMs)[0] ?? null;
    return {
      place,
      cut: place.cuts.find(({ key }) => key === choice.cutKey) ?? usualCut(place.cuts),
      isOn: choice.isOn ?? !isDecided,
      moment: choice.moment ?? shared,
      hasOwnMoment: choice.moment !== undefined,
      earlier,
    };
  });
}

/** Another decision for a place. A moment of its own says that something goes out there. */
export function choose(choices: Choices, key: string, change: PlaceChoice): Choices {
  return { ...choices, [key]: { ...choices[key], ...change, ...(change.moment ? { isOn: true } : {}) } };
}

/** Once the ticked places are scheduled none is ticked; moments that were typed stay for the next time. */
export function afterScheduling(choices: Choices): Choices {
  return Object.fromEntries(Object.entries(choices).map(([key, { isOn: _, ...rest }]) => [key, rest]));
}

/** The place follows the shared moment again. */
export function followShared(choices: Choices, key: string): Choices {
  const { moment: _, ...rest } = choices[key] ?? {};
  return { ...choices, [key]: rest };
}
