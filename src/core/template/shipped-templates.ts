import answer from './shipped/answer.json' with { type: 'json' };
import arch from './shipped/arch.json' with { type: 'json' };
import aside from './shipped/aside.json' with { type: 'json' };
import ask from './shipped/ask.json' with { type: 'json' };
import band from './shipped/band.json' with { type: 'json' };
import bill from './shipped/bill.json' with { type: 'json' };
import corner from './shipped/corner.json' with { type: 'json' };
import counter from './shipped/counter.json' with { type: 'json' };
import crew from './shipped/crew.json' with { type: 'json' };
import cutting from './shipped/cutting.json' with { type: 'json' };
import door from './shipped/door.json' with { type: 'json' };
import either from './shipped/either.json' with { type: 'json' };
import eclipse from './shipped/eclipse.json' with { type: 'json' };
import flag from './shipped/flag.json' with { type: 'json' };
import gust from './shipped/gust.json' with { type: 'json' };
import headland from './shipped/headland.json' with { type: 'json' };
import hush from './shipped/hush.json' with { type: 'json' };
import kit from './shipped/kit.json' with { type: 'json' };
import knot from './shipped/knot.json' with { type: 'json' };
import ledger from './shipped/ledger.json' with { type: 'json' };
import lull from './shipped/lull.json' with { type: 'json' };
import pier from './shipped/pier.json' with { type: 'json' };
import plank from './shipped/plank.json' with { type: 'json' };
import plaque from './shipped/plaque.json' with { type: 'json' };
import porthole from './shipped/porthole.json' with { type: 'json' };
import portrait from './shipped/portrait.json' with { type: 'json' };
import quilt from './shipped/quilt.json' with { type: 'json' };
import rung from './shipped/rung.json' with { type: 'json' };
import season from './shipped/season.json' with { type: 'json' };
import shade from './shipped/shade.json' with { type: 'json' };
import sheaf from './shipped/sheaf.json' with { type: 'json' };
import shoreline from './shipped/shoreline.json' with { type: 'json' };
import signpost from './shipped/signpost.json' with { type: 'json' };
import spindle from './shipped/spindle.json' with { type: 'json' };
import strand from './shipped/strand.json' with { type: 'json' };
import tally from './shipped/tally.json' with { type: 'json' };
import thanks from './shipped/thanks.json' with { type: 'json' };
import tide from './shipped/tide.json' with { type: 'json' };
import turn from './shipped/turn.json' with { type: 'json' };
import voice from './shipped/voice.json' with { type: 'json' };
import volume from './shipped/volume.json' with { type: 'json' };
import type { Template } from './template.ts';

/**
 * The templates that ship with Confetti, in the order they are offered: graphics, then carousels, then videos.
 * A test reads each as one from outside is read: to read all forty whenever a program begins would hold it up.
 */
export const shippedTemplates: readonly Template[] = [headland, lull, eclipse, aside, shade, plank, voice, cutting, arch, porthole, counter, bill, flag, plaque, rung, kit, ledger, tally, turn, either, ask, answer, door, quilt, band, corner, volume, portrait, crew, thanks, season, signpost, strand, shoreline, sheaf, gust, knot, tide, spindle, pier, hush] as unknown as readonly Template[];

/**
 * A shipped template by its key.
 * @throws RangeError when no template has the key
 */
export function getShippedTemplate(key: string): Template {
  const template = shippedTemplates.find((each) => each.key === key);
  if (!template) throw new RangeError(`There is no template '${key}'`);
  return template;
}
