import { percentile, printFigure } from './figure.ts';
import { FRAMES_PER_MS, keystrokeTimes } from './keystroke.ts';
import { serverCutRatio } from './server-cut.ts';
import { serverSetRatio } from './server-set.ts';

printFigure('server-cut-against-decode-resize-encode', await serverCutRatio(), 1.15);
for (const format of ['png', 'jpeg'] as const) printFigure(`twelve-cuts-of-24-megapixels-as-${format}`, await serverSetRatio(format), 1.15);
const times = await keystrokeTimes();
process.stdout.write(`${times.length} keystrokes: median ${percentile(times, 0.5).toFixed(1)} ms, p95 ${percentile(times, 0.95).toFixed(1)} ms\n`);
printFigure('keystroke-to-fourteen-cuts-p95-in-frames-of-60-hertz', percentile(times, 0.95) * FRAMES_PER_MS, 3);
