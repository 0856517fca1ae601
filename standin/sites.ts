import { Hono } from 'hono';

const ICON = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 64 64"><style>.a{fill:#7a1f3d}.b{fill:#e0a458}</style>
<path class="a" d="M8 40C8 24 18 14 32 14s24 10 24 26c0 6-4 10-10 10H18C12 50 8 46 8 40Z"/>
<path class="b" d="M20 24l6 14h-5l-6-10ZM30 20l6 18h-5l-5-15ZM41 21l5 17h-5l-4-14Z"/></svg>`;

const STYLE = `:root{--wine:#7a1f3d;--crust:#e0a458;--flour:#fbf4ea;--rye:#2d1b16;--sea:#2f6f73}
body{margin:0;background:var(--flour);color:var(--rye);font-family:"Lora",serif}
header{background:var(--wine);color:var(--flour)}
h1,h2{font-family:"Fraunces",serif;color:var(--wine)}
a{color:var(--sea)} .button{background:var(--crust);color:var(--rye);border:2px solid var(--rye)}
footer{background:var(--rye);color:var(--flour)}`;

const PAGE = `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Salt &amp; Rye, bakers</title>
<meta property="og:site_name" content="Salt &amp; Rye"><meta name="theme-color" content="#7a1f3d">
<meta name="description" content="Bread with a crust you can hear. Baked by the lock in Underwater Lane, gone by noon.">
<link rel="stylesheet" href="style.css"><link rel="icon" type="image/svg+xml" href="icon.svg"></head>
<body><header><h1>Salt &amp; Rye</h1></header><main><h2>Today: rye, spelt, seeded</h2><p>Ovens on at three, door open at seven.</p><a class="button" href="#">Put a loaf by</a></main><footer>Underwater Lane 4</footer></body></html>`;

/** Pages that the demo's short links lead to. */
const kitePages = [
  ['/gullwick', 'Gullwick Kite Works', 'Build a kite on a Saturday afternoon. Up the outside stairs of the Old Net Loft.'],
  ['/gullwick/kits', 'Kits', 'Sled, delta and box kites as kits, with everything but the wind.'],
] as const;

/** A shop's web page of our own making, for brands to be begun from. */
export function sampleSites(): Hono {
  const sites = new Hono();
  sites.get('/salt-and-rye/', (context) => context.html(PAGE));
  for (const [path, heading, text] of kitePages) sites.get(path, (context) => context.html(`<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${heading}</title></head><body><h1>${heading}</h1><p>${text}</p></body></html>`));
  sites.get('/salt-and-rye/style.css', (context) => context.body(STYLE, 200, { 'content-type': 'text/css' }));
  sites.get('/salt-and-rye/icon.svg', (context) => context.body(ICON, 200, { 'content-type': 'image/svg+xml' }));
  sites.get('/salt-and-rye/oven-bell.wav', (context) => context.body(ovenBell(), 200, { 'content-type': 'audio/wav' }));
  return sites;
}

const BELL_HZ = 880;
const SAMPLE_RATE = 8_000;

/** A second of a bell that fades, as a WAV file: what a site has to be fetched that is no picture. */
function ovenBell(): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(44 + SAMPLE_RATE * 2);
  const view = new DataView(bytes.buffer);
  const write = (at: number, text: string): void => [...text].forEach((letter, index) => view.setUint8(at + index, letter.charCodeAt(0)));
  write(0, 'RIFF');
  view.setUint32(4, bytes.length - 8, true);
  write(8, 'WAVEfmt ');
  view.setUint32(16, 16, true);
  view.setUint16(20, 1, true);
  view.setUint16(22, 1, true);
  view.setUint32(24, SAMPLE_RATE, true);
  view.setUint32(28, SAMPLE_RATE * 2, true);
  view.setUint16(32, 2, true);
  view.setUint16(34, 16, true);
  write(36, 'data');
  view.setUint32(40, SAMPLE_RATE * 2, true);
  for (let index = 0; index < SAMPLE_RATE; index += 1) view.setInt16(44 + index * 2, Math.sin((index / SAMPLE_RATE) * 2 * Math.PI * BELL_HZ) * 20_000 * Math.exp((-4 * index) / SAMPLE_RATE), true);
  return bytes;
}
