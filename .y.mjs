// src/core/brand/brand-book.ts
import { array, boolean, lazy, number, object, string } from "yup";
var hex = () => string().matches(/^#[0-9a-fA-F]{6}$/, "A colour is written #rrggbb").required();
var key = () => string().matches(/^[a-z][a-z0-9-]*$/, "A key has small letters, digits and hyphens").required();
var typeRole = object({
  font: key(),
  leading: number().min(0.8).max(2).required(),
  trackingEm: number().min(-0.1).max(0.3).required(),
  capitals: string().oneOf(["as-written", "all"]).required(),
  /** 1 sets the role as large as templates ask; a wide typeface may want less. */
  scale: number().min(0.6).max(1.4).required()
}).noUnknown();
var markCommon = {
  key: key(),
  for: string().oneOf(["light", "dark"]).required(),
  /** Room that nothing else may enter, as a share of the mark's height. */
  clearSpace: number().min(0).max(1).required(),
  /** Height below which the mark is no longer clear, in pixels of a cut 1080 wide. */
  leastHeightPx: number().min(16).max(400).required()
};
var vectorMark = object({
  ...markCommon,
  kind: string().oneOf(["vector"]).required(),
  viewBox: object({ width: number().positive().required(), height: number().positive().required() }).required(),
  paths: array(object({ d: string().required().max(2e4), fill: hex(), evenOdd: boolean() }).noUnknown()).min(1).max(400).required()
}).noUnknown();
var pictureMark = object({
  ...markCommon,
  kind: string().oneOf(["picture"]).required(),
  mediaId: string().matches(/^[A-Za-z0-9_-]{1,40}$/).required(),
  viewBox: object({ width: number().positive().required(), height: number().positive().required() }).required(),
  mainColour: hex()
}).noUnknown();
var markSchema = lazy((given) => typeof given === "object" && given !== null && "kind" in given && given.kind === "picture" ? pictureMark : vectorMark);
var ownTypeface = object({
  key: string().matches(/^own-[0-9a-f]{12}$/).required(),
  family: string().required().max(80),
  weight: number().integer().min(1).max(1e3).required(),
  hash: string().matches(/^[0-9a-f]{64}$/).required(),
  licence: string().max(300).defined()
}).noUnknown();
var factSchema = object({ key: key(), name: string().required().max(40), text: string().max(300).defined() }).noUnknown();
var wordChoice = object({ avoid: string().trim().required().max(60), prefer: string().max(60).defined() }).noUnknown();
var voiceSchema = object({
  guidance: string().max(4e3).defined(),
  tone: string().max(300).defined(),
  words: array(wordChoice).max(200).required(),
  hashtags: array(string().matches(/^#[\p{L}\p{N}_]+$/u, "A hashtag starts with # and has no spaces").max(60).required()).max(60).required(),
  firstComment: string().max(2e3).defined(),
  link: string().max(2e3).defined()
}).noUnknown();
var brandBookSchema = object({
  version: number().oneOf([2]).required(),
  colours: array(object({ key: key(), name: string().required().max(60), hex: hex() }).noUnknown()).min(2).max(40).required(),
  schemes: array(
    object({ key: key(), name: string().required().max(60), ground: key(), surface: key(), ink: key(), accent: key() }).noUnknown()
  ).min(1).max(12).required(),
  type: object({ display: typeRole.required(), heading: typeRole.required(), text: typeRole.required(), label: typeRole.required() }).required(),
  typefaces: array(ownTypeface).max(40).required(),
  marks: array(markSchema).min(1).max(12).required(),
  facts: array(factSchema).max(60).required(),
  voice: voiceSchema.required()
}).noUnknown();
var usualMarkRoom = { clearSpace: 0.2, leastHeightPx: 48 };
var BrandBookError = class extends Error {
  constructor(code, key7) {
    super(sentences[code](key7));
    this.code = code;
    this.key = key7;
  }
  code;
  key;
  name = "BrandBookError";
};
var sentences = {
  "unknown-scheme": (key7) => `The brand book has no scheme '${key7}'`,
  "unknown-colour": (key7) => `The brand book has no colour '${key7}'`,
  "key-twice": (key7) => `The brand book has '${key7}' twice`
};
function resolveScheme(book, schemeKey) {
  const scheme = book.schemes.find((each) => each.key === schemeKey);
  if (!scheme) throw new BrandBookError("unknown-scheme", schemeKey);
  const colour = (colourKey) => {
    const found = book.colours.find((each) => each.key === colourKey);
    if (!found) throw new BrandBookError("unknown-colour", colourKey);
    return found.hex;
  };
  return {
    key: scheme.key,
    ground: colour(scheme.ground),
    surface: colour(scheme.surface),
    ink: colour(scheme.ink),
    accent: colour(scheme.accent)
  };
}

// demo/brands/gullwick.ts
function kiteMark(main, panel, accent) {
  return [
    { d: "M45 2L9 39H45ZM47 42V97L82 42Z", fill: main },
    { d: "M48 2L84 39H48Z", fill: panel },
    { d: "M44 42V97L9 42Z", fill: accent },
    { d: "M45 97C44 108 52 113 61 110C70 107 75 112 77 119L80 118C78 108 70 104 60 107C53 109 47 106 48 97Z", fill: main },
    { d: "M60 108L52 117L50 104ZM62 108L71 100L72 113Z", fill: panel }
  ];
}
var gullwickBook = {
  version: 2,
  colours: [
    { key: "signal-red", name: "Signal Red", hex: "#D7263D" },
    { key: "sail-yellow", name: "Sail Yellow", hex: "#F9B233" },
    { key: "sea-ink", name: "Sea Ink", hex: "#12355B" },
    { key: "deep-ink", name: "Deep Ink", hex: "#1D4470" },
    { key: "foam", name: "Foam", hex: "#F4F7F5" },
    { key: "dune", name: "Dune", hex: "#E3C9A0" },
    { key: "kelp", name: "Kelp", hex: "#2F6B5B" }
  ],
  schemes: [
    { key: "light", name: "Light", ground: "foam", surface: "dune", ink: "sea-ink", accent: "signal-red" },
    { key: "dark", name: "Dark", ground: "sea-ink", surface: "deep-ink", ink: "foam", accent: "sail-yellow" },
    { key: "bold", name: "Bold", ground: "sail-yellow", surface: "foam", ink: "sea-ink", accent: "signal-red" }
  ],
  type: {
    display: { font: "unbounded-700", leading: 1.06, trackingEm: -0.025, capitals: "as-written", scale: 1 },
    heading: { font: "unbounded-500", leading: 1.16, trackingEm: -0.02, capitals: "as-written", scale: 1 },
    text: { font: "figtree-500", leading: 1.34, trackingEm: 0, capitals: "as-written", scale: 1 },
    label: { font: "figtree-700", leading: 1.3, trackingEm: 0.075, capitals: "all", scale: 1 }
  },
  typefaces: [],
  marks: [
    { kind: "vector", key: "kite-light", for: "light", ...usualMarkRoom, viewBox: { width: 92, height: 121 }, paths: kiteMark("#12355B", "#D7263D", "#F9B233") },
    { kind: "vector", key: "kite-dark", for: "dark", ...usualMarkRoom, viewBox: { width: 92, height: 121 }, paths: kiteMark("#F4F7F5", "#D7263D", "#F9B233") },
    { kind: "vector", key: "kite-yellow", for: "light", ...usualMarkRoom, viewBox: { width: 92, height: 121 }, paths: kiteMark("#12355B", "#D7263D", "#F4F7F5") }
  ],
  facts: [
    { key: "site", name: "Site", text: "gullwickkites.example" },
    { key: "phone", name: "Phone", text: "01632 960 184" },
    { key: "workshop", name: "Workshop", text: "The Old Net Loft, Gullwick Quay" },
    { key: "handle", name: "Handle", text: "@gullwickkites" },
    { key: "booking", name: "Booking link", text: "https://gullwickkites.example/afternoons" },
    { key: "hours-mon", name: "Hours Monday", text: "closed" },
    { key: "hours-tue", name: "Hours Tuesday", text: "10 to 5" },
    { key: "hours-wed", name: "Hours Wednesday", text: "10 to 5" },
    { key: "hours-thu", name: "Hours Thursday", text: "10 to 5" },
    { key: "hours-fri", name: "Hours Friday", text: "10 to 6" },
    { key: "hours-sat", name: "Hours Saturday", text: "9 to 6" },
    { key: "hours-sun", name: "Hours Sunday", text: "11 to 4" }
  ],
  voice: {
    guidance: "Say what it is, then what the wind does to it. Numbers where we have them. One joke at most, and never about the weather forecast.",
    tone: "Bright, precise, a little salty; someone with sand in their shoes.",
    words: [
      { avoid: "content", prefer: "" },
      { avoid: "unleash", prefer: "let go" },
      { avoid: "elevate", prefer: "lift" },
      { avoid: "customers", prefer: "fliers" }
    ],
    hashtags: ["#GullwickKites", "#BuildAKite", "#BigBlow"],
    firstComment: "",
    link: "https://gullwickkites.example"
  }
};

// src/core/network/network-sheet.ts
import { array as array2, boolean as boolean2, number as number2, object as object2, string as string2 } from "yup";
var key2 = () => string2().matches(/^[a-z][a-z0-9-]*$/, "A key has small letters, digits and hyphens").required();
var percent = () => number2().min(0).max(45).required();
var wordFields = ["title", "caption", "link", "firstComment", "altText"];
var wordFieldSchema = object2({
  key: string2().oneOf([...wordFields]).required(),
  label: string2().required().max(40),
  max: number2().integer().positive().required(),
  counting: string2().oneOf(["graphemes", "weighted"]).required(),
  /** The network refuses a post without it. */
  required: boolean2().required(),
  /** Placements that have the field; missing: all of them. */
  placements: array2(key2())
}).noUnknown();
var placementSchema = object2({
  key: key2(),
  name: string2().required().max(40),
  /** Placements that share a surface show one after another in the same place; a piece takes one of them. */
  surface: string2().required().max(40),
  exportPx: object2({ width: number2().integer().min(200).max(4e3).required(), height: number2().integer().min(200).max(4e3).required() }).required(),
  safePercent: object2({ top: percent(), right: percent(), bottom: percent(), left: percent() }).required(),
  /** How many slides a carousel may have here, and whether they go as pictures or as the pages of one document; missing: none. */
  carousel: object2({ least: number2().integer().min(2).required(), most: number2().integer().max(300).required(), as: string2().oneOf(["pictures", "document"]).required() }).noUnknown().default(void 0),
  /** How long a video may be here, in seconds; missing: the place takes none. */
  video: object2({ leastSeconds: number2().positive().required(), mostSeconds: number2().positive().required() }).noUnknown().default(void 0),
  /** A place for carousels alone: a single picture has nothing to do there. */
  onlyCarousel: boolean2()
}).noUnknown();
var networkSheetSchema = object2({
  version: number2().oneOf([1]).required(),
  key: key2(),
  name: string2().required().max(40),
  badge: object2({ shape: string2().oneOf(["circle", "square", "triangle", "hexagon", "ring", "diamond", "pentagon", "bar", "arch"]).required(), letter: string2().length(1).required() }).required(),
  placements: array2(placementSchema).min(1).required(),
  words: object2({
    fields: array2(wordFieldSchema).min(1).required(),
    hashtags: object2({ max: number2().integer().min(0).nullable().defined(), warnOver: number2().integer().min(0).nullable().defined() }).required(),
    mentions: object2({ max: number2().integer().min(0).nullable().defined() }).required(),
    links: object2({ countAs: number2().integer().positive().nullable().defined(), clickable: boolean2().required() }).required(),
    foldAfter: number2().integer().positive().nullable().defined()
  }).required(),
  files: object2({ maxImageBytes: number2().integer().positive().required(), maxDocumentBytes: number2().integer().positive(), maxVideoBytes: number2().integer().positive() }).required(),
  pace: object2({ dailyMax: number2().integer().positive().required(), leastGapMin: number2().min(0).required() }).required(),
  publishing: object2({ manner: string2().oneOf(["draft-then-publish", "idempotency-key"]).required() }).required()
}).noUnknown();
function getPlacement(sheet, placementKey) {
  const placement = sheet.placements.find((each) => each.key === placementKey);
  if (!placement) throw new RangeError(`${sheet.name} has no placement '${placementKey}'`);
  return placement;
}

// src/core/network/sheets/guildrow.json
var guildrow_default = {
  version: 1,
  key: "guildrow",
  name: "Guildrow",
  badge: { shape: "hexagon", letter: "G" },
  placements: [
    { key: "update-wide", name: "Wide", surface: "update", exportPx: { width: 1200, height: 627 }, safePercent: { top: 4, right: 4, bottom: 4, left: 4 }, video: { leastSeconds: 3, mostSeconds: 600 }, carousel: { least: 2, most: 9, as: "pictures" } },
    { key: "update-square", name: "Square", surface: "update", exportPx: { width: 1080, height: 1080 }, safePercent: { top: 4, right: 4, bottom: 4, left: 4 }, video: { leastSeconds: 3, mostSeconds: 600 }, carousel: { least: 2, most: 9, as: "pictures" } },
    { key: "update-portrait", name: "Portrait", surface: "update", exportPx: { width: 1080, height: 1350 }, safePercent: { top: 4, right: 4, bottom: 4, left: 4 }, video: { leastSeconds: 3, mostSeconds: 600 }, carousel: { least: 2, most: 9, as: "pictures" } },
    { key: "document", name: "Document", surface: "update", exportPx: { width: 1080, height: 1350 }, safePercent: { top: 4, right: 4, bottom: 4, left: 4 }, carousel: { least: 2, most: 300, as: "document" }, onlyCarousel: true }
  ],
  words: {
    fields: [
      { key: "title", label: "Document title", max: 100, counting: "graphemes", required: true, placements: ["document"] },
      { key: "caption", label: "Caption", max: 3e3, counting: "graphemes", required: false },
      { key: "firstComment", label: "First comment", max: 1250, counting: "graphemes", required: false },
      { key: "altText", label: "Alt text", max: 300, counting: "graphemes", required: false }
    ],
    hashtags: { max: null, warnOver: 5 },
    mentions: { max: 20 },
    links: { countAs: null, clickable: true },
    foldAfter: 210
  },
  files: { maxImageBytes: 8388608, maxDocumentBytes: 104857600, maxVideoBytes: 262144e3 },
  pace: { dailyMax: 20, leastGapMin: 1 },
  publishing: { manner: "idempotency-key" }
};

// src/core/network/sheets/hearthside.json
var hearthside_default = {
  version: 1,
  key: "hearthside",
  name: "Hearthside",
  badge: { shape: "square", letter: "H" },
  placements: [
    { key: "page-wide", name: "Wide", surface: "page", exportPx: { width: 1200, height: 630 }, safePercent: { top: 4, right: 4, bottom: 4, left: 4 }, video: { leastSeconds: 1, mostSeconds: 14400 }, carousel: { least: 2, most: 10, as: "pictures" } },
    { key: "page-square", name: "Square", surface: "page", exportPx: { width: 1080, height: 1080 }, safePercent: { top: 4, right: 4, bottom: 4, left: 4 }, video: { leastSeconds: 1, mostSeconds: 14400 }, carousel: { least: 2, most: 10, as: "pictures" } },
    { key: "page-portrait", name: "Portrait", surface: "page", exportPx: { width: 1080, height: 1350 }, safePercent: { top: 4, right: 4, bottom: 4, left: 4 }, video: { leastSeconds: 1, mostSeconds: 14400 }, carousel: { least: 2, most: 10, as: "pictures" } },
    { key: "story", name: "Story", surface: "story", exportPx: { width: 1080, height: 1920 }, safePercent: { top: 14, right: 6, bottom: 20, left: 6 }, video: { leastSeconds: 1, mostSeconds: 60 } }
  ],
  words: {
    fields: [
      { key: "caption", label: "Caption", max: 63206, counting: "graphemes", required: false },
      { key: "firstComment", label: "First comment", max: 8e3, counting: "graphemes", required: false },
      { key: "altText", label: "Alt text", max: 1e3, counting: "graphemes", required: false }
    ],
    hashtags: { max: null, warnOver: 5 },
    mentions: { max: 50 },
    links: { countAs: null, clickable: true },
    foldAfter: 480
  },
  files: { maxImageBytes: 8388608, maxVideoBytes: 262144e3 },
  pace: { dailyMax: 25, leastGapMin: 1 },
  publishing: { manner: "draft-then-publish" }
};

// src/core/network/sheets/kerbside.json
var kerbside_default = {
  version: 1,
  key: "kerbside",
  name: "Kerbside",
  badge: { shape: "pentagon", letter: "K" },
  placements: [
    { key: "update", name: "Update", surface: "listing", exportPx: { width: 1200, height: 900 }, safePercent: { top: 4, right: 4, bottom: 4, left: 4 } }
  ],
  words: {
    fields: [
      { key: "caption", label: "Text", max: 1500, counting: "graphemes", required: false },
      { key: "link", label: "Button link", max: 2e3, counting: "graphemes", required: false }
    ],
    hashtags: { max: null, warnOver: 0 },
    mentions: { max: 0 },
    links: { countAs: null, clickable: false },
    foldAfter: null
  },
  files: { maxImageBytes: 8388608 },
  pace: { dailyMax: 10, leastGapMin: 1 },
  publishing: { manner: "idempotency-key" }
};

// src/core/network/sheets/petalry.json
var petalry_default = {
  version: 1,
  key: "petalry",
  name: "Petalry",
  badge: { shape: "circle", letter: "P" },
  placements: [
    { key: "feed-square", name: "Square", surface: "feed", exportPx: { width: 1080, height: 1080 }, safePercent: { top: 4, right: 4, bottom: 4, left: 4 }, video: { leastSeconds: 3, mostSeconds: 90 }, carousel: { least: 2, most: 10, as: "pictures" } },
    { key: "feed-portrait", name: "Portrait", surface: "feed", exportPx: { width: 1080, height: 1350 }, safePercent: { top: 4, right: 4, bottom: 4, left: 4 }, video: { leastSeconds: 3, mostSeconds: 90 }, carousel: { least: 2, most: 10, as: "pictures" } },
    { key: "story", name: "Story", surface: "story", exportPx: { width: 1080, height: 1920 }, safePercent: { top: 14, right: 6, bottom: 20, left: 6 }, video: { leastSeconds: 1, mostSeconds: 60 } }
  ],
  words: {
    fields: [
      { key: "caption", label: "Caption", max: 2200, counting: "graphemes", required: false },
      { key: "firstComment", label: "First comment", max: 2200, counting: "graphemes", required: false },
      { key: "altText", label: "Alt text", max: 1e3, counting: "graphemes", required: false }
    ],
    hashtags: { max: 30, warnOver: null },
    mentions: { max: 20 },
    links: { countAs: null, clickable: false },
    foldAfter: 125
  },
  files: { maxImageBytes: 8388608, maxVideoBytes: 262144e3 },
  pace: { dailyMax: 25, leastGapMin: 1 },
  publishing: { manner: "draft-then-publish" }
};

// src/core/network/sheets/quipline.json
var quipline_default = {
  version: 1,
  key: "quipline",
  name: "Quipline",
  badge: { shape: "triangle", letter: "Q" },
  placements: [
    { key: "post-square", name: "Square", surface: "post", exportPx: { width: 1080, height: 1080 }, safePercent: { top: 4, right: 4, bottom: 4, left: 4 }, video: { leastSeconds: 1, mostSeconds: 140 }, carousel: { least: 2, most: 4, as: "pictures" } },
    { key: "post-wide", name: "Wide", surface: "post", exportPx: { width: 1600, height: 900 }, safePercent: { top: 4, right: 4, bottom: 4, left: 4 }, video: { leastSeconds: 1, mostSeconds: 140 }, carousel: { least: 2, most: 4, as: "pictures" } }
  ],
  words: {
    fields: [
      { key: "caption", label: "Text", max: 280, counting: "weighted", required: false },
      { key: "altText", label: "Alt text", max: 1e3, counting: "graphemes", required: false }
    ],
    hashtags: { max: null, warnOver: 2 },
    mentions: { max: 10 },
    links: { countAs: 23, clickable: true },
    foldAfter: null
  },
  files: { maxImageBytes: 5242880, maxVideoBytes: 262144e3 },
  pace: { dailyMax: 50, leastGapMin: 1 },
  publishing: { manner: "idempotency-key" }
};

// src/core/network/sheets/tackboard.json
var tackboard_default = {
  version: 1,
  key: "tackboard",
  name: "Tackboard",
  badge: { shape: "diamond", letter: "T" },
  placements: [
    { key: "card", name: "Card", surface: "board", exportPx: { width: 1e3, height: 1500 }, safePercent: { top: 5, right: 5, bottom: 8, left: 5 }, video: { leastSeconds: 4, mostSeconds: 900 }, carousel: { least: 2, most: 5, as: "pictures" } }
  ],
  words: {
    fields: [
      { key: "title", label: "Title", max: 100, counting: "graphemes", required: true },
      { key: "caption", label: "Description", max: 500, counting: "graphemes", required: false },
      { key: "link", label: "Link", max: 2e3, counting: "graphemes", required: true },
      { key: "altText", label: "Alt text", max: 500, counting: "graphemes", required: false }
    ],
    hashtags: { max: null, warnOver: 5 },
    mentions: { max: 0 },
    links: { countAs: null, clickable: false },
    foldAfter: null
  },
  files: { maxImageBytes: 20971520, maxVideoBytes: 262144e3 },
  pace: { dailyMax: 50, leastGapMin: 1 },
  publishing: { manner: "draft-then-publish" }
};

// src/core/network/shipped-sheets.ts
var shippedSheets = [petalry_default, quipline_default, hearthside_default, guildrow_default, tackboard_default, kerbside_default].map(
  (sheet) => networkSheetSchema.validateSync(sheet, { strict: true })
);

// src/core/template/template.ts
import { array as array4, boolean as boolean4, number as number4, object as object4, string as string4 } from "yup";

// src/core/template/parts.ts
import { array as array3, boolean as boolean3, lazy as lazy2, number as number3, object as object3, string as string3 } from "yup";

// src/core/motif/motif.ts
import { LRUCache } from "lru-cache";

// src/core/motif/outline.ts
function polygon(points) {
  return `M${points.map(([x, y]) => `${x.toFixed(2)} ${y.toFixed(2)}`).join("L")}Z`;
}
function circle(x, y, radius) {
  const r = radius.toFixed(2);
  return `M${(x - radius).toFixed(2)} ${y.toFixed(2)}a${r} ${r} 0 1 0 ${(radius * 2).toFixed(2)} 0a${r} ${r} 0 1 0 ${(-radius * 2).toFixed(2)} 0Z`;
}
function band(points, halfWidthPx) {
  const sides = points.map(([x, y], index) => {
    const [fromX, fromY] = points[Math.max(0, index - 1)] ?? [x, y];
    const [toX, toY] = points[Math.min(points.length - 1, index + 1)] ?? [x, y];
    const length = Math.hypot(toX - fromX, toY - fromY) || 1;
    const [nx, ny] = [-(toY - fromY) / length * halfWidthPx, (toX - fromX) / length * halfWidthPx];
    return { left: [x + nx, y + ny], right: [x - nx, y - ny] };
  });
  return polygon([...sides.map((side) => side.left), ...sides.map((side) => side.right).reverse()]);
}
function boxAround(points, marginPx = 0) {
  const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
  const [xPx, yPx] = [Math.min(...xs) - marginPx, Math.min(...ys) - marginPx];
  return { xPx, yPx, widthPx: Math.max(...xs) + marginPx - xPx, heightPx: Math.max(...ys) + marginPx - yPx };
}

// src/core/motif/seeded-numbers.ts
function seededNumbers(seed) {
  let state = seed >>> 0;
  return () => {
    state = state + 1831565813 >>> 0;
    let mixed2 = Math.imul(state ^ state >>> 15, 1 | state);
    mixed2 = mixed2 + Math.imul(mixed2 ^ mixed2 >>> 7, 61 | mixed2) ^ mixed2;
    return ((mixed2 ^ mixed2 >>> 14) >>> 0) / 4294967296;
  };
}

// src/core/motif/arcs.ts
var arcsMotif = (box, unitPx, seed) => {
  const random = seededNumbers(seed);
  const corner = [box.xPx, box.yPx + box.heightPx];
  const accented = Math.floor(random() * 3) + 1;
  return Array.from({ length: 5 }, (_, ring) => {
    const radius = unitPx * (1.4 + ring * 1.15);
    const points = Array.from({ length: 49 }, (__, step) => {
      const angle = -Math.PI / 2 + step / 48 * (Math.PI / 2);
      return [corner[0] + Math.cos(angle) * radius, corner[1] + Math.sin(angle) * radius];
    });
    const stretches = Array.from({ length: 4 }, (__, stretch) => boxAround(points.slice(stretch * 12, stretch * 12 + 13)));
    return { path: band(points, unitPx * 0.24), ink: ring === accented ? "accent" : "surface", boxes: stretches };
  });
};

// src/core/motif/contours.ts
var contoursMotif = (box, unitPx, seed) => {
  const random = seededNumbers(seed);
  const [phase, wobble] = [random() * Math.PI * 2, 0.1 + random() * 0.08];
  const middle = [box.xPx + box.widthPx * 0.98, box.yPx + box.heightPx * 0.98];
  return Array.from({ length: 6 }, (_, ring) => {
    const radius = unitPx * (2.8 + ring * 0.95);
    const points = Array.from({ length: 73 }, (__, step) => {
      const angle = Math.PI * 0.9 + step / 72 * Math.PI * 0.75;
      const reach = radius * (1 + wobble * Math.sin(angle * 3 + phase + ring * 0.25) + wobble * 0.6 * Math.sin(angle * 5 - phase));
      return [middle[0] + Math.cos(angle) * reach, middle[1] + Math.sin(angle) * reach];
    });
    const stretches = Array.from({ length: 6 }, (__, stretch) => boxAround(points.slice(stretch * 12, stretch * 12 + 13)));
    return { path: band(points, unitPx * 0.055), ink: ring === 2 ? "accent" : "surface", boxes: stretches };
  });
};

// src/core/motif/halftone.ts
var halftoneMotif = (box, unitPx, seed) => {
  const offset = seededNumbers(seed)() * 0.3;
  const spacing = unitPx * 0.62;
  const reach = Math.min(box.widthPx, box.heightPx) * 0.62;
  const corner = [box.xPx + box.widthPx, box.yPx];
  const shapes = [];
  for (let row = 0; row * spacing < reach; row += 1) {
    for (let column = 0; column * spacing < reach; column += 1) {
      const x = corner[0] - (column + row % 2 / 2 + offset) * spacing;
      const y = corner[1] + (row + 0.2) * spacing * 0.87;
      const radius = spacing * 0.46 * Math.max(0, 1 - Math.hypot(x - corner[0], y - corner[1]) / reach);
      if (radius < unitPx * 0.04) continue;
      shapes.push({ path: circle(x, y, radius), ink: "surface", boxes: [boxAround([[x, y]], radius)] });
    }
  }
  return shapes;
};

// src/core/motif/scraps.ts
var scrapsMotif = (box, unitPx, seed) => {
  const random = seededNumbers(seed);
  const middle = [box.xPx + box.widthPx / 2, box.yPx + box.heightPx / 2];
  const count = Math.round(box.widthPx * box.heightPx / (unitPx * unitPx * 9));
  const shapes = [];
  for (let attempt = 0; attempt < count * 2; attempt += 1) {
    const [x, y] = [box.xPx + random() * box.widthPx, box.yPx + random() * box.heightPx];
    const off = Math.max(Math.abs(x - middle[0]) / (box.widthPx / 2), Math.abs(y - middle[1]) / (box.heightPx / 2));
    const turn = random() * Math.PI;
    const length = unitPx * (0.28 + random() * 0.3);
    const isAccent = random() < 0.4;
    if (off < 0.78) continue;
    const corner = (along2, across) => [x + Math.cos(turn) * along2 - Math.sin(turn) * across, y + Math.sin(turn) * along2 + Math.cos(turn) * across];
    const points = [corner(-length, -length * 0.42), corner(length * 0.8, -length * 0.5), corner(length, length * 0.4), corner(-length * 0.9, length * 0.5)];
    shapes.push({ path: polygon(points), ink: isAccent ? "accent" : "surface", boxes: [boxAround(points)] });
  }
  return shapes;
};

// src/core/motif/stripes.ts
var stripesMotif = (box, unitPx, seed) => {
  const offset = seededNumbers(seed)() < 0.5 ? 0 : 1;
  const count = Math.max(5, Math.round(box.widthPx / (unitPx * 2)) | 1);
  const width = box.widthPx / count;
  const drop = unitPx * 1.5;
  return Array.from({ length: count }, (_, stripe) => {
    const [x, y] = [box.xPx + stripe * width, box.yPx];
    const scallop = Array.from({ length: 13 }, (__, step) => {
      const angle = step / 12 * Math.PI;
      return [x + width / 2 + Math.cos(angle) * width / 2, y + drop + Math.sin(angle) * width / 2.6];
    });
    const points = [[x, y], [x + width, y], ...scallop];
    return { path: polygon(points), ink: (stripe + offset) % 2 === 0 ? "accent" : "surface", boxes: [boxAround(points)] };
  });
};

// src/core/motif/tail.ts
var SAMPLES = 64;
var BOWS = 5;
var tailMotif = (box, unitPx, seed) => {
  const random = seededNumbers(seed);
  const phase = random() * 0.6;
  const shortSide = Math.min(box.widthPx, box.heightPx);
  const point = (t2) => {
    const along2 = (t2 - 0.04) * shortSide * 0.66;
    const swing = Math.sin((t2 * 1.45 + phase) * Math.PI) * unitPx * 0.95;
    return [box.xPx + box.widthPx - shortSide * 0.56 + along2 * 0.92 + swing * 0.4, box.yPx + along2 * 0.42 - swing * 0.8];
  };
  const places2 = evenPlaces(point, BOWS);
  return [
    { path: band(along(point), unitPx * 0.045), ink: "surface", boxes: ribbonBoxes(point) },
    ...places2.map(([x, y, angle], index) => {
      const reach = unitPx * (0.5 + index * 0.07 + random() * 0.06);
      return { path: bowPath(x, y, angle + Math.PI / 2, reach), ink: index % 2 === 0 ? "accent" : "surface", boxes: [{ xPx: x - reach, yPx: y - reach, widthPx: reach * 2, heightPx: reach * 2 }] };
    })
  ];
};
function evenPlaces(point, count) {
  const samples = Array.from({ length: SAMPLES + 1 }, (_, index) => point(index / SAMPLES));
  const lengths = samples.map((here, index) => {
    const before = samples[index - 1] ?? here;
    return Math.hypot(here[0] - before[0], here[1] - before[1]);
  });
  const total = lengths.reduce((sum, length) => sum + length, 0);
  return Array.from({ length: count }, (_, index) => {
    const wanted = total * (index + 0.75) / (count + 0.5);
    let [walked, at] = [0, 1];
    while (at < SAMPLES && walked + (lengths[at] ?? 0) < wanted) walked += lengths[at++] ?? 0;
    const [x, y] = samples[at] ?? [0, 0];
    const [fromX, fromY] = samples[at - 1] ?? [0, 0];
    return [x, y, Math.atan2(y - fromY, x - fromX)];
  });
}
var along = (point) => Array.from({ length: SAMPLES + 1 }, (_, sample) => point(sample / SAMPLES));
function ribbonBoxes(point) {
  const points = along(point);
  const perBox = SAMPLES / 8;
  return Array.from({ length: 8 }, (_, stretch) => boxAround(points.slice(stretch * perBox, (stretch + 1) * perBox + 1)));
}
function bowPath(x, y, angle, reach) {
  const corner = (turn) => [x + Math.cos(angle + turn) * reach, y + Math.sin(angle + turn) * reach];
  const spread = 0.5;
  return polygon([[x, y], corner(-spread), corner(spread)]) + polygon([[x, y], corner(Math.PI - spread), corner(Math.PI + spread)]);
}

// src/core/motif/waves.ts
var wavesMotif = (box, unitPx, seed) => {
  const random = seededNumbers(seed);
  const rows = Math.max(3, Math.min(5, Math.floor(box.heightPx / (unitPx * 5))));
  const spacing = unitPx * 1.05;
  return Array.from({ length: rows }, (_, row) => {
    const phase = random() * Math.PI * 2;
    const y = box.yPx + box.heightPx - unitPx * 0.5 - row * spacing;
    const steps = Math.max(24, Math.round(box.widthPx / (unitPx * 0.35)));
    const points = Array.from({ length: steps + 1 }, (__, step) => {
      const x = box.xPx - unitPx + (box.widthPx + unitPx * 2) * step / steps;
      return [x, y + Math.sin((x - box.xPx) / (unitPx * 1.3) + phase) * unitPx * 0.3];
    });
    return { path: band(points, unitPx * (0.13 - row * 0.015)), ink: row === 1 ? "accent" : "surface", boxes: [boxAround(points)] };
  });
};

// src/core/motif/weave.ts
var weaveMotif = (box, unitPx, seed) => {
  const random = seededNumbers(seed);
  const cell = unitPx * 1.1;
  const columns = 3;
  const rows = Math.ceil(box.heightPx / cell) + 1;
  const shapes = [];
  for (let row = 0; row < rows; row += 1) {
    for (let column = 0; column < columns; column += 1) {
      if (random() < column * 0.28) continue;
      const [x, y] = [box.xPx + box.widthPx - (column + 0.75) * cell, box.yPx + row * cell - cell * 0.3];
      const upright = (row + column) % 2 === 0;
      for (let bar = 0; bar < 3; bar += 1) {
        const offset = (bar * 0.3 + 0.08) * cell;
        const [left, top, width, height] = upright ? [x + offset, y, cell * 0.17, cell * 0.94] : [x, y + offset, cell * 0.94, cell * 0.17];
        const points = [[left, top], [left + width, top], [left + width, top + height], [left, top + height]];
        shapes.push({ path: polygon(points), ink: bar === 1 && upright ? "accent" : "surface", boxes: [boxAround(points)] });
      }
    }
  }
  return shapes;
};

// src/core/motif/motif.ts
var motifGenerators = {
  tail: tailMotif,
  waves: wavesMotif,
  scraps: scrapsMotif,
  contours: contoursMotif,
  halftone: halftoneMotif,
  arcs: arcsMotif,
  weave: weaveMotif,
  stripes: stripesMotif
};
var wholeMotifs = /* @__PURE__ */ new Set(["tail", "stripes"]);
var kept = new LRUCache({ max: 200 });
function drawMotif(name, box, unitPx, seed) {
  const key7 = [name, box.xPx, box.yPx, box.widthPx, box.heightPx, unitPx, seed].join(" ");
  const drawn = kept.get(key7) ?? motifGenerators[name](box, unitPx, seed);
  kept.set(key7, drawn);
  return drawn;
}
var motifNames = Object.keys(motifGenerators);

// src/core/template/parts.ts
var key3 = () => string3().matches(/^[a-z][a-z0-9-]*$/, "A key has small letters, digits and hyphens").required();
var inkName = () => string3().oneOf(["ground", "surface", "ink", "accent"]);
var edges = () => array3(string3().oneOf(["top", "right", "bottom", "left"]).required());
var fieldShapes = ["box", "disc", "seal", "tab"];
var windowShapes = ["arch", "circle", "sail", "notch", "slant-right", "slant-left", "slant-bottom", "slant-top"];
var perEdge = () => object3({ top: number3(), right: number3(), bottom: number3(), left: number3() }).noUnknown().default(void 0);
var placed = {
  grow: number3().min(0).max(10),
  share: number3().min(0).max(1),
  leastShare: number3().min(0).max(1),
  alignSelf: string3().oneOf(["start", "centre", "end", "stretch"]),
  over: perEdge()
};
var partSchemas = {
  stack: () => object3({
    ...placed,
    part: string3().required(),
    direction: string3().oneOf(["column", "row"]).required(),
    gapM: number3().min(0).max(20),
    padM: perEdge(),
    safe: edges(),
    justify: string3().oneOf(["start", "centre", "end", "between"]),
    align: string3().oneOf(["start", "centre", "end", "stretch"]),
    field: object3({
      ink: inkName().required(),
      shape: string3().oneOf([...fieldShapes]),
      slant: object3({ edge: string3().oneOf(["top", "right", "bottom", "left"]).required(), slantM: number3().min(0).max(10).required() }).noUnknown().default(void 0)
    }).noUnknown().default(void 0),
    children: array3(partSchema()).max(24).required()
  }).noUnknown(),
  text: () => object3({
    ...placed,
    part: string3().required(),
    slot: key3(),
    role: string3().oneOf(["display", "heading", "text", "label"]).required(),
    align: string3().oneOf(["start", "centre", "end"]).required(),
    ink: inkName().required(),
    sizeM: object3({ max: number3().min(0.2).max(20).required(), min: number3().min(0.2).max(20).required() }).required(),
    fill: boolean3(),
    widthM: number3().min(0.2).max(20),
    hanging: boolean3(),
    ornament: boolean3()
  }).noUnknown(),
  picture: () => object3({ ...placed, part: string3().required(), slot: key3(), underM: perEdge(), window: string3().oneOf([...windowShapes]), duotone: boolean3(), whole: boolean3(), through: boolean3(), sideM: number3().min(0.5).max(20) }).noUnknown(),
  rows: () => object3({
    ...placed,
    part: string3().required(),
    slot: key3(),
    ink: inkName().required(),
    numeralInk: inkName().required(),
    numerals: boolean3().required(),
    sizeM: object3({ max: number3().min(0.2).max(20).required(), min: number3().min(0.2).max(20).required() }).required(),
    gapM: number3().min(0).max(5).required()
  }).noUnknown(),
  echo: () => object3({
    ...placed,
    part: string3().required(),
    slot: key3(),
    lines: number3().integer().min(2).max(24).required(),
    inked: number3().integer().min(0).max(23).required(),
    ink: inkName().required(),
    quietInk: inkName().required(),
    sizeM: object3({ max: number3().min(0.2).max(20).required(), min: number3().min(0.2).max(20).required() }).required()
  }).noUnknown(),
  mark: () => object3({ ...placed, part: string3().required(), slot: string3().matches(/^[a-z][a-z0-9-]*$/), heightM: number3().min(0.3).max(12).required() }).noUnknown(),
  rule: () => object3({ ...placed, part: string3().required(), lengthM: number3().min(0).max(20).required(), thicknessM: number3().min(0.01).max(1).required(), ink: inkName().required() }).noUnknown(),
  sign: () => object3({ ...placed, part: string3().required(), text: string3().min(1).max(2).required(), heightM: number3().min(0.5).max(30).required(), ink: inkName().required() }).noUnknown(),
  artwork: () => object3({
    ...placed,
    part: string3().required(),
    heightM: number3().min(0.3).max(30).required(),
    viewBox: object3({ width: number3().positive().required(), height: number3().positive().required() }).required(),
    paths: array3(object3({ d: string3().required().max(2e4), fill: string3().matches(/^#[0-9a-fA-F]{6}$/).required(), evenOdd: boolean3() }).noUnknown()).min(1).max(400).required(),
    ink: inkName()
  }).noUnknown(),
  motif: () => object3({ ...placed, part: string3().required(), generator: string3().oneOf([...motifNames]).required(), seed: number3().integer().min(0).required(), through: boolean3() }).noUnknown(),
  dots: () => object3({ ...placed, part: string3().required(), heightM: number3().min(0.1).max(2).required(), ink: inkName().required(), quietInk: inkName().required() }).noUnknown(),
  swipe: () => object3({ ...placed, part: string3().required(), heightM: number3().min(0.2).max(4).required(), ink: inkName().required() }).noUnknown()
};
function partSchema() {
  return lazy2((value) => {
    const kind = typeof value === "object" && value !== null && "part" in value ? String(value.part) : "";
    const make = Object.hasOwn(partSchemas, kind) ? partSchemas[kind] : null;
    return make ? make() : object3({ part: string3().oneOf(Object.keys(partSchemas), `There is no part called '${kind}'`).required() });
  });
}
function* walkParts(part) {
  yield part;
  if (part.part === "stack") for (const child of part.children) yield* walkParts(child);
}

// src/core/template/template.ts
var key4 = () => string4().matches(/^[a-z][a-z0-9-]*$/, "A key has small letters, digits and hyphens").required();
var slotKinds = ["text", "list", "number", "fact", "picture", "mark", "page", "ordinal", "head"];
var slotSchema = object4({
  key: key4(),
  kind: string4().oneOf([...slotKinds]).required(),
  label: string4().required().max(40),
  hint: string4().required().max(120),
  required: boolean4().required(),
  /** Text that shows what the slot is for in the picker of templates. */
  sample: string4().max(300),
  /** Characters beyond which the form warns; the fit of each cut decides. */
  softLimit: number4().integer().positive(),
  /** Key of the fact that fills a `fact` slot; `weekdays` on a list fills it with the opening hours. */
  fact: string4().matches(/^[a-z][a-z0-9-]*$/),
  /** A list whose items have a label, a colon and a value. */
  columns: boolean4(),
  /** All slides of a carousel show what the cover holds here. */
  shared: boolean4(),
  /** On the slide that sums a carousel up, filled from the others: a list with a line a point, pictures in their order. */
  gathers: boolean4(),
  /** A text slot that names the row of this list which is marked. */
  markedBy: string4().matches(/^[a-z][a-z0-9-]*$/)
}).noUnknown();
var arrangementSchema = object4({
  key: key4(),
  name: string4().required().max(40),
  /** Width divided by height of the shapes it is made for; from is included, to is not. */
  aspect: object4({ from: number4().min(0).required(), to: number4().positive().required() }).required(),
  root: partSchema()
}).noUnknown();
var slideParts = {
  slots: array4(slotSchema).min(1).max(24).required(),
  /** Slots that may be left out of a cut where room is short, the first to go first. */
  drop: array4(key4()).max(24),
  arrangements: array4(arrangementSchema).min(2).max(12).required()
};
var slideSchema = object4({
  key: key4(),
  name: string4().required().max(40),
  /** What it is for when slides are made from points; `sum` stands for all of them where a place takes one picture. */
  use: string4().oneOf(["point", "picture", "closing", "sum"]).required(),
  /** Another scheme than the cover's. */
  scheme: string4().matches(/^[a-z][a-z0-9-]*$/),
  ...slideParts
}).noUnknown();
var templateSchema = object4({
  version: number4().oneOf([1]).required(),
  key: key4(),
  name: string4().required().max(40),
  purpose: string4().required().max(60),
  kind: string4().oneOf(["graphic", "carousel", "video"]).required(),
  scheme: key4(),
  ...slideParts,
  slides: array4(slideSchema).max(12)
}).noUnknown();
var RESERVED_SLOT = "mark";
function readTemplate(json) {
  const template2 = templateSchema.validateSync(json, { strict: true });
  const slides = template2.slides ?? [];
  if (template2.kind !== "graphic" !== slides.length > 0) throw new RangeError(`Template '${template2.key}': a carousel or video has kinds of slides, and a graphic has none`);
  if (new Set(slides.map((slide) => slide.key)).size < slides.length || slides.some((slide) => slide.key === COVER)) throw new RangeError(`Template '${template2.key}': two kinds of slides have one key`);
  if (slides.slice(0, -1).some((slide) => slide.use === "sum") || slides.length === 1 && slides[0]?.use === "sum") throw new RangeError(`Template '${template2.key}': the slide that sums up stands last, after the kinds that people fill in`);
  for (const [name, parts] of [["", template2], ...slides.map((slide) => [`, slide '${slide.key}'`, slide])]) checkSlots(`Template '${template2.key}'${name}`, parts);
  return template2;
}
var COVER = "cover";
function checkSlots(where, { slots, drop, arrangements }) {
  const declared = new Set(slots.map((slot) => slot.key));
  if (declared.has(RESERVED_SLOT)) throw new RangeError(`${where}: '${RESERVED_SLOT}' means the brand's mark and cannot be a slot`);
  if (declared.size < slots.length) throw new RangeError(`${where}: two slots have one key`);
  const undeclared = [...drop ?? [], ...slots.flatMap((slot) => slot.markedBy ?? [])].find((slot) => !declared.has(slot));
  if (undeclared !== void 0) throw new RangeError(`${where}: no slot '${undeclared}' is declared`);
  for (const arrangement of arrangements) {
    for (const part of walkParts(arrangement.root)) {
      if ("slot" in part && part.slot !== void 0 && !declared.has(part.slot)) throw new RangeError(`${where}, arrangement '${arrangement.key}': no slot '${part.slot}' is declared`);
    }
  }
}

// src/core/template/slide-template.ts
var made = /* @__PURE__ */ new WeakMap();
function slideTemplate(template2, slide) {
  if (template2.kind === "graphic" || slide === void 0 || slide === COVER) return template2;
  const known = made.get(template2) ?? /* @__PURE__ */ new Map();
  made.set(template2, known);
  const found = known.get(slide) ?? merged(template2, slideOf(template2, slide));
  known.set(slide, found);
  return found;
}
function slideOf(template2, slide) {
  return template2.slides?.find((each) => each.key === slide) ?? template2.slides?.[0] ?? null;
}
function merged(template2, slide) {
  if (!slide) return template2;
  return { ...template2, scheme: slide.scheme ?? template2.scheme, slots: slide.slots, drop: slide.drop, arrangements: slide.arrangements };
}

// src/core/piece/piece.ts
import { array as array7, lazy as lazy4, number as number8, object as object8, string as string8 } from "yup";

// src/core/piece/shot.ts
import { number as number5, object as object5, string as string5 } from "yup";
var transitionKinds = ["cut", "fade", "push", "wipe"];
var LEAST_SHOT_MS = 500;
var MOST_SHOT_MS = 12e4;
var LEAST_TRANSITION_MS = 100;
var MOST_TRANSITION_MS = 2e3;
var milliseconds = (least, most) => number5().integer().min(least).max(most);
var shotSchema = object5({
  lengthMs: milliseconds(LEAST_SHOT_MS, MOST_SHOT_MS),
  fromMs: milliseconds(0, 24 * 36e5),
  into: object5({ kind: string5().oneOf([...transitionKinds]).required(), ms: milliseconds(0, MOST_TRANSITION_MS).required() }).noUnknown().default(void 0),
  volume: number5().min(0).max(1)
}).noUnknown();

// src/core/piece/track.ts
import { array as array5, number as number6, object as object6, string as string6 } from "yup";
var MOST_CUES = 500;
var LONGEST_CUE = 300;
var LATEST_MS = 24 * 36e5;
var mediaId = () => string6().matches(/^[A-Za-z0-9_-]{1,40}$/, "Not an id");
var moment = () => number6().integer().min(0).max(LATEST_MS).required();
var trackSchema = object6({
  music: mediaId(),
  musicVolume: number6().min(0).max(1),
  voice: mediaId(),
  subtitles: array5(
    object6({ fromMs: moment(), toMs: moment(), text: string6().max(LONGEST_CUE).defined() }).noUnknown().test("order", "A subtitle ends after it begins", (cue) => cue.toMs > cue.fromMs).required()
  ).max(MOST_CUES)
}).noUnknown();

// src/core/piece/adjustment.ts
import { array as array6, boolean as boolean5, lazy as lazy3, number as number7, object as object7, string as string7 } from "yup";
var MOST_TEXT_STEPS = 4;
var MOST_ZOOM = 4;
var MARK_SLOT = "mark";
var linkedCut = {};
var key5 = () => string7().matches(/^[a-z][a-z0-9-]*$/);
var share = () => number7().min(0).max(1).required();
var cropsSchema = lazy3((given) => {
  const slots = Object.keys(typeof given === "object" && given !== null ? given : {});
  const crop = object7({ x: share(), y: share(), zoom: number7().min(1).max(MOST_ZOOM).required() }).noUnknown();
  return given === void 0 ? object7().default(void 0) : object7(Object.fromEntries(slots.map((slot) => [slot, crop.required()])));
});
var adjustmentSchema = object7({
  arrangement: key5(),
  scheme: key5(),
  textStep: number7().integer().min(-MOST_TEXT_STEPS).max(MOST_TEXT_STEPS),
  hidden: array6(key5().required()).max(24),
  crops: cropsSchema,
  gathered: boolean5().oneOf([true]),
  withoutSlides: array6(string7().matches(/^[A-Za-z0-9_-]{1,40}$/).required()).max(100)
}).noUnknown();

// src/core/piece/piece.ts
var key6 = () => string8().matches(/^[a-z][a-z0-9-]*$/).required();
var id = () => string8().matches(/^[A-Za-z0-9_-]{1,40}$/, "Not an id").required();
var words = (max) => string8().max(max);
var LONGEST_SLOT_TEXT = 5e3;
var LONGEST_CAPTION = 1e5;
var textValue = object8({ kind: string8().oneOf(["text"]).required(), text: words(LONGEST_SLOT_TEXT).defined() }).noUnknown();
var pictureValue = object8({ kind: string8().oneOf(["picture"]).required(), mediaId: id() }).noUnknown();
var markValue = object8({ kind: string8().oneOf(["mark"]).required(), mark: key6() }).noUnknown();
var recordOf = (value) => lazy4(
  (given) => object8(Object.fromEntries(Object.keys(typeof given === "object" && given !== null ? given : {}).map((each) => [each, value()]))).required()
);
var slotValue = () => lazy4((given) => {
  const kind = typeof given === "object" && given !== null && "kind" in given ? given.kind : "text";
  return kind === "picture" ? pictureValue : kind === "mark" ? markValue : textValue;
});
var MOST_SLIDES = 100;
var frameSchema = object8({ id: id(), shot: shotSchema.default(void 0), slide: string8().matches(/^[a-z][a-z0-9-]*$/), altText: words(LONGEST_SLOT_TEXT), slots: recordOf(slotValue) }).noUnknown();
var ownWords = () => object8({ caption: words(LONGEST_CAPTION), altText: words(LONGEST_SLOT_TEXT), title: words(LONGEST_SLOT_TEXT), link: words(LONGEST_SLOT_TEXT), firstComment: words(LONGEST_CAPTION) }).noUnknown();
var pieceSchema = object8({
  version: number8().oneOf([1]).required(),
  kind: string8().oneOf(["graphic", "carousel", "video"]).required(),
  title: string8().max(120).defined(),
  template: object8({ key: key6() }).required(),
  frames: array7(frameSchema).min(1).when("kind", { is: "graphic", then: (frames2) => frames2.max(1), otherwise: (frames2) => frames2.max(MOST_SLIDES) }).required().test("ids", "Two slides have one id", (frames2) => new Set(frames2.map((frame) => frame.id)).size === frames2.length),
  cuts: array7(object8({ channelId: id(), placement: key6() }).noUnknown()).max(200).required(),
  track: trackSchema.default(void 0),
  adjustments: recordOf((() => adjustmentSchema)),
  words: object8({
    shared: ownWords().shape({ caption: words(LONGEST_CAPTION).defined(), altText: words(LONGEST_SLOT_TEXT).defined() }).required(),
    own: recordOf(ownWords)
  }).noUnknown().required()
}).noUnknown();
function slotText(frame, slot) {
  const value = frame.slots[slot];
  return value?.kind === "text" ? value.text : "";
}
function firstWords({ frames: [frame] }) {
  const texts = ["headline", ...Object.keys(frame.slots)].map((slot) => slotText(frame, slot).trim());
  return texts.find((text) => text !== "") ?? "";
}

// src/core/piece/slides-of-cut.ts
function isPoint(template2, frame) {
  const use = frame.slide === void 0 ? null : slideOf(template2, frame.slide)?.use;
  return use === "point" || use === "picture";
}
var ALONE = { index: 0, count: 1, ordinal: null };
function placesOf(shown, template2) {
  let points = 0;
  return shown.map((frame, index) => {
    const counts = isPoint(template2, frame);
    if (counts) points += 1;
    return { index, count: shown.length, ordinal: counts ? points : null };
  });
}
function filledSlide(frame, cover, template2, place) {
  const { slots } = slideTemplate(template2, frame.slide);
  const values = slots.flatMap((slot) => {
    const value = valueFor(slot, frame, cover, place);
    return value ? [[slot.key, value]] : [];
  });
  return { ...frame, slots: Object.fromEntries(values) };
}
function valueFor(slot, frame, cover, { index, count, ordinal }) {
  if (slot.kind === "page") return count > 1 ? { kind: "text", text: `${index + 1}/${count}` } : void 0;
  if (slot.kind === "ordinal") return ordinal === null ? void 0 : { kind: "text", text: String(ordinal) };
  if (slot.kind === "head") {
    const head = firstWords({ frames: [cover] });
    return head === "" ? void 0 : { kind: "text", text: head };
  }
  return slot.shared ? cover.slots[slot.key] : frame.slots[slot.key];
}

// src/core/template/shipped/arch.json
var arch_default = {
  version: 1,
  key: "arch",
  name: "Arch",
  purpose: "Announcement, calm",
  kind: "graphic",
  scheme: "light",
  slots: [
    {
      key: "photo",
      kind: "picture",
      label: "Picture",
      hint: "One thing, with air above it",
      required: true
    },
    {
      key: "label",
      kind: "text",
      label: "Label",
      hint: "What kind of news",
      required: false,
      softLimit: 28,
      sample: "New in"
    },
    {
      key: "headline",
      kind: "text",
      label: "Headline",
      hint: "The news in one breath",
      required: true,
      softLimit: 60,
      sample: "A quiet word about something lovely"
    },
    {
      key: "line",
      kind: "text",
      label: "Line",
      hint: "When, where, how to get it",
      required: false,
      softLimit: 100,
      sample: "From Saturday, while they last."
    }
  ],
  drop: [
    "line",
    "label"
  ],
  arrangements: [
    {
      key: "portal",
      name: "Portal",
      aspect: {
        from: 0,
        to: 0.7
      },
      root: {
        part: "stack",
        direction: "column",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "motif",
            generator: "scraps",
            seed: 11,
            over: {
              top: 0,
              right: 0,
              bottom: 0,
              left: 0
            }
          },
          {
            part: "stack",
            direction: "column",
            grow: 1,
            gapM: 1.1,
            padM: {
              top: 1.4,
              right: 2.2,
              bottom: 1.2,
              left: 2.2
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            children: [
              {
                part: "picture",
                slot: "photo",
                window: "arch",
                grow: 1,
                leastShare: 0.3
              },
              {
                part: "stack",
                direction: "column",
                gapM: 0.7,
                align: "stretch",
                children: [
                  {
                    part: "text",
                    slot: "label",
                    role: "label",
                    align: "centre",
                    ink: "accent",
                    sizeM: {
                      max: 0.5,
                      min: 0.42
                    }
                  },
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "centre",
                    ink: "ink",
                    sizeM: {
                      max: 1.55,
                      min: 0.75
                    }
                  },
                  {
                    part: "text",
                    slot: "line",
                    role: "text",
                    align: "centre",
                    ink: "ink",
                    sizeM: {
                      max: 0.62,
                      min: 0.5
                    }
                  }
                ]
              }
            ]
          }
        ]
      }
    },
    {
      key: "niche",
      name: "Niche",
      aspect: {
        from: 0.7,
        to: 1.2
      },
      root: {
        part: "stack",
        direction: "column",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "motif",
            generator: "scraps",
            seed: 11,
            over: {
              top: 0,
              right: 0,
              bottom: 0,
              left: 0
            }
          },
          {
            part: "stack",
            direction: "column",
            grow: 1,
            gapM: 0.9,
            padM: {
              top: 1.1,
              right: 2.6,
              bottom: 1,
              left: 2.6
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            children: [
              {
                part: "picture",
                slot: "photo",
                window: "arch",
                grow: 1,
                leastShare: 0.36,
                alignSelf: "stretch"
              },
              {
                part: "stack",
                direction: "column",
                gapM: 0.6,
                align: "stretch",
                children: [
                  {
                    part: "text",
                    slot: "label",
                    role: "label",
                    align: "centre",
                    ink: "accent",
                    sizeM: {
                      max: 0.46,
                      min: 0.41
                    }
                  },
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "centre",
                    ink: "ink",
                    sizeM: {
                      max: 1.35,
                      min: 0.66
                    }
                  },
                  {
                    part: "text",
                    slot: "line",
                    role: "text",
                    align: "centre",
                    ink: "ink",
                    sizeM: {
                      max: 0.56,
                      min: 0.5
                    }
                  }
                ]
              }
            ]
          }
        ]
      }
    },
    {
      key: "cloister",
      name: "Cloister",
      aspect: {
        from: 1.2,
        to: 10
      },
      root: {
        part: "stack",
        direction: "row",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "motif",
            generator: "scraps",
            seed: 11,
            over: {
              top: 0,
              right: 0,
              bottom: 0,
              left: 0
            }
          },
          {
            part: "stack",
            direction: "column",
            share: 0.54,
            justify: "between",
            gapM: 0.8,
            padM: {
              top: 1.4,
              right: 0.8,
              bottom: 1.4,
              left: 1.4
            },
            safe: [
              "top",
              "bottom",
              "left"
            ],
            align: "stretch",
            children: [
              {
                part: "mark",
                heightM: 2.2,
                alignSelf: "start"
              },
              {
                part: "stack",
                direction: "column",
                gapM: 0.8,
                align: "stretch",
                children: [
                  {
                    part: "text",
                    slot: "label",
                    role: "label",
                    align: "start",
                    ink: "accent",
                    sizeM: {
                      max: 0.72,
                      min: 0.6
                    }
                  },
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 1.75,
                      min: 0.9
                    }
                  },
                  {
                    part: "text",
                    slot: "line",
                    role: "text",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.92,
                      min: 0.8
                    }
                  }
                ]
              }
            ]
          },
          {
            part: "stack",
            direction: "column",
            grow: 1,
            share: 0,
            padM: {
              top: 1.4,
              right: 1.8,
              bottom: 0,
              left: 0.6
            },
            safe: [
              "top",
              "right"
            ],
            align: "stretch",
            children: [
              {
                part: "picture",
                slot: "photo",
                window: "arch",
                grow: 1
              }
            ]
          }
        ]
      }
    }
  ]
};

// src/core/template/shipped/ask.json
var ask_default = {
  version: 1,
  key: "ask",
  name: "Ask",
  purpose: "Question with answers",
  kind: "graphic",
  scheme: "bold",
  slots: [
    {
      key: "headline",
      kind: "text",
      label: "Question",
      hint: "One that people want to answer",
      required: true,
      softLimit: 80,
      sample: "Morning wind or evening wind?"
    },
    {
      key: "first",
      kind: "text",
      label: "One answer",
      hint: "Short",
      required: true,
      softLimit: 24,
      sample: "Morning, with tea"
    },
    {
      key: "second",
      kind: "text",
      label: "The other",
      hint: "Short",
      required: true,
      softLimit: 24,
      sample: "Evening, with a coat"
    },
    {
      key: "third",
      kind: "text",
      label: "A third",
      hint: "If there is one",
      required: false,
      softLimit: 24
    }
  ],
  drop: [
    "third"
  ],
  arrangements: [
    {
      key: "tall",
      name: "Tall",
      aspect: {
        from: 0,
        to: 0.7
      },
      root: {
        part: "stack",
        direction: "column",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "motif",
            generator: "stripes",
            seed: 2,
            over: {
              top: 0,
              right: 0,
              bottom: 0,
              left: 0
            }
          },
          {
            part: "stack",
            direction: "column",
            grow: 1,
            justify: "between",
            gapM: 1.2,
            padM: {
              top: 3,
              right: 1.2,
              bottom: 1.2,
              left: 1.2
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            children: [
              {
                part: "text",
                slot: "headline",
                role: "display",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 1.9,
                  min: 0.8
                }
              },
              {
                part: "stack",
                direction: "column",
                gapM: 0.5,
                align: "stretch",
                children: [
                  {
                    part: "stack",
                    direction: "column",
                    field: {
                      ink: "surface",
                      shape: "tab"
                    },
                    padM: {
                      top: 0.55,
                      right: 0.9,
                      bottom: 0.45,
                      left: 0.8
                    },
                    align: "stretch",
                    children: [
                      {
                        part: "text",
                        slot: "first",
                        role: "heading",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 0.72,
                          min: 0.52
                        }
                      }
                    ]
                  },
                  {
                    part: "stack",
                    direction: "column",
                    field: {
                      ink: "surface",
                      shape: "tab"
                    },
                    padM: {
                      top: 0.55,
                      right: 0.9,
                      bottom: 0.45,
                      left: 0.8
                    },
                    align: "stretch",
                    children: [
                      {
                        part: "text",
                        slot: "second",
                        role: "heading",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 0.72,
                          min: 0.52
                        }
                      }
                    ]
                  },
                  {
                    part: "stack",
                    direction: "column",
                    field: {
                      ink: "surface",
                      shape: "tab"
                    },
                    padM: {
                      top: 0.55,
                      right: 0.9,
                      bottom: 0.45,
                      left: 0.8
                    },
                    align: "stretch",
                    children: [
                      {
                        part: "text",
                        slot: "third",
                        role: "heading",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 0.72,
                          min: 0.52
                        }
                      }
                    ]
                  }
                ]
              },
              {
                part: "mark",
                heightM: 2.3,
                alignSelf: "start"
              }
            ]
          }
        ]
      }
    },
    {
      key: "square",
      name: "Square",
      aspect: {
        from: 0.7,
        to: 1.2
      },
      root: {
        part: "stack",
        direction: "column",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "motif",
            generator: "stripes",
            seed: 2,
            over: {
              top: 0,
              right: 0,
              bottom: 0,
              left: 0
            }
          },
          {
            part: "stack",
            direction: "column",
            grow: 1,
            justify: "between",
            gapM: 1,
            padM: {
              top: 2.9,
              right: 1.1,
              bottom: 1.1,
              left: 1.1
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            children: [
              {
                part: "text",
                slot: "headline",
                role: "display",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 1.7,
                  min: 0.72
                }
              },
              {
                part: "stack",
                direction: "row",
                gapM: 1.2,
                align: "end",
                children: [
                  {
                    part: "stack",
                    direction: "column",
                    gapM: 0.4,
                    align: "stretch",
                    grow: 1,
                    share: 0,
                    children: [
                      {
                        part: "stack",
                        direction: "column",
                        field: {
                          ink: "surface",
                          shape: "tab"
                        },
                        padM: {
                          top: 0.55,
                          right: 0.9,
                          bottom: 0.45,
                          left: 0.8
                        },
                        align: "stretch",
                        children: [
                          {
                            part: "text",
                            slot: "first",
                            role: "heading",
                            align: "start",
                            ink: "ink",
                            sizeM: {
                              max: 0.64,
                              min: 0.5
                            }
                          }
                        ]
                      },
                      {
                        part: "stack",
                        direction: "column",
                        field: {
                          ink: "surface",
                          shape: "tab"
                        },
                        padM: {
                          top: 0.55,
                          right: 0.9,
                          bottom: 0.45,
                          left: 0.8
                        },
                        align: "stretch",
                        children: [
                          {
                            part: "text",
                            slot: "second",
                            role: "heading",
                            align: "start",
                            ink: "ink",
                            sizeM: {
                              max: 0.64,
                              min: 0.5
                            }
                          }
                        ]
                      },
                      {
                        part: "stack",
                        direction: "column",
                        field: {
                          ink: "surface",
                          shape: "tab"
                        },
                        padM: {
                          top: 0.55,
                          right: 0.9,
                          bottom: 0.45,
                          left: 0.8
                        },
                        align: "stretch",
                        children: [
                          {
                            part: "text",
                            slot: "third",
                            role: "heading",
                            align: "start",
                            ink: "ink",
                            sizeM: {
                              max: 0.64,
                              min: 0.5
                            }
                          }
                        ]
                      }
                    ]
                  },
                  {
                    part: "mark",
                    heightM: 2.2,
                    alignSelf: "end"
                  }
                ]
              }
            ]
          }
        ]
      }
    },
    {
      key: "wide",
      name: "Wide",
      aspect: {
        from: 1.2,
        to: 10
      },
      root: {
        part: "stack",
        direction: "row",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "motif",
            generator: "stripes",
            seed: 2,
            over: {
              top: 0,
              right: 0,
              bottom: 0,
              left: 0
            }
          },
          {
            part: "stack",
            direction: "column",
            share: 0.53,
            justify: "between",
            gapM: 0.8,
            padM: {
              top: 3,
              right: 0.8,
              bottom: 1.2,
              left: 1.4
            },
            safe: [
              "top",
              "bottom",
              "left"
            ],
            align: "stretch",
            children: [
              {
                part: "text",
                slot: "headline",
                role: "display",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 1.9,
                  min: 0.9
                }
              },
              {
                part: "mark",
                heightM: 2,
                alignSelf: "start"
              }
            ]
          },
          {
            part: "stack",
            direction: "column",
            grow: 1,
            share: 0,
            justify: "centre",
            gapM: 0.55,
            padM: {
              top: 3,
              right: 1.6,
              bottom: 1.2,
              left: 0.4
            },
            safe: [
              "top",
              "right",
              "bottom"
            ],
            align: "stretch",
            children: [
              {
                part: "stack",
                direction: "column",
                field: {
                  ink: "surface",
                  shape: "tab"
                },
                padM: {
                  top: 0.55,
                  right: 0.9,
                  bottom: 0.45,
                  left: 0.8
                },
                align: "stretch",
                children: [
                  {
                    part: "text",
                    slot: "first",
                    role: "heading",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.95,
                      min: 0.85
                    }
                  }
                ]
              },
              {
                part: "stack",
                direction: "column",
                field: {
                  ink: "surface",
                  shape: "tab"
                },
                padM: {
                  top: 0.55,
                  right: 0.9,
                  bottom: 0.45,
                  left: 0.8
                },
                align: "stretch",
                children: [
                  {
                    part: "text",
                    slot: "second",
                    role: "heading",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.95,
                      min: 0.85
                    }
                  }
                ]
              },
              {
                part: "stack",
                direction: "column",
                field: {
                  ink: "surface",
                  shape: "tab"
                },
                padM: {
                  top: 0.55,
                  right: 0.9,
                  bottom: 0.45,
                  left: 0.8
                },
                align: "stretch",
                children: [
                  {
                    part: "text",
                    slot: "third",
                    role: "heading",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.95,
                      min: 0.85
                    }
                  }
                ]
              }
            ]
          }
        ]
      }
    }
  ]
};

// src/core/template/shipped/aside.json
var aside_default = {
  version: 1,
  key: "aside",
  name: "Aside",
  purpose: "Quote set in type",
  kind: "graphic",
  scheme: "bold",
  slots: [
    {
      key: "headline",
      kind: "text",
      label: "Quote",
      hint: "Words worth the whole cut",
      required: true,
      softLimit: 160,
      sample: "The best thing anyone said to us all year."
    },
    {
      key: "line",
      kind: "text",
      label: "Who said it",
      hint: "Name, and what they are to us",
      required: false,
      softLimit: 60,
      sample: "Who said it, and where"
    }
  ],
  drop: [
    "line"
  ],
  arrangements: [
    {
      key: "column",
      name: "Column",
      aspect: {
        from: 0,
        to: 0.7
      },
      root: {
        part: "stack",
        direction: "column",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "motif",
            generator: "tail",
            seed: 7,
            over: {
              top: 0,
              right: 0,
              bottom: 0,
              left: 0
            }
          },
          {
            part: "stack",
            direction: "column",
            grow: 1,
            justify: "between",
            gapM: 1.2,
            padM: {
              top: 1.2,
              right: 1.2,
              bottom: 1.2,
              left: 1.2
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            children: [
              {
                part: "sign",
                text: "\u201C",
                heightM: 3.4,
                ink: "accent"
              },
              {
                part: "stack",
                direction: "column",
                gapM: 1.1,
                align: "stretch",
                children: [
                  {
                    part: "text",
                    slot: "headline",
                    role: "heading",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 2.2,
                      min: 0.66
                    },
                    hanging: true
                  },
                  {
                    part: "rule",
                    lengthM: 2,
                    thicknessM: 0.12,
                    ink: "accent",
                    alignSelf: "start"
                  },
                  {
                    part: "text",
                    slot: "line",
                    role: "text",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.62,
                      min: 0.5
                    }
                  }
                ]
              },
              {
                part: "mark",
                heightM: 2.3,
                alignSelf: "start"
              }
            ]
          }
        ]
      }
    },
    {
      key: "page",
      name: "Page",
      aspect: {
        from: 0.7,
        to: 1.2
      },
      root: {
        part: "stack",
        direction: "column",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "motif",
            generator: "tail",
            seed: 7,
            over: {
              top: 0,
              right: 0,
              bottom: 0,
              left: 0
            }
          },
          {
            part: "sign",
            text: "\u201C",
            heightM: 3.6,
            ink: "accent",
            over: {
              top: -0.7,
              left: 1.1
            }
          },
          {
            part: "stack",
            direction: "column",
            grow: 1,
            justify: "end",
            gapM: 0.9,
            padM: {
              top: 3.6,
              right: 1.1,
              bottom: 1.1,
              left: 1.1
            },
            safe: [
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            children: [
              {
                part: "text",
                slot: "headline",
                role: "heading",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 2.2,
                  min: 0.62
                },
                hanging: true
              },
              {
                part: "rule",
                lengthM: 2,
                thicknessM: 0.1,
                ink: "accent",
                alignSelf: "start"
              },
              {
                part: "stack",
                direction: "row",
                gapM: 1,
                align: "end",
                justify: "between",
                children: [
                  {
                    part: "text",
                    slot: "line",
                    role: "text",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.58,
                      min: 0.5
                    },
                    grow: 1,
                    share: 0
                  },
                  {
                    part: "mark",
                    heightM: 2.3,
                    alignSelf: "end"
                  }
                ]
              }
            ]
          }
        ]
      }
    },
    {
      key: "leaf",
      name: "Leaf",
      aspect: {
        from: 1.2,
        to: 1.5
      },
      root: {
        part: "stack",
        direction: "row",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "motif",
            generator: "tail",
            seed: 7,
            over: {
              top: 0,
              right: 0,
              bottom: 0,
              left: 0
            }
          },
          {
            part: "sign",
            text: "\u201C",
            heightM: 3,
            ink: "accent",
            over: {
              top: -0.8,
              left: 1.2
            }
          },
          {
            part: "stack",
            direction: "column",
            share: 0.31,
            justify: "end",
            padM: {
              top: 1.2,
              right: 0.5,
              bottom: 1.2,
              left: 1.2
            },
            safe: [
              "bottom",
              "left"
            ],
            align: "start",
            children: [
              {
                part: "mark",
                heightM: 2.3
              }
            ]
          },
          {
            part: "stack",
            direction: "column",
            grow: 1,
            share: 0,
            justify: "centre",
            gapM: 1,
            padM: {
              top: 1.2,
              right: 1.4,
              bottom: 1.2,
              left: 0.5
            },
            safe: [
              "top",
              "right",
              "bottom"
            ],
            align: "stretch",
            children: [
              {
                part: "text",
                slot: "headline",
                role: "heading",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 2.2,
                  min: 0.9
                },
                hanging: true
              },
              {
                part: "rule",
                lengthM: 2,
                thicknessM: 0.12,
                ink: "accent",
                alignSelf: "start"
              },
              {
                part: "text",
                slot: "line",
                role: "text",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 0.92,
                  min: 0.8
                }
              }
            ]
          }
        ]
      }
    },
    {
      key: "spread",
      name: "Spread",
      aspect: {
        from: 1.5,
        to: 10
      },
      root: {
        part: "stack",
        direction: "row",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "motif",
            generator: "tail",
            seed: 7,
            over: {
              top: 0,
              right: 0,
              bottom: 0,
              left: 0
            }
          },
          {
            part: "sign",
            text: "\u201C",
            heightM: 4.6,
            ink: "accent",
            over: {
              top: -0.8,
              left: 1.2
            }
          },
          {
            part: "stack",
            direction: "column",
            share: 0.27,
            justify: "end",
            padM: {
              top: 1.2,
              right: 0.5,
              bottom: 1.2,
              left: 1.2
            },
            safe: [
              "bottom",
              "left"
            ],
            align: "start",
            children: [
              {
                part: "mark",
                heightM: 2.3
              }
            ]
          },
          {
            part: "stack",
            direction: "column",
            grow: 1,
            share: 0,
            justify: "centre",
            gapM: 1,
            padM: {
              top: 1.2,
              right: 2.6,
              bottom: 1.2,
              left: 0.5
            },
            safe: [
              "top",
              "right",
              "bottom"
            ],
            align: "stretch",
            children: [
              {
                part: "text",
                slot: "headline",
                role: "heading",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 2.2,
                  min: 0.9
                },
                hanging: true
              },
              {
                part: "rule",
                lengthM: 2,
                thicknessM: 0.12,
                ink: "accent",
                alignSelf: "start"
              },
              {
                part: "text",
                slot: "line",
                role: "text",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 0.92,
                  min: 0.8
                }
              }
            ]
          }
        ]
      }
    }
  ]
};

// src/core/template/shipped/band.json
var band_default = {
  version: 1,
  key: "band",
  name: "Band",
  purpose: "Calm photo",
  kind: "graphic",
  scheme: "light",
  slots: [
    {
      key: "photo",
      kind: "picture",
      label: "Picture",
      hint: "Wide, with a horizon",
      required: true
    },
    {
      key: "headline",
      kind: "text",
      label: "Headline",
      hint: "A few words above",
      required: true,
      softLimit: 50,
      sample: "Somewhere between here and the sea"
    },
    {
      key: "line",
      kind: "text",
      label: "Caption",
      hint: "A few more below",
      required: false,
      softLimit: 80,
      sample: "Taken this morning, before anyone was up."
    }
  ],
  drop: [
    "line"
  ],
  arrangements: [
    {
      key: "strait",
      name: "Strait",
      aspect: {
        from: 0,
        to: 0.7
      },
      root: {
        part: "stack",
        direction: "column",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "stack",
            direction: "column",
            padM: {
              top: 1.2,
              right: 1.2,
              bottom: 1,
              left: 1.2
            },
            safe: [
              "top",
              "right",
              "left"
            ],
            align: "stretch",
            children: [
              {
                part: "text",
                slot: "headline",
                role: "heading",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 1.5,
                  min: 0.75
                }
              }
            ]
          },
          {
            part: "picture",
            slot: "photo",
            grow: 1,
            leastShare: 0.34
          },
          {
            part: "stack",
            direction: "column",
            gapM: 0.9,
            padM: {
              top: 1,
              right: 1.2,
              bottom: 1.2,
              left: 1.2
            },
            safe: [
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            children: [
              {
                part: "text",
                slot: "line",
                role: "text",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 0.62,
                  min: 0.5
                }
              },
              {
                part: "mark",
                heightM: 2.2,
                alignSelf: "start"
              }
            ]
          }
        ]
      }
    },
    {
      key: "coast",
      name: "Coast",
      aspect: {
        from: 0.7,
        to: 1.2
      },
      root: {
        part: "stack",
        direction: "column",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "stack",
            direction: "column",
            padM: {
              top: 1.2,
              right: 1.1,
              bottom: 0.9,
              left: 1.1
            },
            safe: [
              "top",
              "right",
              "left"
            ],
            align: "stretch",
            children: [
              {
                part: "text",
                slot: "headline",
                role: "heading",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 1.3,
                  min: 0.66
                }
              }
            ]
          },
          {
            part: "picture",
            slot: "photo",
            grow: 1,
            leastShare: 0.4
          },
          {
            part: "stack",
            direction: "row",
            gapM: 1,
            align: "end",
            padM: {
              top: 0.8,
              right: 1.1,
              bottom: 1,
              left: 1.1
            },
            safe: [
              "right",
              "bottom",
              "left"
            ],
            children: [
              {
                part: "text",
                slot: "line",
                role: "text",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 0.56,
                  min: 0.5
                },
                grow: 1,
                share: 0
              },
              {
                part: "mark",
                heightM: 1.8,
                alignSelf: "end"
              }
            ]
          }
        ]
      }
    },
    {
      key: "shelf",
      name: "Shelf",
      aspect: {
        from: 1.2,
        to: 10
      },
      root: {
        part: "stack",
        direction: "column",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "stack",
            direction: "row",
            gapM: 1.2,
            align: "start",
            padM: {
              top: 1.1,
              right: 1.3,
              bottom: 0.9,
              left: 1.3
            },
            safe: [
              "top",
              "right",
              "left"
            ],
            children: [
              {
                part: "text",
                slot: "headline",
                role: "heading",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 1.3,
                  min: 0.9
                },
                grow: 1,
                share: 0
              },
              {
                part: "mark",
                heightM: 2
              }
            ]
          },
          {
            part: "picture",
            slot: "photo",
            grow: 1,
            leastShare: 0.46
          },
          {
            part: "stack",
            direction: "column",
            padM: {
              top: 0.7,
              right: 1.3,
              bottom: 0.9,
              left: 1.3
            },
            safe: [
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            children: [
              {
                part: "text",
                slot: "line",
                role: "text",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 0.85,
                  min: 0.8
                }
              }
            ]
          }
        ]
      }
    }
  ]
};

// src/core/template/shipped/bill.json
var bill_default = {
  version: 1,
  key: "bill",
  name: "Bill",
  purpose: "Event, type only",
  kind: "graphic",
  scheme: "bold",
  slots: [
    {
      key: "day",
      kind: "text",
      label: "Day",
      hint: "The day, as a number",
      required: true,
      softLimit: 3,
      sample: "28"
    },
    {
      key: "label",
      kind: "text",
      label: "Month or weekday",
      hint: "Beside the number",
      required: false,
      softLimit: 20,
      sample: "November"
    },
    {
      key: "headline",
      kind: "text",
      label: "Title",
      hint: "What happens",
      required: true,
      softLimit: 50,
      sample: "An evening worth leaving the house for"
    },
    {
      key: "line",
      kind: "text",
      label: "Place and time",
      hint: "Where and from when",
      required: false,
      softLimit: 80,
      sample: "The place, from eight"
    }
  ],
  drop: [
    "label"
  ],
  arrangements: [
    {
      key: "poster",
      name: "Poster",
      aspect: {
        from: 0,
        to: 0.7
      },
      root: {
        part: "stack",
        direction: "column",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "motif",
            generator: "waves",
            seed: 3,
            over: {
              top: 0,
              right: 0,
              bottom: 0,
              left: 0
            }
          },
          {
            part: "stack",
            direction: "column",
            grow: 1,
            justify: "between",
            gapM: 0.8,
            padM: {
              top: 1.2,
              right: 1.2,
              bottom: 1.2,
              left: 1.2
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            children: [
              {
                part: "stack",
                direction: "column",
                gapM: 0.7,
                align: "stretch",
                children: [
                  {
                    part: "text",
                    slot: "day",
                    role: "display",
                    align: "start",
                    ink: "accent",
                    sizeM: {
                      max: 8.2,
                      min: 4
                    },
                    fill: true
                  },
                  {
                    part: "text",
                    slot: "label",
                    role: "label",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.62,
                      min: 0.44
                    }
                  }
                ]
              },
              {
                part: "text",
                slot: "headline",
                role: "display",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 2,
                  min: 0.8
                }
              },
              {
                part: "stack",
                direction: "column",
                gapM: 0.5,
                align: "stretch",
                children: [
                  {
                    part: "rule",
                    lengthM: 0,
                    thicknessM: 0.05,
                    ink: "ink",
                    alignSelf: "stretch"
                  },
                  {
                    part: "text",
                    slot: "line",
                    role: "text",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.68,
                      min: 0.5
                    }
                  },
                  {
                    part: "rule",
                    lengthM: 0,
                    thicknessM: 0.05,
                    ink: "ink",
                    alignSelf: "stretch"
                  }
                ]
              }
            ]
          }
        ]
      }
    },
    {
      key: "notice",
      name: "Notice",
      aspect: {
        from: 0.7,
        to: 1.2
      },
      root: {
        part: "stack",
        direction: "column",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "motif",
            generator: "waves",
            seed: 3,
            over: {
              top: 0,
              right: 0,
              bottom: 0,
              left: 0
            }
          },
          {
            part: "stack",
            direction: "column",
            grow: 1,
            justify: "between",
            gapM: 0.8,
            padM: {
              top: 1.1,
              right: 1.1,
              bottom: 4.2,
              left: 1.1
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            children: [
              {
                part: "stack",
                direction: "row",
                gapM: 1.2,
                align: "start",
                children: [
                  {
                    part: "text",
                    slot: "day",
                    role: "display",
                    align: "start",
                    ink: "accent",
                    sizeM: {
                      max: 6,
                      min: 2.6
                    },
                    fill: true,
                    grow: 1,
                    share: 0
                  },
                  {
                    part: "mark",
                    heightM: 2.2
                  }
                ]
              },
              {
                part: "stack",
                direction: "column",
                gapM: 0.6,
                align: "stretch",
                children: [
                  {
                    part: "text",
                    slot: "label",
                    role: "label",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.5,
                      min: 0.42
                    }
                  },
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 1.7,
                      min: 0.7
                    }
                  }
                ]
              },
              {
                part: "stack",
                direction: "column",
                gapM: 0.5,
                align: "stretch",
                children: [
                  {
                    part: "rule",
                    lengthM: 0,
                    thicknessM: 0.05,
                    ink: "ink",
                    alignSelf: "stretch"
                  },
                  {
                    part: "text",
                    slot: "line",
                    role: "text",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.6,
                      min: 0.5
                    }
                  }
                ]
              }
            ]
          }
        ]
      }
    },
    {
      key: "banner",
      name: "Banner",
      aspect: {
        from: 1.2,
        to: 10
      },
      root: {
        part: "stack",
        direction: "row",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "motif",
            generator: "waves",
            seed: 3,
            over: {
              top: 0,
              right: 0,
              bottom: 0,
              left: 0
            }
          },
          {
            part: "stack",
            direction: "column",
            gapM: 0.9,
            share: 0.4,
            justify: "centre",
            padM: {
              top: 1.2,
              right: 1,
              bottom: 4.1,
              left: 1.4
            },
            safe: [
              "top",
              "bottom",
              "left"
            ],
            align: "stretch",
            children: [
              {
                part: "text",
                slot: "day",
                role: "display",
                align: "start",
                ink: "accent",
                sizeM: {
                  max: 8.6,
                  min: 3.4
                },
                fill: true
              },
              {
                part: "text",
                slot: "label",
                role: "label",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 0.8,
                  min: 0.6
                }
              }
            ]
          },
          {
            part: "stack",
            direction: "column",
            grow: 1,
            share: 0,
            justify: "between",
            gapM: 0.8,
            padM: {
              top: 1.4,
              right: 1.6,
              bottom: 4.1,
              left: 0.6
            },
            safe: [
              "top",
              "right",
              "bottom"
            ],
            align: "stretch",
            children: [
              {
                part: "mark",
                heightM: 2,
                alignSelf: "end"
              },
              {
                part: "stack",
                direction: "column",
                gapM: 0.8,
                align: "stretch",
                children: [
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 1.9,
                      min: 0.9
                    }
                  },
                  {
                    part: "rule",
                    lengthM: 0,
                    thicknessM: 0.05,
                    ink: "ink",
                    alignSelf: "stretch"
                  },
                  {
                    part: "text",
                    slot: "line",
                    role: "text",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.95,
                      min: 0.8
                    }
                  }
                ]
              }
            ]
          }
        ]
      }
    }
  ]
};

// src/core/template/shipped/counter.json
var counter_default = {
  version: 1,
  key: "counter",
  name: "Counter",
  purpose: "Product and price",
  kind: "graphic",
  scheme: "bold",
  slots: [
    {
      key: "photo",
      kind: "picture",
      label: "Cut-out",
      hint: "The product without its background",
      required: true
    },
    {
      key: "price",
      kind: "text",
      label: "Price",
      hint: "As it stands on the tag",
      required: true,
      softLimit: 7,
      sample: "\xA324"
    },
    {
      key: "headline",
      kind: "text",
      label: "Name",
      hint: "What it is called",
      required: true,
      softLimit: 36,
      sample: "The one you were looking for"
    },
    {
      key: "first",
      kind: "text",
      label: "One fact",
      hint: "What it is made of, how it works",
      required: false,
      softLimit: 28,
      sample: "Made by hand"
    },
    {
      key: "second",
      kind: "text",
      label: "Another fact",
      hint: "Size, number, colour",
      required: false,
      softLimit: 28,
      sample: "In three sizes"
    }
  ],
  drop: [
    "second",
    "first"
  ],
  arrangements: [
    {
      key: "shelf",
      name: "Shelf",
      aspect: {
        from: 0,
        to: 0.7
      },
      root: {
        part: "stack",
        direction: "column",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "stack",
            direction: "column",
            grow: 1,
            leastShare: 0.42,
            children: [
              {
                part: "stack",
                direction: "column",
                field: {
                  ink: "surface",
                  shape: "disc"
                },
                over: {
                  top: 2.6,
                  left: 0.8,
                  right: 0.8,
                  bottom: 0.4
                },
                children: []
              },
              {
                part: "picture",
                slot: "photo",
                whole: true,
                over: {
                  top: 2.8,
                  left: 0.4,
                  right: 0.4,
                  bottom: 0.2
                }
              },
              {
                part: "stack",
                direction: "column",
                field: {
                  ink: "accent",
                  shape: "seal"
                },
                over: {
                  bottom: 1,
                  right: 0.7
                },
                safe: [
                  "right"
                ],
                justify: "centre",
                padM: {
                  top: 1.75,
                  right: 0.75,
                  bottom: 1.75,
                  left: 0.75
                },
                align: "stretch",
                children: [
                  {
                    part: "text",
                    slot: "price",
                    role: "display",
                    align: "centre",
                    ink: "ground",
                    sizeM: {
                      max: 1.5,
                      min: 0.62
                    },
                    fill: true,
                    widthM: 3.5
                  }
                ]
              }
            ]
          },
          {
            part: "stack",
            direction: "column",
            gapM: 0.7,
            padM: {
              top: 0.8,
              right: 1.2,
              bottom: 1.2,
              left: 1.2
            },
            safe: [
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            children: [
              {
                part: "text",
                slot: "headline",
                role: "display",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 1.6,
                  min: 0.72
                }
              },
              {
                part: "stack",
                direction: "column",
                gapM: 0.6,
                align: "stretch",
                children: [
                  {
                    part: "rule",
                    lengthM: 0,
                    thicknessM: 0.05,
                    ink: "ink",
                    alignSelf: "stretch"
                  },
                  {
                    part: "stack",
                    direction: "row",
                    gapM: 0.8,
                    align: "start",
                    children: [
                      {
                        part: "text",
                        slot: "first",
                        role: "text",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 0.6,
                          min: 0.5
                        },
                        grow: 1,
                        share: 0
                      },
                      {
                        part: "text",
                        slot: "second",
                        role: "text",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 0.6,
                          min: 0.5
                        },
                        grow: 1,
                        share: 0
                      }
                    ]
                  }
                ]
              }
            ]
          }
        ]
      }
    },
    {
      key: "tray",
      name: "Tray",
      aspect: {
        from: 0.7,
        to: 1.2
      },
      root: {
        part: "stack",
        direction: "column",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "stack",
            direction: "column",
            grow: 1,
            leastShare: 0.46,
            children: [
              {
                part: "stack",
                direction: "column",
                field: {
                  ink: "surface",
                  shape: "disc"
                },
                over: {
                  top: 0.8,
                  left: 1,
                  right: 1,
                  bottom: 0.3
                },
                children: []
              },
              {
                part: "picture",
                slot: "photo",
                whole: true,
                over: {
                  top: 0.5,
                  left: 1,
                  right: 1,
                  bottom: 0
                }
              },
              {
                part: "stack",
                direction: "column",
                field: {
                  ink: "accent",
                  shape: "seal"
                },
                over: {
                  bottom: 0.4,
                  right: 0.8
                },
                safe: [
                  "right"
                ],
                justify: "centre",
                padM: {
                  top: 1.6,
                  right: 0.75,
                  bottom: 1.6,
                  left: 0.75
                },
                align: "stretch",
                children: [
                  {
                    part: "text",
                    slot: "price",
                    role: "display",
                    align: "centre",
                    ink: "ground",
                    sizeM: {
                      max: 1.3,
                      min: 0.62
                    },
                    fill: true,
                    widthM: 3.3
                  }
                ]
              },
              {
                part: "mark",
                heightM: 2,
                over: {
                  top: 1.1,
                  left: 1.1
                }
              }
            ]
          },
          {
            part: "stack",
            direction: "column",
            gapM: 0.6,
            padM: {
              top: 0.6,
              right: 1.1,
              bottom: 1,
              left: 1.1
            },
            safe: [
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            children: [
              {
                part: "text",
                slot: "headline",
                role: "display",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 1.35,
                  min: 0.66
                }
              },
              {
                part: "stack",
                direction: "column",
                gapM: 0.6,
                align: "stretch",
                children: [
                  {
                    part: "rule",
                    lengthM: 0,
                    thicknessM: 0.05,
                    ink: "ink",
                    alignSelf: "stretch"
                  },
                  {
                    part: "stack",
                    direction: "row",
                    gapM: 0.8,
                    align: "start",
                    children: [
                      {
                        part: "text",
                        slot: "first",
                        role: "text",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 0.54,
                          min: 0.5
                        },
                        grow: 1,
                        share: 0
                      },
                      {
                        part: "text",
                        slot: "second",
                        role: "text",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 0.54,
                          min: 0.5
                        },
                        grow: 1,
                        share: 0
                      }
                    ]
                  }
                ]
              }
            ]
          }
        ]
      }
    },
    {
      key: "window",
      name: "Window",
      aspect: {
        from: 1.2,
        to: 10
      },
      root: {
        part: "stack",
        direction: "row",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "stack",
            direction: "column",
            share: 0.5,
            justify: "between",
            gapM: 0.8,
            padM: {
              top: 1.4,
              right: 0.4,
              bottom: 1.4,
              left: 1.4
            },
            safe: [
              "top",
              "bottom",
              "left"
            ],
            align: "stretch",
            children: [
              {
                part: "mark",
                heightM: 2.1,
                alignSelf: "start"
              },
              {
                part: "stack",
                direction: "column",
                gapM: 0.7,
                align: "stretch",
                children: [
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 1.8,
                      min: 0.9
                    }
                  },
                  {
                    part: "stack",
                    direction: "column",
                    gapM: 0.6,
                    align: "stretch",
                    children: [
                      {
                        part: "rule",
                        lengthM: 0,
                        thicknessM: 0.05,
                        ink: "ink",
                        alignSelf: "stretch"
                      },
                      {
                        part: "stack",
                        direction: "row",
                        gapM: 0.8,
                        align: "start",
                        children: [
                          {
                            part: "text",
                            slot: "first",
                            role: "text",
                            align: "start",
                            ink: "ink",
                            sizeM: {
                              max: 0.86,
                              min: 0.8
                            },
                            grow: 1,
                            share: 0
                          },
                          {
                            part: "text",
                            slot: "second",
                            role: "text",
                            align: "start",
                            ink: "ink",
                            sizeM: {
                              max: 0.86,
                              min: 0.8
                            },
                            grow: 1,
                            share: 0
                          }
                        ]
                      }
                    ]
                  }
                ]
              }
            ]
          },
          {
            part: "stack",
            direction: "column",
            grow: 1,
            share: 0,
            children: [
              {
                part: "stack",
                direction: "column",
                field: {
                  ink: "surface",
                  shape: "disc"
                },
                over: {
                  top: 1.2,
                  left: 0.4,
                  right: 1,
                  bottom: 1.2
                },
                children: []
              },
              {
                part: "picture",
                slot: "photo",
                whole: true,
                over: {
                  top: 0.9,
                  left: 0.4,
                  right: 1,
                  bottom: 0.9
                }
              },
              {
                part: "stack",
                direction: "column",
                field: {
                  ink: "accent",
                  shape: "seal"
                },
                over: {
                  bottom: 0.9,
                  right: 0.7
                },
                safe: [
                  "right",
                  "bottom"
                ],
                justify: "centre",
                padM: {
                  top: 2,
                  right: 0.75,
                  bottom: 2,
                  left: 0.75
                },
                align: "stretch",
                children: [
                  {
                    part: "text",
                    slot: "price",
                    role: "display",
                    align: "centre",
                    ink: "ground",
                    sizeM: {
                      max: 1.7,
                      min: 0.62
                    },
                    fill: true,
                    widthM: 4.75
                  }
                ]
              }
            ]
          }
        ]
      }
    }
  ]
};

// src/core/template/shipped/crew.json
var crew_default = {
  version: 1,
  key: "crew",
  name: "Crew",
  purpose: "Hiring",
  kind: "graphic",
  scheme: "dark",
  slots: [
    {
      key: "headline",
      kind: "text",
      label: "Role",
      hint: "Who you look for",
      required: true,
      softLimit: 40,
      sample: "Sail maker, half days"
    },
    {
      key: "points",
      kind: "list",
      label: "Facts",
      hint: "Three, one a line",
      required: true,
      sample: "Four mornings a week\nIn the loft, with tea\nFrom the first of next month"
    },
    {
      key: "call",
      kind: "text",
      label: "Call",
      hint: "What to do now",
      required: true,
      softLimit: 24,
      sample: "Write to us"
    },
    {
      key: "photo",
      kind: "picture",
      label: "Picture",
      hint: "The place or the people",
      required: true
    }
  ],
  arrangements: [
    {
      key: "gang",
      name: "Gang",
      aspect: {
        from: 0,
        to: 0.7
      },
      root: {
        part: "stack",
        direction: "column",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "picture",
            slot: "photo",
            grow: 1,
            leastShare: 0.22
          },
          {
            part: "stack",
            direction: "column",
            gapM: 1,
            padM: {
              top: 1.1,
              right: 1.2,
              bottom: 1.2,
              left: 1.2
            },
            safe: [
              "right",
              "bottom",
              "left"
            ],
            field: {
              ink: "ground"
            },
            align: "stretch",
            children: [
              {
                part: "text",
                slot: "headline",
                role: "display",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 1.8,
                  min: 0.8
                }
              },
              {
                part: "rows",
                slot: "points",
                ink: "ink",
                numeralInk: "accent",
                numerals: false,
                sizeM: {
                  max: 0.68,
                  min: 0.5
                },
                gapM: 0.4
              },
              {
                part: "stack",
                direction: "column",
                field: {
                  ink: "accent",
                  shape: "tab"
                },
                padM: {
                  top: 0.58,
                  right: 1.1,
                  bottom: 0.46,
                  left: 0.8
                },
                align: "stretch",
                children: [
                  {
                    part: "text",
                    slot: "call",
                    role: "heading",
                    align: "start",
                    ink: "ground",
                    sizeM: {
                      max: 0.72,
                      min: 0.52
                    }
                  }
                ]
              }
            ]
          }
        ]
      }
    },
    {
      key: "shift",
      name: "Shift",
      aspect: {
        from: 0.7,
        to: 1.2
      },
      root: {
        part: "stack",
        direction: "column",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "picture",
            slot: "photo",
            grow: 1,
            leastShare: 0.24
          },
          {
            part: "stack",
            direction: "column",
            gapM: 0.8,
            padM: {
              top: 1,
              right: 1.1,
              bottom: 1,
              left: 1.1
            },
            safe: [
              "right",
              "bottom",
              "left"
            ],
            field: {
              ink: "ground"
            },
            align: "stretch",
            children: [
              {
                part: "text",
                slot: "headline",
                role: "display",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 1.5,
                  min: 0.68
                }
              },
              {
                part: "rows",
                slot: "points",
                ink: "ink",
                numeralInk: "accent",
                numerals: false,
                sizeM: {
                  max: 0.6,
                  min: 0.5
                },
                gapM: 0.32
              },
              {
                part: "stack",
                direction: "row",
                gapM: 1,
                align: "end",
                children: [
                  {
                    part: "stack",
                    direction: "column",
                    field: {
                      ink: "accent",
                      shape: "tab"
                    },
                    padM: {
                      top: 0.52,
                      right: 1,
                      bottom: 0.42,
                      left: 0.75
                    },
                    align: "stretch",
                    grow: 1,
                    share: 0,
                    children: [
                      {
                        part: "text",
                        slot: "call",
                        role: "heading",
                        align: "start",
                        ink: "ground",
                        sizeM: {
                          max: 0.66,
                          min: 0.5
                        }
                      }
                    ]
                  },
                  {
                    part: "mark",
                    heightM: 2,
                    alignSelf: "end"
                  }
                ]
              }
            ]
          }
        ]
      }
    },
    {
      key: "watch",
      name: "Watch",
      aspect: {
        from: 1.2,
        to: 10
      },
      root: {
        part: "stack",
        direction: "row",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "stack",
            direction: "column",
            share: 0.56,
            justify: "between",
            gapM: 0.8,
            padM: {
              top: 1.3,
              right: 1.1,
              bottom: 1.2,
              left: 1.4
            },
            safe: [
              "top",
              "bottom",
              "left"
            ],
            align: "stretch",
            children: [
              {
                part: "text",
                slot: "headline",
                role: "display",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 1.6,
                  min: 0.9
                }
              },
              {
                part: "rows",
                slot: "points",
                ink: "ink",
                numeralInk: "accent",
                numerals: false,
                sizeM: {
                  max: 0.85,
                  min: 0.8
                },
                gapM: 0.34
              },
              {
                part: "stack",
                direction: "column",
                field: {
                  ink: "accent",
                  shape: "tab"
                },
                padM: {
                  top: 0.62,
                  right: 1.1,
                  bottom: 0.52,
                  left: 0.85
                },
                align: "stretch",
                children: [
                  {
                    part: "text",
                    slot: "call",
                    role: "heading",
                    align: "start",
                    ink: "ground",
                    sizeM: {
                      max: 0.95,
                      min: 0.85
                    }
                  }
                ]
              }
            ]
          },
          {
            part: "picture",
            slot: "photo",
            grow: 1,
            leastShare: 0.34
          }
        ]
      }
    }
  ]
};

// src/core/template/shipped/door.json
var door_default = {
  version: 1,
  key: "door",
  name: "Door",
  purpose: "Opening hours",
  kind: "graphic",
  scheme: "dark",
  slots: [
    {
      key: "headline",
      kind: "text",
      label: "Title",
      hint: "That the door is open",
      required: true,
      softLimit: 30,
      sample: "The door is open"
    },
    {
      key: "hours",
      kind: "list",
      label: "Hours",
      hint: "A line a day, \u201CMonday: 10 to 5\u201D; left empty, the brand\u2019s facts",
      required: true,
      fact: "weekdays",
      columns: true,
      markedBy: "day",
      sample: "Monday: closed\nTuesday: 10 to 5\nWednesday: 10 to 5\nThursday: 10 to 5\nFriday: 10 to 6\nSaturday: 9 to 6\nSunday: 11 to 4"
    },
    {
      key: "day",
      kind: "text",
      label: "Marked day",
      hint: "The day this is about, as in the hours",
      required: false,
      softLimit: 14,
      sample: "Saturday"
    },
    {
      key: "line",
      kind: "text",
      label: "Exceptions",
      hint: "What is different this time",
      required: false,
      softLimit: 80,
      sample: "Closed on the 25th, back on the 27th"
    },
    {
      key: "place",
      kind: "fact",
      label: "Address",
      hint: "Where the door is; left empty, the fact \u201Cplace\u201D",
      required: false,
      fact: "place",
      softLimit: 60,
      sample: "The corner you always pass"
    }
  ],
  drop: [
    "line",
    "place"
  ],
  arrangements: [
    {
      key: "panel",
      name: "Panel",
      aspect: {
        from: 0,
        to: 0.7
      },
      root: {
        part: "stack",
        direction: "column",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "motif",
            generator: "weave",
            seed: 4,
            over: {
              top: 0,
              right: 0,
              bottom: 0,
              left: 0
            }
          },
          {
            part: "stack",
            direction: "column",
            grow: 1,
            justify: "between",
            gapM: 0.9,
            padM: {
              top: 1.2,
              right: 1.2,
              bottom: 1.2,
              left: 1.2
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "ground"
            },
            children: [
              {
                part: "text",
                slot: "headline",
                role: "display",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 2,
                  min: 0.85
                }
              },
              {
                part: "rows",
                slot: "hours",
                ink: "ink",
                numeralInk: "accent",
                numerals: false,
                sizeM: {
                  max: 1.15,
                  min: 0.5
                },
                gapM: 0.36
              },
              {
                part: "stack",
                direction: "column",
                gapM: 0.6,
                align: "stretch",
                children: [
                  {
                    part: "text",
                    slot: "line",
                    role: "text",
                    align: "start",
                    ink: "accent",
                    sizeM: {
                      max: 0.56,
                      min: 0.5
                    }
                  },
                  {
                    part: "text",
                    slot: "place",
                    role: "text",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.56,
                      min: 0.5
                    }
                  }
                ]
              }
            ]
          }
        ]
      }
    },
    {
      key: "plate",
      name: "Plate",
      aspect: {
        from: 0.7,
        to: 1.2
      },
      root: {
        part: "stack",
        direction: "column",
        grow: 1,
        justify: "between",
        gapM: 0.6,
        padM: {
          top: 1,
          right: 1,
          bottom: 1,
          left: 1
        },
        safe: [
          "top",
          "right",
          "bottom",
          "left"
        ],
        align: "stretch",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "stack",
            direction: "row",
            gapM: 1,
            align: "start",
            children: [
              {
                part: "text",
                slot: "headline",
                role: "display",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 1.45,
                  min: 0.7
                },
                grow: 1,
                share: 0
              },
              {
                part: "mark",
                heightM: 2,
                alignSelf: "start"
              }
            ]
          },
          {
            part: "rows",
            slot: "hours",
            ink: "ink",
            numeralInk: "accent",
            numerals: false,
            sizeM: {
              max: 1.1,
              min: 0.5
            },
            gapM: 0.24
          },
          {
            part: "stack",
            direction: "column",
            gapM: 0.4,
            align: "stretch",
            children: [
              {
                part: "text",
                slot: "line",
                role: "text",
                align: "start",
                ink: "accent",
                sizeM: {
                  max: 0.5,
                  min: 0.5
                }
              },
              {
                part: "text",
                slot: "place",
                role: "text",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 0.5,
                  min: 0.5
                }
              }
            ]
          }
        ]
      }
    },
    {
      key: "sill",
      name: "Sill",
      aspect: {
        from: 1.2,
        to: 10
      },
      root: {
        part: "stack",
        direction: "row",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "stack",
            direction: "column",
            share: 0.42,
            justify: "between",
            gapM: 0.8,
            padM: {
              top: 1.4,
              right: 1.2,
              bottom: 1.4,
              left: 1.4
            },
            safe: [
              "top",
              "bottom",
              "left"
            ],
            align: "stretch",
            children: [
              {
                part: "mark",
                heightM: 2.1,
                alignSelf: "start"
              },
              {
                part: "stack",
                direction: "column",
                gapM: 0.7,
                align: "stretch",
                children: [
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 1.9,
                      min: 0.95
                    }
                  },
                  {
                    part: "text",
                    slot: "line",
                    role: "text",
                    align: "start",
                    ink: "accent",
                    sizeM: {
                      max: 0.84,
                      min: 0.8
                    }
                  },
                  {
                    part: "text",
                    slot: "place",
                    role: "text",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.84,
                      min: 0.8
                    }
                  }
                ]
              }
            ]
          },
          {
            part: "stack",
            direction: "column",
            grow: 1,
            share: 0,
            justify: "centre",
            padM: {
              top: 1,
              right: 1.4,
              bottom: 1,
              left: 1.2
            },
            safe: [
              "top",
              "right",
              "bottom"
            ],
            align: "stretch",
            field: {
              ink: "surface"
            },
            children: [
              {
                part: "rows",
                slot: "hours",
                ink: "ink",
                numeralInk: "accent",
                numerals: false,
                sizeM: {
                  max: 1.35,
                  min: 0.8
                },
                gapM: 0.2
              }
            ]
          }
        ]
      }
    }
  ]
};

// src/core/template/shipped/flag.json
var flag_default = {
  version: 1,
  key: "flag",
  name: "Flag",
  purpose: "Offer with an end",
  kind: "graphic",
  scheme: "dark",
  slots: [
    {
      key: "photo",
      kind: "picture",
      label: "Picture",
      hint: "Something with strong shapes",
      required: true
    },
    {
      key: "offer",
      kind: "text",
      label: "Offer",
      hint: "A number, the shorter the larger",
      required: true,
      softLimit: 8,
      sample: "\u221220%"
    },
    {
      key: "headline",
      kind: "text",
      label: "On what",
      hint: "What the offer is on",
      required: true,
      softLimit: 40,
      sample: "Everything that is ready to go"
    },
    {
      key: "line",
      kind: "text",
      label: "Terms",
      hint: "Until when, and what is left out",
      required: false,
      softLimit: 90,
      sample: "Until Sunday. Not on what is reduced already."
    }
  ],
  arrangements: [
    {
      key: "mast",
      name: "Mast",
      aspect: {
        from: 0,
        to: 0.7
      },
      root: {
        part: "stack",
        direction: "column",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "picture",
            slot: "photo",
            duotone: true,
            grow: 1,
            leastShare: 0.36
          },
          {
            part: "stack",
            direction: "column",
            field: {
              ink: "accent"
            },
            padM: {
              top: 0.7,
              right: 1.2,
              bottom: 0.7,
              left: 1.2
            },
            safe: [
              "right",
              "left"
            ],
            align: "stretch",
            children: [
              {
                part: "text",
                slot: "offer",
                role: "display",
                align: "start",
                ink: "ground",
                sizeM: {
                  max: 6,
                  min: 2
                },
                fill: true
              }
            ]
          },
          {
            part: "stack",
            direction: "column",
            gapM: 0.7,
            padM: {
              top: 1,
              right: 1.2,
              bottom: 1.2,
              left: 1.2
            },
            safe: [
              "right",
              "bottom",
              "left"
            ],
            field: {
              ink: "ground"
            },
            align: "stretch",
            children: [
              {
                part: "text",
                slot: "headline",
                role: "heading",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 1.3,
                  min: 0.75
                }
              },
              {
                part: "text",
                slot: "line",
                role: "text",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 0.6,
                  min: 0.5
                }
              }
            ]
          }
        ]
      }
    },
    {
      key: "hoist",
      name: "Hoist",
      aspect: {
        from: 0.7,
        to: 1.2
      },
      root: {
        part: "stack",
        direction: "column",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "picture",
            slot: "photo",
            duotone: true,
            grow: 1,
            leastShare: 0.3
          },
          {
            part: "stack",
            direction: "column",
            field: {
              ink: "accent"
            },
            padM: {
              top: 0.6,
              right: 1.1,
              bottom: 0.6,
              left: 1.1
            },
            safe: [
              "right",
              "left"
            ],
            align: "stretch",
            children: [
              {
                part: "text",
                slot: "offer",
                role: "display",
                align: "start",
                ink: "ground",
                sizeM: {
                  max: 4.6,
                  min: 1.8
                },
                fill: true
              }
            ]
          },
          {
            part: "stack",
            direction: "column",
            gapM: 0.6,
            padM: {
              top: 0.9,
              right: 1.1,
              bottom: 1,
              left: 1.1
            },
            safe: [
              "right",
              "bottom",
              "left"
            ],
            field: {
              ink: "ground"
            },
            align: "stretch",
            children: [
              {
                part: "text",
                slot: "headline",
                role: "heading",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 1.15,
                  min: 0.66
                }
              },
              {
                part: "stack",
                direction: "row",
                gapM: 1,
                align: "end",
                children: [
                  {
                    part: "text",
                    slot: "line",
                    role: "text",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.54,
                      min: 0.5
                    },
                    grow: 1,
                    share: 0
                  },
                  {
                    part: "mark",
                    heightM: 1.9,
                    alignSelf: "end"
                  }
                ]
              }
            ]
          }
        ]
      }
    },
    {
      key: "pennant",
      name: "Pennant",
      aspect: {
        from: 1.2,
        to: 10
      },
      root: {
        part: "stack",
        direction: "row",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "stack",
            direction: "column",
            share: 0.52,
            field: {
              ink: "ground"
            },
            align: "stretch",
            children: [
              {
                part: "stack",
                direction: "column",
                field: {
                  ink: "accent"
                },
                padM: {
                  top: 0.9,
                  right: 1,
                  bottom: 0.9,
                  left: 1.4
                },
                safe: [
                  "top",
                  "left"
                ],
                align: "stretch",
                children: [
                  {
                    part: "text",
                    slot: "offer",
                    role: "display",
                    align: "start",
                    ink: "ground",
                    sizeM: {
                      max: 4.6,
                      min: 2
                    },
                    fill: true
                  }
                ]
              },
              {
                part: "stack",
                direction: "column",
                grow: 1,
                justify: "centre",
                gapM: 0.7,
                padM: {
                  top: 0.8,
                  right: 1,
                  bottom: 1.2,
                  left: 1.4
                },
                safe: [
                  "bottom",
                  "left"
                ],
                align: "stretch",
                children: [
                  {
                    part: "text",
                    slot: "headline",
                    role: "heading",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 1.35,
                      min: 0.9
                    }
                  },
                  {
                    part: "text",
                    slot: "line",
                    role: "text",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.9,
                      min: 0.8
                    }
                  }
                ]
              }
            ]
          },
          {
            part: "picture",
            slot: "photo",
            duotone: true,
            grow: 1,
            leastShare: 0.36
          }
        ]
      }
    }
  ]
};

// src/core/template/shipped/gust.json
var gust_default = {
  version: 1,
  key: "gust",
  name: "Gust",
  purpose: "Announcement in clips",
  kind: "video",
  scheme: "bold",
  slots: [
    {
      key: "film",
      kind: "picture",
      label: "Clip or picture",
      hint: "What is to be seen",
      required: true
    },
    {
      key: "label",
      kind: "text",
      label: "Label",
      hint: "What kind of news",
      required: false,
      softLimit: 24,
      sample: "This Saturday"
    },
    {
      key: "headline",
      kind: "text",
      label: "Headline",
      hint: "The news",
      required: true,
      softLimit: 44,
      sample: "Build your own kite"
    }
  ],
  drop: [
    "label"
  ],
  arrangements: [
    {
      key: "post",
      name: "Post",
      aspect: {
        from: 0,
        to: 0.7
      },
      root: {
        part: "stack",
        direction: "column",
        children: [
          {
            part: "picture",
            slot: "film",
            over: {
              top: 0,
              right: 0,
              bottom: 0,
              left: 0
            }
          },
          {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "text",
                slot: "label",
                role: "label",
                align: "start",
                ink: "accent",
                sizeM: {
                  max: 0.62,
                  min: 0.5084
                }
              },
              {
                part: "text",
                slot: "headline",
                role: "display",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 2.3,
                  min: 1
                }
              }
            ],
            gapM: 0.5,
            padM: {
              top: 1,
              right: 1.2,
              bottom: 0.9,
              left: 1.2
            },
            field: {
              ink: "ground",
              slant: {
                edge: "top",
                slantM: 0.9
              }
            },
            align: "stretch",
            alignSelf: "start"
          }
        ],
        justify: "end",
        align: "stretch",
        padM: {
          top: 1.2,
          right: 1.2,
          bottom: 3.8,
          left: 0
        },
        safe: [
          "top",
          "right",
          "bottom",
          "left"
        ],
        field: {
          ink: "ground"
        }
      }
    },
    {
      key: "card",
      name: "Card",
      aspect: {
        from: 0.7,
        to: 1.2
      },
      root: {
        part: "stack",
        direction: "column",
        children: [
          {
            part: "picture",
            slot: "film",
            over: {
              top: 0,
              right: 0,
              bottom: 0,
              left: 0
            }
          },
          {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "text",
                slot: "label",
                role: "label",
                align: "start",
                ink: "accent",
                sizeM: {
                  max: 0.54,
                  min: 0.4428
                }
              },
              {
                part: "text",
                slot: "headline",
                role: "display",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 1.9,
                  min: 0.85
                }
              }
            ],
            gapM: 0.5,
            padM: {
              top: 1,
              right: 1.2,
              bottom: 0.9,
              left: 1.2
            },
            field: {
              ink: "ground",
              slant: {
                edge: "top",
                slantM: 0.9
              }
            },
            align: "stretch",
            alignSelf: "start"
          }
        ],
        justify: "end",
        align: "stretch",
        padM: {
          top: 1,
          right: 1.2,
          bottom: 2.8000000000000003,
          left: 0
        },
        safe: [
          "top",
          "right",
          "bottom",
          "left"
        ],
        field: {
          ink: "ground"
        }
      }
    },
    {
      key: "wide",
      name: "Wide",
      aspect: {
        from: 1.2,
        to: 10
      },
      root: {
        part: "stack",
        direction: "column",
        children: [
          {
            part: "picture",
            slot: "film",
            over: {
              top: 0,
              right: 0,
              bottom: 0,
              left: 0
            }
          },
          {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "text",
                slot: "label",
                role: "label",
                align: "start",
                ink: "accent",
                sizeM: {
                  max: 0.82,
                  min: 0.6723999999999999
                }
              },
              {
                part: "text",
                slot: "headline",
                role: "display",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 1.7,
                  min: 1
                }
              }
            ],
            gapM: 0.5,
            padM: {
              top: 1,
              right: 1.2,
              bottom: 0.9,
              left: 1.2
            },
            field: {
              ink: "ground",
              slant: {
                edge: "top",
                slantM: 0.9
              }
            },
            align: "stretch",
            alignSelf: "start"
          }
        ],
        justify: "end",
        align: "stretch",
        padM: {
          top: 1,
          right: 6,
          bottom: 2.6,
          left: 0
        },
        safe: [
          "top",
          "right",
          "bottom",
          "left"
        ],
        field: {
          ink: "ground"
        }
      }
    }
  ],
  slides: [
    {
      key: "moment",
      name: "Moment",
      use: "point",
      scheme: "light",
      slots: [
        {
          key: "film",
          kind: "picture",
          label: "Clip or picture",
          hint: "What is to be seen",
          required: true
        },
        {
          key: "heading",
          kind: "text",
          label: "Heading",
          hint: "What is to be seen",
          required: false,
          softLimit: 40,
          sample: "You pick the colours"
        },
        {
          key: "text",
          kind: "text",
          label: "Text",
          hint: "A few words more",
          required: false,
          softLimit: 70,
          sample: "We cut the sails for you."
        }
      ],
      drop: [
        "text"
      ],
      arrangements: [
        {
          key: "post",
          name: "Post",
          aspect: {
            from: 0,
            to: 0.7
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "picture",
                slot: "film",
                over: {
                  top: 0,
                  right: 0,
                  bottom: 0,
                  left: 0
                }
              },
              {
                part: "stack",
                direction: "row",
                children: [
                  {
                    part: "stack",
                    direction: "column",
                    children: [],
                    field: {
                      ink: "accent"
                    },
                    padM: {
                      top: 0,
                      right: 0.14,
                      bottom: 0,
                      left: 0.14
                    }
                  },
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "text",
                        slot: "heading",
                        role: "heading",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 1.05,
                          min: 0.66
                        }
                      },
                      {
                        part: "text",
                        slot: "text",
                        role: "text",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 0.6930000000000001,
                          min: 0.528
                        }
                      }
                    ],
                    gapM: 0.3,
                    padM: {
                      top: 0.6,
                      right: 1,
                      bottom: 0.5,
                      left: 0.8
                    },
                    field: {
                      ink: "ground"
                    },
                    align: "stretch"
                  }
                ],
                alignSelf: "start",
                align: "stretch"
              }
            ],
            justify: "end",
            align: "stretch",
            padM: {
              top: 1.2,
              right: 1.6,
              bottom: 3.6,
              left: 1.6
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            field: {
              ink: "ground"
            }
          }
        },
        {
          key: "card",
          name: "Card",
          aspect: {
            from: 0.7,
            to: 1.2
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "picture",
                slot: "film",
                over: {
                  top: 0,
                  right: 0,
                  bottom: 0,
                  left: 0
                }
              },
              {
                part: "stack",
                direction: "row",
                children: [
                  {
                    part: "stack",
                    direction: "column",
                    children: [],
                    field: {
                      ink: "accent"
                    },
                    padM: {
                      top: 0,
                      right: 0.14,
                      bottom: 0,
                      left: 0.14
                    }
                  },
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "text",
                        slot: "heading",
                        role: "heading",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 0.95,
                          min: 0.62
                        }
                      },
                      {
                        part: "text",
                        slot: "text",
                        role: "text",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 0.627,
                          min: 0.496
                        }
                      }
                    ],
                    gapM: 0.3,
                    padM: {
                      top: 0.6,
                      right: 1,
                      bottom: 0.5,
                      left: 0.8
                    },
                    field: {
                      ink: "ground"
                    },
                    align: "stretch"
                  }
                ],
                alignSelf: "start",
                align: "stretch"
              }
            ],
            justify: "end",
            align: "stretch",
            padM: {
              top: 1,
              right: 1.2,
              bottom: 2.6,
              left: 1.2
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            field: {
              ink: "ground"
            }
          }
        },
        {
          key: "wide",
          name: "Wide",
          aspect: {
            from: 1.2,
            to: 10
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "picture",
                slot: "film",
                over: {
                  top: 0,
                  right: 0,
                  bottom: 0,
                  left: 0
                }
              },
              {
                part: "stack",
                direction: "row",
                children: [
                  {
                    part: "stack",
                    direction: "column",
                    children: [],
                    field: {
                      ink: "accent"
                    },
                    padM: {
                      top: 0,
                      right: 0.14,
                      bottom: 0,
                      left: 0.14
                    }
                  },
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "text",
                        slot: "heading",
                        role: "heading",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 1.25,
                          min: 0.95
                        }
                      },
                      {
                        part: "text",
                        slot: "text",
                        role: "text",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 0.8250000000000001,
                          min: 0.76
                        }
                      }
                    ],
                    gapM: 0.3,
                    padM: {
                      top: 0.6,
                      right: 1,
                      bottom: 0.5,
                      left: 0.8
                    },
                    field: {
                      ink: "ground"
                    },
                    align: "stretch"
                  }
                ],
                alignSelf: "start",
                align: "stretch"
              }
            ],
            justify: "end",
            align: "stretch",
            padM: {
              top: 1,
              right: 5,
              bottom: 2.6,
              left: 1.2
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            field: {
              ink: "ground"
            }
          }
        }
      ]
    },
    {
      key: "closing",
      name: "Closing card",
      use: "closing",
      scheme: "dark",
      slots: [
        {
          key: "headline",
          kind: "text",
          label: "Line",
          hint: "What to remember",
          required: true,
          softLimit: 50,
          sample: "Bring a friend and a sandwich"
        },
        {
          key: "call",
          kind: "text",
          label: "Call",
          hint: "What to do now",
          required: true,
          softLimit: 24,
          sample: "Book an afternoon"
        },
        {
          key: "site",
          kind: "fact",
          label: "Where",
          hint: "Where to find you",
          required: false,
          fact: "site"
        }
      ],
      drop: [
        "site"
      ],
      arrangements: [
        {
          key: "post",
          name: "Post",
          aspect: {
            from: 0,
            to: 0.7
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "motif",
                generator: "stripes",
                seed: 3,
                over: {
                  top: 20,
                  right: 0,
                  bottom: 0,
                  left: 0
                }
              },
              {
                part: "mark",
                heightM: 4.4,
                alignSelf: "start"
              },
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 2.2,
                      min: 0.9900000000000001
                    }
                  },
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "text",
                        slot: "call",
                        role: "heading",
                        align: "start",
                        ink: "ground",
                        sizeM: {
                          max: 0.92,
                          min: 0.6072000000000001
                        }
                      }
                    ],
                    field: {
                      ink: "accent",
                      shape: "tab"
                    },
                    padM: {
                      top: 0.6,
                      right: 1.1,
                      bottom: 0.5,
                      left: 0.8
                    },
                    alignSelf: "start",
                    align: "stretch"
                  },
                  {
                    part: "text",
                    slot: "site",
                    role: "text",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.7,
                      min: 0.595
                    }
                  }
                ],
                gapM: 1,
                align: "stretch"
              }
            ],
            justify: "between",
            gapM: 1,
            padM: {
              top: 1.6,
              right: 1.6,
              bottom: 2.4,
              left: 1.6
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        },
        {
          key: "card",
          name: "Card",
          aspect: {
            from: 0.7,
            to: 1.2
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "motif",
                generator: "stripes",
                seed: 3,
                over: {
                  top: 12,
                  right: 0,
                  bottom: 0,
                  left: 0
                }
              },
              {
                part: "mark",
                heightM: 3.6,
                alignSelf: "start"
              },
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 1.9,
                      min: 0.855
                    }
                  },
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "text",
                        slot: "call",
                        role: "heading",
                        align: "start",
                        ink: "ground",
                        sizeM: {
                          max: 0.8,
                          min: 0.528
                        }
                      }
                    ],
                    field: {
                      ink: "accent",
                      shape: "tab"
                    },
                    padM: {
                      top: 0.6,
                      right: 1.1,
                      bottom: 0.5,
                      left: 0.8
                    },
                    alignSelf: "start",
                    align: "stretch"
                  },
                  {
                    part: "text",
                    slot: "site",
                    role: "text",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.6,
                      min: 0.51
                    }
                  }
                ],
                gapM: 0.8,
                align: "stretch"
              }
            ],
            justify: "between",
            gapM: 1,
            padM: {
              top: 1.2,
              right: 1.2,
              bottom: 1.6,
              left: 1.2
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        },
        {
          key: "wide",
          name: "Wide",
          aspect: {
            from: 1.2,
            to: 10
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "motif",
                generator: "stripes",
                seed: 3,
                over: {
                  top: 9,
                  right: 0,
                  bottom: 0,
                  left: 0
                }
              },
              {
                part: "mark",
                heightM: 3,
                alignSelf: "start"
              },
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 1.8,
                      min: 0.81
                    }
                  },
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "text",
                        slot: "call",
                        role: "heading",
                        align: "start",
                        ink: "ground",
                        sizeM: {
                          max: 1.05,
                          min: 0.6930000000000001
                        }
                      }
                    ],
                    field: {
                      ink: "accent",
                      shape: "tab"
                    },
                    padM: {
                      top: 0.6,
                      right: 1.1,
                      bottom: 0.5,
                      left: 0.8
                    },
                    alignSelf: "start",
                    align: "stretch"
                  },
                  {
                    part: "text",
                    slot: "site",
                    role: "text",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.98,
                      min: 0.833
                    }
                  }
                ],
                gapM: 0.6,
                align: "stretch"
              }
            ],
            justify: "between",
            gapM: 1,
            padM: {
              top: 1.2,
              right: 1.5,
              bottom: 1.3,
              left: 1.2
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        }
      ]
    }
  ]
};

// src/core/template/shipped/headland.json
var headland_default = {
  version: 1,
  key: "headland",
  name: "Headland",
  purpose: "Announcement with a photo",
  kind: "graphic",
  scheme: "dark",
  slots: [
    {
      key: "photo",
      kind: "picture",
      label: "Picture",
      hint: "The thing itself, with some quiet around it",
      required: true
    },
    {
      key: "label",
      kind: "text",
      label: "Label",
      hint: "What kind of news",
      required: false,
      softLimit: 28,
      sample: "Saturday"
    },
    {
      key: "headline",
      kind: "text",
      label: "Headline",
      hint: "The news in one breath",
      required: true,
      softLimit: 70,
      sample: "Something good is on its way"
    },
    {
      key: "line",
      kind: "text",
      label: "Line",
      hint: "When, where, how to get it",
      required: false,
      softLimit: 110,
      sample: "Where it happens, and from when."
    }
  ],
  drop: [
    "line",
    "label"
  ],
  arrangements: [
    {
      key: "shore",
      name: "Shore",
      aspect: {
        from: 0,
        to: 0.7
      },
      root: {
        part: "stack",
        direction: "column",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "picture",
            slot: "photo",
            grow: 1,
            leastShare: 0.46,
            underM: {
              bottom: 2.4
            }
          },
          {
            part: "stack",
            direction: "column",
            gapM: 0.75,
            padM: {
              top: 1.7,
              right: 1.2,
              bottom: 1.2,
              left: 1.2
            },
            safe: [
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "ground",
              slant: {
                edge: "top",
                slantM: 2.4
              }
            },
            children: [
              {
                part: "text",
                slot: "label",
                role: "label",
                align: "start",
                ink: "accent",
                sizeM: {
                  max: 0.52,
                  min: 0.42
                }
              },
              {
                part: "text",
                slot: "headline",
                role: "display",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 2.1,
                  min: 0.8
                }
              },
              {
                part: "text",
                slot: "line",
                role: "text",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 0.66,
                  min: 0.5
                }
              }
            ]
          },
          {
            part: "mark",
            heightM: 2.6,
            over: {
              top: 1.2,
              left: 1.2
            }
          }
        ]
      }
    },
    {
      key: "cliff",
      name: "Cliff",
      aspect: {
        from: 0.7,
        to: 1.2
      },
      root: {
        part: "stack",
        direction: "column",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "picture",
            slot: "photo",
            grow: 1,
            leastShare: 0.43,
            underM: {
              bottom: 2
            }
          },
          {
            part: "stack",
            direction: "column",
            gapM: 0.6,
            padM: {
              top: 1.15,
              right: 1,
              bottom: 1,
              left: 1
            },
            safe: [
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "ground",
              slant: {
                edge: "top",
                slantM: 2
              }
            },
            children: [
              {
                part: "text",
                slot: "label",
                role: "label",
                align: "start",
                ink: "accent",
                sizeM: {
                  max: 0.46,
                  min: 0.41
                }
              },
              {
                part: "text",
                slot: "headline",
                role: "display",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 2.1,
                  min: 0.72
                }
              },
              {
                part: "stack",
                direction: "row",
                gapM: 1,
                align: "end",
                justify: "between",
                children: [
                  {
                    part: "text",
                    slot: "line",
                    role: "text",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.58,
                      min: 0.5
                    },
                    grow: 1,
                    share: 0
                  },
                  {
                    part: "mark",
                    heightM: 2.1,
                    alignSelf: "end"
                  }
                ]
              }
            ]
          }
        ]
      }
    },
    {
      key: "bluff",
      name: "Bluff",
      aspect: {
        from: 1.2,
        to: 10
      },
      root: {
        part: "stack",
        direction: "row",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "stack",
            direction: "column",
            share: 0.5,
            justify: "between",
            gapM: 0.8,
            padM: {
              top: 1.2,
              right: 0.7,
              bottom: 1.2,
              left: 1.2
            },
            safe: [
              "top",
              "bottom",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "ground",
              slant: {
                edge: "right",
                slantM: 2.6
              }
            },
            children: [
              {
                part: "mark",
                heightM: 2.4,
                alignSelf: "start"
              },
              {
                part: "stack",
                direction: "column",
                gapM: 0.7,
                align: "stretch",
                children: [
                  {
                    part: "text",
                    slot: "label",
                    role: "label",
                    align: "start",
                    ink: "accent",
                    sizeM: {
                      max: 0.74,
                      min: 0.6
                    }
                  },
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 2.1,
                      min: 0.88
                    }
                  },
                  {
                    part: "text",
                    slot: "line",
                    role: "text",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.95,
                      min: 0.8
                    }
                  }
                ]
              }
            ]
          },
          {
            part: "picture",
            slot: "photo",
            grow: 1,
            leastShare: 0.4,
            underM: {
              left: 2.6
            }
          }
        ]
      }
    }
  ]
};

// src/core/template/shipped/hush.json
var hush_default = {
  version: 1,
  key: "hush",
  name: "Hush",
  purpose: "A quote, with a clip to breathe",
  kind: "video",
  scheme: "light",
  slots: [
    {
      key: "film",
      kind: "picture",
      label: "Clip or picture",
      hint: "What is to be seen",
      required: true
    },
    {
      key: "quote",
      kind: "text",
      label: "Quote",
      hint: "What was said",
      required: true,
      softLimit: 120,
      sample: "You hold the line, and the whole sky pulls back."
    },
    {
      key: "who",
      kind: "text",
      label: "Who",
      hint: "Who said it",
      required: false,
      softLimit: 50,
      sample: "Ottoline Brack, kite maker"
    }
  ],
  drop: [
    "who"
  ],
  arrangements: [
    {
      key: "post",
      name: "Post",
      aspect: {
        from: 0,
        to: 0.7
      },
      root: {
        part: "stack",
        direction: "column",
        children: [
          {
            part: "picture",
            slot: "film",
            share: 0.42,
            leastShare: 0.42
          },
          {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "sign",
                text: "\u201C",
                heightM: 1.1,
                ink: "accent"
              },
              {
                part: "text",
                slot: "quote",
                role: "display",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 1.7,
                  min: 0.85
                },
                hanging: true
              },
              {
                part: "text",
                slot: "who",
                role: "text",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 0.66,
                  min: 0.5412
                }
              }
            ],
            gapM: 0.7,
            padM: {
              top: 1.3,
              right: 1.6,
              bottom: 2.6,
              left: 1.6
            },
            safe: [
              "right",
              "bottom",
              "left"
            ],
            align: "start",
            field: {
              ink: "ground"
            },
            grow: 1,
            share: 0
          }
        ],
        align: "stretch",
        field: {
          ink: "ground"
        }
      }
    },
    {
      key: "card",
      name: "Card",
      aspect: {
        from: 0.7,
        to: 1.2
      },
      root: {
        part: "stack",
        direction: "column",
        children: [
          {
            part: "picture",
            slot: "film",
            share: 0.36,
            leastShare: 0.36
          },
          {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "sign",
                text: "\u201C",
                heightM: 1.1,
                ink: "accent"
              },
              {
                part: "text",
                slot: "quote",
                role: "display",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 1.35,
                  min: 0.72
                },
                hanging: true
              },
              {
                part: "text",
                slot: "who",
                role: "text",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 0.56,
                  min: 0.4592
                }
              }
            ],
            gapM: 0.7,
            padM: {
              top: 0.9,
              right: 1.2,
              bottom: 2,
              left: 1.2
            },
            safe: [
              "right",
              "bottom",
              "left"
            ],
            align: "start",
            field: {
              ink: "ground"
            },
            grow: 1,
            share: 0
          }
        ],
        align: "stretch",
        field: {
          ink: "ground"
        }
      }
    },
    {
      key: "wide",
      name: "Wide",
      aspect: {
        from: 1.2,
        to: 10
      },
      root: {
        part: "stack",
        direction: "row",
        children: [
          {
            part: "picture",
            slot: "film",
            share: 0.4,
            leastShare: 0.4
          },
          {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "sign",
                text: "\u201C",
                heightM: 1.2,
                ink: "accent"
              },
              {
                part: "text",
                slot: "quote",
                role: "display",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 1.5,
                  min: 0.95
                },
                hanging: true
              },
              {
                part: "text",
                slot: "who",
                role: "text",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 0.98,
                  min: 0.882
                }
              }
            ],
            gapM: 0.7,
            justify: "centre",
            padM: {
              top: 1,
              right: 1.4,
              bottom: 2.2,
              left: 1.2
            },
            safe: [
              "top",
              "right",
              "bottom"
            ],
            align: "start",
            field: {
              ink: "ground"
            },
            grow: 1,
            share: 0
          }
        ],
        align: "stretch",
        field: {
          ink: "ground"
        }
      }
    }
  ],
  slides: [
    {
      key: "breath",
      name: "Clip alone",
      use: "picture",
      slots: [
        {
          key: "film",
          kind: "picture",
          label: "Clip or picture",
          hint: "What is to be seen",
          required: true
        }
      ],
      arrangements: [
        {
          key: "post",
          name: "Post",
          aspect: {
            from: 0,
            to: 0.7
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "picture",
                slot: "film",
                over: {
                  top: 0,
                  right: 0,
                  bottom: 0,
                  left: 0
                }
              }
            ],
            justify: "end",
            align: "stretch",
            padM: {
              top: 1,
              right: 1,
              bottom: 1,
              left: 1
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            field: {
              ink: "ground"
            }
          }
        },
        {
          key: "card",
          name: "Card",
          aspect: {
            from: 0.7,
            to: 1.2
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "picture",
                slot: "film",
                over: {
                  top: 0,
                  right: 0,
                  bottom: 0,
                  left: 0
                }
              }
            ],
            justify: "end",
            align: "stretch",
            padM: {
              top: 1,
              right: 1,
              bottom: 1,
              left: 1
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            field: {
              ink: "ground"
            }
          }
        },
        {
          key: "wide",
          name: "Wide",
          aspect: {
            from: 1.2,
            to: 10
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "picture",
                slot: "film",
                over: {
                  top: 0,
                  right: 0,
                  bottom: 0,
                  left: 0
                }
              }
            ],
            justify: "end",
            align: "stretch",
            padM: {
              top: 1,
              right: 1,
              bottom: 1,
              left: 1
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            field: {
              ink: "ground"
            }
          }
        }
      ]
    },
    {
      key: "closing",
      name: "Closing card",
      use: "closing",
      scheme: "dark",
      slots: [
        {
          key: "headline",
          kind: "text",
          label: "Line",
          hint: "What to remember",
          required: true,
          softLimit: 50,
          sample: "Bring a friend and a sandwich"
        },
        {
          key: "call",
          kind: "text",
          label: "Call",
          hint: "What to do now",
          required: true,
          softLimit: 24,
          sample: "Book an afternoon"
        },
        {
          key: "site",
          kind: "fact",
          label: "Where",
          hint: "Where to find you",
          required: false,
          fact: "site"
        }
      ],
      drop: [
        "site"
      ],
      arrangements: [
        {
          key: "post",
          name: "Post",
          aspect: {
            from: 0,
            to: 0.7
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "mark",
                heightM: 4.4,
                alignSelf: "start"
              },
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 2.2,
                      min: 0.9900000000000001
                    }
                  },
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "text",
                        slot: "call",
                        role: "heading",
                        align: "start",
                        ink: "ground",
                        sizeM: {
                          max: 0.92,
                          min: 0.6072000000000001
                        }
                      }
                    ],
                    field: {
                      ink: "accent",
                      shape: "tab"
                    },
                    padM: {
                      top: 0.6,
                      right: 1.1,
                      bottom: 0.5,
                      left: 0.8
                    },
                    alignSelf: "start",
                    align: "stretch"
                  },
                  {
                    part: "text",
                    slot: "site",
                    role: "text",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.7,
                      min: 0.595
                    }
                  }
                ],
                gapM: 1,
                align: "stretch"
              }
            ],
            justify: "between",
            gapM: 1,
            padM: {
              top: 1.6,
              right: 1.6,
              bottom: 2.4,
              left: 1.6
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        },
        {
          key: "card",
          name: "Card",
          aspect: {
            from: 0.7,
            to: 1.2
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "mark",
                heightM: 3.6,
                alignSelf: "start"
              },
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 1.9,
                      min: 0.855
                    }
                  },
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "text",
                        slot: "call",
                        role: "heading",
                        align: "start",
                        ink: "ground",
                        sizeM: {
                          max: 0.8,
                          min: 0.528
                        }
                      }
                    ],
                    field: {
                      ink: "accent",
                      shape: "tab"
                    },
                    padM: {
                      top: 0.6,
                      right: 1.1,
                      bottom: 0.5,
                      left: 0.8
                    },
                    alignSelf: "start",
                    align: "stretch"
                  },
                  {
                    part: "text",
                    slot: "site",
                    role: "text",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.6,
                      min: 0.51
                    }
                  }
                ],
                gapM: 0.8,
                align: "stretch"
              }
            ],
            justify: "between",
            gapM: 1,
            padM: {
              top: 1.2,
              right: 1.2,
              bottom: 1.6,
              left: 1.2
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        },
        {
          key: "wide",
          name: "Wide",
          aspect: {
            from: 1.2,
            to: 10
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "mark",
                heightM: 3,
                alignSelf: "start"
              },
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 1.8,
                      min: 0.81
                    }
                  },
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "text",
                        slot: "call",
                        role: "heading",
                        align: "start",
                        ink: "ground",
                        sizeM: {
                          max: 1.05,
                          min: 0.6930000000000001
                        }
                      }
                    ],
                    field: {
                      ink: "accent",
                      shape: "tab"
                    },
                    padM: {
                      top: 0.6,
                      right: 1.1,
                      bottom: 0.5,
                      left: 0.8
                    },
                    alignSelf: "start",
                    align: "stretch"
                  },
                  {
                    part: "text",
                    slot: "site",
                    role: "text",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.98,
                      min: 0.833
                    }
                  }
                ],
                gapM: 0.6,
                align: "stretch"
              }
            ],
            justify: "between",
            gapM: 1,
            padM: {
              top: 1.2,
              right: 1.5,
              bottom: 1.3,
              left: 1.2
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        }
      ]
    }
  ]
};

// src/core/template/shipped/knot.json
var knot_default = {
  version: 1,
  key: "knot",
  name: "Knot",
  purpose: "Three tips, one a shot",
  kind: "video",
  scheme: "dark",
  slots: [
    {
      key: "label",
      kind: "text",
      label: "Label",
      hint: "What kind of tips",
      required: false,
      softLimit: 24,
      sample: "Before you fly"
    },
    {
      key: "headline",
      kind: "text",
      label: "Headline",
      hint: "What they are good for",
      required: true,
      softLimit: 50,
      sample: "Three knots that hold"
    }
  ],
  drop: [
    "label"
  ],
  arrangements: [
    {
      key: "post",
      name: "Post",
      aspect: {
        from: 0,
        to: 0.7
      },
      root: {
        part: "stack",
        direction: "column",
        children: [
          {
            part: "motif",
            generator: "scraps",
            seed: 5,
            over: {
              top: 16,
              right: 0,
              bottom: 4.5,
              left: 0
            }
          },
          {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "text",
                slot: "label",
                role: "label",
                align: "start",
                ink: "accent",
                sizeM: {
                  max: 0.64,
                  min: 0.5247999999999999
                }
              },
              {
                part: "text",
                slot: "headline",
                role: "display",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 2.9,
                  min: 1.1
                }
              }
            ],
            gapM: 0.7,
            align: "stretch"
          },
          {
            part: "mark",
            heightM: 2.6,
            alignSelf: "start"
          }
        ],
        justify: "between",
        gapM: 1,
        padM: {
          top: 1.6,
          right: 1.6,
          bottom: 1.6,
          left: 1.6
        },
        safe: [
          "top",
          "right",
          "bottom",
          "left"
        ],
        align: "stretch",
        field: {
          ink: "ground"
        }
      }
    },
    {
      key: "card",
      name: "Card",
      aspect: {
        from: 0.7,
        to: 1.2
      },
      root: {
        part: "stack",
        direction: "column",
        children: [
          {
            part: "motif",
            generator: "scraps",
            seed: 5,
            over: {
              top: 10,
              right: 0,
              bottom: 3.6,
              left: 0
            }
          },
          {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "text",
                slot: "label",
                role: "label",
                align: "start",
                ink: "accent",
                sizeM: {
                  max: 0.54,
                  min: 0.4428
                }
              },
              {
                part: "text",
                slot: "headline",
                role: "display",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 2.5,
                  min: 0.9
                }
              }
            ],
            gapM: 0.7,
            align: "stretch"
          },
          {
            part: "mark",
            heightM: 2.2,
            alignSelf: "start"
          }
        ],
        justify: "between",
        gapM: 1,
        padM: {
          top: 1.2,
          right: 1.2,
          bottom: 1.2,
          left: 1.2
        },
        safe: [
          "top",
          "right",
          "bottom",
          "left"
        ],
        align: "stretch",
        field: {
          ink: "ground"
        }
      }
    },
    {
      key: "wide",
      name: "Wide",
      aspect: {
        from: 1.2,
        to: 10
      },
      root: {
        part: "stack",
        direction: "column",
        children: [
          {
            part: "motif",
            generator: "scraps",
            seed: 5,
            over: {
              top: 8,
              right: 0,
              bottom: 3.4,
              left: 0
            }
          },
          {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "text",
                slot: "label",
                role: "label",
                align: "start",
                ink: "accent",
                sizeM: {
                  max: 0.86,
                  min: 0.7051999999999999
                }
              },
              {
                part: "text",
                slot: "headline",
                role: "display",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 2.3,
                  min: 1.1
                }
              }
            ],
            gapM: 0.7,
            align: "stretch"
          },
          {
            part: "mark",
            heightM: 2.4,
            alignSelf: "start"
          }
        ],
        justify: "between",
        gapM: 1,
        padM: {
          top: 1.2,
          right: 5,
          bottom: 1.2,
          left: 1.2
        },
        safe: [
          "top",
          "right",
          "bottom",
          "left"
        ],
        align: "stretch",
        field: {
          ink: "ground"
        }
      }
    }
  ],
  slides: [
    {
      key: "tip",
      name: "Tip",
      use: "point",
      scheme: "light",
      slots: [
        {
          key: "film",
          kind: "picture",
          label: "Clip or picture",
          hint: "What is to be seen",
          required: true
        },
        {
          key: "ordinal",
          kind: "ordinal",
          label: "Number",
          hint: "Which tip this is",
          required: false
        },
        {
          key: "heading",
          kind: "text",
          label: "Heading",
          hint: "The tip",
          required: true,
          softLimit: 30,
          sample: "Larkshead"
        },
        {
          key: "text",
          kind: "text",
          label: "Text",
          hint: "How it is done",
          required: false,
          softLimit: 70,
          sample: "Two loops, and it holds on the bridle ring."
        }
      ],
      drop: [
        "text"
      ],
      arrangements: [
        {
          key: "post",
          name: "Post",
          aspect: {
            from: 0,
            to: 0.7
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "picture",
                slot: "film",
                share: 0.56,
                leastShare: 0.56
              },
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "stack",
                    direction: "row",
                    children: [
                      {
                        part: "text",
                        slot: "ordinal",
                        role: "display",
                        align: "start",
                        ink: "accent",
                        sizeM: {
                          max: 3.6,
                          min: 1.8
                        },
                        widthM: 3.42
                      },
                      {
                        part: "stack",
                        direction: "column",
                        children: [
                          {
                            part: "text",
                            slot: "heading",
                            role: "display",
                            align: "start",
                            ink: "ink",
                            sizeM: {
                              max: 1.4,
                              min: 0.8
                            }
                          },
                          {
                            part: "text",
                            slot: "text",
                            role: "text",
                            align: "start",
                            ink: "ink",
                            sizeM: {
                              max: 0.78,
                              min: 0.6240000000000001
                            }
                          }
                        ],
                        gapM: 0.4,
                        align: "stretch",
                        grow: 1,
                        share: 0
                      }
                    ],
                    gapM: 0.6,
                    align: "start"
                  }
                ],
                padM: {
                  top: 1.1,
                  right: 1.6,
                  bottom: 2.6,
                  left: 1.6
                },
                safe: [
                  "right",
                  "bottom",
                  "left"
                ],
                align: "stretch",
                field: {
                  ink: "ground"
                },
                grow: 1,
                share: 0
              }
            ],
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        },
        {
          key: "card",
          name: "Card",
          aspect: {
            from: 0.7,
            to: 1.2
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "picture",
                slot: "film",
                share: 0.54,
                leastShare: 0.54
              },
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "stack",
                    direction: "row",
                    children: [
                      {
                        part: "text",
                        slot: "ordinal",
                        role: "display",
                        align: "start",
                        ink: "accent",
                        sizeM: {
                          max: 2.8,
                          min: 1.4
                        },
                        widthM: 2.6599999999999997
                      },
                      {
                        part: "stack",
                        direction: "column",
                        children: [
                          {
                            part: "text",
                            slot: "heading",
                            role: "display",
                            align: "start",
                            ink: "ink",
                            sizeM: {
                              max: 1.15,
                              min: 0.7
                            }
                          },
                          {
                            part: "text",
                            slot: "text",
                            role: "text",
                            align: "start",
                            ink: "ink",
                            sizeM: {
                              max: 0.66,
                              min: 0.528
                            }
                          }
                        ],
                        gapM: 0.4,
                        align: "stretch",
                        grow: 1,
                        share: 0
                      }
                    ],
                    gapM: 0.6,
                    align: "start"
                  }
                ],
                padM: {
                  top: 0.9,
                  right: 1.2,
                  bottom: 2.2,
                  left: 1.2
                },
                safe: [
                  "right",
                  "bottom",
                  "left"
                ],
                align: "stretch",
                field: {
                  ink: "ground"
                },
                grow: 1,
                share: 0
              }
            ],
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        },
        {
          key: "wide",
          name: "Wide",
          aspect: {
            from: 1.2,
            to: 10
          },
          root: {
            part: "stack",
            direction: "row",
            children: [
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "text",
                    slot: "ordinal",
                    role: "display",
                    align: "start",
                    ink: "accent",
                    sizeM: {
                      max: 3.2,
                      min: 1.6
                    }
                  },
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "text",
                        slot: "heading",
                        role: "display",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 1.5,
                          min: 0.95
                        }
                      },
                      {
                        part: "text",
                        slot: "text",
                        role: "text",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 1,
                          min: 0.9
                        }
                      }
                    ],
                    gapM: 0.4,
                    align: "stretch"
                  }
                ],
                justify: "start",
                gapM: 0.7,
                padM: {
                  top: 1.2,
                  right: 1,
                  bottom: 2.6,
                  left: 1.2
                },
                safe: [
                  "top",
                  "bottom",
                  "left"
                ],
                align: "stretch",
                field: {
                  ink: "ground"
                },
                share: 0.42
              },
              {
                part: "picture",
                slot: "film",
                grow: 1,
                share: 0
              }
            ],
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        }
      ]
    },
    {
      key: "closing",
      name: "Closing card",
      use: "closing",
      scheme: "bold",
      slots: [
        {
          key: "headline",
          kind: "text",
          label: "Line",
          hint: "What to remember",
          required: true,
          softLimit: 50,
          sample: "Bring a friend and a sandwich"
        },
        {
          key: "call",
          kind: "text",
          label: "Call",
          hint: "What to do now",
          required: true,
          softLimit: 24,
          sample: "Book an afternoon"
        },
        {
          key: "site",
          kind: "fact",
          label: "Where",
          hint: "Where to find you",
          required: false,
          fact: "site"
        }
      ],
      drop: [
        "site"
      ],
      arrangements: [
        {
          key: "post",
          name: "Post",
          aspect: {
            from: 0,
            to: 0.7
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "motif",
                generator: "scraps",
                seed: 5,
                over: {
                  top: 20,
                  right: 0,
                  bottom: 0,
                  left: 0
                }
              },
              {
                part: "mark",
                heightM: 4.4,
                alignSelf: "start"
              },
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 2.2,
                      min: 0.9900000000000001
                    }
                  },
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "text",
                        slot: "call",
                        role: "heading",
                        align: "start",
                        ink: "ground",
                        sizeM: {
                          max: 0.92,
                          min: 0.6072000000000001
                        }
                      }
                    ],
                    field: {
                      ink: "accent",
                      shape: "tab"
                    },
                    padM: {
                      top: 0.6,
                      right: 1.1,
                      bottom: 0.5,
                      left: 0.8
                    },
                    alignSelf: "start",
                    align: "stretch"
                  },
                  {
                    part: "text",
                    slot: "site",
                    role: "text",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.7,
                      min: 0.595
                    }
                  }
                ],
                gapM: 1,
                align: "stretch"
              }
            ],
            justify: "between",
            gapM: 1,
            padM: {
              top: 1.6,
              right: 1.6,
              bottom: 2.4,
              left: 1.6
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        },
        {
          key: "card",
          name: "Card",
          aspect: {
            from: 0.7,
            to: 1.2
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "motif",
                generator: "scraps",
                seed: 5,
                over: {
                  top: 12,
                  right: 0,
                  bottom: 0,
                  left: 0
                }
              },
              {
                part: "mark",
                heightM: 3.6,
                alignSelf: "start"
              },
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 1.9,
                      min: 0.855
                    }
                  },
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "text",
                        slot: "call",
                        role: "heading",
                        align: "start",
                        ink: "ground",
                        sizeM: {
                          max: 0.8,
                          min: 0.528
                        }
                      }
                    ],
                    field: {
                      ink: "accent",
                      shape: "tab"
                    },
                    padM: {
                      top: 0.6,
                      right: 1.1,
                      bottom: 0.5,
                      left: 0.8
                    },
                    alignSelf: "start",
                    align: "stretch"
                  },
                  {
                    part: "text",
                    slot: "site",
                    role: "text",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.6,
                      min: 0.51
                    }
                  }
                ],
                gapM: 0.8,
                align: "stretch"
              }
            ],
            justify: "between",
            gapM: 1,
            padM: {
              top: 1.2,
              right: 1.2,
              bottom: 1.6,
              left: 1.2
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        },
        {
          key: "wide",
          name: "Wide",
          aspect: {
            from: 1.2,
            to: 10
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "motif",
                generator: "scraps",
                seed: 5,
                over: {
                  top: 9,
                  right: 0,
                  bottom: 0,
                  left: 0
                }
              },
              {
                part: "mark",
                heightM: 3,
                alignSelf: "start"
              },
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 1.8,
                      min: 0.81
                    }
                  },
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "text",
                        slot: "call",
                        role: "heading",
                        align: "start",
                        ink: "ground",
                        sizeM: {
                          max: 1.05,
                          min: 0.6930000000000001
                        }
                      }
                    ],
                    field: {
                      ink: "accent",
                      shape: "tab"
                    },
                    padM: {
                      top: 0.6,
                      right: 1.1,
                      bottom: 0.5,
                      left: 0.8
                    },
                    alignSelf: "start",
                    align: "stretch"
                  },
                  {
                    part: "text",
                    slot: "site",
                    role: "text",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.98,
                      min: 0.833
                    }
                  }
                ],
                gapM: 0.6,
                align: "stretch"
              }
            ],
            justify: "between",
            gapM: 1,
            padM: {
              top: 1.2,
              right: 1.5,
              bottom: 1.3,
              left: 1.2
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        }
      ]
    }
  ]
};

// src/core/template/shipped/ledger.json
var ledger_default = {
  version: 1,
  key: "ledger",
  name: "Ledger",
  purpose: "List of three to seven",
  kind: "graphic",
  scheme: "light",
  slots: [
    {
      key: "headline",
      kind: "text",
      label: "Title",
      hint: "What is listed",
      required: true,
      softLimit: 50,
      sample: "Three things to bring"
    },
    {
      key: "points",
      kind: "list",
      label: "Points",
      hint: "One a line",
      required: true,
      sample: "A warm coat\nSomebody to hold the line\nAn hour you do not count"
    },
    {
      key: "line",
      kind: "text",
      label: "Foot",
      hint: "A last word",
      required: false,
      softLimit: 60,
      sample: "We have the rest"
    }
  ],
  drop: [
    "line"
  ],
  arrangements: [
    {
      key: "scroll",
      name: "Scroll",
      aspect: {
        from: 0,
        to: 0.7
      },
      root: {
        part: "stack",
        direction: "column",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "stack",
            direction: "column",
            grow: 1,
            justify: "between",
            gapM: 1,
            padM: {
              top: 1.2,
              right: 1.2,
              bottom: 1.2,
              left: 1.2
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            children: [
              {
                part: "text",
                slot: "headline",
                role: "display",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 1.7,
                  min: 0.8
                }
              },
              {
                part: "rule",
                lengthM: 2,
                thicknessM: 0.12,
                ink: "accent"
              },
              {
                part: "rows",
                slot: "points",
                ink: "ink",
                numeralInk: "accent",
                numerals: true,
                sizeM: {
                  max: 1,
                  min: 0.52
                },
                gapM: 0.6
              },
              {
                part: "stack",
                direction: "row",
                gapM: 1,
                align: "end",
                children: [
                  {
                    part: "text",
                    slot: "line",
                    role: "text",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.54,
                      min: 0.5
                    },
                    grow: 1,
                    share: 0
                  },
                  {
                    part: "mark",
                    heightM: 2.1,
                    alignSelf: "end"
                  }
                ]
              }
            ]
          }
        ]
      }
    },
    {
      key: "sheet",
      name: "Sheet",
      aspect: {
        from: 0.7,
        to: 1.2
      },
      root: {
        part: "stack",
        direction: "column",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "stack",
            direction: "column",
            grow: 1,
            justify: "between",
            gapM: 0.8,
            padM: {
              top: 1.1,
              right: 1.1,
              bottom: 1.1,
              left: 1.1
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            children: [
              {
                part: "text",
                slot: "headline",
                role: "display",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 1.5,
                  min: 0.68
                }
              },
              {
                part: "rows",
                slot: "points",
                ink: "ink",
                numeralInk: "accent",
                numerals: true,
                sizeM: {
                  max: 0.92,
                  min: 0.5
                },
                gapM: 0.46
              },
              {
                part: "stack",
                direction: "row",
                gapM: 1,
                align: "end",
                children: [
                  {
                    part: "text",
                    slot: "line",
                    role: "text",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.52,
                      min: 0.5
                    },
                    grow: 1,
                    share: 0
                  },
                  {
                    part: "mark",
                    heightM: 1.9,
                    alignSelf: "end"
                  }
                ]
              }
            ]
          }
        ]
      }
    },
    {
      key: "folio",
      name: "Folio",
      aspect: {
        from: 1.2,
        to: 10
      },
      root: {
        part: "stack",
        direction: "row",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "stack",
            direction: "column",
            share: 0.4,
            justify: "between",
            gapM: 0.8,
            field: {
              ink: "accent"
            },
            padM: {
              top: 1.3,
              right: 1,
              bottom: 1.3,
              left: 1.3
            },
            safe: [
              "top",
              "bottom",
              "left"
            ],
            align: "stretch",
            children: [
              {
                part: "text",
                slot: "headline",
                role: "display",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 1.7,
                  min: 0.88
                }
              },
              {
                part: "stack",
                direction: "column",
                gapM: 0.8,
                align: "stretch",
                children: [
                  {
                    part: "mark",
                    heightM: 2.1,
                    alignSelf: "start"
                  },
                  {
                    part: "text",
                    slot: "line",
                    role: "text",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.85,
                      min: 0.8
                    }
                  }
                ]
              }
            ]
          },
          {
            part: "stack",
            direction: "column",
            grow: 1,
            share: 0,
            justify: "centre",
            padM: {
              top: 1.3,
              right: 1.4,
              bottom: 1.3,
              left: 1.4
            },
            safe: [
              "top",
              "right",
              "bottom"
            ],
            align: "stretch",
            children: [
              {
                part: "rows",
                slot: "points",
                ink: "ink",
                numeralInk: "accent",
                numerals: true,
                sizeM: {
                  max: 1.15,
                  min: 0.8
                },
                gapM: 0.45
              }
            ]
          }
        ]
      }
    }
  ]
};

// src/core/template/shipped/quilt.json
var quilt_default = {
  version: 1,
  key: "quilt",
  name: "Quilt",
  purpose: "Several pictures",
  kind: "graphic",
  scheme: "light",
  slots: [
    {
      key: "photo",
      kind: "picture",
      label: "First picture",
      hint: "The one that leads",
      required: true
    },
    {
      key: "second",
      kind: "picture",
      label: "Second picture",
      hint: "A detail",
      required: true
    },
    {
      key: "third",
      kind: "picture",
      label: "Third picture",
      hint: "Another",
      required: true
    },
    {
      key: "headline",
      kind: "text",
      label: "Headline",
      hint: "What holds them together",
      required: true,
      softLimit: 50,
      sample: "A week in pictures"
    },
    {
      key: "line",
      kind: "text",
      label: "Line",
      hint: "A few words more",
      required: false,
      softLimit: 60,
      sample: "Swipe for the rest"
    }
  ],
  drop: [
    "line"
  ],
  arrangements: [
    {
      key: "column",
      name: "Column",
      aspect: {
        from: 0,
        to: 0.7
      },
      root: {
        part: "stack",
        direction: "column",
        gapM: 0.25,
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "picture",
            slot: "photo",
            grow: 1.5,
            leastShare: 0.2
          },
          {
            part: "stack",
            direction: "row",
            gapM: 0.25,
            grow: 1,
            leastShare: 0.15,
            align: "stretch",
            children: [
              {
                part: "picture",
                slot: "second",
                grow: 1,
                share: 0
              },
              {
                part: "picture",
                slot: "third",
                grow: 1,
                share: 0
              }
            ]
          },
          {
            part: "stack",
            direction: "column",
            gapM: 0.7,
            field: {
              ink: "accent"
            },
            padM: {
              top: 1.1,
              right: 1.2,
              bottom: 1.2,
              left: 1.2
            },
            safe: [
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            children: [
              {
                part: "text",
                slot: "headline",
                role: "display",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 1.5,
                  min: 0.75
                }
              },
              {
                part: "text",
                slot: "line",
                role: "text",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 0.58,
                  min: 0.5
                }
              }
            ]
          }
        ]
      }
    },
    {
      key: "patch",
      name: "Patch",
      aspect: {
        from: 0.7,
        to: 1.2
      },
      root: {
        part: "stack",
        direction: "column",
        gapM: 0.25,
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "picture",
            slot: "photo",
            grow: 1.25,
            leastShare: 0.3
          },
          {
            part: "stack",
            direction: "row",
            gapM: 0.25,
            grow: 1,
            leastShare: 0.36,
            align: "stretch",
            children: [
              {
                part: "stack",
                direction: "column",
                gapM: 0.6,
                justify: "end",
                share: 0.48,
                field: {
                  ink: "accent"
                },
                padM: {
                  top: 0.9,
                  right: 0.8,
                  bottom: 0.9,
                  left: 1
                },
                safe: [
                  "bottom",
                  "left"
                ],
                align: "stretch",
                children: [
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 1.15,
                      min: 0.62
                    }
                  },
                  {
                    part: "text",
                    slot: "line",
                    role: "text",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.52,
                      min: 0.5
                    }
                  }
                ]
              },
              {
                part: "picture",
                slot: "second",
                grow: 1,
                share: 0
              },
              {
                part: "picture",
                slot: "third",
                grow: 1,
                share: 0
              }
            ]
          }
        ]
      }
    },
    {
      key: "runner",
      name: "Runner",
      aspect: {
        from: 1.2,
        to: 10
      },
      root: {
        part: "stack",
        direction: "row",
        gapM: 0.25,
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "stack",
            direction: "column",
            gapM: 0.8,
            justify: "end",
            share: 0.42,
            field: {
              ink: "accent"
            },
            padM: {
              top: 1.2,
              right: 0.9,
              bottom: 1.2,
              left: 1.3
            },
            safe: [
              "top",
              "bottom",
              "left"
            ],
            align: "stretch",
            children: [
              {
                part: "text",
                slot: "headline",
                role: "display",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 1.5,
                  min: 0.88
                }
              },
              {
                part: "text",
                slot: "line",
                role: "text",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 0.85,
                  min: 0.8
                }
              }
            ]
          },
          {
            part: "picture",
            slot: "photo",
            grow: 1.4,
            share: 0
          },
          {
            part: "stack",
            direction: "column",
            gapM: 0.25,
            grow: 1,
            share: 0,
            align: "stretch",
            children: [
              {
                part: "picture",
                slot: "second",
                grow: 1,
                share: 0
              },
              {
                part: "picture",
                slot: "third",
                grow: 1,
                share: 0
              }
            ]
          }
        ]
      }
    }
  ]
};

// src/core/template/shipped/rung.json
var rung_default = {
  version: 1,
  key: "rung",
  name: "Rung",
  purpose: "One step of several",
  kind: "graphic",
  scheme: "light",
  slots: [
    {
      key: "photo",
      kind: "picture",
      label: "Picture",
      hint: "The step, close up",
      required: true
    },
    {
      key: "number",
      kind: "text",
      label: "Number",
      hint: "Which step",
      required: true,
      softLimit: 3,
      sample: "1"
    },
    {
      key: "headline",
      kind: "text",
      label: "Headline",
      hint: "What to do",
      required: true,
      softLimit: 50,
      sample: "Tie the first knot"
    },
    {
      key: "line",
      kind: "text",
      label: "Text",
      hint: "How, in a sentence or two",
      required: false,
      softLimit: 140,
      sample: "Twice around the spar, then under itself. Pull until it squeaks."
    }
  ],
  drop: [
    "line"
  ],
  arrangements: [
    {
      key: "ladder",
      name: "Ladder",
      aspect: {
        from: 0,
        to: 0.7
      },
      root: {
        part: "stack",
        direction: "column",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "stack",
            direction: "column",
            grow: 1,
            gapM: 0.9,
            padM: {
              top: 1.2,
              right: 1.2,
              bottom: 1.2,
              left: 1.2
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            children: [
              {
                part: "stack",
                direction: "row",
                align: "start",
                justify: "between",
                children: [
                  {
                    part: "text",
                    slot: "number",
                    role: "display",
                    align: "start",
                    ink: "accent",
                    sizeM: {
                      max: 4.4,
                      min: 2
                    },
                    widthM: 4.2
                  },
                  {
                    part: "mark",
                    heightM: 2.1
                  }
                ]
              },
              {
                part: "text",
                slot: "headline",
                role: "display",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 1.6,
                  min: 0.78
                }
              },
              {
                part: "text",
                slot: "line",
                role: "text",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 0.64,
                  min: 0.5
                }
              },
              {
                part: "picture",
                slot: "photo",
                window: "notch",
                grow: 1,
                leastShare: 0.26
              }
            ]
          }
        ]
      }
    },
    {
      key: "step",
      name: "Step",
      aspect: {
        from: 0.7,
        to: 1.2
      },
      root: {
        part: "stack",
        direction: "column",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "stack",
            direction: "column",
            grow: 1,
            gapM: 0.9,
            padM: {
              top: 1.1,
              right: 1.1,
              bottom: 1.1,
              left: 1.1
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            children: [
              {
                part: "stack",
                direction: "row",
                gapM: 0.5,
                align: "start",
                children: [
                  {
                    part: "text",
                    slot: "number",
                    role: "display",
                    align: "start",
                    ink: "accent",
                    sizeM: {
                      max: 3.4,
                      min: 1.6
                    },
                    widthM: 3.6
                  },
                  {
                    part: "stack",
                    direction: "column",
                    gapM: 0.6,
                    align: "stretch",
                    grow: 1,
                    share: 0,
                    children: [
                      {
                        part: "text",
                        slot: "headline",
                        role: "display",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 1.25,
                          min: 0.66
                        }
                      },
                      {
                        part: "text",
                        slot: "line",
                        role: "text",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 0.56,
                          min: 0.5
                        }
                      }
                    ]
                  }
                ]
              },
              {
                part: "picture",
                slot: "photo",
                window: "notch",
                grow: 1,
                leastShare: 0.42
              }
            ]
          }
        ]
      }
    },
    {
      key: "tread",
      name: "Tread",
      aspect: {
        from: 1.2,
        to: 10
      },
      root: {
        part: "stack",
        direction: "row",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "stack",
            direction: "column",
            share: 0.5,
            justify: "between",
            gapM: 0.8,
            padM: {
              top: 1.3,
              right: 0.9,
              bottom: 1.3,
              left: 1.4
            },
            safe: [
              "top",
              "bottom",
              "left"
            ],
            align: "stretch",
            children: [
              {
                part: "stack",
                direction: "row",
                align: "start",
                justify: "between",
                children: [
                  {
                    part: "text",
                    slot: "number",
                    role: "display",
                    align: "start",
                    ink: "accent",
                    sizeM: {
                      max: 3.6,
                      min: 1.8
                    },
                    widthM: 3.8
                  },
                  {
                    part: "mark",
                    heightM: 2
                  }
                ]
              },
              {
                part: "stack",
                direction: "column",
                gapM: 0.8,
                align: "stretch",
                children: [
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 1.45,
                      min: 0.9
                    }
                  },
                  {
                    part: "text",
                    slot: "line",
                    role: "text",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.88,
                      min: 0.8
                    }
                  }
                ]
              }
            ]
          },
          {
            part: "stack",
            direction: "column",
            grow: 1,
            share: 0,
            padM: {
              top: 1.1,
              right: 1.1,
              bottom: 1.1,
              left: 0
            },
            safe: [
              "top",
              "right",
              "bottom"
            ],
            align: "stretch",
            children: [
              {
                part: "picture",
                slot: "photo",
                window: "notch",
                grow: 1
              }
            ]
          }
        ]
      }
    }
  ]
};

// src/core/template/shipped/sheaf.json
var sheaf_default = {
  version: 1,
  key: "sheaf",
  name: "Sheaf",
  purpose: "A photograph a slide",
  kind: "carousel",
  scheme: "dark",
  slots: [
    {
      key: "photo",
      kind: "picture",
      label: "Picture",
      hint: "The picture that makes one swipe",
      required: true
    },
    {
      key: "label",
      kind: "text",
      label: "Label",
      hint: "What kind of pictures",
      required: false,
      softLimit: 28,
      sample: "Owners\u2019 skies"
    },
    {
      key: "headline",
      kind: "text",
      label: "Headline",
      hint: "What they have in common",
      required: true,
      softLimit: 60,
      sample: "Seven kites, one Saturday"
    }
  ],
  drop: [
    "label"
  ],
  arrangements: [
    {
      key: "post",
      name: "Post",
      aspect: {
        from: 0,
        to: 0.7
      },
      root: {
        part: "stack",
        direction: "column",
        children: [
          {
            part: "picture",
            slot: "photo",
            grow: 1,
            share: 0,
            leastShare: 0.46,
            underM: {
              bottom: 1.8
            }
          },
          {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "text",
                    slot: "label",
                    role: "label",
                    align: "start",
                    ink: "accent",
                    sizeM: {
                      max: 0.6,
                      min: 0.48
                    }
                  },
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 2.4,
                      min: 0.95
                    }
                  }
                ],
                gapM: 0.6,
                align: "stretch"
              },
              {
                part: "stack",
                direction: "row",
                children: [
                  {
                    part: "mark",
                    heightM: 2.2
                  },
                  {
                    part: "swipe",
                    heightM: 0.9,
                    ink: "accent"
                  }
                ],
                justify: "between",
                align: "centre"
              }
            ],
            gapM: 1.2,
            padM: {
              top: 1.1,
              right: 1.6,
              bottom: 1.2,
              left: 1.6
            },
            safe: [
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "ground",
              slant: {
                edge: "top",
                slantM: 1.6
              }
            }
          }
        ],
        align: "stretch",
        field: {
          ink: "ground"
        }
      }
    },
    {
      key: "card",
      name: "Card",
      aspect: {
        from: 0.7,
        to: 1.2
      },
      root: {
        part: "stack",
        direction: "column",
        children: [
          {
            part: "picture",
            slot: "photo",
            grow: 1,
            share: 0,
            leastShare: 0.46,
            underM: {
              bottom: 1.8
            }
          },
          {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "text",
                    slot: "label",
                    role: "label",
                    align: "start",
                    ink: "accent",
                    sizeM: {
                      max: 0.5,
                      min: 0.42
                    }
                  },
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 2.1,
                      min: 0.8
                    }
                  }
                ],
                gapM: 0.5,
                align: "stretch"
              },
              {
                part: "stack",
                direction: "row",
                children: [
                  {
                    part: "mark",
                    heightM: 1.9
                  },
                  {
                    part: "swipe",
                    heightM: 0.78,
                    ink: "accent"
                  }
                ],
                justify: "between",
                align: "centre"
              }
            ],
            gapM: 0.9,
            padM: {
              top: 0.8,
              right: 1.2,
              bottom: 1.1,
              left: 1.2
            },
            safe: [
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "ground",
              slant: {
                edge: "top",
                slantM: 1.6
              }
            }
          }
        ],
        align: "stretch",
        field: {
          ink: "ground"
        }
      }
    },
    {
      key: "wide",
      name: "Wide",
      aspect: {
        from: 1.2,
        to: 10
      },
      root: {
        part: "stack",
        direction: "row",
        children: [
          {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "text",
                    slot: "label",
                    role: "label",
                    align: "start",
                    ink: "accent",
                    sizeM: {
                      max: 0.7,
                      min: 0.55
                    }
                  },
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 1.9,
                      min: 1
                    }
                  }
                ],
                gapM: 0.4,
                align: "stretch"
              },
              {
                part: "stack",
                direction: "row",
                children: [
                  {
                    part: "mark",
                    heightM: 2.2
                  },
                  {
                    part: "swipe",
                    heightM: 0.95,
                    ink: "accent"
                  }
                ],
                justify: "between",
                align: "centre"
              }
            ],
            justify: "between",
            gapM: 0.6,
            padM: {
              top: 1.2,
              right: 1,
              bottom: 1.2,
              left: 1.2
            },
            safe: [
              "top",
              "bottom",
              "left"
            ],
            share: 0.46,
            align: "stretch",
            field: {
              ink: "ground",
              slant: {
                edge: "right",
                slantM: 1.6
              }
            }
          },
          {
            part: "picture",
            slot: "photo",
            grow: 1,
            share: 0,
            underM: {
              left: 1.8
            }
          }
        ],
        align: "stretch",
        field: {
          ink: "ground"
        }
      }
    }
  ],
  slides: [
    {
      key: "picture",
      name: "Picture",
      use: "picture",
      scheme: "light",
      slots: [
        {
          key: "photo",
          kind: "picture",
          label: "Picture",
          hint: "One of the series",
          required: true
        },
        {
          key: "ordinal",
          kind: "ordinal",
          label: "Number",
          hint: "Which point this is",
          required: false
        },
        {
          key: "heading",
          kind: "text",
          label: "Caption",
          hint: "What is to see",
          required: false,
          softLimit: 40,
          sample: "Box kite at sunset"
        },
        {
          key: "text",
          kind: "text",
          label: "Text",
          hint: "Who took it, or where",
          required: false,
          softLimit: 90,
          sample: "Sent in from the north pier."
        }
      ],
      drop: [
        "text"
      ],
      arrangements: [
        {
          key: "post",
          name: "Post",
          aspect: {
            from: 0,
            to: 0.7
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "picture",
                slot: "photo",
                grow: 1,
                share: 0,
                leastShare: 0.4,
                window: "notch"
              },
              {
                part: "stack",
                direction: "row",
                children: [
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "text",
                        slot: "ordinal",
                        role: "heading",
                        align: "centre",
                        ink: "ground",
                        sizeM: {
                          max: 1,
                          min: 0.6
                        },
                        widthM: 1.5
                      }
                    ],
                    field: {
                      ink: "accent",
                      shape: "disc"
                    },
                    padM: {
                      top: 0.5,
                      right: 0.3,
                      bottom: 0.5,
                      left: 0.3
                    },
                    justify: "centre",
                    align: "stretch"
                  },
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "text",
                        slot: "heading",
                        role: "heading",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 1.1,
                          min: 0.7
                        }
                      },
                      {
                        part: "text",
                        slot: "text",
                        role: "text",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 0.7,
                          min: 0.55
                        }
                      }
                    ],
                    gapM: 0.4,
                    align: "stretch",
                    grow: 1,
                    share: 0
                  }
                ],
                gapM: 0.8,
                align: "start"
              },
              {
                part: "dots",
                heightM: 0.34,
                ink: "accent",
                quietInk: "surface",
                alignSelf: "start"
              }
            ],
            gapM: 1,
            padM: {
              top: 1.6,
              right: 1.6,
              bottom: 1.6,
              left: 1.6
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        },
        {
          key: "card",
          name: "Card",
          aspect: {
            from: 0.7,
            to: 1.2
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "picture",
                slot: "photo",
                grow: 1,
                share: 0,
                leastShare: 0.4,
                window: "notch"
              },
              {
                part: "stack",
                direction: "row",
                children: [
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "text",
                        slot: "ordinal",
                        role: "heading",
                        align: "centre",
                        ink: "ground",
                        sizeM: {
                          max: 0.9,
                          min: 0.55
                        },
                        widthM: 1.3
                      }
                    ],
                    field: {
                      ink: "accent",
                      shape: "disc"
                    },
                    padM: {
                      top: 0.44,
                      right: 0.26,
                      bottom: 0.44,
                      left: 0.26
                    },
                    justify: "centre",
                    align: "stretch"
                  },
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "text",
                        slot: "heading",
                        role: "heading",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 0.95,
                          min: 0.62
                        }
                      },
                      {
                        part: "text",
                        slot: "text",
                        role: "text",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 0.6,
                          min: 0.5
                        }
                      }
                    ],
                    gapM: 0.34,
                    align: "stretch",
                    grow: 1,
                    share: 0
                  }
                ],
                gapM: 0.7,
                align: "start"
              },
              {
                part: "dots",
                heightM: 0.28,
                ink: "accent",
                quietInk: "surface",
                alignSelf: "start"
              }
            ],
            gapM: 0.75,
            padM: {
              top: 1.2,
              right: 1.2,
              bottom: 1.2,
              left: 1.2
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        },
        {
          key: "wide",
          name: "Wide",
          aspect: {
            from: 1.2,
            to: 10
          },
          root: {
            part: "stack",
            direction: "row",
            children: [
              {
                part: "picture",
                slot: "photo",
                grow: 1,
                share: 0,
                window: "notch"
              },
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "text",
                        slot: "ordinal",
                        role: "heading",
                        align: "centre",
                        ink: "ground",
                        sizeM: {
                          max: 1.1,
                          min: 0.95
                        },
                        widthM: 1.5
                      }
                    ],
                    field: {
                      ink: "accent",
                      shape: "disc"
                    },
                    padM: {
                      top: 0.44,
                      right: 0.3,
                      bottom: 0.44,
                      left: 0.3
                    },
                    justify: "centre",
                    align: "stretch",
                    alignSelf: "start"
                  },
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "text",
                        slot: "heading",
                        role: "heading",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 1.15,
                          min: 0.95
                        }
                      },
                      {
                        part: "text",
                        slot: "text",
                        role: "text",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 0.96,
                          min: 0.95
                        }
                      }
                    ],
                    gapM: 0.3,
                    align: "stretch"
                  },
                  {
                    part: "dots",
                    heightM: 0.32,
                    ink: "accent",
                    quietInk: "surface",
                    alignSelf: "start"
                  }
                ],
                justify: "between",
                gapM: 0.6,
                share: 0.36,
                align: "stretch"
              }
            ],
            gapM: 1,
            padM: {
              top: 1.2,
              right: 1.2,
              bottom: 1.2,
              left: 1.2
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        }
      ]
    },
    {
      key: "closing",
      name: "Closing card",
      use: "closing",
      scheme: "bold",
      slots: [
        {
          key: "headline",
          kind: "text",
          label: "Line",
          hint: "What to remember",
          required: true,
          softLimit: 50,
          sample: "Send us yours"
        },
        {
          key: "call",
          kind: "text",
          label: "Call",
          hint: "What to do now",
          required: true,
          softLimit: 24,
          sample: "Tag us"
        },
        {
          key: "site",
          kind: "fact",
          label: "Where",
          hint: "Where to find you",
          required: false,
          fact: "handle"
        }
      ],
      drop: [
        "site"
      ],
      arrangements: [
        {
          key: "post",
          name: "Post",
          aspect: {
            from: 0,
            to: 0.7
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "motif",
                generator: "scraps",
                seed: 5,
                over: {
                  top: 0,
                  right: 0,
                  bottom: 0,
                  left: 0
                }
              },
              {
                part: "mark",
                heightM: 4.8,
                alignSelf: "centre"
              },
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "centre",
                    ink: "ink",
                    sizeM: {
                      max: 2,
                      min: 0.9
                    }
                  },
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "text",
                        slot: "call",
                        role: "heading",
                        align: "centre",
                        ink: "ground",
                        sizeM: {
                          max: 0.9,
                          min: 0.6
                        }
                      }
                    ],
                    field: {
                      ink: "accent",
                      shape: "tab"
                    },
                    padM: {
                      top: 0.66,
                      right: 1.1,
                      bottom: 0.54,
                      left: 1.1
                    },
                    alignSelf: "centre",
                    align: "stretch"
                  },
                  {
                    part: "text",
                    slot: "site",
                    role: "text",
                    align: "centre",
                    ink: "ink",
                    sizeM: {
                      max: 0.66,
                      min: 0.54
                    }
                  }
                ],
                gapM: 1,
                align: "stretch"
              }
            ],
            justify: "centre",
            gapM: 1.6,
            padM: {
              top: 1.6,
              right: 1.6,
              bottom: 1.6,
              left: 1.6
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        },
        {
          key: "card",
          name: "Card",
          aspect: {
            from: 0.7,
            to: 1.2
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "motif",
                generator: "scraps",
                seed: 5,
                over: {
                  top: 0,
                  right: 0,
                  bottom: 0,
                  left: 0
                }
              },
              {
                part: "mark",
                heightM: 4.2,
                alignSelf: "centre"
              },
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "centre",
                    ink: "ink",
                    sizeM: {
                      max: 1.8,
                      min: 0.75
                    }
                  },
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "text",
                        slot: "call",
                        role: "heading",
                        align: "centre",
                        ink: "ground",
                        sizeM: {
                          max: 0.78,
                          min: 0.52
                        }
                      }
                    ],
                    field: {
                      ink: "accent",
                      shape: "tab"
                    },
                    padM: {
                      top: 0.6,
                      right: 1.1,
                      bottom: 0.48,
                      left: 1.1
                    },
                    alignSelf: "centre",
                    align: "stretch"
                  },
                  {
                    part: "text",
                    slot: "site",
                    role: "text",
                    align: "centre",
                    ink: "ink",
                    sizeM: {
                      max: 0.58,
                      min: 0.5
                    }
                  }
                ],
                gapM: 0.8,
                align: "stretch"
              }
            ],
            justify: "centre",
            gapM: 1.3,
            padM: {
              top: 1.2,
              right: 1.2,
              bottom: 1.2,
              left: 1.2
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        },
        {
          key: "wide",
          name: "Wide",
          aspect: {
            from: 1.2,
            to: 10
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "motif",
                generator: "scraps",
                seed: 5,
                over: {
                  top: 0,
                  right: 0,
                  bottom: 0,
                  left: 0
                }
              },
              {
                part: "mark",
                heightM: 3.2,
                alignSelf: "centre"
              },
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "centre",
                    ink: "ink",
                    sizeM: {
                      max: 1.6,
                      min: 1
                    }
                  },
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "text",
                        slot: "call",
                        role: "heading",
                        align: "centre",
                        ink: "ground",
                        sizeM: {
                          max: 1.05,
                          min: 0.95
                        }
                      }
                    ],
                    field: {
                      ink: "accent",
                      shape: "tab"
                    },
                    padM: {
                      top: 0.6,
                      right: 1.1,
                      bottom: 0.5,
                      left: 1.1
                    },
                    alignSelf: "centre",
                    align: "stretch"
                  },
                  {
                    part: "text",
                    slot: "site",
                    role: "text",
                    align: "centre",
                    ink: "ink",
                    sizeM: {
                      max: 0.98,
                      min: 0.95
                    }
                  }
                ],
                gapM: 0.6,
                align: "stretch"
              }
            ],
            justify: "centre",
            gapM: 0.9,
            padM: {
              top: 1.2,
              right: 1.5,
              bottom: 1.2,
              left: 1.2
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        }
      ]
    },
    {
      key: "sum",
      name: "All in one",
      use: "sum",
      slots: [
        {
          key: "photo",
          kind: "picture",
          label: "First picture",
          hint: "One of the series",
          required: true,
          gathers: true
        },
        {
          key: "second",
          kind: "picture",
          label: "Second picture",
          hint: "One of the series",
          required: true,
          gathers: true
        },
        {
          key: "third",
          kind: "picture",
          label: "Third picture",
          hint: "One of the series",
          required: true,
          gathers: true
        },
        {
          key: "fourth",
          kind: "picture",
          label: "Fourth picture",
          hint: "One of the series",
          required: false,
          gathers: true
        },
        {
          key: "fifth",
          kind: "picture",
          label: "Fifth picture",
          hint: "One of the series",
          required: false,
          gathers: true
        },
        {
          key: "headline",
          kind: "text",
          label: "Headline",
          hint: "What they have in common",
          required: true,
          shared: true,
          sample: "Five winds and what they are good for"
        }
      ],
      arrangements: [
        {
          key: "post",
          name: "Post",
          aspect: {
            from: 0,
            to: 0.7
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "picture",
                slot: "photo",
                grow: 1.5,
                leastShare: 0.2
              },
              {
                part: "stack",
                direction: "row",
                children: [
                  {
                    part: "picture",
                    slot: "second",
                    grow: 1,
                    share: 0
                  },
                  {
                    part: "picture",
                    slot: "third",
                    grow: 1,
                    share: 0
                  }
                ],
                gapM: 0.22,
                grow: 1,
                leastShare: 0.14,
                align: "stretch"
              },
              {
                part: "stack",
                direction: "row",
                children: [
                  {
                    part: "picture",
                    slot: "fourth",
                    grow: 1,
                    share: 0
                  },
                  {
                    part: "picture",
                    slot: "fifth",
                    grow: 1,
                    share: 0
                  }
                ],
                gapM: 0.22,
                grow: 1,
                leastShare: 0.14,
                align: "stretch"
              },
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 1.7,
                      min: 0.9
                    }
                  },
                  {
                    part: "mark",
                    heightM: 2.2,
                    alignSelf: "start"
                  }
                ],
                gapM: 0.8,
                padM: {
                  top: 1.1,
                  right: 1.6,
                  bottom: 1.2,
                  left: 1.6
                },
                safe: [
                  "right",
                  "bottom",
                  "left"
                ],
                align: "stretch",
                field: {
                  ink: "ground"
                }
              }
            ],
            gapM: 0.22,
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        },
        {
          key: "card",
          name: "Card",
          aspect: {
            from: 0.7,
            to: 1.2
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "stack",
                direction: "row",
                children: [
                  {
                    part: "picture",
                    slot: "photo",
                    grow: 1.3,
                    share: 0
                  },
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "picture",
                        slot: "second",
                        grow: 1,
                        share: 0
                      },
                      {
                        part: "picture",
                        slot: "third",
                        grow: 1,
                        share: 0
                      }
                    ],
                    gapM: 0.22,
                    grow: 1,
                    share: 0,
                    align: "stretch"
                  },
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "picture",
                        slot: "fourth",
                        grow: 1,
                        share: 0
                      },
                      {
                        part: "picture",
                        slot: "fifth",
                        grow: 1,
                        share: 0
                      }
                    ],
                    gapM: 0.22,
                    grow: 1,
                    share: 0,
                    align: "stretch"
                  }
                ],
                gapM: 0.22,
                grow: 1,
                share: 0,
                leastShare: 0.5,
                align: "stretch"
              },
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 1.4,
                      min: 0.8
                    }
                  },
                  {
                    part: "mark",
                    heightM: 1.7,
                    alignSelf: "start"
                  }
                ],
                gapM: 0.8,
                padM: {
                  top: 0.8,
                  right: 1.2,
                  bottom: 1,
                  left: 1.2
                },
                safe: [
                  "right",
                  "bottom",
                  "left"
                ],
                align: "stretch",
                field: {
                  ink: "ground"
                }
              }
            ],
            gapM: 0.22,
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        },
        {
          key: "wide",
          name: "Wide",
          aspect: {
            from: 1.2,
            to: 10
          },
          root: {
            part: "stack",
            direction: "row",
            children: [
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 1.6,
                      min: 0.9
                    }
                  },
                  {
                    part: "mark",
                    heightM: 2.2,
                    alignSelf: "start"
                  }
                ],
                justify: "between",
                gapM: 0.6,
                padM: {
                  top: 1.2,
                  right: 0.9,
                  bottom: 1.2,
                  left: 1.2
                },
                safe: [
                  "top",
                  "bottom",
                  "left"
                ],
                align: "stretch",
                field: {
                  ink: "ground"
                },
                share: 0.34
              },
              {
                part: "picture",
                slot: "photo",
                grow: 1.2,
                share: 0
              },
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "picture",
                    slot: "second",
                    grow: 1,
                    share: 0
                  },
                  {
                    part: "picture",
                    slot: "third",
                    grow: 1,
                    share: 0
                  }
                ],
                gapM: 0.22,
                grow: 1,
                share: 0,
                align: "stretch"
              },
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "picture",
                    slot: "fourth",
                    grow: 1,
                    share: 0
                  },
                  {
                    part: "picture",
                    slot: "fifth",
                    grow: 1,
                    share: 0
                  }
                ],
                gapM: 0.22,
                grow: 1,
                share: 0,
                align: "stretch"
              }
            ],
            gapM: 0.22,
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        }
      ]
    }
  ]
};

// src/core/template/shipped/shoreline.json
var shoreline_default = {
  version: 1,
  key: "shoreline",
  name: "Shoreline",
  purpose: "One wide picture through all slides",
  kind: "carousel",
  scheme: "light",
  slots: [
    {
      key: "panorama",
      kind: "picture",
      label: "Wide picture",
      hint: "One wide photograph that runs through all slides",
      required: true,
      shared: true
    },
    {
      key: "label",
      kind: "text",
      label: "Label",
      hint: "What kind of story",
      required: false,
      softLimit: 28,
      sample: "A walk in five stops"
    },
    {
      key: "headline",
      kind: "text",
      label: "Headline",
      hint: "What there is to see",
      required: true,
      softLimit: 60,
      sample: "Along the quay before the town is up"
    }
  ],
  drop: [
    "label"
  ],
  arrangements: [
    {
      key: "post",
      name: "Post",
      aspect: {
        from: 0,
        to: 0.7
      },
      root: {
        part: "stack",
        direction: "column",
        children: [
          {
            part: "picture",
            slot: "panorama",
            through: true,
            share: 0.47,
            leastShare: 0.47
          },
          {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "text",
                    slot: "label",
                    role: "label",
                    align: "start",
                    ink: "accent",
                    sizeM: {
                      max: 0.6,
                      min: 0.48
                    }
                  },
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 2.2,
                      min: 0.95
                    }
                  }
                ],
                gapM: 0.6,
                align: "stretch"
              },
              {
                part: "stack",
                direction: "row",
                children: [
                  {
                    part: "mark",
                    heightM: 2.2
                  },
                  {
                    part: "swipe",
                    heightM: 0.9,
                    ink: "accent"
                  }
                ],
                justify: "between",
                align: "centre"
              }
            ],
            justify: "between",
            gapM: 0.9,
            padM: {
              top: 1.1,
              right: 1.6,
              bottom: 1.2,
              left: 1.6
            },
            safe: [
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "ground"
            },
            grow: 1,
            share: 0
          }
        ],
        align: "stretch",
        field: {
          ink: "ground"
        }
      }
    },
    {
      key: "card",
      name: "Card",
      aspect: {
        from: 0.7,
        to: 1.2
      },
      root: {
        part: "stack",
        direction: "column",
        children: [
          {
            part: "picture",
            slot: "panorama",
            through: true,
            share: 0.5,
            leastShare: 0.5
          },
          {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "text",
                    slot: "label",
                    role: "label",
                    align: "start",
                    ink: "accent",
                    sizeM: {
                      max: 0.5,
                      min: 0.42
                    }
                  },
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 2,
                      min: 0.8
                    }
                  }
                ],
                gapM: 0.5,
                align: "stretch"
              },
              {
                part: "stack",
                direction: "row",
                children: [
                  {
                    part: "mark",
                    heightM: 1.9
                  },
                  {
                    part: "swipe",
                    heightM: 0.76,
                    ink: "accent"
                  }
                ],
                justify: "between",
                align: "centre"
              }
            ],
            justify: "between",
            gapM: 0.7,
            padM: {
              top: 0.9,
              right: 1.2,
              bottom: 1,
              left: 1.2
            },
            safe: [
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "ground"
            },
            grow: 1,
            share: 0
          }
        ],
        align: "stretch",
        field: {
          ink: "ground"
        }
      }
    },
    {
      key: "wide",
      name: "Wide",
      aspect: {
        from: 1.2,
        to: 10
      },
      root: {
        part: "stack",
        direction: "column",
        children: [
          {
            part: "picture",
            slot: "panorama",
            through: true,
            share: 0.46,
            leastShare: 0.46
          },
          {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "text",
                    slot: "label",
                    role: "label",
                    align: "start",
                    ink: "accent",
                    sizeM: {
                      max: 0.86,
                      min: 0.76
                    }
                  },
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 1.75,
                      min: 1
                    }
                  }
                ],
                gapM: 0.35,
                align: "stretch"
              },
              {
                part: "stack",
                direction: "row",
                children: [
                  {
                    part: "mark",
                    heightM: 1.9
                  },
                  {
                    part: "swipe",
                    heightM: 0.9,
                    ink: "accent"
                  }
                ],
                justify: "between",
                align: "centre"
              }
            ],
            justify: "between",
            gapM: 0.5,
            padM: {
              top: 0.8,
              right: 1.5,
              bottom: 0.8,
              left: 1.2
            },
            safe: [
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "ground"
            },
            grow: 1,
            share: 0
          }
        ],
        align: "stretch",
        field: {
          ink: "ground"
        }
      }
    }
  ],
  slides: [
    {
      key: "point",
      name: "Stop",
      use: "point",
      slots: [
        {
          key: "panorama",
          kind: "picture",
          label: "Wide picture",
          hint: "One wide photograph that runs through all slides",
          required: true,
          shared: true
        },
        {
          key: "heading",
          kind: "text",
          label: "Stop",
          hint: "What is to see here",
          required: true,
          softLimit: 40,
          sample: "The slip"
        },
        {
          key: "text",
          kind: "text",
          label: "Text",
          hint: "A sentence or two about it",
          required: false,
          softLimit: 140,
          sample: "Wet to the third step at low water, to the ninth at springs."
        },
        {
          key: "head",
          kind: "head",
          label: "Running head",
          hint: "The cover\u2019s first words",
          required: false
        },
        {
          key: "page",
          kind: "page",
          label: "Page mark",
          hint: "Which slide of how many",
          required: false
        }
      ],
      drop: [
        "head",
        "text"
      ],
      arrangements: [
        {
          key: "post",
          name: "Post",
          aspect: {
            from: 0,
            to: 0.7
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "picture",
                slot: "panorama",
                through: true,
                share: 0.47,
                leastShare: 0.47
              },
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "text",
                        slot: "heading",
                        role: "heading",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 1.25,
                          min: 0.75
                        }
                      },
                      {
                        part: "text",
                        slot: "text",
                        role: "text",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 0.76,
                          min: 0.56
                        }
                      }
                    ],
                    gapM: 0.55,
                    align: "stretch"
                  },
                  {
                    part: "stack",
                    direction: "row",
                    children: [
                      {
                        part: "text",
                        slot: "head",
                        role: "label",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 0.54,
                          min: 0.44
                        },
                        grow: 1,
                        share: 0
                      },
                      {
                        part: "text",
                        slot: "page",
                        role: "label",
                        align: "end",
                        ink: "accent",
                        sizeM: {
                          max: 0.6,
                          min: 0.46
                        },
                        widthM: 2.6
                      }
                    ],
                    justify: "between",
                    align: "centre",
                    gapM: 0.8
                  }
                ],
                justify: "between",
                gapM: 0.9,
                padM: {
                  top: 1.1,
                  right: 1.6,
                  bottom: 1.2,
                  left: 1.6
                },
                safe: [
                  "right",
                  "bottom",
                  "left"
                ],
                align: "stretch",
                field: {
                  ink: "ground"
                },
                grow: 1,
                share: 0
              }
            ],
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        },
        {
          key: "card",
          name: "Card",
          aspect: {
            from: 0.7,
            to: 1.2
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "picture",
                slot: "panorama",
                through: true,
                share: 0.5,
                leastShare: 0.5
              },
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "text",
                        slot: "heading",
                        role: "heading",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 1.1,
                          min: 0.66
                        }
                      },
                      {
                        part: "text",
                        slot: "text",
                        role: "text",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 0.66,
                          min: 0.5
                        }
                      }
                    ],
                    gapM: 0.45,
                    align: "stretch"
                  },
                  {
                    part: "stack",
                    direction: "row",
                    children: [
                      {
                        part: "text",
                        slot: "head",
                        role: "label",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 0.45,
                          min: 0.4
                        },
                        grow: 1,
                        share: 0
                      },
                      {
                        part: "text",
                        slot: "page",
                        role: "label",
                        align: "end",
                        ink: "accent",
                        sizeM: {
                          max: 0.5,
                          min: 0.42
                        },
                        widthM: 2.6
                      }
                    ],
                    justify: "between",
                    align: "centre",
                    gapM: 0.8
                  }
                ],
                justify: "between",
                gapM: 0.7,
                padM: {
                  top: 0.9,
                  right: 1.2,
                  bottom: 1,
                  left: 1.2
                },
                safe: [
                  "right",
                  "bottom",
                  "left"
                ],
                align: "stretch",
                field: {
                  ink: "ground"
                },
                grow: 1,
                share: 0
              }
            ],
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        },
        {
          key: "wide",
          name: "Wide",
          aspect: {
            from: 1.2,
            to: 10
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "picture",
                slot: "panorama",
                through: true,
                share: 0.46,
                leastShare: 0.46
              },
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "text",
                        slot: "heading",
                        role: "heading",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 1.25,
                          min: 0.95
                        }
                      },
                      {
                        part: "text",
                        slot: "text",
                        role: "text",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 0.98,
                          min: 0.95
                        }
                      }
                    ],
                    gapM: 0.3,
                    align: "stretch"
                  },
                  {
                    part: "stack",
                    direction: "row",
                    children: [
                      {
                        part: "text",
                        slot: "head",
                        role: "label",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 0.8,
                          min: 0.74
                        },
                        grow: 1,
                        share: 0
                      },
                      {
                        part: "text",
                        slot: "page",
                        role: "label",
                        align: "end",
                        ink: "accent",
                        sizeM: {
                          max: 0.84,
                          min: 0.76
                        },
                        widthM: 2.6
                      }
                    ],
                    justify: "between",
                    align: "centre",
                    gapM: 0.8
                  }
                ],
                justify: "between",
                gapM: 0.5,
                padM: {
                  top: 0.8,
                  right: 1.5,
                  bottom: 0.8,
                  left: 1.2
                },
                safe: [
                  "right",
                  "bottom",
                  "left"
                ],
                align: "stretch",
                field: {
                  ink: "ground"
                },
                grow: 1,
                share: 0
              }
            ],
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        }
      ]
    },
    {
      key: "closing",
      name: "Closing card",
      use: "closing",
      slots: [
        {
          key: "panorama",
          kind: "picture",
          label: "Wide picture",
          hint: "One wide photograph that runs through all slides",
          required: true,
          shared: true
        },
        {
          key: "headline",
          kind: "text",
          label: "Line",
          hint: "What to remember",
          required: true,
          softLimit: 50,
          sample: "Bring a coat. We have the kites."
        },
        {
          key: "call",
          kind: "text",
          label: "Call",
          hint: "What to do now",
          required: true,
          softLimit: 24,
          sample: "Plan a visit"
        },
        {
          key: "site",
          kind: "fact",
          label: "Where",
          hint: "Where to find you",
          required: false,
          fact: "site"
        }
      ],
      drop: [
        "site"
      ],
      arrangements: [
        {
          key: "post",
          name: "Post",
          aspect: {
            from: 0,
            to: 0.7
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "picture",
                slot: "panorama",
                through: true,
                share: 0.47,
                leastShare: 0.47
              },
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "text",
                        slot: "headline",
                        role: "display",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 1.6,
                          min: 0.85
                        }
                      },
                      {
                        part: "stack",
                        direction: "column",
                        children: [
                          {
                            part: "text",
                            slot: "call",
                            role: "heading",
                            align: "start",
                            ink: "ground",
                            sizeM: {
                              max: 0.86,
                              min: 0.58
                            }
                          }
                        ],
                        field: {
                          ink: "accent",
                          shape: "tab"
                        },
                        padM: {
                          top: 0.62,
                          right: 1.1,
                          bottom: 0.5,
                          left: 0.8
                        },
                        alignSelf: "start",
                        align: "stretch"
                      }
                    ],
                    gapM: 0.8,
                    align: "stretch"
                  },
                  {
                    part: "stack",
                    direction: "row",
                    children: [
                      {
                        part: "text",
                        slot: "site",
                        role: "text",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 0.62,
                          min: 0.54
                        },
                        grow: 1,
                        share: 0
                      },
                      {
                        part: "mark",
                        heightM: 2.2
                      }
                    ],
                    justify: "between",
                    align: "centre",
                    gapM: 0.8
                  }
                ],
                justify: "between",
                gapM: 0.9,
                padM: {
                  top: 1.1,
                  right: 1.6,
                  bottom: 1.2,
                  left: 1.6
                },
                safe: [
                  "right",
                  "bottom",
                  "left"
                ],
                align: "stretch",
                field: {
                  ink: "ground"
                },
                grow: 1,
                share: 0
              }
            ],
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        },
        {
          key: "card",
          name: "Card",
          aspect: {
            from: 0.7,
            to: 1.2
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "picture",
                slot: "panorama",
                through: true,
                share: 0.5,
                leastShare: 0.5
              },
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "text",
                        slot: "headline",
                        role: "display",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 1.45,
                          min: 0.72
                        }
                      },
                      {
                        part: "stack",
                        direction: "column",
                        children: [
                          {
                            part: "text",
                            slot: "call",
                            role: "heading",
                            align: "start",
                            ink: "ground",
                            sizeM: {
                              max: 0.72,
                              min: 0.52
                            }
                          }
                        ],
                        field: {
                          ink: "accent",
                          shape: "tab"
                        },
                        padM: {
                          top: 0.54,
                          right: 1.1,
                          bottom: 0.42,
                          left: 0.8
                        },
                        alignSelf: "start",
                        align: "stretch"
                      }
                    ],
                    gapM: 0.65,
                    align: "stretch"
                  },
                  {
                    part: "stack",
                    direction: "row",
                    children: [
                      {
                        part: "text",
                        slot: "site",
                        role: "text",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 0.56,
                          min: 0.5
                        },
                        grow: 1,
                        share: 0
                      },
                      {
                        part: "mark",
                        heightM: 1.9
                      }
                    ],
                    justify: "between",
                    align: "centre",
                    gapM: 0.8
                  }
                ],
                justify: "between",
                gapM: 0.7,
                padM: {
                  top: 0.9,
                  right: 1.2,
                  bottom: 1,
                  left: 1.2
                },
                safe: [
                  "right",
                  "bottom",
                  "left"
                ],
                align: "stretch",
                field: {
                  ink: "ground"
                },
                grow: 1,
                share: 0
              }
            ],
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        },
        {
          key: "wide",
          name: "Wide",
          aspect: {
            from: 1.2,
            to: 10
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "picture",
                slot: "panorama",
                through: true,
                share: 0.46,
                leastShare: 0.46
              },
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "text",
                        slot: "headline",
                        role: "display",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 1.4,
                          min: 0.98
                        }
                      },
                      {
                        part: "stack",
                        direction: "column",
                        children: [
                          {
                            part: "text",
                            slot: "call",
                            role: "heading",
                            align: "start",
                            ink: "ground",
                            sizeM: {
                              max: 1,
                              min: 0.95
                            }
                          }
                        ],
                        field: {
                          ink: "accent",
                          shape: "tab"
                        },
                        padM: {
                          top: 0.5,
                          right: 1.1,
                          bottom: 0.4,
                          left: 0.8
                        },
                        alignSelf: "start",
                        align: "stretch"
                      }
                    ],
                    gapM: 0.5,
                    align: "stretch"
                  },
                  {
                    part: "stack",
                    direction: "row",
                    children: [
                      {
                        part: "text",
                        slot: "site",
                        role: "text",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 0.96,
                          min: 0.95
                        },
                        grow: 1,
                        share: 0
                      },
                      {
                        part: "mark",
                        heightM: 1.9
                      }
                    ],
                    justify: "between",
                    align: "centre",
                    gapM: 0.8
                  }
                ],
                justify: "between",
                gapM: 0.5,
                padM: {
                  top: 0.8,
                  right: 1.5,
                  bottom: 0.8,
                  left: 1.2
                },
                safe: [
                  "right",
                  "bottom",
                  "left"
                ],
                align: "stretch",
                field: {
                  ink: "ground"
                },
                grow: 1,
                share: 0
              }
            ],
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        }
      ]
    },
    {
      key: "sum",
      name: "All in one",
      use: "sum",
      slots: [
        {
          key: "panorama",
          kind: "picture",
          label: "Panorama",
          hint: "One wide picture that runs through all slides",
          required: true,
          shared: true
        },
        {
          key: "headline",
          kind: "text",
          label: "Headline",
          hint: "What the list is about",
          required: true,
          shared: true,
          sample: "Five winds and what they are good for"
        },
        {
          key: "points",
          kind: "list",
          label: "Points",
          hint: "What each slide says",
          required: true,
          gathers: true,
          sample: "A breath: sled kites\nA light breeze: the diamond\nA steady wind: deltas\nA stiff one: box kites"
        }
      ],
      arrangements: [
        {
          key: "post",
          name: "Post",
          aspect: {
            from: 0,
            to: 0.7
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "picture",
                slot: "panorama",
                share: 0.34,
                leastShare: 0.34
              },
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 1.9,
                      min: 0.9
                    }
                  },
                  {
                    part: "rows",
                    slot: "points",
                    ink: "ink",
                    numeralInk: "accent",
                    numerals: true,
                    sizeM: {
                      max: 0.95,
                      min: 0.52
                    },
                    gapM: 0.5
                  },
                  {
                    part: "mark",
                    heightM: 2.2,
                    alignSelf: "start"
                  }
                ],
                justify: "between",
                gapM: 0.9,
                padM: {
                  top: 1.3,
                  right: 1.6,
                  bottom: 1.2,
                  left: 1.6
                },
                safe: [
                  "right",
                  "bottom",
                  "left"
                ],
                align: "stretch",
                field: {
                  ink: "ground"
                },
                grow: 1,
                share: 0
              }
            ],
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        },
        {
          key: "card",
          name: "Card",
          aspect: {
            from: 0.7,
            to: 1.2
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "picture",
                slot: "panorama",
                share: 0.3,
                leastShare: 0.3
              },
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 1.3,
                      min: 0.76
                    }
                  },
                  {
                    part: "rows",
                    slot: "points",
                    ink: "ink",
                    numeralInk: "accent",
                    numerals: true,
                    sizeM: {
                      max: 0.8,
                      min: 0.52
                    },
                    gapM: 0.3
                  },
                  {
                    part: "mark",
                    heightM: 1.7,
                    alignSelf: "start"
                  }
                ],
                justify: "between",
                gapM: 0.6,
                padM: {
                  top: 0.9,
                  right: 1.2,
                  bottom: 1,
                  left: 1.2
                },
                safe: [
                  "right",
                  "bottom",
                  "left"
                ],
                align: "stretch",
                field: {
                  ink: "ground"
                },
                grow: 1,
                share: 0
              }
            ],
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        },
        {
          key: "wide",
          name: "Wide",
          aspect: {
            from: 1.2,
            to: 10
          },
          root: {
            part: "stack",
            direction: "row",
            children: [
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "picture",
                    slot: "panorama",
                    grow: 1,
                    share: 0,
                    leastShare: 0.3
                  },
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "text",
                        slot: "headline",
                        role: "display",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 1.4,
                          min: 0.9
                        }
                      },
                      {
                        part: "mark",
                        heightM: 1.9,
                        alignSelf: "start"
                      }
                    ],
                    gapM: 0.6,
                    justify: "between",
                    padM: {
                      top: 0.8,
                      right: 0.8,
                      bottom: 0.9,
                      left: 1.2
                    },
                    safe: [
                      "bottom",
                      "left"
                    ],
                    align: "stretch",
                    field: {
                      ink: "ground"
                    }
                  }
                ],
                share: 0.5,
                align: "stretch"
              },
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "rows",
                    slot: "points",
                    ink: "ink",
                    numeralInk: "accent",
                    numerals: true,
                    sizeM: {
                      max: 1.05,
                      min: 0.67
                    },
                    gapM: 0.3
                  }
                ],
                justify: "centre",
                padM: {
                  top: 1,
                  right: 1.3,
                  bottom: 1,
                  left: 1
                },
                safe: [
                  "top",
                  "right",
                  "bottom"
                ],
                field: {
                  ink: "ground"
                },
                grow: 1,
                share: 0,
                align: "stretch"
              }
            ],
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        }
      ]
    }
  ]
};

// src/core/template/shipped/signpost.json
var signpost_default = {
  version: 1,
  key: "signpost",
  name: "Signpost",
  purpose: "Closing card",
  kind: "graphic",
  scheme: "dark",
  slots: [
    {
      key: "headline",
      kind: "text",
      label: "Line",
      hint: "What to remember",
      required: true,
      softLimit: 50,
      sample: "Come and see for yourself"
    },
    {
      key: "call",
      kind: "text",
      label: "Call",
      hint: "What to do now",
      required: true,
      softLimit: 24,
      sample: "Book a place"
    },
    {
      key: "line",
      kind: "text",
      label: "Handle and site",
      hint: "Where to find you",
      required: false,
      softLimit: 60,
      sample: "@handle \xB7 site.example"
    },
    {
      key: "sign",
      kind: "mark",
      label: "Mark",
      hint: "Which of the brand\u2019s marks stands here",
      required: false
    }
  ],
  drop: [
    "line"
  ],
  arrangements: [
    {
      key: "post",
      name: "Post",
      aspect: {
        from: 0,
        to: 0.7
      },
      root: {
        part: "stack",
        direction: "column",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "motif",
            generator: "contours",
            seed: 4,
            over: {
              top: 0,
              right: 0,
              bottom: 0,
              left: 0
            }
          },
          {
            part: "stack",
            direction: "column",
            grow: 1,
            justify: "between",
            gapM: 1,
            padM: {
              top: 1.2,
              right: 1.2,
              bottom: 1.2,
              left: 1.2
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            children: [
              {
                part: "mark",
                heightM: 5,
                alignSelf: "start",
                slot: "sign"
              },
              {
                part: "stack",
                direction: "column",
                gapM: 1,
                align: "stretch",
                children: [
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 1.9,
                      min: 0.8
                    }
                  },
                  {
                    part: "stack",
                    direction: "column",
                    field: {
                      ink: "accent",
                      shape: "tab"
                    },
                    padM: {
                      top: 0.62,
                      right: 1.1,
                      bottom: 0.5,
                      left: 0.8
                    },
                    alignSelf: "stretch",
                    align: "stretch",
                    children: [
                      {
                        part: "text",
                        slot: "call",
                        role: "heading",
                        align: "start",
                        ink: "ground",
                        sizeM: {
                          max: 0.8,
                          min: 0.55
                        }
                      }
                    ]
                  },
                  {
                    part: "text",
                    slot: "line",
                    role: "text",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.56,
                      min: 0.5
                    }
                  }
                ]
              }
            ]
          }
        ]
      }
    },
    {
      key: "board",
      name: "Board",
      aspect: {
        from: 0.7,
        to: 1.2
      },
      root: {
        part: "stack",
        direction: "column",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "motif",
            generator: "contours",
            seed: 4,
            over: {
              top: 0,
              right: 0,
              bottom: 0,
              left: 0
            }
          },
          {
            part: "stack",
            direction: "column",
            grow: 1,
            justify: "between",
            gapM: 1,
            padM: {
              top: 1.1,
              right: 1.1,
              bottom: 1.1,
              left: 1.1
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            children: [
              {
                part: "mark",
                heightM: 4.2,
                alignSelf: "start",
                slot: "sign"
              },
              {
                part: "stack",
                direction: "column",
                gapM: 0.85,
                align: "stretch",
                children: [
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 1.7,
                      min: 0.7
                    }
                  },
                  {
                    part: "stack",
                    direction: "column",
                    field: {
                      ink: "accent",
                      shape: "tab"
                    },
                    padM: {
                      top: 0.58,
                      right: 1.1,
                      bottom: 0.46,
                      left: 0.75
                    },
                    align: "stretch",
                    children: [
                      {
                        part: "text",
                        slot: "call",
                        role: "heading",
                        align: "start",
                        ink: "ground",
                        sizeM: {
                          max: 0.74,
                          min: 0.5
                        }
                      }
                    ]
                  },
                  {
                    part: "text",
                    slot: "line",
                    role: "text",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.54,
                      min: 0.5
                    }
                  }
                ]
              }
            ]
          }
        ]
      }
    },
    {
      key: "arm",
      name: "Arm",
      aspect: {
        from: 1.2,
        to: 10
      },
      root: {
        part: "stack",
        direction: "row",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "motif",
            generator: "contours",
            seed: 4,
            over: {
              top: 0,
              right: 0,
              bottom: 0,
              left: 0
            }
          },
          {
            part: "stack",
            direction: "column",
            share: 0.32,
            justify: "centre",
            padM: {
              top: 1.2,
              right: 0.4,
              bottom: 1.2,
              left: 1.2
            },
            safe: [
              "top",
              "bottom",
              "left"
            ],
            align: "stretch",
            children: [
              {
                part: "mark",
                heightM: 5.6,
                alignSelf: "centre",
                slot: "sign"
              }
            ]
          },
          {
            part: "stack",
            direction: "column",
            grow: 1,
            share: 0,
            justify: "centre",
            gapM: 1,
            padM: {
              top: 1.2,
              right: 2.4,
              bottom: 1.2,
              left: 0.6
            },
            safe: [
              "top",
              "right",
              "bottom"
            ],
            align: "stretch",
            children: [
              {
                part: "text",
                slot: "headline",
                role: "display",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 1.9,
                  min: 0.9
                }
              },
              {
                part: "stack",
                direction: "column",
                field: {
                  ink: "accent",
                  shape: "tab"
                },
                padM: {
                  top: 0.7,
                  right: 1.2,
                  bottom: 0.6,
                  left: 0.9
                },
                align: "stretch",
                children: [
                  {
                    part: "text",
                    slot: "call",
                    role: "heading",
                    align: "start",
                    ink: "ground",
                    sizeM: {
                      max: 1,
                      min: 0.85
                    }
                  }
                ]
              },
              {
                part: "text",
                slot: "line",
                role: "text",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 0.88,
                  min: 0.8
                }
              }
            ]
          }
        ]
      }
    }
  ]
};

// src/core/template/shipped/strand.json
var strand_default = {
  version: 1,
  key: "strand",
  name: "Strand",
  purpose: "List of points on one line of waves",
  kind: "carousel",
  scheme: "bold",
  slots: [
    {
      key: "label",
      kind: "text",
      label: "Label",
      hint: "What kind of list",
      required: false,
      softLimit: 28,
      sample: "Worth knowing"
    },
    {
      key: "headline",
      kind: "text",
      label: "Headline",
      hint: "What the list is about",
      required: true,
      softLimit: 60,
      sample: "Five winds and what they are good for"
    },
    {
      key: "line",
      kind: "text",
      label: "Line",
      hint: "What it is good for",
      required: false,
      softLimit: 80,
      sample: "From a breath to a blow"
    }
  ],
  drop: [
    "line",
    "label"
  ],
  arrangements: [
    {
      key: "post",
      name: "Post",
      aspect: {
        from: 0,
        to: 0.7
      },
      root: {
        part: "stack",
        direction: "column",
        children: [
          {
            part: "motif",
            generator: "waves",
            seed: 7,
            through: true,
            over: {
              top: 14,
              right: 0,
              bottom: 0,
              left: 0
            }
          },
          {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "text",
                slot: "label",
                role: "label",
                align: "start",
                ink: "accent",
                sizeM: {
                  max: 0.62,
                  min: 0.5
                }
              },
              {
                part: "text",
                slot: "headline",
                role: "display",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 3.1,
                  min: 1
                }
              },
              {
                part: "text",
                slot: "line",
                role: "text",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 0.72,
                  min: 0.55
                }
              }
            ],
            gapM: 0.8,
            align: "stretch"
          },
          {
            part: "stack",
            direction: "row",
            children: [
              {
                part: "mark",
                heightM: 2.6
              },
              {
                part: "swipe",
                heightM: 0.9,
                ink: "ink"
              }
            ],
            justify: "between",
            align: "centre"
          }
        ],
        justify: "between",
        gapM: 0.8,
        padM: {
          top: 1.6,
          right: 1.6,
          bottom: 4,
          left: 1.6
        },
        safe: [
          "top",
          "right",
          "bottom",
          "left"
        ],
        align: "stretch",
        field: {
          ink: "ground"
        }
      }
    },
    {
      key: "card",
      name: "Card",
      aspect: {
        from: 0.7,
        to: 1.2
      },
      root: {
        part: "stack",
        direction: "column",
        children: [
          {
            part: "motif",
            generator: "waves",
            seed: 7,
            through: true,
            over: {
              top: 9,
              right: 0,
              bottom: 0,
              left: 0
            }
          },
          {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "text",
                slot: "label",
                role: "label",
                align: "start",
                ink: "accent",
                sizeM: {
                  max: 0.52,
                  min: 0.42
                }
              },
              {
                part: "text",
                slot: "headline",
                role: "display",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 2.9,
                  min: 0.85
                }
              },
              {
                part: "text",
                slot: "line",
                role: "text",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 0.62,
                  min: 0.5
                }
              }
            ],
            gapM: 0.65,
            align: "stretch"
          },
          {
            part: "stack",
            direction: "row",
            children: [
              {
                part: "mark",
                heightM: 2.2
              },
              {
                part: "swipe",
                heightM: 0.8,
                ink: "ink"
              }
            ],
            justify: "between",
            align: "centre"
          }
        ],
        justify: "between",
        gapM: 0.8,
        padM: {
          top: 1.2,
          right: 1.2,
          bottom: 3.7,
          left: 1.2
        },
        safe: [
          "top",
          "right",
          "bottom",
          "left"
        ],
        align: "stretch",
        field: {
          ink: "ground"
        }
      }
    },
    {
      key: "wide",
      name: "Wide",
      aspect: {
        from: 1.2,
        to: 10
      },
      root: {
        part: "stack",
        direction: "column",
        children: [
          {
            part: "motif",
            generator: "waves",
            seed: 7,
            through: true,
            over: {
              top: 6.6,
              right: 0,
              bottom: 0,
              left: 0
            }
          },
          {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "text",
                slot: "label",
                role: "label",
                align: "start",
                ink: "accent",
                sizeM: {
                  max: 0.9,
                  min: 0.76
                }
              },
              {
                part: "text",
                slot: "headline",
                role: "display",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 2.5,
                  min: 1.1
                }
              },
              {
                part: "text",
                slot: "line",
                role: "text",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 1,
                  min: 0.95
                }
              }
            ],
            gapM: 0.55,
            align: "stretch"
          },
          {
            part: "stack",
            direction: "row",
            children: [
              {
                part: "mark",
                heightM: 2.6
              },
              {
                part: "swipe",
                heightM: 1,
                ink: "ink"
              }
            ],
            justify: "between",
            align: "centre"
          }
        ],
        justify: "between",
        gapM: 0.8,
        padM: {
          top: 1.2,
          right: 1.5,
          bottom: 3.8,
          left: 1.2
        },
        safe: [
          "top",
          "right",
          "bottom",
          "left"
        ],
        align: "stretch",
        field: {
          ink: "ground"
        }
      }
    }
  ],
  slides: [
    {
      key: "point",
      name: "Point",
      use: "point",
      scheme: "light",
      slots: [
        {
          key: "ordinal",
          kind: "ordinal",
          label: "Number",
          hint: "Which point this is",
          required: false
        },
        {
          key: "heading",
          kind: "text",
          label: "Point",
          hint: "The point in a few words",
          required: true,
          softLimit: 50,
          sample: "A breath: sled kites"
        },
        {
          key: "text",
          kind: "text",
          label: "Text",
          hint: "A sentence or two about it",
          required: false,
          softLimit: 160,
          sample: "Light, no sticks, up before you have finished your tea."
        },
        {
          key: "head",
          kind: "head",
          label: "Running head",
          hint: "The cover\u2019s first words",
          required: false
        }
      ],
      drop: [
        "head",
        "text"
      ],
      arrangements: [
        {
          key: "post",
          name: "Post",
          aspect: {
            from: 0,
            to: 0.7
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "motif",
                generator: "waves",
                seed: 7,
                through: true,
                over: {
                  top: 14,
                  right: 0,
                  bottom: 0,
                  left: 0
                }
              },
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "text",
                    slot: "ordinal",
                    role: "display",
                    align: "start",
                    ink: "accent",
                    sizeM: {
                      max: 5.6,
                      min: 2.2
                    }
                  },
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "text",
                        slot: "heading",
                        role: "display",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 2.2,
                          min: 0.8
                        }
                      },
                      {
                        part: "text",
                        slot: "text",
                        role: "text",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 1,
                          min: 0.56
                        }
                      }
                    ],
                    gapM: 0.7,
                    align: "stretch"
                  }
                ],
                gapM: 1,
                align: "stretch"
              },
              {
                part: "stack",
                direction: "row",
                children: [
                  {
                    part: "text",
                    slot: "head",
                    role: "label",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.56,
                      min: 0.44
                    },
                    grow: 1,
                    share: 0
                  },
                  {
                    part: "dots",
                    heightM: 0.34,
                    ink: "accent",
                    quietInk: "surface"
                  }
                ],
                justify: "between",
                align: "centre",
                gapM: 0.8
              }
            ],
            justify: "between",
            gapM: 0.8,
            padM: {
              top: 1.6,
              right: 1.6,
              bottom: 4,
              left: 1.6
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        },
        {
          key: "card",
          name: "Card",
          aspect: {
            from: 0.7,
            to: 1.2
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "motif",
                generator: "waves",
                seed: 7,
                through: true,
                over: {
                  top: 9,
                  right: 0,
                  bottom: 0,
                  left: 0
                }
              },
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "text",
                    slot: "ordinal",
                    role: "display",
                    align: "start",
                    ink: "accent",
                    sizeM: {
                      max: 5,
                      min: 1.8
                    }
                  },
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "text",
                        slot: "heading",
                        role: "display",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 1.9,
                          min: 0.7
                        }
                      },
                      {
                        part: "text",
                        slot: "text",
                        role: "text",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 0.86,
                          min: 0.5
                        }
                      }
                    ],
                    gapM: 0.6,
                    align: "stretch"
                  }
                ],
                gapM: 0.8,
                align: "stretch"
              },
              {
                part: "stack",
                direction: "row",
                children: [
                  {
                    part: "text",
                    slot: "head",
                    role: "label",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.46,
                      min: 0.4
                    },
                    grow: 1,
                    share: 0
                  },
                  {
                    part: "dots",
                    heightM: 0.28,
                    ink: "accent",
                    quietInk: "surface"
                  }
                ],
                justify: "between",
                align: "centre",
                gapM: 0.8
              }
            ],
            justify: "between",
            gapM: 0.8,
            padM: {
              top: 1.2,
              right: 1.2,
              bottom: 3.7,
              left: 1.2
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        },
        {
          key: "wide",
          name: "Wide",
          aspect: {
            from: 1.2,
            to: 10
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "motif",
                generator: "waves",
                seed: 7,
                through: true,
                over: {
                  top: 6.6,
                  right: 0,
                  bottom: 0,
                  left: 0
                }
              },
              {
                part: "stack",
                direction: "row",
                children: [
                  {
                    part: "text",
                    slot: "ordinal",
                    role: "display",
                    align: "start",
                    ink: "accent",
                    sizeM: {
                      max: 5.4,
                      min: 2.2
                    },
                    widthM: 6
                  },
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "text",
                        slot: "heading",
                        role: "display",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 2,
                          min: 0.95
                        }
                      },
                      {
                        part: "text",
                        slot: "text",
                        role: "text",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 1.3,
                          min: 0.95
                        }
                      }
                    ],
                    gapM: 0.5,
                    align: "stretch",
                    grow: 1,
                    share: 0
                  }
                ],
                gapM: 1,
                align: "start"
              },
              {
                part: "stack",
                direction: "row",
                children: [
                  {
                    part: "text",
                    slot: "head",
                    role: "label",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.8,
                      min: 0.74
                    },
                    grow: 1,
                    share: 0
                  },
                  {
                    part: "dots",
                    heightM: 0.34,
                    ink: "accent",
                    quietInk: "surface"
                  }
                ],
                justify: "between",
                align: "centre",
                gapM: 0.8
              }
            ],
            justify: "between",
            gapM: 0.8,
            padM: {
              top: 1.2,
              right: 1.5,
              bottom: 3.8,
              left: 1.2
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        }
      ]
    },
    {
      key: "closing",
      name: "Closing card",
      use: "closing",
      scheme: "dark",
      slots: [
        {
          key: "headline",
          kind: "text",
          label: "Line",
          hint: "What to remember",
          required: true,
          softLimit: 50,
          sample: "The wind is free. The rest is knots."
        },
        {
          key: "call",
          kind: "text",
          label: "Call",
          hint: "What to do now",
          required: true,
          softLimit: 24,
          sample: "Book an afternoon"
        },
        {
          key: "site",
          kind: "fact",
          label: "Where",
          hint: "Where to find you",
          required: false,
          fact: "site"
        }
      ],
      drop: [
        "site"
      ],
      arrangements: [
        {
          key: "post",
          name: "Post",
          aspect: {
            from: 0,
            to: 0.7
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "motif",
                generator: "waves",
                seed: 7,
                through: true,
                over: {
                  top: 14,
                  right: 0,
                  bottom: 0,
                  left: 0
                }
              },
              {
                part: "mark",
                heightM: 4.6,
                alignSelf: "start"
              },
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 2.1,
                      min: 0.9
                    }
                  },
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "text",
                        slot: "call",
                        role: "heading",
                        align: "start",
                        ink: "ground",
                        sizeM: {
                          max: 0.9,
                          min: 0.6
                        }
                      }
                    ],
                    field: {
                      ink: "accent",
                      shape: "tab"
                    },
                    padM: {
                      top: 0.66,
                      right: 1.1,
                      bottom: 0.54,
                      left: 0.8
                    },
                    alignSelf: "start",
                    align: "stretch"
                  },
                  {
                    part: "text",
                    slot: "site",
                    role: "text",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.66,
                      min: 0.54
                    }
                  }
                ],
                gapM: 1,
                align: "stretch"
              }
            ],
            justify: "between",
            gapM: 0.8,
            padM: {
              top: 1.6,
              right: 1.6,
              bottom: 4,
              left: 1.6
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        },
        {
          key: "card",
          name: "Card",
          aspect: {
            from: 0.7,
            to: 1.2
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "motif",
                generator: "waves",
                seed: 7,
                through: true,
                over: {
                  top: 9,
                  right: 0,
                  bottom: 0,
                  left: 0
                }
              },
              {
                part: "mark",
                heightM: 4,
                alignSelf: "start"
              },
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 1.9,
                      min: 0.75
                    }
                  },
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "text",
                        slot: "call",
                        role: "heading",
                        align: "start",
                        ink: "ground",
                        sizeM: {
                          max: 0.78,
                          min: 0.52
                        }
                      }
                    ],
                    field: {
                      ink: "accent",
                      shape: "tab"
                    },
                    padM: {
                      top: 0.6,
                      right: 1.1,
                      bottom: 0.48,
                      left: 0.8
                    },
                    alignSelf: "start",
                    align: "stretch"
                  },
                  {
                    part: "text",
                    slot: "site",
                    role: "text",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.58,
                      min: 0.5
                    }
                  }
                ],
                gapM: 0.8,
                align: "stretch"
              }
            ],
            justify: "between",
            gapM: 0.8,
            padM: {
              top: 1.2,
              right: 1.2,
              bottom: 3.7,
              left: 1.2
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        },
        {
          key: "wide",
          name: "Wide",
          aspect: {
            from: 1.2,
            to: 10
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "motif",
                generator: "waves",
                seed: 7,
                through: true,
                over: {
                  top: 6.6,
                  right: 0,
                  bottom: 0,
                  left: 0
                }
              },
              {
                part: "mark",
                heightM: 3.2,
                alignSelf: "start"
              },
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 1.7,
                      min: 1
                    }
                  },
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "text",
                        slot: "call",
                        role: "heading",
                        align: "start",
                        ink: "ground",
                        sizeM: {
                          max: 1.05,
                          min: 0.95
                        }
                      }
                    ],
                    field: {
                      ink: "accent",
                      shape: "tab"
                    },
                    padM: {
                      top: 0.62,
                      right: 1.1,
                      bottom: 0.52,
                      left: 0.8
                    },
                    alignSelf: "start",
                    align: "stretch"
                  },
                  {
                    part: "text",
                    slot: "site",
                    role: "text",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.98,
                      min: 0.95
                    }
                  }
                ],
                gapM: 0.6,
                align: "stretch"
              }
            ],
            justify: "between",
            gapM: 0.8,
            padM: {
              top: 1.2,
              right: 1.5,
              bottom: 3.8,
              left: 1.2
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        }
      ]
    },
    {
      key: "sum",
      name: "All in one",
      use: "sum",
      slots: [
        {
          key: "headline",
          kind: "text",
          label: "Headline",
          hint: "What the list is about",
          required: true,
          shared: true,
          sample: "Five winds and what they are good for"
        },
        {
          key: "points",
          kind: "list",
          label: "Points",
          hint: "What each slide says",
          required: true,
          gathers: true,
          sample: "A breath: sled kites\nA light breeze: the diamond\nA steady wind: deltas\nA stiff one: box kites"
        }
      ],
      arrangements: [
        {
          key: "post",
          name: "Post",
          aspect: {
            from: 0,
            to: 0.7
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "motif",
                generator: "waves",
                seed: 7,
                over: {
                  top: 16,
                  right: 0,
                  bottom: 0,
                  left: 0
                }
              },
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 2.3,
                      min: 0.9
                    }
                  },
                  {
                    part: "rows",
                    slot: "points",
                    ink: "ink",
                    numeralInk: "accent",
                    numerals: true,
                    sizeM: {
                      max: 1.05,
                      min: 0.52
                    },
                    gapM: 0.55
                  }
                ],
                gapM: 1.4,
                align: "stretch"
              },
              {
                part: "mark",
                heightM: 2.6,
                alignSelf: "start"
              }
            ],
            justify: "between",
            gapM: 0.8,
            padM: {
              top: 1.6,
              right: 1.6,
              bottom: 4,
              left: 1.6
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        },
        {
          key: "card",
          name: "Card",
          aspect: {
            from: 0.7,
            to: 1.2
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "motif",
                generator: "waves",
                seed: 7,
                over: {
                  top: 11,
                  right: 0,
                  bottom: 0,
                  left: 0
                }
              },
              {
                part: "stack",
                direction: "column",
                children: [
                  {
                    part: "text",
                    slot: "headline",
                    role: "display",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 1.5,
                      min: 0.8
                    }
                  },
                  {
                    part: "rows",
                    slot: "points",
                    ink: "ink",
                    numeralInk: "accent",
                    numerals: true,
                    sizeM: {
                      max: 0.86,
                      min: 0.52
                    },
                    gapM: 0.36
                  }
                ],
                gapM: 0.9,
                align: "stretch"
              },
              {
                part: "mark",
                heightM: 1.9,
                alignSelf: "start"
              }
            ],
            justify: "between",
            gapM: 0.6,
            padM: {
              top: 1.1,
              right: 1.2,
              bottom: 2.6,
              left: 1.2
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        },
        {
          key: "wide",
          name: "Wide",
          aspect: {
            from: 1.2,
            to: 10
          },
          root: {
            part: "stack",
            direction: "column",
            children: [
              {
                part: "motif",
                generator: "waves",
                seed: 7,
                over: {
                  top: 9.2,
                  right: 0,
                  bottom: 0,
                  left: 0
                }
              },
              {
                part: "stack",
                direction: "row",
                children: [
                  {
                    part: "stack",
                    direction: "column",
                    children: [
                      {
                        part: "text",
                        slot: "headline",
                        role: "display",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 1.9,
                          min: 0.9
                        }
                      },
                      {
                        part: "mark",
                        heightM: 2.4,
                        alignSelf: "start"
                      }
                    ],
                    justify: "between",
                    gapM: 0.6,
                    share: 0.42,
                    align: "stretch"
                  },
                  {
                    part: "rows",
                    slot: "points",
                    ink: "ink",
                    numeralInk: "accent",
                    numerals: true,
                    sizeM: {
                      max: 1.1,
                      min: 0.67
                    },
                    gapM: 0.32,
                    grow: 1,
                    share: 0
                  }
                ],
                gapM: 1.4,
                align: "stretch",
                grow: 1,
                share: 0
              }
            ],
            padM: {
              top: 1.2,
              right: 1.4,
              bottom: 2.2,
              left: 1.2
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "ground"
            }
          }
        }
      ]
    }
  ]
};

// src/core/template/shipped/tally.json
var tally_default = {
  version: 1,
  key: "tally",
  name: "Tally",
  purpose: "A number that matters",
  kind: "graphic",
  scheme: "dark",
  slots: [
    {
      key: "number",
      kind: "text",
      label: "Number",
      hint: "With its unit, as short as it gets",
      required: true,
      softLimit: 6,
      sample: "31"
    },
    {
      key: "headline",
      kind: "text",
      label: "Sentence",
      hint: "What the number counts",
      required: true,
      softLimit: 90,
      sample: "things we made by hand this month"
    },
    {
      key: "line",
      kind: "text",
      label: "Source",
      hint: "Where it comes from",
      required: false,
      softLimit: 60,
      sample: "Counted on Friday"
    }
  ],
  drop: [
    "line"
  ],
  arrangements: [
    {
      key: "sum",
      name: "Sum",
      aspect: {
        from: 0,
        to: 0.7
      },
      root: {
        part: "stack",
        direction: "column",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "motif",
            generator: "arcs",
            seed: 2,
            over: {
              top: 0,
              right: 0,
              bottom: 0,
              left: 0
            }
          },
          {
            part: "stack",
            direction: "column",
            grow: 1,
            justify: "between",
            gapM: 0.9,
            padM: {
              top: 1.2,
              right: 1.2,
              bottom: 1.2,
              left: 1.2
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            children: [
              {
                part: "mark",
                heightM: 2.4,
                alignSelf: "start"
              },
              {
                part: "text",
                slot: "number",
                role: "display",
                align: "start",
                ink: "accent",
                sizeM: {
                  max: 9,
                  min: 1.6
                },
                fill: true
              },
              {
                part: "text",
                slot: "headline",
                role: "heading",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 1.5,
                  min: 0.75
                }
              },
              {
                part: "text",
                slot: "line",
                role: "text",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 0.56,
                  min: 0.5
                }
              }
            ]
          }
        ]
      }
    },
    {
      key: "count",
      name: "Count",
      aspect: {
        from: 0.7,
        to: 1.2
      },
      root: {
        part: "stack",
        direction: "column",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "motif",
            generator: "contours",
            seed: 2,
            over: {
              top: 0,
              right: 0,
              bottom: 0,
              left: 0
            }
          },
          {
            part: "stack",
            direction: "column",
            grow: 1,
            justify: "between",
            gapM: 0.9,
            padM: {
              top: 1.3,
              right: 1.1,
              bottom: 1.1,
              left: 1.1
            },
            safe: [
              "top",
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            children: [
              {
                part: "text",
                slot: "number",
                role: "display",
                align: "start",
                ink: "accent",
                sizeM: {
                  max: 7.4,
                  min: 1.6
                },
                fill: true
              },
              {
                part: "stack",
                direction: "column",
                gapM: 0.8,
                align: "stretch",
                children: [
                  {
                    part: "text",
                    slot: "headline",
                    role: "heading",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 1.25,
                      min: 0.66
                    }
                  },
                  {
                    part: "stack",
                    direction: "row",
                    gapM: 1,
                    align: "end",
                    children: [
                      {
                        part: "text",
                        slot: "line",
                        role: "text",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 0.54,
                          min: 0.5
                        },
                        grow: 1,
                        share: 0
                      },
                      {
                        part: "mark",
                        heightM: 2.1,
                        alignSelf: "end"
                      }
                    ]
                  }
                ]
              }
            ]
          }
        ]
      }
    },
    {
      key: "score",
      name: "Score",
      aspect: {
        from: 1.2,
        to: 10
      },
      root: {
        part: "stack",
        direction: "row",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "motif",
            generator: "contours",
            seed: 2,
            over: {
              top: 0,
              right: 0,
              bottom: 0,
              left: 0
            }
          },
          {
            part: "stack",
            direction: "column",
            share: 0.47,
            justify: "centre",
            padM: {
              top: 1.2,
              right: 0.8,
              bottom: 1.2,
              left: 1.4
            },
            safe: [
              "top",
              "bottom",
              "left"
            ],
            align: "stretch",
            children: [
              {
                part: "text",
                slot: "number",
                role: "display",
                align: "start",
                ink: "accent",
                sizeM: {
                  max: 8.5,
                  min: 1.6
                },
                fill: true
              }
            ]
          },
          {
            part: "stack",
            direction: "column",
            grow: 1,
            share: 0,
            justify: "centre",
            gapM: 1,
            padM: {
              top: 1.4,
              right: 1.6,
              bottom: 1.4,
              left: 0.6
            },
            safe: [
              "top",
              "right",
              "bottom"
            ],
            align: "stretch",
            children: [
              {
                part: "text",
                slot: "headline",
                role: "heading",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 1.45,
                  min: 0.9
                }
              },
              {
                part: "rule",
                lengthM: 2,
                thicknessM: 0.1,
                ink: "accent"
              },
              {
                part: "stack",
                direction: "row",
                gapM: 1,
                align: "end",
                children: [
                  {
                    part: "text",
                    slot: "line",
                    role: "text",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.88,
                      min: 0.8
                    },
                    grow: 1,
                    share: 0
                  },
                  {
                    part: "mark",
                    heightM: 2,
                    alignSelf: "end"
                  }
                ]
              }
            ]
          }
        ]
      }
    }
  ]
};

// src/core/template/shipped/thanks.json
var thanks_default = {
  version: 1,
  key: "thanks",
  name: "Thanks",
  purpose: "Thank you",
  kind: "graphic",
  scheme: "bold",
  slots: [
    {
      key: "word",
      kind: "text",
      label: "Word",
      hint: "One word or two, to be repeated",
      required: true,
      softLimit: 12,
      sample: "Thank you"
    },
    {
      key: "line",
      kind: "text",
      label: "Line",
      hint: "For what, to whom",
      required: false,
      softLimit: 80,
      sample: "To everybody who came although it rained"
    }
  ],
  arrangements: [
    {
      key: "pile",
      name: "Pile",
      aspect: {
        from: 0,
        to: 0.7
      },
      root: {
        part: "stack",
        direction: "column",
        gapM: 1.4,
        padM: {
          top: 1.2,
          right: 1.2,
          bottom: 1.2,
          left: 1.2
        },
        safe: [
          "top",
          "right",
          "bottom",
          "left"
        ],
        align: "stretch",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "echo",
            slot: "word",
            lines: 7,
            inked: 4,
            ink: "accent",
            quietInk: "surface",
            sizeM: {
              max: 3.4,
              min: 1
            },
            grow: 1
          },
          {
            part: "stack",
            direction: "row",
            gapM: 1.2,
            align: "end",
            children: [
              {
                part: "text",
                slot: "line",
                role: "text",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 0.7,
                  min: 0.5
                },
                grow: 1,
                share: 0
              },
              {
                part: "mark",
                heightM: 2.3,
                alignSelf: "end"
              }
            ]
          }
        ]
      }
    },
    {
      key: "stackup",
      name: "Stack",
      aspect: {
        from: 0.7,
        to: 1.2
      },
      root: {
        part: "stack",
        direction: "column",
        gapM: 1.2,
        padM: {
          top: 1.1,
          right: 1.1,
          bottom: 1.1,
          left: 1.1
        },
        safe: [
          "top",
          "right",
          "bottom",
          "left"
        ],
        align: "stretch",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "echo",
            slot: "word",
            lines: 5,
            inked: 3,
            ink: "accent",
            quietInk: "surface",
            sizeM: {
              max: 3,
              min: 0.9
            },
            grow: 1
          },
          {
            part: "stack",
            direction: "row",
            gapM: 1.2,
            align: "end",
            children: [
              {
                part: "text",
                slot: "line",
                role: "text",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 0.62,
                  min: 0.5
                },
                grow: 1,
                share: 0
              },
              {
                part: "mark",
                heightM: 2.1,
                alignSelf: "end"
              }
            ]
          }
        ]
      }
    },
    {
      key: "chorus",
      name: "Chorus",
      aspect: {
        from: 1.2,
        to: 10
      },
      root: {
        part: "stack",
        direction: "row",
        gapM: 1.6,
        padM: {
          top: 1.3,
          right: 1.4,
          bottom: 1.3,
          left: 1.4
        },
        safe: [
          "top",
          "right",
          "bottom",
          "left"
        ],
        align: "stretch",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "echo",
            slot: "word",
            lines: 5,
            inked: 2,
            ink: "accent",
            quietInk: "surface",
            sizeM: {
              max: 3.2,
              min: 1
            },
            share: 0.66
          },
          {
            part: "stack",
            direction: "column",
            grow: 1,
            share: 0,
            justify: "between",
            gapM: 1,
            align: "stretch",
            children: [
              {
                part: "mark",
                heightM: 2.2,
                alignSelf: "end"
              },
              {
                part: "text",
                slot: "line",
                role: "text",
                align: "end",
                ink: "ink",
                sizeM: {
                  max: 1,
                  min: 0.8
                }
              }
            ]
          }
        ]
      }
    }
  ]
};

// src/core/template/shipped/turn.json
var turn_default = {
  version: 1,
  key: "turn",
  name: "Turn",
  purpose: "Before and after",
  kind: "graphic",
  scheme: "dark",
  slots: [
    {
      key: "photo",
      kind: "picture",
      label: "Before",
      hint: "How it was",
      required: true
    },
    {
      key: "second",
      kind: "picture",
      label: "After",
      hint: "How it is now, from the same spot",
      required: true
    },
    {
      key: "first",
      kind: "text",
      label: "Word for before",
      hint: "One word",
      required: false,
      softLimit: 14,
      sample: "Before"
    },
    {
      key: "then",
      kind: "text",
      label: "Word for after",
      hint: "One word",
      required: false,
      softLimit: 14,
      sample: "After"
    },
    {
      key: "headline",
      kind: "text",
      label: "Line",
      hint: "What happened in between",
      required: true,
      softLimit: 60,
      sample: "One afternoon lies between these two"
    }
  ],
  arrangements: [
    {
      key: "fall",
      name: "Fall",
      aspect: {
        from: 0,
        to: 0.7
      },
      root: {
        part: "stack",
        direction: "column",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "stack",
            direction: "column",
            grow: 1,
            leastShare: 0.5,
            children: [
              {
                part: "picture",
                slot: "photo",
                grow: 1,
                share: 0,
                window: "slant-bottom",
                underM: {
                  bottom: 1.2
                }
              },
              {
                part: "picture",
                slot: "second",
                grow: 1,
                share: 0,
                window: "slant-top",
                underM: {
                  top: 1.2
                }
              },
              {
                part: "stack",
                direction: "column",
                field: {
                  ink: "ground",
                  shape: "tab"
                },
                padM: {
                  top: 0.42,
                  right: 0.9,
                  bottom: 0.34,
                  left: 0.6
                },
                align: "stretch",
                alignSelf: "start",
                safe: [
                  "top",
                  "left"
                ],
                over: {
                  top: 1.2,
                  left: 1.2
                },
                children: [
                  {
                    part: "text",
                    slot: "first",
                    role: "label",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.46,
                      min: 0.41
                    }
                  }
                ]
              },
              {
                part: "stack",
                direction: "column",
                field: {
                  ink: "ground",
                  shape: "tab"
                },
                padM: {
                  top: 0.42,
                  right: 0.9,
                  bottom: 0.34,
                  left: 0.6
                },
                align: "stretch",
                alignSelf: "end",
                safe: [
                  "right"
                ],
                over: {
                  bottom: 0.9,
                  right: 1.2
                },
                children: [
                  {
                    part: "text",
                    slot: "then",
                    role: "label",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.46,
                      min: 0.41
                    }
                  }
                ]
              }
            ]
          },
          {
            part: "stack",
            direction: "row",
            gapM: 1,
            padM: {
              top: 1,
              right: 1.2,
              bottom: 1.1,
              left: 1.2
            },
            safe: [
              "right",
              "bottom",
              "left"
            ],
            align: "centre",
            children: [
              {
                part: "text",
                slot: "headline",
                role: "heading",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 1.15,
                  min: 0.66
                },
                grow: 1,
                share: 0
              },
              {
                part: "mark",
                heightM: 2.2,
                alignSelf: "centre"
              }
            ]
          }
        ]
      }
    },
    {
      key: "swing",
      name: "Swing",
      aspect: {
        from: 0.7,
        to: 1.2
      },
      root: {
        part: "stack",
        direction: "column",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "stack",
            direction: "row",
            grow: 1,
            leastShare: 0.5,
            children: [
              {
                part: "picture",
                slot: "photo",
                grow: 1,
                share: 0.5,
                window: "slant-right",
                underM: {
                  right: 1.2
                }
              },
              {
                part: "picture",
                slot: "second",
                grow: 1,
                share: 0.5,
                window: "slant-left",
                underM: {
                  left: 1.2
                }
              },
              {
                part: "stack",
                direction: "column",
                field: {
                  ink: "ground",
                  shape: "tab"
                },
                padM: {
                  top: 0.42,
                  right: 0.9,
                  bottom: 0.34,
                  left: 0.6
                },
                align: "stretch",
                safe: [
                  "top",
                  "left"
                ],
                over: {
                  top: 1.1,
                  left: 1.1
                },
                children: [
                  {
                    part: "text",
                    slot: "first",
                    role: "label",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.46,
                      min: 0.41
                    }
                  }
                ]
              },
              {
                part: "stack",
                direction: "column",
                field: {
                  ink: "ground",
                  shape: "tab"
                },
                padM: {
                  top: 0.42,
                  right: 0.9,
                  bottom: 0.34,
                  left: 0.6
                },
                align: "stretch",
                safe: [
                  "right"
                ],
                over: {
                  bottom: 0.8,
                  right: 1.1
                },
                children: [
                  {
                    part: "text",
                    slot: "then",
                    role: "label",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.46,
                      min: 0.41
                    }
                  }
                ]
              }
            ]
          },
          {
            part: "stack",
            direction: "row",
            gapM: 1,
            padM: {
              top: 0.9,
              right: 1.1,
              bottom: 0.9,
              left: 1.1
            },
            safe: [
              "right",
              "bottom",
              "left"
            ],
            align: "centre",
            children: [
              {
                part: "text",
                slot: "headline",
                role: "heading",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 1.05,
                  min: 0.6
                },
                grow: 1,
                share: 0
              },
              {
                part: "mark",
                heightM: 1.9,
                alignSelf: "centre"
              }
            ]
          }
        ]
      }
    },
    {
      key: "sweep",
      name: "Sweep",
      aspect: {
        from: 1.2,
        to: 10
      },
      root: {
        part: "stack",
        direction: "column",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "stack",
            direction: "row",
            grow: 1,
            leastShare: 0.5,
            children: [
              {
                part: "picture",
                slot: "photo",
                grow: 1,
                share: 0.5,
                window: "slant-right",
                underM: {
                  right: 1.2
                }
              },
              {
                part: "picture",
                slot: "second",
                grow: 1,
                share: 0.5,
                window: "slant-left",
                underM: {
                  left: 1.2
                }
              },
              {
                part: "stack",
                direction: "column",
                field: {
                  ink: "ground",
                  shape: "tab"
                },
                padM: {
                  top: 0.42,
                  right: 0.9,
                  bottom: 0.34,
                  left: 0.6
                },
                align: "stretch",
                safe: [
                  "top",
                  "left"
                ],
                over: {
                  top: 1.1,
                  left: 1.4
                },
                children: [
                  {
                    part: "text",
                    slot: "first",
                    role: "label",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.7,
                      min: 0.6
                    }
                  }
                ]
              },
              {
                part: "stack",
                direction: "column",
                field: {
                  ink: "ground",
                  shape: "tab"
                },
                padM: {
                  top: 0.42,
                  right: 0.9,
                  bottom: 0.34,
                  left: 0.6
                },
                align: "stretch",
                safe: [
                  "right"
                ],
                over: {
                  bottom: 0.8,
                  right: 1.4
                },
                children: [
                  {
                    part: "text",
                    slot: "then",
                    role: "label",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.7,
                      min: 0.6
                    }
                  }
                ]
              }
            ]
          },
          {
            part: "stack",
            direction: "row",
            gapM: 1.2,
            padM: {
              top: 0.8,
              right: 1.4,
              bottom: 0.9,
              left: 1.4
            },
            safe: [
              "right",
              "bottom",
              "left"
            ],
            align: "centre",
            children: [
              {
                part: "text",
                slot: "headline",
                role: "heading",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 1.15,
                  min: 0.8
                },
                grow: 1,
                share: 0
              },
              {
                part: "mark",
                heightM: 1.9,
                alignSelf: "centre"
              }
            ]
          }
        ]
      }
    }
  ]
};

// src/core/template/shipped/voice.json
var voice_default = {
  version: 1,
  key: "voice",
  name: "Voice",
  purpose: "Somebody else\u2019s words",
  kind: "graphic",
  scheme: "light",
  slots: [
    {
      key: "photo",
      kind: "picture",
      label: "Portrait",
      hint: "A face, looking at us",
      required: true
    },
    {
      key: "headline",
      kind: "text",
      label: "Words",
      hint: "What they said, as they said it",
      required: true,
      softLimit: 140,
      sample: "I came for an afternoon and left with something that flies."
    },
    {
      key: "name",
      kind: "text",
      label: "Name",
      hint: "Who said it",
      required: true,
      softLimit: 30,
      sample: "Somebody kind"
    },
    {
      key: "line",
      kind: "text",
      label: "Role",
      hint: "Where they come from, what they do",
      required: false,
      softLimit: 50,
      sample: "was here on Saturday"
    }
  ],
  drop: [
    "line"
  ],
  arrangements: [
    {
      key: "talk",
      name: "Talk",
      aspect: {
        from: 0,
        to: 0.7
      },
      root: {
        part: "stack",
        direction: "column",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "stack",
            direction: "column",
            grow: 1,
            justify: "centre",
            gapM: 0.9,
            padM: {
              top: 1.4,
              right: 1.4,
              bottom: 4.6,
              left: 1.4
            },
            safe: [
              "top",
              "right",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "ground"
            },
            children: [
              {
                part: "sign",
                text: "\u201C",
                heightM: 2.2,
                ink: "accent",
                alignSelf: "start"
              },
              {
                part: "text",
                slot: "headline",
                role: "heading",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 2.1,
                  min: 0.66
                },
                hanging: true
              }
            ]
          },
          {
            part: "stack",
            direction: "column",
            padM: {
              top: 4.4,
              right: 1.4,
              bottom: 1.4,
              left: 1.4
            },
            safe: [
              "right",
              "bottom",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "surface"
            },
            children: [
              {
                part: "picture",
                slot: "photo",
                window: "circle",
                sideM: 7,
                over: {
                  top: -3.5,
                  left: 1.4
                }
              },
              {
                part: "stack",
                direction: "row",
                gapM: 1,
                align: "end",
                children: [
                  {
                    part: "stack",
                    direction: "column",
                    gapM: 0.5,
                    grow: 1,
                    share: 0,
                    align: "stretch",
                    children: [
                      {
                        part: "text",
                        slot: "name",
                        role: "heading",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 1,
                          min: 0.6
                        }
                      },
                      {
                        part: "text",
                        slot: "line",
                        role: "text",
                        align: "start",
                        ink: "ink",
                        sizeM: {
                          max: 0.62,
                          min: 0.5
                        }
                      }
                    ]
                  },
                  {
                    part: "mark",
                    heightM: 2.1,
                    alignSelf: "end"
                  }
                ]
              }
            ]
          }
        ]
      }
    },
    {
      key: "letter",
      name: "Letter",
      aspect: {
        from: 0.7,
        to: 1.2
      },
      root: {
        part: "stack",
        direction: "column",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "stack",
            direction: "column",
            grow: 1,
            justify: "centre",
            gapM: 0.7,
            padM: {
              top: 1.2,
              right: 1.3,
              bottom: 3.3,
              left: 1.3
            },
            safe: [
              "top",
              "right",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "ground"
            },
            children: [
              {
                part: "sign",
                text: "\u201C",
                heightM: 1.8,
                ink: "accent",
                alignSelf: "start"
              },
              {
                part: "text",
                slot: "headline",
                role: "heading",
                align: "start",
                ink: "ink",
                sizeM: {
                  max: 1.8,
                  min: 0.6
                },
                hanging: true
              }
            ]
          },
          {
            part: "stack",
            direction: "row",
            gapM: 1,
            padM: {
              top: 0.9,
              right: 1.3,
              bottom: 1.1,
              left: 7.4
            },
            safe: [
              "right",
              "bottom"
            ],
            align: "end",
            field: {
              ink: "surface"
            },
            children: [
              {
                part: "picture",
                slot: "photo",
                window: "circle",
                sideM: 5.2,
                over: {
                  top: -2.6,
                  left: 1.3
                }
              },
              {
                part: "stack",
                direction: "column",
                gapM: 0.45,
                grow: 1,
                share: 0,
                align: "stretch",
                children: [
                  {
                    part: "text",
                    slot: "name",
                    role: "heading",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.9,
                      min: 0.55
                    }
                  },
                  {
                    part: "text",
                    slot: "line",
                    role: "text",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.56,
                      min: 0.5
                    }
                  }
                ]
              },
              {
                part: "mark",
                heightM: 2,
                alignSelf: "end"
              }
            ]
          }
        ]
      }
    },
    {
      key: "table",
      name: "Table",
      aspect: {
        from: 1.2,
        to: 10
      },
      root: {
        part: "stack",
        direction: "row",
        field: {
          ink: "ground"
        },
        children: [
          {
            part: "stack",
            direction: "column",
            share: 0.36,
            justify: "between",
            gapM: 0.6,
            padM: {
              top: 1.4,
              right: 1,
              bottom: 1.4,
              left: 1.4
            },
            safe: [
              "top",
              "bottom",
              "left"
            ],
            align: "stretch",
            field: {
              ink: "surface"
            },
            children: [
              {
                part: "mark",
                heightM: 2.1,
                alignSelf: "start"
              },
              {
                part: "stack",
                direction: "column",
                gapM: 0.6,
                align: "stretch",
                children: [
                  {
                    part: "text",
                    slot: "name",
                    role: "heading",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 1.1,
                      min: 0.72
                    }
                  },
                  {
                    part: "text",
                    slot: "line",
                    role: "text",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 0.9,
                      min: 0.8
                    }
                  }
                ]
              }
            ]
          },
          {
            part: "stack",
            direction: "column",
            grow: 1,
            share: 0,
            justify: "centre",
            padM: {
              top: 1.4,
              right: 1.4,
              bottom: 1.4,
              left: 3.9
            },
            safe: [
              "top",
              "right",
              "bottom"
            ],
            align: "stretch",
            field: {
              ink: "ground"
            },
            children: [
              {
                part: "picture",
                slot: "photo",
                window: "circle",
                sideM: 5.4,
                over: {
                  left: -2.7,
                  top: 1.4
                }
              },
              {
                part: "stack",
                direction: "column",
                gapM: 0.8,
                align: "stretch",
                children: [
                  {
                    part: "text",
                    slot: "headline",
                    role: "heading",
                    align: "start",
                    ink: "ink",
                    sizeM: {
                      max: 2.1,
                      min: 0.85
                    },
                    hanging: true
                  }
                ]
              }
            ]
          }
        ]
      }
    }
  ]
};

// src/core/template/shipped-templates.ts
var shippedTemplates = [headland_default, aside_default, voice_default, arch_default, counter_default, bill_default, flag_default, rung_default, ledger_default, tally_default, turn_default, ask_default, door_default, quilt_default, band_default, crew_default, thanks_default, signpost_default, strand_default, shoreline_default, sheaf_default, gust_default, knot_default, hush_default].map(readTemplate);
function getShippedTemplate(key7) {
  const template2 = shippedTemplates.find((each) => each.key === key7);
  if (!template2) throw new RangeError(`There is no template '${key7}'`);
  return template2;
}

// src/core/video/shot-times.ts
var VIDEO_FPS = 30;
var USUAL_CLIP_MS = 4e3;
var LEAST_CARD_MS = 2500;
var READING_MS_A_CHARACTER = 60;
var READING_BASE_MS = 1500;
function clipOf(frame, films2) {
  for (const value of Object.values(frame.slots)) {
    const film = value.kind === "picture" ? films2.get(value.mediaId) : void 0;
    if (value.kind === "picture" && film?.kind === "clip") return { mediaId: value.mediaId, film };
  }
  return null;
}
function readingMs(frame) {
  const characters = Object.keys(frame.slots).reduce((sum, slot) => sum + [...slotText(frame, slot).trim()].length, 0);
  return characters === 0 ? 0 : READING_BASE_MS + characters * READING_MS_A_CHARACTER;
}
function shotLengthMs(frame, films2) {
  const clip3 = clipOf(frame, films2);
  const wanted = frame.shot?.lengthMs ?? Math.max(clip3 ? Math.min(USUAL_CLIP_MS, clip3.film.durationMs) : LEAST_CARD_MS, readingMs(frame));
  const most = clip3 ? clip3.film.durationMs - startInClipMs(frame, clip3.film) : MOST_SHOT_MS;
  return Math.max(LEAST_SHOT_MS, Math.min(wanted, most, MOST_SHOT_MS));
}
function startInClipMs(frame, film) {
  return Math.max(0, Math.min(frame.shot?.fromMs ?? 0, film.durationMs - LEAST_SHOT_MS));
}

// src/core/video/timeline.ts
var toFrames = (ms) => Math.round(ms * VIDEO_FPS / 1e3);
var toMs = (frames2) => frames2 * 1e3 / VIDEO_FPS;
function timelineOf(frames2, films2) {
  const shots = [];
  let end = 0;
  for (const frame of frames2) {
    const before = shots.at(-1);
    const clip3 = clipOf(frame, films2);
    const lengthFrames = toFrames(shotLengthMs(frame, films2));
    const room = before ? Math.floor(Math.min(before.lengthFrames - before.into.frames, lengthFrames) / 2) : 0;
    const wanted = frame.shot?.into;
    const overlap = wanted && wanted.kind !== "cut" ? Math.min(toFrames(wanted.ms), room) : 0;
    const moves = overlap >= toFrames(LEAST_TRANSITION_MS);
    const startFrame = end - (moves ? overlap : 0);
    shots.push({
      frame,
      startFrame,
      lengthFrames,
      into: moves && wanted ? { kind: wanted.kind, frames: overlap } : { kind: "cut", frames: 0 },
      clip: clip3 && { mediaId: clip3.mediaId, fromFrame: toFrames(startInClipMs(frame, clip3.film)), volume: frame.shot?.volume ?? 1, hasSound: clip3.film.hasSound }
    });
    end = startFrame + lengthFrames;
  }
  return { shots, lengthFrames: end };
}

// src/server/film/import-film.ts
import { createHash } from "node:crypto";
import { createReadStream } from "node:fs";
import { mkdir, rename, rm, stat } from "node:fs/promises";
import { dirname } from "node:path";

// src/server/errors.ts
var ProblemError = class extends Error {
  constructor(status, code, sentence, details = {}) {
    super(sentence);
    this.status = status;
    this.code = code;
    this.sentence = sentence;
    this.details = details;
  }
  status;
  code;
  sentence;
  details;
  name = "ProblemError";
};

// src/server/media/import-picture.ts
import { fileTypeFromFile } from "file-type";
import sharp from "sharp";

// src/contract/media-contracts.ts
import { array as array8, boolean as boolean6, number as number10, object as object11, string as string10 } from "yup";

// src/contract/brand-params.ts
import { number as number9, object as object9, string as string9 } from "yup";
var brandParams = object9({ brand: string9().matches(/^[a-z][a-z0-9-]*$/).max(60).required() });
var pageQuery = object9({ before: string9().max(80), limit: number9().integer().min(1).max(100) });

// src/contract/contract.ts
import { mixed, object as object10 } from "yup";
var nothing = object10({}).noUnknown();
var anything = mixed();
var filed = { picture: "image/*", font: "font/*", archive: "application/zip", text: "text/plain", events: "text/event-stream" };
function contract(input) {
  const { body, answer } = input;
  return {
    method: input.method,
    path: input.path,
    summary: input.summary,
    params: input.params ?? nothing,
    query: input.query ?? nothing,
    bodyKind: body === void 0 ? "none" : body === "bytes" ? "bytes" : "json",
    body: body === void 0 || body === "bytes" ? anything : body,
    answerType: typeof answer === "string" ? filed[answer] : "application/json",
    answer: answer === void 0 || typeof answer === "string" ? anything : answer,
    status: input.status ?? (answer === void 0 ? 204 : 200)
  };
}
function documentOf(description) {
  return mixed((value) => typeof value === "object" && value !== null).required().meta({ description });
}
function documentOrNull(description) {
  return mixed((value) => typeof value === "object" && value !== null).nullable().defined().meta({ description });
}

// src/contract/media-contracts.ts
var MOST_UPLOAD_BYTES = 50 * 1024 * 1024;
var MOST_FILM_BYTES = 500 * 1024 * 1024;
var MOST_PICTURE_PIXELS = 12e7;
var share2 = () => number10().min(0).max(1).required();
var mediaItemSchema = object11({
  id: string10().required(),
  name: string10().required(),
  widthPx: number10().required(),
  heightPx: number10().required(),
  bytes: number10().required(),
  mime: string10().required(),
  altText: string10().defined(),
  credit: string10().defined(),
  licence: string10().defined(),
  licenceUntil: string10().nullable().defined(),
  tags: array8(string10().required()).required(),
  sourceAddress: string10().nullable().defined(),
  archived: boolean6().required(),
  focal: object11({ x: share2(), y: share2() }).required(),
  focalBy: string10().oneOf(["proposal", "person"]).required(),
  facts: documentOf("Luminance and saliency grid"),
  /** A clip or sound: its length, and where it is black, still, silent or changes the scene; null for a picture. */
  film: documentOrNull("What is known of a clip or sound"),
  revision: number10().required(),
  createdMs: number10().required()
});
var mediaParams = brandParams.shape({ media: string10().max(40).required() });
var listMedia = contract({
  method: "GET",
  path: "/api/brands/{brand}/media",
  summary: "Pictures of the brand, newest first; `words` searches names, alt texts, tags and credits",
  params: brandParams,
  query: pageQuery.shape({ words: string10().max(100), tag: string10().max(40), archived: string10().oneOf(["only"]), kind: string10().oneOf(["seen", "sound"]) }),
  answer: object11({ items: array8(mediaItemSchema.required()).required(), next: string10().nullable().defined() })
});
var listMediaTags = contract({
  method: "GET",
  path: "/api/brands/{brand}/media-tags",
  summary: "Tags of the brand\u2019s pictures, the most used first",
  params: brandParams,
  answer: object11({ tags: array8(object11({ tag: string10().required(), count: number10().required() }).required()).required() })
});
var uploadMedia = contract({
  method: "POST",
  path: "/api/brands/{brand}/media",
  summary: "Bring in a picture, a clip or a sound; the body is the file",
  params: brandParams,
  query: object11({ name: string10().max(200).required() }),
  body: "bytes",
  answer: mediaItemSchema,
  status: 201
});
var getMedia = contract({ method: "GET", path: "/api/brands/{brand}/media/{media}", summary: "One picture", params: mediaParams, answer: mediaItemSchema });
var changeMedia = contract({
  method: "PATCH",
  path: "/api/brands/{brand}/media/{media}",
  summary: "Move the focal point (null goes back to the proposal), change what is known of a picture, put it away or take it back",
  params: mediaParams,
  body: object11({
    revision: number10().integer().required(),
    focal: object11({ x: share2(), y: share2() }).noUnknown().nullable().default(void 0).optional(),
    name: string10().trim().min(1, "A picture needs a name").max(200),
    altText: string10().max(1e3, "Alt text holds 1000 characters"),
    credit: string10().max(200),
    licence: string10().max(200),
    licenceUntil: string10().matches(/^\d{4}-\d{2}-\d{2}$/, "A day is written YYYY-MM-DD").nullable(),
    tags: array8(string10().trim().min(1).max(40).required()).max(30),
    archived: boolean6()
  }).noUnknown(),
  answer: mediaItemSchema
});
var deleteMedia = contract({
  method: "DELETE",
  path: "/api/brands/{brand}/media/{media}",
  summary: "Delete a picture that nothing uses; one in use is answered 409 and can be put away instead",
  params: mediaParams
});
var getMediaUses = contract({
  method: "GET",
  path: "/api/brands/{brand}/media/{media}/uses",
  summary: "Pieces that show the picture, and how many posts keep it",
  params: mediaParams,
  answer: object11({
    pieces: array8(object11({ id: string10().required(), name: string10().required() }).required()).required(),
    scheduled: number10().required(),
    sent: number10().required(),
    inBook: boolean6().required()
  })
});
var replaceMediaFile = contract({
  method: "POST",
  path: "/api/brands/{brand}/media/{media}/file",
  summary: "Put another file in the picture\u2019s place; pieces follow, scheduled posts keep what they had. The body is the file",
  params: mediaParams,
  query: object11({ revision: number10().integer().required(), name: string10().max(200).required() }),
  body: "bytes",
  answer: mediaItemSchema
});
var fetchMedia = contract({
  method: "POST",
  path: "/api/brands/{brand}/media/by-address",
  summary: "Bring in the picture at a public web address",
  params: brandParams,
  body: object11({ address: string10().trim().required("Say where the picture is").max(2e3) }).noUnknown(),
  answer: mediaItemSchema,
  status: 201
});
var mediaFromPost = contract({
  method: "POST",
  path: "/api/brands/{brand}/media/from-post",
  summary: "Bring in what a post showed, at full size",
  params: brandParams,
  body: object11({ delivery: string10().max(40).required() }).noUnknown(),
  answer: mediaItemSchema,
  status: 201
});
var libraryPicture = object11({ id: string10().required(), title: string10().required(), credit: string10().required(), licence: string10().required(), widthPx: number10().required(), heightPx: number10().required() });
var searchLibrary = contract({
  method: "GET",
  path: "/api/brands/{brand}/library",
  summary: "Search the picture library",
  params: brandParams,
  query: object11({ words: string10().max(100) }),
  answer: object11({ items: array8(libraryPicture.required()).required() })
});
var getLibraryPreview = contract({
  method: "GET",
  path: "/api/brands/{brand}/library/{picture}/preview",
  summary: "A small picture from the library",
  params: brandParams.shape({ picture: string10().matches(/^[a-z0-9-]{1,60}$/).required() }),
  answer: "picture"
});
var takeFromLibrary = contract({
  method: "POST",
  path: "/api/brands/{brand}/library/{picture}",
  summary: "Bring in a picture from the library, with its credit and licence",
  params: brandParams.shape({ picture: string10().matches(/^[a-z0-9-]{1,60}$/).required() }),
  answer: mediaItemSchema,
  status: 201
});
var uploadParams = brandParams.shape({ upload: string10().max(40).required() });
var uploadState = object11({ id: string10().required(), received: number10().required(), item: mediaItemSchema.nullable().defined() });
var startUpload = contract({
  method: "POST",
  path: "/api/brands/{brand}/uploads",
  summary: "Announce a file that comes in parts, so that it can go on after a break",
  params: brandParams,
  body: object11({ name: string10().trim().required().max(200), bytes: number10().integer().min(1, "The file is empty.").max(MOST_FILM_BYTES, `The file is larger than ${MOST_FILM_BYTES / 1024 / 1024} MB. Export it smaller and bring it in again.`).required() }).noUnknown(),
  answer: uploadState,
  status: 201
});
var getUpload = contract({ method: "GET", path: "/api/brands/{brand}/uploads/{upload}", summary: "How much of a file has come in", params: uploadParams, answer: uploadState });
var sendUploadPart = contract({
  method: "POST",
  path: "/api/brands/{brand}/uploads/{upload}",
  summary: "The bytes of a file from `at` on; with the last ones the picture is made and answered",
  params: uploadParams,
  query: object11({ at: number10().integer().min(0).required() }),
  body: "bytes",
  answer: uploadState
});
var dropUpload = contract({ method: "DELETE", path: "/api/brands/{brand}/uploads/{upload}", summary: "Give up a file that is coming in", params: uploadParams });
var getMediaFile = contract({
  method: "GET",
  path: "/api/brands/{brand}/media/{media}/file",
  summary: "The picture as WebP, no wider or higher than one of the offered sizes",
  params: mediaParams,
  query: object11({ fit: number10().oneOf([240, 640, 1280, 2048]).required(), of: number10().integer() }),
  answer: "picture"
});
var getMediaFilm = contract({
  method: "GET",
  path: "/api/brands/{brand}/media/{media}/film",
  summary: "A clip (MP4, H.264 and AAC, 30 frames a second, small enough to scrub in) or sound to play; answers byte ranges",
  params: mediaParams,
  query: object11({ of: number10().integer() }),
  answer: "picture"
});

// src/core/crop/picture-facts.ts
import { converter } from "culori";

// src/core/colour/contrast.ts
function relativeLuminance(hex2) {
  const match = /^#([0-9a-f]{2})([0-9a-f]{2})([0-9a-f]{2})$/i.exec(hex2);
  if (!match) throw new RangeError(`Colour '${hex2}': expected #rrggbb`);
  const [red, green, blue] = match.slice(1).map((part) => srgbToLinear(parseInt(part, 16) / 255));
  return luminanceOfLinear(red, green, blue);
}
function srgbToLinear(channel) {
  return channel <= 0.04045 ? channel / 12.92 : ((channel + 0.055) / 1.055) ** 2.4;
}
function luminanceOfLinear(red, green, blue) {
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue;
}
function contrastOfLuminances(a, b) {
  return (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);
}
var LEAST_TEXT_CONTRAST = 4.5;
var LEAST_LARGE_CONTRAST = 3;

// src/core/crop/picture-facts.ts
var FACTS_RASTER_PX = 160;
var GRID_CELLS = 32;
var CORNER_KEEPS = 0.45;
var BLUR_KEEPS = 0.25;
var SHARPNESS_REACH_PX = 5;
var SUBJECT_REACH = 0.2;
var SETTLING_STEPS = 12;
var DIFFUSE_SHARE = 0.24;
var CLEAR_SHARE = 0.42;
var toOklab = converter("oklab");
function takePictureFacts(raster) {
  const lab = oklabPlanes(raster);
  const saliency = saliencyOf(raster, lab);
  const luminance = luminanceOf(raster);
  const scale = GRID_CELLS / Math.max(raster.widthPx, raster.heightPx);
  const columns = Math.max(1, Math.round(raster.widthPx * scale));
  const rows = Math.max(1, Math.round(raster.heightPx * scale));
  const cells = (values, reduce) => gridCells(raster, columns, rows).map((cell) => Math.round(255 * Math.min(1, Math.max(0, reduce(cell.map((index) => values[index] ?? 0))))));
  return {
    columns,
    rows,
    leastLuminance: cells(luminance, (cell) => Math.min(...cell)),
    meanLuminance: cells(luminance, mean),
    mostLuminance: cells(luminance, (cell) => Math.max(...cell)),
    saliency: cells(saliency, mean),
    focal: settleOnSubject(raster, saliency),
    clearShare: clearShareOf(raster)
  };
}
function clearShareOf({ widthPx, heightPx, rgba }) {
  const count = widthPx * heightPx;
  let clear = 0;
  for (let index = 0; index < count; index += 1) if ((rgba[index * 4 + 3] ?? 255) < 128) clear += 1;
  return clear / Math.max(1, count);
}
function mean(values) {
  return values.reduce((sum, value) => sum + value, 0) / Math.max(1, values.length);
}
function gridCells({ widthPx, heightPx }, columns, rows) {
  const cells = Array.from({ length: columns * rows }, () => []);
  for (let y = 0; y < heightPx; y += 1) {
    const row = Math.min(rows - 1, Math.floor(y * rows / heightPx));
    for (let x = 0; x < widthPx; x += 1) {
      cells[row * columns + Math.min(columns - 1, Math.floor(x * columns / widthPx))]?.push(y * widthPx + x);
    }
  }
  return cells;
}
function oklabPlanes({ widthPx, heightPx, rgba }) {
  const count = widthPx * heightPx;
  const planes = { l: new Float64Array(count), a: new Float64Array(count), b: new Float64Array(count) };
  for (let index = 0; index < count; index += 1) {
    const alpha = (rgba[index * 4 + 3] ?? 255) / 255;
    const channel = (offset) => (rgba[index * 4 + offset] ?? 0) / 255 * alpha + 0.5 * (1 - alpha);
    const colour = toOklab({ mode: "rgb", r: channel(0), g: channel(1), b: channel(2) });
    planes.l[index] = colour.l;
    planes.a[index] = colour.a;
    planes.b[index] = colour.b;
  }
  return planes;
}
function luminanceOf({ widthPx, heightPx, rgba }) {
  const luminance = new Float64Array(widthPx * heightPx);
  for (let index = 0; index < luminance.length; index += 1) {
    const linear = (offset) => srgbToLinear((rgba[index * 4 + offset] ?? 0) / 255);
    luminance[index] = luminanceOfLinear(linear(0), linear(1), linear(2));
  }
  return luminance;
}
function saliencyOf(raster, lab) {
  const { widthPx, heightPx } = raster;
  const longSide = Math.max(widthPx, heightPx);
  const whole = (plane) => plane.reduce((sum, value) => sum + value, 0) / plane.length;
  const means = { l: whole(lab.l), a: whole(lab.a), b: whole(lab.b) };
  const blurs = [lab.l, lab.a, lab.b].map((plane) => boxMeans(plane, widthPx, heightPx));
  const [l, a, b] = blurs;
  const near = Math.max(1, Math.round(longSide * 0.012));
  const wide = Math.round(longSide * 0.16);
  const cutOut = hasTransparency(raster);
  const sharpness = sharpnessOf(raster, lab.l);
  const saliency = new Float64Array(widthPx * heightPx);
  let most = 1e-9;
  for (let y = 0; y < heightPx; y += 1) {
    for (let x = 0; x < widthPx; x += 1) {
      const here = [l(x, y, near), a(x, y, near), b(x, y, near)];
      const around = [l(x, y, wide), a(x, y, wide), b(x, y, wide)];
      const toWhole = labDistance(here[0] - means.l, here[1] - means.a, here[2] - means.b);
      const toAround = labDistance(here[0] - around[0], here[1] - around[1], here[2] - around[2]);
      const offCentre = Math.hypot(x / widthPx - 0.5, y / heightPx - 0.5) / Math.SQRT1_2;
      const index = y * widthPx + x;
      const seen = (raster.rgba[index * 4 + 3] ?? 255) / 255 * (BLUR_KEEPS + (1 - BLUR_KEEPS) * (sharpness[index] ?? 0));
      const value = (cutOut ? 1 : toWhole * toAround) * seen * (1 - (1 - CORNER_KEEPS) * offCentre ** 2);
      saliency[index] = value;
      most = Math.max(most, value);
    }
  }
  return saliency.map((value) => Math.sqrt(value / most));
}
function hasTransparency({ rgba }) {
  let clear = 0;
  for (let index = 3; index < rgba.length; index += 4) if ((rgba[index] ?? 255) < 128) clear += 1;
  return clear > rgba.length / 4 / 50;
}
function sharpnessOf({ widthPx, heightPx }, lightness) {
  const smooth = boxMeans(lightness, widthPx, heightPx);
  const detail = lightness.map((value, index) => Math.abs(value - smooth(index % widthPx, Math.floor(index / widthPx), 1)));
  const gathered = boxMeans(detail, widthPx, heightPx);
  const local = detail.map((_, index) => gathered(index % widthPx, Math.floor(index / widthPx), SHARPNESS_REACH_PX));
  const sharpest = [...local].sort((a, b) => b - a)[Math.floor(local.length * 0.05)] ?? 0;
  return local.map((value) => Math.min(1, value / Math.max(sharpest, 1e-6)));
}
function labDistance(l, a, b) {
  return Math.hypot(l * 0.6, a * 2.2, b * 2.2);
}
function boxMeans(plane, widthPx, heightPx) {
  const stride = widthPx + 1;
  const sums = new Float64Array(stride * (heightPx + 1));
  for (let y = 0; y < heightPx; y += 1) {
    let row = 0;
    for (let x = 0; x < widthPx; x += 1) {
      row += plane[y * widthPx + x] ?? 0;
      sums[(y + 1) * stride + x + 1] = (sums[y * stride + x + 1] ?? 0) + row;
    }
  }
  return (x, y, reach) => {
    const [x0, x1] = [Math.max(0, x - reach), Math.min(widthPx, x + reach + 1)];
    const [y0, y1] = [Math.max(0, y - reach), Math.min(heightPx, y + reach + 1)];
    const at = (column, line) => sums[line * stride + column] ?? 0;
    return (at(x1, y1) - at(x0, y1) - at(x1, y0) + at(x0, y0)) / ((x1 - x0) * (y1 - y0));
  };
}
function settleOnSubject({ widthPx, heightPx }, saliency) {
  const reach = Math.round(Math.max(widthPx, heightPx) * SUBJECT_REACH);
  const strength = saliency.map((value) => value ** 2);
  const window = boxMeans(strength, widthPx, heightPx);
  let [x, y, most] = [widthPx / 2, heightPx / 2, -1];
  for (let row = 0; row < heightPx; row += 4) {
    for (let column = 0; column < widthPx; column += 4) {
      const held2 = window(column, row, Math.round(reach / 2));
      if (held2 > most) [x, y, most] = [column, row, held2];
    }
  }
  for (let step = 0; step < SETTLING_STEPS; step += 1) {
    let [sum, sumX, sumY] = [1e-12, 0, 0];
    for (let row = Math.max(0, Math.floor(y - reach)); row < Math.min(heightPx, y + reach); row += 1) {
      for (let column = Math.max(0, Math.floor(x - reach)); column < Math.min(widthPx, x + reach); column += 1) {
        const weight = (strength[row * widthPx + column] ?? 0) * Math.max(0, 1 - Math.hypot(column - x, row - y) / reach);
        sum += weight;
        sumX += weight * column;
        sumY += weight * row;
      }
    }
    if (sum < 1e-9) break;
    [x, y] = [sumX / sum, sumY / sum];
  }
  const held = concentration({ x, y }, reach, strength, widthPx);
  const trust = Math.min(1, Math.max(0, (held - DIFFUSE_SHARE) / (CLEAR_SHARE - DIFFUSE_SHARE)));
  const middle = centroid(saliency, widthPx);
  return { x: round3((middle.x + (x - middle.x) * trust + 0.5) / widthPx), y: round3((middle.y + (y - middle.y) * trust + 0.5) / heightPx) };
}
function concentration(point, reach, strength, widthPx) {
  let [inside, all] = [0, 1e-12];
  strength.forEach((value, index) => {
    all += value;
    if (Math.hypot(index % widthPx - point.x, Math.floor(index / widthPx) - point.y) <= reach) inside += value;
  });
  return inside / all;
}
function centroid(weights, widthPx) {
  let [sum, x, y] = [1e-12, 0, 0];
  weights.forEach((value, index) => {
    sum += value;
    x += value * (index % widthPx);
    y += value * Math.floor(index / widthPx);
  });
  return { x: x / sum, y: y / sum };
}
function round3(value) {
  return Math.round(Math.min(1, Math.max(0, value)) * 1e3) / 1e3;
}

// src/server/media/import-picture.ts
var kinds = {
  "image/jpeg": (image) => image.jpeg({ quality: 95, chromaSubsampling: "4:4:4" }),
  "image/png": (image) => image.png({ compressionLevel: 6 }),
  "image/webp": (image) => image.webp({ quality: 95 })
};
var LEAST_SIDE_PX = 16;
async function importPicture(path, name) {
  const type = await fileTypeFromFile(path);
  const encode2 = type ? kinds[type.mime] : void 0;
  if (!type || !encode2) {
    const found = type ? `it is ${type.mime}` : "its bytes are of no kind known here";
    throw new ProblemError(415, "not-a-picture", `\u201C${name}\u201D is not a JPEG, PNG or WebP picture, a clip or a sound: ${found}.`);
  }
  await checkSize(path, name);
  try {
    const { data, info } = await encode2(open(path).rotate().toColourspace("srgb")).toBuffer({ resolveWithObject: true });
    return { bytes: data, mime: type.mime, widthPx: info.width, heightPx: info.height, facts: await factsOf(data) };
  } catch (error) {
    throw new ProblemError(422, "damaged-picture", `\u201C${name}\u201D is damaged or cut off and cannot be read to its end. Get a whole copy and bring it in again.`, { reason: reasonOf(error) });
  }
}
async function checkSize(path, name) {
  const { width, height } = await sharp(path, { limitInputPixels: false }).metadata().catch((error) => {
    throw new ProblemError(422, "damaged-picture", `\u201C${name}\u201D is damaged: not even its size can be read.`, { reason: reasonOf(error) });
  });
  if (width * height > MOST_PICTURE_PIXELS) {
    const megapixels = (pixels) => `${Math.round(pixels / 1e6)} megapixels`;
    throw new ProblemError(422, "too-many-pixels", `\u201C${name}\u201D is ${width} \xD7 ${height}, ${megapixels(width * height)}. The most that can be used is ${megapixels(MOST_PICTURE_PIXELS)}: make it smaller first.`);
  }
  if (Math.min(width, height) < LEAST_SIDE_PX) {
    throw new ProblemError(422, "too-small", `\u201C${name}\u201D is only ${width} \xD7 ${height} pixels. No placement can use that.`);
  }
}
async function factsOf(bytes) {
  const { data, info } = await sharp(bytes).resize(FACTS_RASTER_PX, FACTS_RASTER_PX, { fit: "inside" }).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return takePictureFacts({ widthPx: info.width, heightPx: info.height, rgba: data });
}
function open(path) {
  return sharp(path, { failOn: "truncated", limitInputPixels: MOST_PICTURE_PIXELS });
}
function reasonOf(error) {
  return error instanceof Error ? error.message.replaceAll(/\/\S+/g, "\u2026") : String(error);
}

// src/server/film/run-ffmpeg.ts
import { spawn } from "node:child_process";
var FfmpegError = class extends Error {
  constructor(program, messages, exitCode) {
    super(`${program} ended with ${exitCode ?? "a signal"}: ${messages.slice(-400)}`);
    this.program = program;
    this.messages = messages;
    this.exitCode = exitCode;
  }
  program;
  messages;
  exitCode;
  name = "FfmpegError";
};
var MOST_MESSAGES = 6e4;
var MOST_STDOUT_BYTES = 64 * 1024 * 1024;
var FILES_ONLY = ["-protocol_whitelist", "file,pipe"];
var inputFile = (path, ...options) => [...options, ...FILES_ONLY, "-i", path];
function runFfmpeg(args, options) {
  const progress = options.onProgress ? ["-progress", "pipe:2", "-stats_period", "0.25"] : [];
  return run("ffmpeg", ["-hide_banner", "-nostdin", "-nostats", "-y", ...progress, ...args], options);
}
async function runFfprobe(args, options) {
  const { stdout } = await run("ffprobe", ["-hide_banner", "-loglevel", "error", "-of", "json", ...args], options);
  return JSON.parse(stdout.toString("utf8"));
}
function run(program, args, { signal, mostMs, onProgress }) {
  return new Promise((resolve, reject) => {
    const child = spawn(program, [...args], { stdio: ["ignore", "pipe", "pipe"] });
    const chunks = [];
    let bytes = 0;
    let messages = "";
    const stop = () => void child.kill("SIGKILL");
    const timer = setTimeout(stop, mostMs);
    signal?.addEventListener("abort", stop, { once: true });
    child.stdout.on("data", (chunk) => {
      bytes += chunk.length;
      if (bytes > MOST_STDOUT_BYTES) return stop();
      chunks.push(chunk);
    });
    child.stderr.on("data", (chunk) => {
      const text = chunk.toString("utf8");
      messages = (messages + text).slice(-MOST_MESSAGES);
      if (!onProgress) return;
      const reached = /out_time_us=(\d+)/g;
      for (const found of text.matchAll(reached)) onProgress(Number(found[1]) / 1e3);
    });
    const end = () => {
      clearTimeout(timer);
      signal?.removeEventListener("abort", stop);
    };
    child.once("error", (error) => {
      end();
      reject(error);
    });
    child.once("close", (code) => {
      end();
      const said = messages.replaceAll(/\/[^\s:']+/g, "\u2026");
      if (code === 0) resolve({ stdout: Buffer.concat(chunks), messages: said });
      else reject(new FfmpegError(program, said, code));
    });
    if (signal?.aborted) stop();
  });
}

// src/server/film/analyse-film.ts
var LOOK_WIDTH_PX = 320;
var SCENE_THRESHOLD = 12;
var SILENCE = "noise=-38dB:duration=0.25";
var MOST_MS = 10 * 60 * 1e3;
async function analyseFilm(path, { hasPictures, hasSound, durationMs }) {
  const pictures2 = hasPictures ? ["-map", "0:v:0", "-vf", `scale=${LOOK_WIDTH_PX}:-2,scdet=threshold=${SCENE_THRESHOLD},blackdetect=d=0.2:pix_th=0.08,freezedetect=n=-60dB:d=0.8`] : [];
  const sound = hasSound ? ["-map", "0:a:0", "-af", `silencedetect=${SILENCE}`] : [];
  const { messages } = await runFfmpeg([...inputFile(path), ...pictures2, ...sound, "-f", "null", "-"], { mostMs: MOST_MS });
  return readFindings(messages, durationMs);
}
function readFindings(messages, durationMs) {
  const toMs2 = (seconds2) => Math.max(0, Math.min(durationMs, Math.round(Number(seconds2) * 1e3)));
  const spans = (start, end) => {
    const ends = [...messages.matchAll(end)].map((found) => toMs2(found[1]));
    return [...messages.matchAll(start)].map((found, index) => ({ fromMs: toMs2(found[1]), toMs: ends[index] ?? durationMs }));
  };
  return {
    sceneChangesMs: [...messages.matchAll(/lavfi\.scd\.time: ([\d.]+)/g)].map((found) => toMs2(found[1])),
    black: spans(/black_start:([\d.]+)/g, /black_end:([\d.]+)/g),
    silent: spans(/silence_start: (-?[\d.]+)/g, /silence_end: ([\d.]+)/g),
    frozen: spans(/freeze_start: ([\d.]+)/g, /freeze_end: ([\d.]+)/g)
  };
}

// src/server/film/probe-film.ts
import { array as array9, number as number11, object as object12, string as string11 } from "yup";
var FILM_FPS = 30;
var WORK_SIDE_PX = 2560;
var MOST_FILM_MS = 30 * 60 * 1e3;
var MOST_FILM_SIDE_PX = 4096;
var LEAST_FILM_MS = 100;
var LEAST_SIDE_PX2 = 64;
var PROBE_MS = 2e4;
var probeSchema = object12({
  format: object12({ duration: string11() }).required(),
  streams: array9(
    object12({
      codec_type: string11().required(),
      codec_name: string11(),
      pix_fmt: string11(),
      color_space: string11(),
      r_frame_rate: string11(),
      avg_frame_rate: string11(),
      channels: number11(),
      width: number11(),
      height: number11(),
      color_transfer: string11(),
      disposition: object12({ attached_pic: number11() }),
      side_data_list: array9(object12({ rotation: number11() })),
      tags: object12({ rotate: string11() })
    }).required()
  ).required()
});
var HDR_TRANSFERS = /* @__PURE__ */ new Set(["smpte2084", "arib-std-b67"]);
async function probeFilm(path, name) {
  const { format, streams } = await read(path, name);
  const video = streams.find((stream) => stream.codec_type === "video" && stream.disposition?.attached_pic !== 1);
  const sound = streams.find((stream) => stream.codec_type === "audio");
  const hasSound = sound !== void 0;
  const isSoundReady = sound?.codec_name === "aac" && sound.channels === 2;
  if (!video && !hasSound) throw new ProblemError(422, "empty-film", `\u201C${name}\u201D holds neither pictures nor sound.`);
  const durationMs = Math.round(Number(format.duration ?? 0) * 1e3);
  if (!(durationMs >= LEAST_FILM_MS)) throw new ProblemError(422, "empty-film", `\u201C${name}\u201D has no length: there is not a single picture or sound in it.`);
  if (durationMs > MOST_FILM_MS) throw new ProblemError(422, "too-long", `\u201C${name}\u201D is ${lengthInWords(durationMs)} long; the most is ${lengthInWords(MOST_FILM_MS)}. Cut out the part that is needed and bring that in.`);
  if (!video) return { durationMs, video: null, hasSound, isSoundReady };
  const rotation = Number(video.side_data_list?.find((each) => each.rotation !== void 0)?.rotation ?? video.tags?.rotate ?? 0);
  const turned = Math.abs(rotation) % 180 === 90;
  const [width, height] = [video.width ?? 0, video.height ?? 0];
  if (Math.max(width, height) > MOST_FILM_SIDE_PX) throw new ProblemError(422, "too-many-pixels", `\u201C${name}\u201D is ${width} \xD7 ${height}; the most is ${MOST_FILM_SIDE_PX} pixels on a side. Export it smaller and bring it in again.`);
  if (Math.min(width, height) < LEAST_SIDE_PX2) throw new ProblemError(422, "too-small", `\u201C${name}\u201D is only ${width} \xD7 ${height} pixels. No placement can use that.`);
  const rate = `${FILM_FPS}/1`;
  const isReady = video.codec_name === "h264" && video.pix_fmt === "yuv420p" && video.color_space === "bt709" && video.r_frame_rate === rate && video.avg_frame_rate === rate && rotation === 0 && Math.max(width, height) <= WORK_SIDE_PX && width % 2 === 0 && height % 2 === 0;
  return { durationMs, video: { widthPx: turned ? height : width, heightPx: turned ? width : height, isHdr: HDR_TRANSFERS.has(video.color_transfer ?? ""), isReady }, hasSound, isSoundReady };
}
async function read(path, name) {
  try {
    return probeSchema.validateSync(await runFfprobe(["-protocol_whitelist", "file", "-show_format", "-show_streams", path], { mostMs: PROBE_MS }));
  } catch (error) {
    if (!(error instanceof FfmpegError)) throw error;
    throw damagedFilm(name, error);
  }
}
function damagedFilm(name, error) {
  return new ProblemError(422, "damaged-film", `\u201C${name}\u201D is damaged or cut off and cannot be read to its end. Get a whole copy and bring it in again.`, { reason: error.messages.slice(-300) });
}
function lengthInWords(ms) {
  const minutes = Math.round(ms / 6e4);
  return minutes < 120 ? `${minutes} minutes` : `${Math.round(minutes / 60)} hours`;
}

// src/server/film/import-film.ts
var MOST_SHARE_MISSING = 0.1;
var MOST_MISSING_MS = 250;
var MOST_MS_A_MS = 20;
var LEAST_LIMIT_MS = 12e4;
var WAVE = { size: "1200x400", colour: "0x5b3fd6" };
async function importFilm(path, name, store2) {
  const probe = await probeFilm(path, name);
  const work = `${await store2.temporaryPath()}.mp4`;
  const still = `${work}.${probe.video ? "jpg" : "png"}`;
  try {
    await makeWorkingCopy(path, work, name, probe);
    await makeStill(work, still, probe);
    const { durationMs, hasSound, video } = probe;
    const facts = await analyseFilm(work, { hasPictures: video !== null, hasSound, durationMs });
    const picture = await importPicture(still, name);
    const { size } = await stat(work);
    return { film: { kind: video ? "clip" : "sound", durationMs, hasSound, facts }, storedHash: await keepFile(store2, work), bytes: size, mime: video ? "video/mp4" : "audio/mp4", still: picture };
  } finally {
    await Promise.all([work, still].map((each) => rm(each, { force: true })));
  }
}
async function makeWorkingCopy(path, work, name, { durationMs, video, hasSound, isSoundReady }) {
  const toneMap = video?.isHdr ? "zscale=t=linear:npl=100,format=gbrpf32le,zscale=p=bt709,tonemap=hable:desat=0,zscale=t=bt709:m=bt709:r=tv," : "";
  const fit2 = `scale=w='min(${WORK_SIDE_PX},iw)':h='min(${WORK_SIDE_PX},ih)':force_original_aspect_ratio=decrease:force_divisible_by=2:out_color_matrix=bt709:out_range=tv`;
  const pictures2 = !video ? ["-vn"] : video.isReady ? ["-map", "0:V:0", "-c:v", "copy"] : ["-map", "0:V:0", "-vf", `${toneMap}fps=${FILM_FPS},${fit2},setsar=1,format=yuv420p`, "-c:v", "libx264", "-preset", "veryfast", "-crf", "16", "-profile:v", "high", "-colorspace", "bt709", "-color_primaries", "bt709", "-color_trc", "bt709"];
  const sound = !hasSound ? [] : ["-map", "0:a:0", ...isSoundReady ? ["-c:a", "copy"] : ["-c:a", "aac", "-b:a", "192k", "-ar", "48000", "-ac", "2"]];
  let reachedMs = 0;
  try {
    await runFfmpeg([...inputFile(path), ...pictures2, ...sound, "-map_metadata", "-1", "-movflags", "+faststart", work], {
      mostMs: Math.max(LEAST_LIMIT_MS, durationMs * MOST_MS_A_MS),
      onProgress: (ms) => reachedMs = Math.max(reachedMs, ms)
    });
  } catch (error) {
    throw error instanceof FfmpegError ? damagedFilm(name, error) : error;
  }
  if (durationMs - reachedMs > Math.max(durationMs * MOST_SHARE_MISSING, MOST_MISSING_MS)) {
    throw new ProblemError(422, "damaged-film", `\u201C${name}\u201D breaks off after ${(reachedMs / 1e3).toFixed(1)} of ${(durationMs / 1e3).toFixed(1)} seconds. Get a whole copy and bring it in again.`);
  }
}
async function makeStill(work, still, { durationMs, video }) {
  const args = video ? [...inputFile(work, "-ss", String(durationMs / 3e3)), "-vf", `thumbnail=n=${FILM_FPS}`, "-frames:v", "1", "-q:v", "2", still] : [...inputFile(work), "-filter_complex", `aformat=channel_layouts=mono,showwavespic=s=${WAVE.size}:colors=${WAVE.colour}`, "-frames:v", "1", still];
  await runFfmpeg(args, { mostMs: LEAST_LIMIT_MS });
}
async function keepFile(store2, path) {
  const hash = createHash("sha256");
  for await (const chunk of createReadStream(path)) hash.update(chunk);
  const name = hash.digest("hex");
  const kept2 = store2.pathOf(name);
  await mkdir(dirname(kept2), { recursive: true });
  await rename(path, kept2);
  return name;
}

// src/server/media/media-store.ts
import { createHash as createHash2 } from "node:crypto";
import { mkdir as mkdir2, rename as rename2, writeFile } from "node:fs/promises";
import { dirname as dirname2, join } from "node:path";
import { nanoid } from "nanoid";
var MediaStore = class {
  constructor(dataFolder) {
    this.dataFolder = dataFolder;
  }
  dataFolder;
  /** Where the file of a hash lies. Spread over 256 folders. */
  pathOf(hash) {
    return join(this.dataFolder, "media", hash.slice(0, 2), hash);
  }
  /** Where a derivative lies; `name` says which, e.g. `640.webp`. */
  derivedPathOf(hash, name) {
    return join(this.dataFolder, "derived", hash.slice(0, 2), `${hash}-${name}`);
  }
  /** A name for a file in the making; the folder exists. */
  async temporaryPath() {
    const folder = join(this.dataFolder, "incoming");
    await mkdir2(folder, { recursive: true });
    return join(folder, nanoid());
  }
  /** Keeps bytes under their hash, whole or not at all, and answers the hash. */
  async keep(bytes) {
    const hash = createHash2("sha256").update(bytes).digest("hex");
    await writeWhole(this.pathOf(hash), bytes, await this.temporaryPath());
    return hash;
  }
  async keepDerived(hash, name, bytes) {
    const path = this.derivedPathOf(hash, name);
    await writeWhole(path, bytes, await this.temporaryPath());
    return path;
  }
};
async function writeWhole(path, bytes, temporaryPath) {
  await mkdir2(dirname2(path), { recursive: true });
  await writeFile(temporaryPath, bytes);
  await rename2(temporaryPath, path);
}

// src/server/film/render-film.ts
import { mkdir as mkdir3, rm as rm2, stat as stat2 } from "node:fs/promises";

// src/server/render/render-cut.ts
import sharp6 from "sharp";

// src/core/compose/compose-run.ts
import { LRUCache as LRUCache2 } from "lru-cache";

// src/core/compose/arrange.ts
function arrange(template2, size, chosen) {
  const wanted = template2.arrangements.find((each) => each.key === chosen);
  if (wanted) return wanted;
  const aspect = size.widthPx / size.heightPx;
  const distance = ({ aspect: { from, to } }) => aspect >= from && aspect < to ? 0 : Math.min(Math.abs(Math.log(aspect / Math.max(from, 1e-6))), Math.abs(Math.log(aspect / to))) + 1e-9;
  return template2.arrangements.reduce((best, each) => distance(each) < distance(best) ? each : best);
}

// src/core/brand/facts.ts
var FILL_IN = /\{([a-z][a-z0-9-]*)\}/g;
function fillFacts(text, facts) {
  const missing = [];
  const filled = text.replace(FILL_IN, (_, key7) => {
    const fact = facts.find((each) => each.key === key7);
    if (fact && fact.text.trim() !== "") return fact.text.trim();
    missing.push({ key: key7, reason: fact ? "empty" : "unknown" });
    return "";
  });
  return { text: missing.length > 0 ? filled.replace(/[ \t]{2,}/g, " ").trim() : filled, missing };
}

// src/core/text/tidy.ts
var UNITS = /(\d)[ ](?=(?:am|pm|a\.m\.|p\.m\.|uhr|h|min|s|km|m|cm|mm|kg|g|l|ml|%|°|€|£|\$|x|×)(?![\p{L}\p{N}]))/giu;
var FRENCH_SIGNS = /[ ](?=[?!:;»](?:\s|$))/gu;
var AFTER_GUILLEMET = /«[ ]/gu;
var BEFORE_MIDDLE_DOT = /[ ](?=·[ ])/gu;
var NO_BREAK_SPACE = "\xA0";
function tidyText(text) {
  return text.replace(/[ \t]{2,}/g, " ").replace(UNITS, `$1${NO_BREAK_SPACE}`).replace(FRENCH_SIGNS, NO_BREAK_SPACE).replace(BEFORE_MIDDLE_DOT, NO_BREAK_SPACE).replace(AFTER_GUILLEMET, `\xAB${NO_BREAK_SPACE}`);
}

// src/core/compose/expand.ts
var rowSlot = (slot, index) => `${slot}.${index}`;
var numeralSlot = (slot, index) => `${slot}.${index}.numeral`;
var valueSlot = (slot, index) => `${slot}.${index}.value`;
var echoSlot = (slot) => `${slot}.echo`;
var isNumeral = (slot) => slot.endsWith(".numeral");
var slotOfRow = (slot) => slot.split(".")[0] ?? slot;
var HAIRLINE_M = 0.035;
var NUMERAL_ROOM = 2.2;
function expandRows(root, shapeOf) {
  const expand = (part) => {
    if (part.part === "rows") return rowsOf(part, shapeOf(part.slot));
    if (part.part === "echo") return linesOf(part);
    return part.part === "stack" ? { ...part, children: part.children.map(expand) } : part;
  };
  return { ...root, children: root.children.map(expand) };
}
function rowsOf(part, { count, columns, marked }) {
  const { slot, ink, numeralInk, numerals, sizeM, gapM, ...placed2 } = part;
  const text = (name, role, colour, more) => ({ part: "text", slot: name, role, align: "start", ink: colour, sizeM, ...more });
  const rows = Array.from({ length: count }, (_, index) => {
    const isMarked = index === marked;
    const role = isMarked ? "heading" : "text";
    const line = {
      part: "stack",
      direction: "row",
      gapM: 0.4,
      align: "start",
      ...isMarked ? { field: { ink: numeralInk }, padM: { top: gapM, right: gapM, bottom: gapM * 0.7, left: gapM } } : {},
      children: [
        ...numerals ? [text(numeralSlot(slot, index), "heading", numeralInk, { widthM: sizeM.max * NUMERAL_ROOM })] : [],
        text(rowSlot(slot, index), role, isMarked ? "ground" : ink, { grow: 1, share: 0 }),
        ...columns ? [text(valueSlot(slot, index), role, isMarked ? "ground" : ink, { grow: 1, share: 0, align: "end" })] : []
      ]
    };
    const isBelowMarked = marked !== null && index === marked + 1;
    const hairline = { part: "rule", lengthM: 0, thicknessM: HAIRLINE_M, ink, alignSelf: "stretch" };
    return { part: "stack", direction: "column", gapM, align: "stretch", children: isMarked || isBelowMarked ? [line] : [hairline, line] };
  });
  return { ...placed2, part: "stack", direction: "column", gapM, align: "stretch", children: rows };
}
function linesOf(part) {
  const { slot, lines, inked, ink, quietInk, sizeM, ...placed2 } = part;
  const children = Array.from({ length: lines }, (_, index) => ({
    part: "text",
    slot: echoSlot(slot),
    role: "display",
    align: "start",
    ink: index === inked ? ink : quietInk,
    sizeM,
    fill: true,
    ...index === inked ? {} : { ornament: true }
  }));
  return { ...placed2, part: "stack", direction: "column", justify: "between", align: "stretch", children };
}

// src/core/compose/bind.ts
function bind(template2, frame, pictures2, options) {
  const texts = {};
  const bound = {};
  const marks = {};
  const echoed = echoedSlots(template2);
  const findings = [];
  const lists = {};
  for (const slot of template2.slots) {
    if (options.hidden.includes(slot.key)) continue;
    let filled;
    const written = fillFacts(writtenText(slot, frame, options.facts), options.facts);
    for (const fact of written.missing) findings.push({ kind: "missing-fact", slot: slot.key, fact: fact.key, reason: fact.reason });
    if (slot.kind === "list") {
      const items = listItems(written.text);
      const shown = items.length > 0 || !options.ghosts ? items : [slot.hint, slot.hint, slot.hint];
      filled = items.length > 0;
      const split = shown.map((item) => slot.columns ? splitColumns(item) : { label: item, value: "" });
      split.forEach(({ label, value }, index) => {
        texts[rowSlot(slot.key, index)] = { text: tidyText(label), ghost: !filled };
        texts[numeralSlot(slot.key, index)] = { text: String(index + 1), ghost: !filled };
        if (value !== "") texts[valueSlot(slot.key, index)] = { text: tidyText(value), ghost: !filled };
      });
      const mark = slot.markedBy === void 0 ? "" : slotText(frame, slot.markedBy).trim().toLowerCase();
      const marked = mark === "" ? -1 : split.findIndex(({ label }) => label.toLowerCase() === mark);
      lists[slot.key] = { count: shown.length, columns: slot.columns === true, marked: marked < 0 ? null : marked };
    } else if (slot.kind === "mark") {
      const value = frame.slots[slot.key];
      if (value?.kind === "mark") marks[slot.key] = value.mark;
      filled = true;
    } else if (slot.kind !== "picture") {
      const text = tidyText(written.text.trim());
      filled = text !== "";
      const shown = filled ? { text, ghost: false } : options.ghosts ? { text: slot.hint, ghost: true } : null;
      if (shown) {
        texts[slot.key] = shown;
        if (echoed.has(slot.key)) texts[echoSlot(slot.key)] = { ...shown, text: echoLine(shown.text) };
      }
    } else {
      const value = frame.slots[slot.key];
      const picture = value?.kind === "picture" ? pictures2.get(value.mediaId) : void 0;
      filled = picture !== void 0;
      if (picture) bound[slot.key] = picture;
    }
    if (!filled && slot.required) findings.push({ kind: "empty-slot", slot: slot.key });
  }
  return { texts, pictures: bound, marks, lists, findings };
}
function echoedSlots({ arrangements }) {
  return new Set(arrangements.flatMap(({ root }) => [...walkParts(root)].flatMap((part) => part.part === "echo" ? [part.slot] : [])));
}
function chosenMark(book, { marks }, { slot }) {
  return book.marks.find((mark) => slot !== void 0 && mark.key === marks[slot]) ?? null;
}
function writtenText(slot, frame, facts) {
  const own = slotText(frame, slot.key);
  if (own.trim() !== "" || slot.fact === void 0) return own;
  const textOf = (key7) => facts.find((fact) => fact.key === key7)?.text.trim() ?? "";
  if (slot.kind === "fact") return textOf(slot.fact);
  if (slot.kind !== "list" || slot.fact !== WEEKDAYS_FACT) return own;
  return weekdays.flatMap(({ key: key7, name }) => textOf(`hours-${key7}`) === "" ? [] : [`${name}: ${textOf(`hours-${key7}`)}`]).join("\n");
}
var WEEKDAYS_FACT = "weekdays";
var weekdays = [
  { key: "mon", name: "Monday" },
  { key: "tue", name: "Tuesday" },
  { key: "wed", name: "Wednesday" },
  { key: "thu", name: "Thursday" },
  { key: "fri", name: "Friday" },
  { key: "sat", name: "Saturday" },
  { key: "sun", name: "Sunday" }
];
var segmenter = new Intl.Segmenter("und", { granularity: "grapheme" });
var ECHO_LINE_LENGTH = 9;
function echoLine(text) {
  const times = Math.max(1, Math.floor(ECHO_LINE_LENGTH / Math.max(1, [...segmenter.segment(text)].length + 1)));
  return Array.from({ length: times }, () => text).join(" ");
}
function splitColumns(item) {
  const at = item.search(/:\s/u);
  return at < 0 ? { label: item, value: "" } : { label: item.slice(0, at).trim(), value: item.slice(at + 1).trim() };
}
function listItems(text) {
  return text.split("\n").map((line) => line.replace(/^\s*(?:[-*•–]|\d{1,2}[.)])\s+/u, "").trim()).filter((line) => line !== "");
}

// src/core/compose/cut-frame.ts
var MARGIN_SHARE = 0.06;
var LEAST_READING_PX_AT_1080 = 32;
var LEAST_LABEL_PX_AT_1080 = 26;
function cutFrame(placement) {
  const { width, height } = placement.exportPx;
  const { top, right, bottom, left } = placement.safePercent;
  return {
    size: { widthPx: width, heightPx: height },
    marginPx: Math.min(width, height) * MARGIN_SHARE,
    safe: { topPx: top / 100 * height, rightPx: right / 100 * width, bottomPx: bottom / 100 * height, leftPx: left / 100 * width }
  };
}
function leastTypePx(frame, role) {
  return (role === "label" ? LEAST_LABEL_PX_AT_1080 : LEAST_READING_PX_AT_1080) * (frame.size.widthPx / 1080);
}

// src/core/brand/best-ground.ts
function coloursOfMark(mark) {
  return mark.kind === "vector" ? mark.paths.map((path) => path.fill) : [mark.mainColour];
}

// src/core/crop/crop-window.ts
var CANDIDATES = 48;
var FOCAL_WEIGHT = { proposal: 0.9, person: 2.5 };
var FOCAL_MARGIN = 0.12;
function cropWindow(picture, box, visible) {
  const boxAspect = box.widthPx / box.heightPx;
  const pictureAspect = picture.widthPx / picture.heightPx;
  const width = Math.min(1, boxAspect / pictureAspect);
  const height = Math.min(1, pictureAspect / boxAspect);
  const seen = {
    x: (visible.xPx - box.xPx) / box.widthPx,
    y: (visible.yPx - box.yPx) / box.heightPx,
    width: visible.widthPx / box.widthPx,
    height: visible.heightPx / box.heightPx
  };
  let best = { x: (1 - width) / 2, y: (1 - height) / 2, width, height };
  let bestScore = -Infinity;
  for (const candidate of candidateWindows(picture.focal, { width, height }, seen)) {
    const part = { x: candidate.x + seen.x * width, y: candidate.y + seen.y * height, width: seen.width * width, height: seen.height * height };
    const score = saliencyKept(picture.facts, part) + FOCAL_WEIGHT[picture.focalBy] * focalPlace(picture.focal, part);
    if (score > bestScore) [best, bestScore] = [candidate, score];
  }
  return best;
}
function ownCropWindow(picture, box, own) {
  const boxAspect = box.widthPx / box.heightPx;
  const pictureAspect = picture.widthPx / picture.heightPx;
  const width = Math.min(1, boxAspect / pictureAspect) / own.zoom;
  const height = Math.min(1, pictureAspect / boxAspect) / own.zoom;
  const within = (value, most) => Math.min(most, Math.max(0, value));
  return { x: within(own.x - width / 2, 1 - width), y: within(own.y - height / 2, 1 - height), width, height };
}
function* candidateWindows(focal, size, seen) {
  const within = (value, most) => Math.min(most, Math.max(0, value));
  yield {
    ...size,
    x: within(focal.x - (seen.x + seen.width / 2) * size.width, 1 - size.width),
    y: within(focal.y - (seen.y + seen.height / 2) * size.height, 1 - size.height)
  };
  for (let step = 0; step <= CANDIDATES; step += 1) {
    yield { ...size, x: (1 - size.width) * step / CANDIDATES, y: (1 - size.height) * step / CANDIDATES };
  }
}
var saliencySums = /* @__PURE__ */ new WeakMap();
function sumsOf(facts) {
  const known = saliencySums.get(facts);
  if (known) return known;
  const stride = facts.columns + 1;
  const sums = new Float64Array(stride * (facts.rows + 1));
  for (let row = 0; row < facts.rows; row += 1) {
    let inRow = 0;
    for (let column = 0; column < facts.columns; column += 1) {
      inRow += (facts.saliency[row * facts.columns + column] ?? 0) ** 2;
      sums[(row + 1) * stride + column + 1] = (sums[row * stride + column + 1] ?? 0) + inRow;
    }
  }
  saliencySums.set(facts, sums);
  return sums;
}
function saliencyKept(facts, part) {
  const sums = sumsOf(facts);
  const stride = facts.columns + 1;
  const within = (value, most) => Math.min(most, Math.max(0, value));
  const left = within(Math.ceil(part.x * facts.columns - 0.5), facts.columns);
  const right = within(Math.floor((part.x + part.width) * facts.columns - 0.5) + 1, facts.columns);
  const top = within(Math.ceil(part.y * facts.rows - 0.5), facts.rows);
  const bottom = within(Math.floor((part.y + part.height) * facts.rows - 0.5) + 1, facts.rows);
  if (right <= left || bottom <= top) return 0;
  const at = (column, row) => sums[row * stride + column] ?? 0;
  const all = at(facts.columns, facts.rows);
  return all === 0 ? 0 : (at(right, bottom) - at(left, bottom) - at(right, top) + at(left, top)) / all;
}
function focalPlace(focal, part) {
  const offX = Math.abs((focal.x - part.x) / part.width - 0.5);
  const offY = Math.abs((focal.y - part.y) / part.height - 0.5);
  if (!isInside(focal, part, 0)) return -3 - Math.max(offX, offY);
  return 1 - 2 * Math.max(offX, offY) - (isInside(focal, part, FOCAL_MARGIN) ? 0 : 1);
}
function isInside(point, part, margin) {
  return point.x >= part.x + margin * part.width && point.x <= part.x + part.width * (1 - margin) && point.y >= part.y + margin * part.height && point.y <= part.y + part.height * (1 - margin);
}
function luminanceBehind(facts, window, box, region) {
  const part = {
    x: window.x + (region.xPx - box.xPx) / box.widthPx * window.width,
    y: window.y + (region.yPx - box.yPx) / box.heightPx * window.height,
    width: region.widthPx / box.widthPx * window.width,
    height: region.heightPx / box.heightPx * window.height
  };
  const clampTo = (value, most2) => Math.min(most2, Math.max(0, value));
  const firstColumn = clampTo(Math.floor(part.x * facts.columns), facts.columns - 1);
  const lastColumn = clampTo(Math.ceil((part.x + part.width) * facts.columns) - 1, facts.columns - 1);
  const firstRow = clampTo(Math.floor(part.y * facts.rows), facts.rows - 1);
  const lastRow = clampTo(Math.ceil((part.y + part.height) * facts.rows) - 1, facts.rows - 1);
  let [least, most, sum, count] = [1, 0, 0, 0];
  for (let row = firstRow; row <= lastRow; row += 1) {
    for (let column = firstColumn; column <= lastColumn; column += 1) {
      const index = row * facts.columns + column;
      least = Math.min(least, (facts.leastLuminance[index] ?? 0) / 255);
      most = Math.max(most, (facts.mostLuminance[index] ?? 0) / 255);
      sum += (facts.meanLuminance[index] ?? 0) / 255;
      count += 1;
    }
  }
  return { least, most, mean: sum / Math.max(1, count) };
}

// src/core/geometry/box.ts
function intersectBoxes(a, b) {
  const xPx = Math.max(a.xPx, b.xPx);
  const yPx = Math.max(a.yPx, b.yPx);
  const widthPx = Math.min(a.xPx + a.widthPx, b.xPx + b.widthPx) - xPx;
  const heightPx = Math.min(a.yPx + a.heightPx, b.yPx + b.heightPx) - yPx;
  return widthPx > 0 && heightPx > 0 ? { xPx, yPx, widthPx, heightPx } : null;
}
function boxContains(outer, inner, tolerancePx = 0) {
  return inner.xPx >= outer.xPx - tolerancePx && inner.yPx >= outer.yPx - tolerancePx && inner.xPx + inner.widthPx <= outer.xPx + outer.widthPx + tolerancePx && inner.yPx + inner.heightPx <= outer.yPx + outer.heightPx + tolerancePx;
}
function snapBoxOutward(box) {
  const xPx = Math.floor(box.xPx + 1e-6);
  const yPx = Math.floor(box.yPx + 1e-6);
  return {
    xPx,
    yPx,
    widthPx: Math.ceil(box.xPx + box.widthPx - 1e-6) - xPx,
    heightPx: Math.ceil(box.yPx + box.heightPx - 1e-6) - yPx
  };
}
function growBox({ xPx, yPx, widthPx, heightPx }, byPx) {
  return { xPx: xPx - byPx, yPx: yPx - byPx, widthPx: widthPx + 2 * byPx, heightPx: heightPx + 2 * byPx };
}

// src/core/text/emoji.ts
var EMOJI_FONT = "emoji";
var EMOJI_METRICS = { sizeEm: 1.1, advanceEm: 1.18, descentEm: 0.2 };
var segmenter2 = new Intl.Segmenter("und", { granularity: "grapheme" });
var EMOJI = /^(?:\p{Emoji_Presentation}|\p{Extended_Pictographic}(?:\u{fe0f}|\p{Emoji_Modifier}|\u{200d})|\p{Regional_Indicator}{2}|[0-9#*]\u{fe0f}?\u{20e3})/u;
function findEmoji(text) {
  const found = [];
  if (!/\p{Extended_Pictographic}|\p{Regional_Indicator}|\u{20e3}/u.test(text)) return found;
  for (const { segment, index } of segmenter2.segment(text)) {
    if (EMOJI.test(segment)) found.push({ start: index, end: index + segment.length, code: emojiCode(segment) });
  }
  return found;
}
function emojiCode(emoji) {
  return [...emoji].map((character) => (character.codePointAt(0) ?? 0).toString(16)).filter((code) => code !== "fe0f").join("-");
}

// src/core/text/visual-line.ts
function placeLine(shaped, line) {
  const placed2 = [];
  let penEm = 0;
  for (const { run: run2, glyphs } of visualRuns(shaped, line)) {
    for (const glyph of glyphs) {
      placed2.push({ fontKey: run2.fontKey, id: glyph.id, xEm: penEm + glyph.dxEm, yEm: glyph.dyEm });
      penEm += glyph.advanceEm;
    }
  }
  return placed2;
}
function visualRuns(shaped, line) {
  const order = shaped.runs.map((run2) => ({ run: run2, glyphs: run2.glyphs.filter((glyph) => glyph.cluster >= line.start && glyph.cluster < line.end) })).filter(({ glyphs }) => glyphs.length > 0);
  const highest = Math.max(0, ...order.map(({ run: run2 }) => run2.level));
  for (let level = highest; level >= 1; level -= 1) reverseStretches(order, (each) => each.run.level >= level);
  return order;
}
function reverseStretches(list, inside) {
  for (let start = 0; start < list.length; start += 1) {
    let end = start;
    while (end < list.length && inside(list[end])) end += 1;
    if (end - start > 1) list.splice(start, end - start, ...list.slice(start, end).reverse());
    start = Math.max(start, end - 1);
  }
}

// src/core/scene/scene.ts
function pictureRaster(node, scale) {
  const xPx = Math.round(node.box.xPx * scale);
  const yPx = Math.round(node.box.yPx * scale);
  return {
    xPx,
    yPx,
    widthPx: Math.max(1, Math.round((node.box.xPx + node.box.widthPx) * scale) - xPx),
    heightPx: Math.max(1, Math.round((node.box.yPx + node.box.heightPx) * scale) - yPx)
  };
}

// src/core/scene/picture-looks.ts
function maskPicture(context, node, scale, path) {
  if (node.mask === void 0) return;
  const raster = pictureRaster(node, scale);
  context.globalCompositeOperation = "destination-in";
  context.fillStyle = "#000000";
  context.setTransform(scale, 0, 0, scale, -raster.xPx, -raster.yPx);
  context.fill(path(node.mask));
  context.globalCompositeOperation = "source-over";
  context.setTransform(1, 0, 0, 1, 0, 0);
}
var channels = (hex2) => [parseInt(hex2.slice(1, 3), 16), parseInt(hex2.slice(3, 5), 16), parseInt(hex2.slice(5, 7), 16)];
function toneShare(luminance) {
  return Math.min(1, Math.max(0, luminance)) ** (1 / 2.2);
}
function applyTone(rgba, tone) {
  const [dark, light] = [channels(tone.dark), channels(tone.light)];
  const linear = Float64Array.from({ length: 256 }, (_, value) => srgbToLinear(value / 255));
  for (let index = 0; index < rgba.length; index += 4) {
    const luminance = luminanceOfLinear(linear[rgba[index] ?? 0] ?? 0, linear[rgba[index + 1] ?? 0] ?? 0, linear[rgba[index + 2] ?? 0] ?? 0);
    const share3 = toneShare(luminance);
    for (let channel = 0; channel < 3; channel += 1) rgba[index + channel] = Math.round((dark[channel] ?? 0) + ((light[channel] ?? 0) - (dark[channel] ?? 0)) * share3);
  }
}

// src/core/compose/backdrop.ts
var Backdrop = class {
  #layers = [];
  add(layer) {
    this.#layers.push(layer);
  }
  addFlat(box, colour) {
    this.add({ kind: "flat", box, luminance: relativeLuminance(colour) });
  }
  /** Luminances that show in a region: from the top layer down to the first that covers it whole. */
  behind(region) {
    let [least, most] = [1, 0];
    for (const layer of [...this.#layers].reverse()) {
      const common = intersectBoxes(layer.box, region);
      if (!common) continue;
      const seen = luminanceOf2(layer, common);
      [least, most] = [Math.min(least, seen.least), Math.max(most, seen.most)];
      if (boxContains(layer.box, region, 1)) break;
    }
    return least <= most ? { least, most } : { least: 0, most: 1 };
  }
};
function luminanceOf2(layer, region) {
  if (layer.kind === "flat") return { least: layer.luminance, most: layer.luminance };
  const own = luminanceBehind(layer.facts, layer.window, layer.box, region);
  const { tone } = layer;
  if (!tone) return own;
  const [dark, light] = [relativeLuminance(tone.dark), relativeLuminance(tone.light)];
  const toned = (luminance) => dark + (light - dark) * toneShare(luminance) ** 2.2;
  return { least: toned(own.least), most: toned(own.most) };
}
function worstContrast(colour, behind) {
  const own = relativeLuminance(colour);
  if (own >= behind.least && own <= behind.most) return 1;
  return Math.min(contrastOfLuminances(own, behind.least), contrastOfLuminances(own, behind.most));
}
function chooseInk(wanted, candidates, behind, needed) {
  const rated = [wanted, ...candidates].map((colour) => ({ colour, ratio: worstContrast(colour, behind) }));
  const first = rated[0] ?? { colour: wanted, ratio: 1 };
  if (first.ratio >= needed) return first;
  return rated.reduce((best, each) => each.ratio > best.ratio ? each : best);
}

// src/core/compose/page-marks.ts
var DOT_GAP = 0.75;
function dotsWidthPx({ heightM }, { count }, marginPx) {
  return heightM * marginPx * (count + (count - 1) * DOT_GAP);
}
function dotPaths({ xPx, yPx, heightPx }, count) {
  const radius = heightPx / 2;
  return Array.from({ length: count }, (_, index) => {
    const left = xPx + index * heightPx * (1 + DOT_GAP);
    return `M${left} ${yPx + radius}a${radius} ${radius} 0 1 0 ${heightPx} 0a${radius} ${radius} 0 1 0 ${-heightPx} 0Z`;
  });
}
var SWIPE_ASPECT = 1.7;
function arrowPath({ xPx, yPx, widthPx, heightPx }) {
  const stroke = heightPx * 0.16;
  const [right, middle] = [xPx + widthPx, yPx + heightPx / 2];
  const barb = heightPx / 2 - stroke / 2;
  const slope = stroke * Math.SQRT1_2;
  const points = [
    [xPx, middle - stroke / 2],
    [right - stroke * 1.2, middle - stroke / 2],
    [right - barb - slope, yPx + slope],
    [right - barb, yPx],
    [right, middle],
    [right - barb, yPx + heightPx],
    [right - barb - slope, yPx + heightPx - slope],
    [right - stroke * 1.2, middle + stroke / 2],
    [xPx, middle + stroke / 2]
  ];
  return `M${points.map(([x, y]) => `${x} ${y}`).join("L")}Z`;
}

// src/core/compose/choose-mark.ts
var MAIN_COLOUR_WEIGHT = 0.3;
function chooseMark(book, backdrop, box) {
  const behind = backdrop.behind(box);
  const rate = (mark) => {
    const ratios = coloursOfMark(mark).map((colour) => worstContrast(colour, behind));
    return Math.min(...ratios) + MAIN_COLOUR_WEIGHT * (ratios[0] ?? 1);
  };
  return book.marks.reduce((best, mark) => rate(mark) > rate(best) ? mark : best);
}

// src/core/text/break-lines.ts
import LineBreaker from "linebreak";
var MOST_BALANCED_CHUNKS = 160;
var HANGING = new Set("a an the of to in on at by for and or but as is we i my our your le la les un une de du des \xE0 et der die das ein eine und zu in im".split(" "));
var HANGING_COST = 0.03;
var LONE_WORD_COST = 0.25;
var HYPHEN_COST = 0.3;
var SHORT_LINE_COST = 0.1;
var SHORT_LINE_SHARE = 0.4;
function breakLines(shaped, maxWidthEm) {
  const chunks = chunksOf(shaped);
  const lines = [];
  for (let first = 0; first < chunks.length; ) {
    let last = first;
    while (last < chunks.length - 1 && !chunks[last]?.forced) last += 1;
    lines.push(...breakParagraph(shaped, chunks.slice(first, last + 1), maxWidthEm));
    first = last + 1;
  }
  return lines;
}
function countLines(shaped, maxWidthEm) {
  const chunks = chunksOf(shaped);
  let count = chunks.length > 0 ? 1 : 0;
  let opener = chunks[0]?.start ?? 0;
  let fresh = true;
  chunks.forEach((chunk, index) => {
    if (!fresh && widthEm(shaped, opener, chunk.end) > maxWidthEm) {
      count += 1;
      opener = chunk.start;
    }
    fresh = false;
    if (chunk.forced && index < chunks.length - 1) {
      count += 1;
      opener = chunk.next;
      fresh = true;
    }
  });
  return count;
}
function widestChunkEm(shaped) {
  let widest = 0;
  for (const chunk of chunksOf(shaped)) widest = Math.max(widest, widthEm(shaped, chunk.start, chunk.end));
  return widest;
}
var chunkCache = /* @__PURE__ */ new WeakMap();
function chunksOf(shaped) {
  const known = chunkCache.get(shaped);
  if (known) return known;
  const chunks = [];
  const breaker = new LineBreaker(shaped.text);
  let start = 0;
  for (let stop = breaker.nextBreak(); stop; stop = breaker.nextBreak()) {
    const visible = shaped.text.slice(start, stop.position).trimEnd();
    chunks.push({ start, end: start + visible.length, next: stop.position, forced: stop.required });
    start = stop.position;
  }
  chunkCache.set(shaped, chunks);
  return chunks;
}
function widthEm(shaped, start, end) {
  return (shaped.offsetsEm[end] ?? 0) - (shaped.offsetsEm[start] ?? 0);
}
function fillLines(shaped, chunks, maxWidthEm) {
  const lines = [];
  let first = 0;
  chunks.forEach((chunk, index) => {
    const opener = chunks[first];
    if (opener && index > first && widthEm(shaped, opener.start, chunk.end) > maxWidthEm) {
      lines.push([first, index]);
      first = index;
    }
    if (chunk.forced && index < chunks.length - 1) {
      lines.push([first, index + 1]);
      first = index + 1;
    }
  });
  if (first < chunks.length) lines.push([first, chunks.length]);
  return lines;
}
function breakParagraph(shaped, chunks, maxWidthEm) {
  const filled = fillLines(shaped, chunks, maxWidthEm);
  const spans = filled.length > 1 && chunks.length <= MOST_BALANCED_CHUNKS ? balance(shaped, chunks, maxWidthEm, filled.length) ?? filled : filled;
  return spans.map(([first, behind]) => {
    const start = chunks[first]?.start ?? 0;
    const end = chunks[behind - 1]?.end ?? start;
    return { start, end, widthEm: widthEm(shaped, start, end) };
  });
}
function balance(shaped, chunks, maxWidthEm, lineCount) {
  const count = chunks.length;
  const meanEm = widthEm(shaped, chunks[0]?.start ?? 0, chunks[count - 1]?.end ?? 0) / lineCount;
  let costs = new Float64Array(count + 1).fill(Infinity);
  costs[0] = 0;
  const cameFrom = [];
  for (let line = 1; line <= lineCount; line += 1) {
    const next = new Float64Array(count + 1).fill(Infinity);
    const from = new Int32Array(count + 1).fill(-1);
    for (let behind = line; behind <= count; behind += 1) {
      for (let first = behind - 1; first >= line - 1; first -= 1) {
        const width = widthEm(shaped, chunks[first]?.start ?? 0, chunks[behind - 1]?.end ?? 0);
        if (width > maxWidthEm) break;
        const cost = (costs[first] ?? Infinity) + lineCost(shaped, chunks, first, behind, width, meanEm, maxWidthEm);
        if (cost < (next[behind] ?? Infinity)) {
          next[behind] = cost;
          from[behind] = first;
        }
      }
    }
    costs = next;
    cameFrom.push(from);
  }
  if (!Number.isFinite(costs[count] ?? Infinity)) return null;
  const spans = [];
  for (let line = lineCount - 1, behind = count; line >= 0; line -= 1) {
    const first = cameFrom[line]?.[behind] ?? 0;
    spans.unshift([first, behind]);
    behind = first;
  }
  return spans;
}
function lineCost(shaped, chunks, first, behind, width, meanEm, maxWidthEm) {
  const ragged = ((width - meanEm) / maxWidthEm) ** 2;
  const alone = behind - first === 1;
  if (behind === chunks.length) return ragged + (alone && chunks.length > 2 ? LONE_WORD_COST : 0);
  const closing = chunks[behind - 1];
  const word = closing ? shaped.text.slice(closing.start, closing.end).toLowerCase() : "";
  return ragged + (HANGING.has(word) ? HANGING_COST : 0) + (/[-\u2010]$/u.test(word) ? HYPHEN_COST : 0) + (alone && width < maxWidthEm * SHORT_LINE_SHARE ? SHORT_LINE_COST : 0);
}

// src/core/text/font-shelf.ts
function shelfFamily(folder, family, character, styles) {
  const fonts = styles.map((style) => {
    const [weight = "", italic] = style.split("-");
    return { key: `${folder}-${style}`, family, weight: Number(weight), italic: italic !== void 0, file: `${folder}/${folder}-${style}.ttf` };
  });
  return { family, character, fonts };
}
var shelfFamilies = [
  shelfFamily("unbounded", "Unbounded", "Wide and round, made for being seen", ["700", "500"]),
  shelfFamily("figtree", "Figtree", "Friendly and plain", ["500", "700"]),
  shelfFamily("gloock", "Gloock", "High contrast, a little theatrical", ["400"]),
  shelfFamily("familjen-grotesk", "Familjen Grotesk", "Grotesque with small surprises", ["500", "700"]),
  shelfFamily("playfair-display", "Playfair Display", "Elegant, with fine hairlines", ["700", "500-italic"]),
  shelfFamily("fraunces", "Fraunces", "Soft old-style with a wink", ["600", "900"]),
  shelfFamily("lora", "Lora", "A calm serif for reading", ["500", "700"]),
  shelfFamily("bebas-neue", "Bebas Neue", "Tall capitals, like a poster", ["400"]),
  shelfFamily("oswald", "Oswald", "Narrow and strong", ["500", "700"]),
  shelfFamily("bricolage-grotesque", "Bricolage Grotesque", "Cut-paper grotesque", ["600", "800"]),
  shelfFamily("space-grotesk", "Space Grotesk", "Technical, with odd details", ["500", "700"]),
  shelfFamily("inter", "Inter", "Neutral, clear at any size", ["500", "700"]),
  shelfFamily("fredoka", "Fredoka", "Rounded and playful", ["500", "600"]),
  shelfFamily("jetbrains-mono", "JetBrains Mono", "Every letter the same width", ["500", "700"]),
  shelfFamily("caveat", "Caveat", "Quick handwriting", ["700"])
];
var scriptFamilies = [
  { script: /\p{Script=Arabic}/u, ...shelfFamily("noto-sans-arabic", "Noto Sans Arabic", "Arabic", ["500", "700"]) },
  { script: /\p{Script=Hebrew}/u, ...shelfFamily("noto-sans-hebrew", "Noto Sans Hebrew", "Hebrew", ["500", "700"]) },
  { script: /\p{Script=Thai}/u, ...shelfFamily("noto-sans-thai", "Noto Sans Thai", "Thai", ["500", "700"]) },
  { script: /\p{Script=Devanagari}/u, ...shelfFamily("noto-sans-devanagari", "Noto Sans Devanagari", "Devanagari", ["500", "700"]) },
  { script: /\p{Script=Han}|\p{Script=Hiragana}|\p{Script=Katakana}|[\u3000-\u303f\uff00-\uffef]/u, ...shelfFamily("m-plus-1p", "M PLUS 1p", "Japanese", ["500", "700"]) }
];
var fontShelf = [...shelfFamilies, ...scriptFamilies].flatMap((each) => each.fonts);
var LATIN_FALLBACKS = ["figtree-500", "unbounded-500"];
var BOLD_FROM = 600;
var BEYOND_LATIN = /[^\0-\u036f\u2000-\u22ff]/u;
function fontKeysFor(text, fontKey, weight) {
  const families = BEYOND_LATIN.test(text) ? scriptFamilies : [];
  const helpers = families.flatMap((family) => {
    const font = family.fonts[weight >= BOLD_FROM ? 1 : 0];
    return font && family.script.test(text) ? [font.key] : [];
  });
  return [.../* @__PURE__ */ new Set([fontKey, ...LATIN_FALLBACKS, ...helpers])];
}
function getShelfFont(key7) {
  const font = fontShelf.find((each) => each.key === key7);
  if (!font) throw new RangeError(`There is no typeface '${key7}' on the shelf`);
  return font;
}

// src/core/compose/set-text.ts
var STEP_FACTOR = 1.12;
function setText(part, bound, { book, frame, textStep }, typesetter) {
  const role = book.type[part.role];
  const text = role.capitals === "all" ? bound.text.toUpperCase() : bound.text;
  const fontKeys = fontKeysFor(text, role.font, fontWeight(book, role.font));
  const shaped = typesetter.shape(text, fontKeys, role.trackingEm);
  const minPx = Math.max(part.sizeM.min * frame.marginPx * Math.min(1, role.scale), leastTypePx(frame, part.role));
  return {
    part,
    role,
    shaped,
    heights: lineHeights(shaped, typesetter.heightsOf(role.font), role),
    ghost: bound.ghost,
    minPx,
    maxPx: Math.max(minPx, part.sizeM.max * frame.marginPx * role.scale * (isLeading(part) ? STEP_FACTOR ** textStep : 1))
  };
}
function fontWeight(book, fontKey) {
  return [...book.typefaces, ...fontShelf].find((font) => font.key === fontKey)?.weight ?? 400;
}
var LEAST_LINE_GAP_EM = 0.02;
function lineHeights(shaped, font, role) {
  return {
    topEm: Math.max(font.capEm, shaped.inkTopEm),
    bottomEm: Math.max(font.descentEm, shaped.inkBottomEm),
    leadingEm: Math.max(role.leading, shaped.inkTopEm + shaped.inkBottomEm + LEAST_LINE_GAP_EM)
  };
}
function isLeading(part) {
  return part.role === "display" || part.role === "heading";
}
function textHeightPx(text, sizePx, lineCount) {
  return sizePx * (text.heights.topEm + (lineCount - 1) * text.heights.leadingEm + text.heights.bottomEm);
}
function sizeInWidth(text, sizePx, widthPx) {
  const lineEm = (text.shaped.offsetsEm.at(-1) ?? 0) - text.role.trackingEm;
  return text.part.fill && lineEm > 0 && Number.isFinite(widthPx) ? Math.min(sizePx, widthPx / lineEm) : sizePx;
}
function lineCountIn(text, sizePx, widthPx) {
  return text.part.fill ? 1 : countLines(text.shaped, widthPx / sizePx);
}
function linesIn(text, sizePx, widthPx) {
  return breakLines(text.shaped, text.part.fill ? Infinity : widthPx / sizePx);
}
function widestWordPx(text, sizePx) {
  return widestChunkEm(text.shaped) * sizePx;
}

// src/core/compose/ink-boxes.ts
function markBoxes({ part, box, children }) {
  return [...part.part === "mark" ? [box] : [], ...children.flatMap(markBoxes)];
}
function* textBoxes({ fitted, texts }, laidOut = fitted.laidOut) {
  const { part, box } = laidOut;
  if (part.part === "text") {
    const text = texts.get(part);
    const found = fitted.sizes.get(part);
    if (text && found !== void 0) {
      const sizePx = sizeInWidth(text, found, box.widthPx);
      const lines = linesIn(text, sizePx, box.widthPx);
      const widthPx = Math.max(0, ...lines.map((line) => (line.widthEm - text.role.trackingEm) * sizePx));
      const xPx = box.xPx + lineOffset(part.align, text.shaped.baseLevel, box.widthPx - widthPx);
      yield [part, { xPx, yPx: box.yPx, widthPx, heightPx: textHeightPx(text, sizePx, lines.length) }];
    }
  }
  for (const child of laidOut.children) yield* textBoxes({ fitted, texts }, child);
}
function lineOffset(align, baseLevel, freePx) {
  if (align === "centre") return freePx / 2;
  return align === "end" !== (baseLevel % 2 === 1) ? freePx : 0;
}

// src/core/compose/part-outlines.ts
function rectPath({ xPx, yPx, widthPx, heightPx }) {
  return `M${xPx} ${yPx}H${xPx + widthPx}V${yPx + heightPx}H${xPx}Z`;
}
var SLANT_M = 2.4;
var SLANT_GAP_M = 0.09;
var SCALLOPS = 16;
function fieldPath(shape2, box, marginPx) {
  switch (shape2) {
    case "box":
      return rectPath(box);
    case "disc":
      return circlePath(box);
    case "seal":
      return sealPath(box);
    case "tab":
      return cutCornerPath(box, Math.min(marginPx * 0.55, box.heightPx / 3));
  }
}
function windowPath(shape2, box, marginPx) {
  const { xPx, yPx, widthPx, heightPx } = box;
  const [right, bottom] = [xPx + widthPx, yPx + heightPx];
  const [leanPx, gapPx] = [SLANT_M * marginPx, SLANT_GAP_M * marginPx];
  switch (shape2) {
    case "arch": {
      const radius = Math.min(widthPx / 2, heightPx);
      return `M${xPx} ${bottom}V${yPx + radius}A${widthPx / 2} ${radius} 0 0 1 ${right} ${yPx + radius}V${bottom}Z`;
    }
    case "circle":
      return circlePath(box);
    case "sail":
      return `M${xPx} ${yPx}H${right}V${bottom - heightPx * 0.08}Q${xPx + widthPx * 0.45} ${bottom + heightPx * 0.02} ${xPx} ${bottom - heightPx * 0.26}Z`;
    case "notch":
      return cutCornerPath(box, marginPx * 1.6);
    case "slant-right":
      return polygonPath([xPx, yPx], [right - gapPx, yPx], [right - leanPx - gapPx, bottom], [xPx, bottom]);
    case "slant-left":
      return polygonPath([xPx + leanPx + gapPx, yPx], [right, yPx], [right, bottom], [xPx + gapPx, bottom]);
    case "slant-bottom":
      return polygonPath([xPx, yPx], [right, yPx], [right, bottom - leanPx - gapPx], [xPx, bottom - gapPx]);
    case "slant-top":
      return polygonPath([xPx, yPx + leanPx + gapPx], [right, yPx + gapPx], [right, bottom], [xPx, bottom]);
  }
}
function polygonPath(...corners) {
  return `M${corners.map(([x, y]) => `${x.toFixed(2)} ${y.toFixed(2)}`).join("L")}Z`;
}
function circlePath({ xPx, yPx, widthPx, heightPx }) {
  const radius = Math.min(widthPx, heightPx) / 2;
  const [left, right, y] = [xPx + widthPx / 2 - radius, xPx + widthPx / 2 + radius, yPx + heightPx / 2];
  return `M${left} ${y}A${radius} ${radius} 0 1 1 ${right} ${y}A${radius} ${radius} 0 1 1 ${left} ${y}Z`;
}
function cutCornerPath({ xPx, yPx, widthPx, heightPx }, cutPx) {
  const [right, bottom] = [xPx + widthPx, yPx + heightPx];
  return `M${xPx} ${yPx}H${right}V${bottom - cutPx}L${right - cutPx} ${bottom}H${xPx}Z`;
}
function sealPath({ xPx, yPx, widthPx, heightPx }) {
  const radius = Math.max(widthPx, heightPx) / 2;
  const [x, y] = [xPx + widthPx / 2, yPx + heightPx / 2];
  const at = (index, reach) => {
    const angle = index / (SCALLOPS * 2) * Math.PI * 2;
    return `${(x + Math.cos(angle) * radius * reach).toFixed(2)} ${(y + Math.sin(angle) * radius * reach).toFixed(2)}`;
  };
  const scallops = Array.from({ length: SCALLOPS }, (_, index) => `Q${at(index * 2 + 1, 1.13)} ${at(index * 2 + 2, 0.97)}`);
  return `M${at(0, 0.97)}${scallops.join("")}Z`;
}

// src/core/compose/emit.ts
var LARGE_PX_AT_1080 = 66;
var GHOST_ALPHA = 0.42;
var SOFT_ENLARGEMENT = 1.25;
var HANGING_PUNCTUATION = /^[“„«‹‘‚"'—–]/u;
function emit(input) {
  const emitter = new Emitter(input);
  emitter.walk(input.fitted.laidOut);
  return { nodes: emitter.nodes, placed: emitter.placed, pictures: emitter.pictures, findings: emitter.findings };
}
var Emitter = class {
  constructor(input) {
    this.input = input;
    this.#inkBoxes = new Map(textBoxes(input));
  }
  input;
  nodes = [];
  placed = [];
  pictures = [];
  findings = [];
  #backdrop = new Backdrop();
  #inkBoxes;
  walk(laidOut) {
    const { part, box } = laidOut;
    switch (part.part) {
      case "stack":
        if (part.field) this.#field(part.field, box);
        for (const child of laidOut.children) if (isUnderneath(child.part)) this.walk(child);
        for (const child of laidOut.children) if (!isUnderneath(child.part)) this.walk(child);
        break;
      case "text":
        this.#text(part, box);
        break;
      case "picture":
        this.#picture(part, box);
        break;
      case "mark":
        this.#mark(part, box);
        break;
      case "rule":
        this.#fill(rectPath(box), this.input.scheme[part.ink], box);
        break;
      case "sign":
        this.#sign(part, box);
        break;
      case "artwork":
        this.#artwork(part, box);
        break;
      case "motif":
        this.#motif(part, box);
        break;
      case "dots":
        dotPaths(box, this.input.place.count).forEach((path, index) => this.nodes.push({ kind: "fill", path, colour: this.input.scheme[index === this.input.place.index ? part.ink : part.quietInk], alpha: 1 }));
        break;
      case "swipe":
        this.#fill(arrowPath(box), this.input.scheme[part.ink], box);
        break;
      case "rows":
      case "echo":
        throw new TypeError("Lists and echoes are expanded before layout");
    }
  }
  #fill(path, colour, box) {
    this.nodes.push({ kind: "fill", path, colour, alpha: 1 });
    this.#backdrop.addFlat(box, colour);
  }
  #field(field, box) {
    const { marginPx } = this.input.frame;
    const slantPx = (field.slant?.slantM ?? 0) * marginPx;
    const solid = snapBoxOutward(box);
    const path = field.slant && slantPx > 0 ? slantedPath(solid, field.slant.edge, slantPx) : fieldPath(field.shape ?? "box", solid, marginPx);
    this.#fill(path, this.input.scheme[field.ink], solid);
  }
  #picture(part, visible) {
    if (part.through) return this.#pictureThrough(part, visible);
    const { marginPx, size } = this.input.frame;
    const under = (edge) => (part.underM?.[edge] ?? 0) * marginPx;
    const box = clampToCut(
      snapBoxOutward({
        xPx: visible.xPx - under("left"),
        yPx: visible.yPx - under("top"),
        widthPx: visible.widthPx + under("left") + under("right"),
        heightPx: visible.heightPx + under("top") + under("bottom")
      }),
      size
    );
    const picture = this.input.bound.pictures[part.slot];
    if (!picture) {
      this.#fill(rectPath(box), this.input.scheme.surface, box);
      return;
    }
    if (part.whole) return this.#cutOut(part, picture, visible);
    const own = this.input.crops[part.slot];
    const window = own ? ownCropWindow(picture, box, own) : cropWindow(picture, box, visible);
    const { scheme } = this.input;
    const tone = part.duotone ? duotoneOf(scheme) : void 0;
    const mask = part.window ? windowPath(part.window, box, marginPx) : void 0;
    this.nodes.push({ kind: "picture", pictureId: picture.id, box, window, ...mask ? { mask } : {}, ...tone ? { tone } : {} });
    this.pictures.push({ slot: part.slot, pictureId: picture.id, box, window });
    this.#backdrop.add({ kind: "picture", box, facts: picture.facts, window, tone });
    const enlargedBy = box.widthPx / (window.width * picture.widthPx);
    if (enlargedBy > SOFT_ENLARGEMENT) this.findings.push({ kind: "low-resolution", slot: part.slot, pictureId: picture.id, enlargedBy });
  }
  /**
   * A picture over all slides of the cut, of which this one shows its part. It is cropped and scaled once, for all of them: the
   * seams meet by themselves.
   */
  #pictureThrough(part, visible) {
    const box = throughBox(snapBoxOutward(visible), this.input.frame.size.widthPx, this.input.place);
    const picture = this.input.bound.pictures[part.slot];
    if (!picture) {
      this.#fill(rectPath(box), this.input.scheme.surface, box);
      return;
    }
    const own = this.input.crops[part.slot];
    const window = own ? ownCropWindow(picture, box, own) : cropWindow(picture, box, box);
    this.nodes.push({ kind: "picture", pictureId: picture.id, box, window });
    this.pictures.push({ slot: part.slot, pictureId: picture.id, box, window });
    this.#backdrop.add({ kind: "picture", box, facts: picture.facts, window, tone: void 0 });
    const enlargedBy = box.widthPx / (window.width * picture.widthPx);
    if (this.input.place.index === 0 && enlargedBy > SOFT_ENLARGEMENT) this.findings.push({ kind: "low-resolution", slot: part.slot, pictureId: picture.id, enlargedBy });
  }
  /** A cut-out stands whole in the middle of its place, on what lies behind it. */
  #cutOut(part, picture, place) {
    const scale = Math.min(place.widthPx / picture.widthPx, place.heightPx / picture.heightPx);
    const [widthPx, heightPx] = [picture.widthPx * scale, picture.heightPx * scale];
    const box = { xPx: place.xPx + (place.widthPx - widthPx) / 2, yPx: place.yPx + (place.heightPx - heightPx) / 2, widthPx, heightPx };
    const window = { x: 0, y: 0, width: 1, height: 1 };
    this.nodes.push({ kind: "picture", pictureId: picture.id, box, window });
    this.pictures.push({ slot: part.slot, pictureId: picture.id, box, window });
    if (scale > SOFT_ENLARGEMENT) this.findings.push({ kind: "low-resolution", slot: part.slot, pictureId: picture.id, enlargedBy: scale });
  }
  #text(part, box) {
    const text = this.input.texts.get(part);
    const found = this.input.fitted.sizes.get(part);
    if (!text || found === void 0) return;
    const sizePx = sizeInWidth(text, found, box.widthPx);
    const lines = linesIn(text, sizePx, box.widthPx);
    const inkBox2 = this.#inkBoxes.get(part) ?? box;
    const at1080 = sizePx / (this.input.frame.size.widthPx / 1080);
    const needed = at1080 >= LARGE_PX_AT_1080 ? LEAST_LARGE_CONTRAST : LEAST_TEXT_CONTRAST;
    const { scheme } = this.input;
    const behind = this.#backdrop.behind(inkBox2);
    const ink = part.ornament ? { colour: scheme[part.ink], ratio: needed } : chooseInk(scheme[part.ink], [scheme.ink, scheme.ground, scheme.surface], behind, needed);
    const isInside2 = intersectBoxes(inkBox2, { xPx: 0, yPx: 0, ...this.input.frame.size }) !== null;
    if (ink.ratio < needed && !text.ghost && isInside2) this.findings.push({ kind: "low-contrast", slot: slotOfRow(part.slot), ratio: ink.ratio, needed });
    if (text.shaped.missing.length > 0 && !text.ghost) this.findings.push({ kind: "missing-glyphs", slot: slotOfRow(part.slot), characters: text.shaped.missing });
    const glyphs = [];
    lines.forEach((line, index) => {
      const baselinePx = box.yPx + sizePx * (text.heights.topEm + index * text.heights.leadingEm);
      const widthPx = (line.widthEm - text.role.trackingEm) * sizePx;
      let startPx = box.xPx + lineOffset(part.align, text.shaped.baseLevel, box.widthPx - widthPx);
      const placed2 = placeLine(text.shaped, line);
      const second = placed2[1];
      if (part.hanging && index === 0 && second && part.align === "start" && HANGING_PUNCTUATION.test(text.shaped.text)) {
        startPx = Math.max(this.input.frame.safe.leftPx, startPx - second.xEm * sizePx);
      }
      startPx += this.#backInside(placed2, startPx, sizePx);
      for (const glyph of placed2) {
        if (glyph.fontKey === EMOJI_FONT) this.#emoji(glyph.id, startPx + glyph.xEm * sizePx, baselinePx, sizePx);
        else glyphs.push({ fontKey: glyph.fontKey, id: glyph.id, xPx: startPx + glyph.xEm * sizePx, yPx: baselinePx - glyph.yEm * sizePx });
      }
    });
    this.nodes.push({ kind: "glyphs", sizePx, colour: ink.colour, alpha: text.ghost ? GHOST_ALPHA : 1, glyphs, ...part.ornament ? {} : { slot: part.slot } });
    if (part.ornament) return;
    const lineTexts = lines.map((line) => text.shaped.text.slice(line.start, line.end));
    this.placed.push({ slot: part.slot, box: inkBox2, roomPx: box.widthPx, lines: lines.length, lineTexts, sizePx });
  }
  /** How far a line has to move for the ink that its letters let stand out at its ends to stay inside the safe zone. */
  #backInside(placed2, startPx, sizePx) {
    const { safe, size } = this.input.frame;
    const ends = placed2.length > 6 ? [...placed2.slice(0, 3), ...placed2.slice(-3)] : placed2;
    let [left, right] = [Infinity, -Infinity];
    for (const glyph of ends) {
      const reach = this.input.typesetter.glyphReach(glyph.fontKey, glyph.id);
      left = Math.min(left, startPx + (glyph.xEm + reach.leftEm) * sizePx);
      right = Math.max(right, startPx + (glyph.xEm + reach.rightEm) * sizePx);
    }
    const [before, behind] = [safe.leftPx - left, right - (size.widthPx - safe.rightPx)];
    if (before > 0 && before < sizePx / 4) return before;
    return behind > 0 && behind < sizePx / 4 ? -behind : 0;
  }
  #emoji(id2, xPx, baselinePx, sizePx) {
    const art = this.input.typesetter.emojiArt(id2);
    const heightPx = EMOJI_METRICS.sizeEm * sizePx;
    const insetPx = (EMOJI_METRICS.advanceEm - EMOJI_METRICS.sizeEm) / 2 * sizePx;
    this.nodes.push({ kind: "artwork", xPx: xPx + insetPx, yPx: baselinePx + EMOJI_METRICS.descentEm * sizePx - heightPx, scale: heightPx / art.viewBox.height, paths: art.paths });
  }
  #mark(part, box) {
    const own = chosenMark(this.input.book, this.input.bound, part);
    const mark = own ?? chooseMark(this.input.book, this.#backdrop, box);
    if (own) this.#checkMarkContrast(own, box);
    else if (part.slot !== void 0 && this.input.bound.marks[part.slot] !== void 0) this.findings.push({ kind: "lost-mark", slot: part.slot });
    const scale = box.heightPx / mark.viewBox.height;
    if (mark.kind === "vector") {
      this.nodes.push({ kind: "artwork", xPx: box.xPx, yPx: box.yPx, scale, paths: mark.paths });
    } else {
      const whole = { x: 0, y: 0, width: 1, height: 1 };
      this.nodes.push({ kind: "picture", pictureId: mark.mediaId, box: { ...box, widthPx: mark.viewBox.width * scale }, window: whole });
    }
    this.#checkMarkRoom(mark, box);
  }
  /** A mark that a person has chosen may vanish into its ground. */
  #checkMarkContrast(mark, box) {
    const behind = this.#backdrop.behind(box);
    const ratio = Math.max(...coloursOfMark(mark).map((colour) => worstContrast(colour, behind)));
    if (ratio < LEAST_LARGE_CONTRAST) this.findings.push({ kind: "faint-mark", ratio, needed: LEAST_LARGE_CONTRAST });
  }
  /** A mark has to be large enough to be seen, and no words may come into its room. */
  #checkMarkRoom(mark, box) {
    const heightPx = box.heightPx / (this.input.frame.size.widthPx / 1080);
    if (heightPx < mark.leastHeightPx) this.findings.push({ kind: "small-mark", heightPx, leastHeightPx: mark.leastHeightPx });
    const room = growBox(box, mark.clearSpace * box.heightPx);
    const crowding = [...this.#inkBoxes].find(([, inkBox2]) => intersectBoxes(room, inkBox2) !== null);
    if (crowding) this.findings.push({ kind: "crowded-mark", slot: slotOfRow(crowding[0].slot) });
  }
  #sign(part, box) {
    const fontKey = this.input.book.type.display.font;
    const ink = this.input.typesetter.inkOfFirstGlyph(part.text, fontKey);
    const sizePx = box.heightPx / Math.max(ink.heightEm, 1e-3);
    const xPx = box.xPx - ink.leftEm * sizePx;
    const yPx = box.yPx + box.heightPx + ink.bottomEm * sizePx;
    const colour = this.input.scheme[part.ink];
    this.nodes.push({ kind: "glyphs", sizePx, colour, alpha: 1, glyphs: [{ fontKey, id: ink.glyphId, xPx, yPx }] });
    this.#backdrop.addFlat({ ...box, widthPx: ink.widthEm * sizePx }, colour);
  }
  #artwork(part, box) {
    const { ink } = part;
    const paths = ink === void 0 ? part.paths : part.paths.map((path) => ({ ...path, fill: this.input.scheme[ink] }));
    this.nodes.push({ kind: "artwork", xPx: box.xPx, yPx: box.yPx, scale: box.heightPx / part.viewBox.height, paths });
    for (const path of paths) this.#backdrop.addFlat(box, path.fill);
  }
  /** What is left out of one slide would be missing at the seam of the next: a motif that runs through stays whole. */
  #motifThrough(part, box) {
    const slide = { xPx: 0, yPx: 0, ...this.input.frame.size };
    for (const shape2 of drawMotif(part.generator, box, this.input.frame.marginPx, part.seed)) {
      if (!shape2.boxes.some((each) => intersectBoxes(each, slide))) continue;
      this.nodes.push({ kind: "fill", path: shape2.path, colour: this.input.scheme[shape2.ink], alpha: 1 });
      for (const each of shape2.boxes) this.#backdrop.addFlat(each, this.input.scheme[shape2.ink]);
    }
  }
  /** An ornament never runs over words or marks: what of it would, stays away. */
  #motif(part, box) {
    const { size, marginPx } = this.input.frame;
    if (part.through) return this.#motifThrough(part, throughBox(box, size.widthPx, this.input.place));
    const shapes = drawMotif(part.generator, box, marginPx, part.seed);
    const kept2 = [...this.#inkBoxes.values(), ...markBoxes(this.input.fitted.laidOut)];
    const isFree = (shape2) => !shape2.boxes.some((each) => kept2.some((other) => intersectBoxes(each, other)));
    if (wholeMotifs.has(part.generator) && !shapes.every(isFree)) return;
    for (const shape2 of shapes.filter(isFree)) {
      this.nodes.push({ kind: "fill", path: shape2.path, colour: this.input.scheme[shape2.ink], alpha: 1 });
      for (const each of shape2.boxes) this.#backdrop.addFlat(each, this.input.scheme[shape2.ink]);
    }
  }
};
function throughBox(box, slideWidthPx, { index, count }) {
  return { ...box, xPx: -index * slideWidthPx, widthPx: count * slideWidthPx };
}
function isUnderneath(part) {
  return part.part === "picture" && !part.whole && part.over === void 0;
}
function duotoneOf(scheme) {
  const groundIsDark = relativeLuminance(scheme.ground) < relativeLuminance(scheme.ink);
  return groundIsDark ? { dark: scheme.ground, light: scheme.ink } : { dark: scheme.ink, light: scheme.ground };
}
function slantedPath({ xPx, yPx, widthPx, heightPx }, edge, slantPx) {
  const [right, bottom] = [xPx + widthPx, yPx + heightPx];
  const corners = {
    top: [[xPx, yPx], [right, yPx - slantPx], [right, bottom], [xPx, bottom]],
    bottom: [[xPx, yPx], [right, yPx], [right, bottom], [xPx, bottom + slantPx]],
    right: [[xPx, yPx], [right + slantPx, yPx], [right, bottom], [xPx, bottom]],
    left: [[xPx, yPx], [right, yPx], [right, bottom], [xPx - slantPx, bottom]]
  };
  return `M${corners[edge].map(([x, y]) => `${x.toFixed(2)} ${y.toFixed(2)}`).join("L")}Z`;
}
function clampToCut(box, size) {
  const xPx = Math.max(0, box.xPx);
  const yPx = Math.max(0, box.yPx);
  return {
    xPx,
    yPx,
    widthPx: Math.max(1, Math.min(size.widthPx, box.xPx + box.widthPx) - xPx),
    heightPx: Math.max(1, Math.min(size.heightPx, box.yPx + box.heightPx) - yPx)
  };
}

// src/core/compose/fit.ts
var STEPS = 24;
var LEAST_GAIN = 1.04;
var ROLE_ORDER = ["display", "heading", "text", "label"];
function fit(solver) {
  const texts = [...solver.input.texts.values()];
  const steps = new Map(texts.map((text) => [text.part, 0]));
  const sizesNow = () => new Map(texts.map((text) => [text.part, sizeAtStep(text, steps.get(text.part) ?? 0)]));
  const overflowNow = () => {
    solver.solve(sizesNow());
    return solver.findOverflow();
  };
  const outcome = (overflow) => ({ sizes: sizesNow(), laidOut: solver.laidOut(), overflow });
  const setAll = (step) => texts.forEach((text) => steps.set(text.part, step));
  if (!overflowNow()) return outcome(null);
  setAll(STEPS);
  const atSmallest = overflowNow();
  if (atSmallest) return outcome(atSmallest);
  const common = smallestFitting(0, STEPS, (step) => {
    setAll(step);
    return !overflowNow();
  });
  setAll(common);
  for (const role of ROLE_ORDER) {
    const ofRole = texts.filter((text) => text.part.role === role && text.maxPx > text.minPx * LEAST_GAIN);
    if (ofRole.length === 0) continue;
    const set = (step) => ofRole.forEach((text) => steps.set(text.part, step));
    const raised = smallestFitting(-1, common, (step) => {
      set(step);
      return !overflowNow();
    });
    set(raised);
  }
  return outcome(overflowNow());
}
function sizeAtStep(text, step) {
  return text.maxPx * (text.minPx / text.maxPx) ** (step / STEPS);
}
function smallestFitting(from, to, fits) {
  let [low, high] = [from, to];
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (fits(middle)) high = middle;
    else low = middle;
  }
  return high;
}

// src/core/compose/layout.ts
var SLACK_PX = 0.75;
var LayoutSolver = class {
  constructor(input, yoga) {
    this.input = input;
    this.#config = yoga.Config.create();
    this.#config.setPointScaleFactor(0);
    this.#root = this.#build(input.root, yoga, this.#config);
    this.#root.node.setWidth(input.frame.size.widthPx);
    this.#root.node.setHeight(input.frame.size.heightPx);
  }
  input;
  #root;
  /** Nodes point at their config as long as they live. */
  #config;
  #sizes = /* @__PURE__ */ new Map();
  #textNodes = /* @__PURE__ */ new Map();
  free() {
    this.#root.node.freeRecursive();
    this.#config.free();
  }
  /** Lays out with these type sizes, in pixels. */
  solve(sizes) {
    for (const [part, sizePx] of sizes) {
      if (this.#sizes.get(part) === sizePx) continue;
      this.#sizes.set(part, sizePx);
      this.#textNodes.get(part)?.markDirty();
    }
    this.#root.node.calculateLayout(void 0, void 0);
  }
  /** Every part of the last layout with its place. */
  laidOut() {
    return collect(this.#root, 0, 0);
  }
  /** What does not fit into the last layout; null when all is well. Asked of the nodes themselves: fitting asks it dozens of times. */
  findOverflow() {
    for (const [part, node] of this.#textNodes) {
      const text = this.input.texts.get(part);
      if (!text) continue;
      const widthPx = node.getComputedWidth();
      const sizePx = sizeInWidth(text, this.#sizes.get(part) ?? text.minPx, widthPx);
      if (widestWordPx(text, sizePx) > widthPx + SLACK_PX || part.fill && sizePx < text.minPx - 0.01) return { reason: "word-too-wide", part };
    }
    return isContained(this.#root) ? null : { reason: "too-tall" };
  }
  #build(part, yoga, config) {
    const node = yoga.Node.create(config);
    const { marginPx } = this.input.frame;
    this.#place(node, part, yoga);
    const children = [];
    const padding = part.part === "stack" ? stackPadding(part, this.input.frame) : NO_PADDING;
    switch (part.part) {
      case "stack": {
        node.setFlexDirection(part.direction === "row" ? yoga.FLEX_DIRECTION_ROW : yoga.FLEX_DIRECTION_COLUMN);
        node.setGap(yoga.GUTTER_ALL, (part.gapM ?? 0) * marginPx);
        node.setJustifyContent({ start: yoga.JUSTIFY_FLEX_START, centre: yoga.JUSTIFY_CENTER, end: yoga.JUSTIFY_FLEX_END, between: yoga.JUSTIFY_SPACE_BETWEEN }[part.justify ?? "start"]);
        node.setAlignItems({ start: yoga.ALIGN_FLEX_START, centre: yoga.ALIGN_CENTER, end: yoga.ALIGN_FLEX_END, stretch: yoga.ALIGN_STRETCH }[part.align ?? "stretch"]);
        for (const edge of EDGES) node.setPadding(yogaEdge(yoga, edge), padding[edge]);
        for (const child of part.children) {
          if (!this.#isShown(child)) continue;
          const built = this.#build(child, yoga, config);
          node.insertChild(built.node, children.length);
          children.push(built);
        }
        break;
      }
      case "text": {
        const text = this.input.texts.get(part);
        if (part.widthM !== void 0) node.setWidth(part.widthM * marginPx);
        if (text) node.setMeasureFunc((widthPx, mode) => this.#measure(part, text, mode === yoga.MEASURE_MODE_EXACTLY ? { exactPx: widthPx } : { mostPx: widthPx }));
        this.#textNodes.set(part, node);
        break;
      }
      case "mark":
        node.setHeight(part.heightM * marginPx);
        node.setWidth(part.heightM * marginPx * this.input.markAspect(part));
        break;
      case "rule":
        if (part.lengthM > 0) node.setWidth(part.lengthM * marginPx);
        node.setHeight(Math.max(1, part.thicknessM * marginPx));
        break;
      case "sign":
        node.setHeight(part.heightM * marginPx);
        break;
      case "artwork":
        node.setHeight(part.heightM * marginPx);
        node.setWidth(part.heightM * marginPx * (part.viewBox.width / part.viewBox.height));
        break;
      case "picture":
        if (part.sideM !== void 0) {
          node.setWidth(part.sideM * marginPx);
          node.setHeight(part.sideM * marginPx);
        }
        break;
      case "dots":
        node.setHeight(part.heightM * marginPx);
        node.setWidth(dotsWidthPx(part, this.input.place, marginPx));
        break;
      case "swipe":
        node.setHeight(part.heightM * marginPx);
        node.setWidth(part.heightM * marginPx * SWIPE_ASPECT);
        break;
      case "motif":
        break;
    }
    return { part, node, padding, children };
  }
  #isShown(part) {
    if (part.part === "text") return this.input.texts.has(part);
    if (part.part === "picture") return !this.input.isHidden(part.slot);
    if (part.part === "mark") return !this.input.isHidden(MARK_SLOT) && !(part.slot !== void 0 && this.input.isHidden(part.slot));
    if (part.part === "dots") return this.input.place.count > 1;
    if (part.part === "swipe") return this.input.place.index < this.input.place.count - 1;
    if (part.part === "stack" && part.children.length > 0) return part.children.some((child) => child.part !== "rule" && this.#isShown(child));
    return true;
  }
  #place(node, part, yoga) {
    node.setFlexShrink(part.part === "picture" ? 1 : 0);
    if (part.grow !== void 0) node.setFlexGrow(part.grow);
    if (part.share !== void 0) node.setFlexBasis(part.share === 0 ? 0 : `${part.share * 100}%`);
    if (part.grow !== void 0 && part.share === 0) node.setFlexShrink(1);
    if (part.leastShare !== void 0) {
      const { heightPx, widthPx } = this.input.frame.size;
      if (isInRow(this.input.root, part)) node.setMinWidth(part.leastShare * widthPx);
      else node.setMinHeight(part.leastShare * heightPx);
    }
    if (part.alignSelf) node.setAlignSelf({ start: yoga.ALIGN_FLEX_START, centre: yoga.ALIGN_CENTER, end: yoga.ALIGN_FLEX_END, stretch: yoga.ALIGN_STRETCH }[part.alignSelf]);
    if (part.over) {
      node.setPositionType(yoga.POSITION_TYPE_ABSOLUTE);
      for (const edge of EDGES) {
        const distanceM = part.over[edge];
        if (distanceM === void 0) continue;
        const safePx = part.part === "mark" || part.part === "stack" && part.safe?.includes(edge) ? safeInset(this.input.frame, edge) : -Infinity;
        node.setPosition(yogaEdge(yoga, edge), Math.max(distanceM * this.input.frame.marginPx, safePx));
      }
    }
  }
  #measure(part, text, room) {
    const wanted = this.#sizes.get(part) ?? text.maxPx;
    const lineEm = text.shaped.offsetsEm.at(-1) ?? 0;
    const width = "exactPx" in room ? room.exactPx : Math.min(Number.isFinite(room.mostPx) ? room.mostPx : Infinity, lineEm * wanted + SLACK_PX);
    const sizePx = sizeInWidth(text, wanted, width);
    return { width, height: textHeightPx(text, sizePx, lineCountIn(text, sizePx, width)) };
  }
};
var NO_PADDING = { top: 0, right: 0, bottom: 0, left: 0 };
var EDGES = ["top", "right", "bottom", "left"];
function yogaEdge(yoga, edge) {
  return { top: yoga.EDGE_TOP, right: yoga.EDGE_RIGHT, bottom: yoga.EDGE_BOTTOM, left: yoga.EDGE_LEFT }[edge];
}
function safeInset({ safe }, edge) {
  return { top: safe.topPx, right: safe.rightPx, bottom: safe.bottomPx, left: safe.leftPx }[edge];
}
function stackPadding(part, frame) {
  const at = (edge) => Math.max((part.padM?.[edge] ?? 0) * frame.marginPx, part.safe?.includes(edge) ? safeInset(frame, edge) : 0);
  return { top: at("top"), right: at("right"), bottom: at("bottom"), left: at("left") };
}
function isInRow(stack, part) {
  if (stack.children.includes(part)) return stack.direction === "row";
  return stack.children.some((child) => child.part === "stack" && isInRow(child, part));
}
function collect(built, originX, originY) {
  const xPx = originX + built.node.getComputedLeft();
  const yPx = originY + built.node.getComputedTop();
  return {
    part: built.part,
    box: { xPx, yPx, widthPx: built.node.getComputedWidth(), heightPx: built.node.getComputedHeight() },
    children: built.children.map((child) => collect(child, xPx, yPx))
  };
}
function isContained({ node, padding, children }) {
  if (children.length === 0) return true;
  const rightPx = node.getComputedWidth() - padding.right + SLACK_PX;
  const bottomPx = node.getComputedHeight() - padding.bottom + SLACK_PX;
  return children.every((child) => {
    if (child.part.over) return isContained(child);
    const [leftPx, topPx] = [child.node.getComputedLeft(), child.node.getComputedTop()];
    return leftPx >= padding.left - SLACK_PX && topPx >= padding.top - SLACK_PX && leftPx + child.node.getComputedWidth() <= rightPx && topPx + child.node.getComputedHeight() <= bottomPx && isContained(child);
  });
}

// src/core/compose/compose.ts
function sizeKey(arrangement, part) {
  return `${arrangement.key}:${slotOfRow(part.slot)}:${part.role}`;
}
function compose(input, engines2) {
  const { adjustment, template: template2, book } = input;
  const frame = cutFrame(input.placement);
  const place = input.place ?? ALONE;
  const scheme = resolveScheme(book, hasScheme(book, adjustment.scheme) ? adjustment.scheme : template2.scheme);
  const arrangement = arrange(template2, frame.size, adjustment.arrangement);
  const settingWithout = (dropped2) => {
    const hidden = [...adjustment.hidden ?? [], ...dropped2];
    const bound = bind(template2, input.frame, input.pictures, { ghosts: input.ghosts, hidden, facts: book.facts });
    const root = expandRows(arrangement.root, (slot) => bound.lists[slot] ?? NO_LIST);
    return { arrangement, root, bound, book, frame, hidden, textStep: adjustment.textStep ?? 0, place, caps: input.caps, engines: engines2 };
  };
  const { setting, texts, fitted, dropped, overBy } = fitDropping(template2, adjustment, settingWithout);
  const emitted = emit({ book, scheme, frame, bound: setting.bound, texts, fitted, crops: adjustment.crops ?? {}, place, typesetter: engines2.typesetter });
  return {
    scene: { size: frame.size, nodes: emitted.nodes },
    report: {
      arrangement: arrangement.key,
      texts: textFits(texts, fitted, emitted.placed, overBy),
      placed: emitted.placed,
      pictures: emitted.pictures,
      findings: [...setting.bound.findings, ...dropped.map((slot) => ({ kind: "dropped", slot })), ...emitted.findings]
    },
    sizes: sizesFound(arrangement, texts, fitted)
  };
}
function sizesFound(arrangement, texts, fitted) {
  const sizes = /* @__PURE__ */ new Map();
  for (const [part, text] of texts) {
    const sizePx = fitted.sizes.get(part);
    if (sizePx === void 0 || part.fill || text.ghost || isNumeral(part.slot)) continue;
    const key7 = sizeKey(arrangement, part);
    sizes.set(key7, Math.min(sizePx, sizes.get(key7) ?? Infinity));
  }
  return sizes;
}
var NO_LIST = { count: 0, columns: false, marked: null };
function fitDropping(template2, adjustment, settingWithout) {
  const whole = settingWithout([]);
  const texts = shapeTexts(whole);
  const fitted = runFit(whole, texts);
  if (!fitted.overflow) return { setting: whole, texts, fitted, dropped: [], overBy: null };
  const droppable = (template2.drop ?? []).filter((slot) => !adjustment.hidden?.includes(slot) && isFilled(whole.bound, slot));
  for (let count = 1; count <= droppable.length; count += 1) {
    const dropped = droppable.slice(0, count);
    const setting = settingWithout(dropped);
    const fewer = shapeTexts(setting);
    const fit2 = runFit(setting, fewer);
    if (!fit2.overflow) return { setting, texts: fewer, fitted: fit2, dropped, overBy: null };
  }
  return { setting: whole, texts, fitted, dropped: [], overBy: measureOverflow(whole, texts, fitted.overflow) };
}
function isFilled(bound, slot) {
  return bound.texts[slot]?.ghost === false || bound.pictures[slot] !== void 0 || (bound.lists[slot]?.count ?? 0) > 0;
}
function hasScheme(book, key7) {
  return book.schemes.some((scheme) => scheme.key === key7);
}
function setPart(part, text, { arrangement, book, frame, textStep, caps, engines: engines2 }) {
  const set = setText(part, text, { book, frame, textStep }, engines2.typesetter);
  const cap = part.fill ? void 0 : caps?.get(sizeKey(arrangement, part));
  return cap === void 0 || cap >= set.maxPx ? set : { ...set, maxPx: Math.max(set.minPx, cap) };
}
function shapeTexts(setting) {
  const texts = /* @__PURE__ */ new Map();
  for (const part of walkParts(setting.root)) {
    const text = part.part === "text" ? setting.bound.texts[part.slot] : void 0;
    if (part.part === "text" && text) texts.set(part, setPart(part, text, setting));
  }
  return texts;
}
function runFit({ root, bound, book, frame, hidden, place, engines: engines2 }, texts) {
  const solver = new LayoutSolver(
    {
      root,
      frame,
      texts,
      isHidden: (slot) => hidden.includes(slot),
      place,
      markAspect: (part) => {
        const mark = chosenMark(book, bound, part) ?? book.marks[0];
        return mark ? mark.viewBox.width / mark.viewBox.height : 1;
      }
    },
    engines2.yoga
  );
  try {
    return fit(solver);
  } finally {
    solver.free();
  }
}
function measureOverflow(setting, texts, overflow) {
  const slots = overflow.reason === "word-too-wide" ? [slotOfRow(overflow.part.slot)] : slotsByRoom(texts);
  for (const slot of slots) {
    const characters = charactersTooMany(slot, setting, texts);
    if (characters !== null) return { slot, characters };
  }
  const [first] = slots;
  return first === void 0 ? null : { slot: first, characters: charactersOf(first, setting.bound).length };
}
function slotsByRoom(texts) {
  const rooms = /* @__PURE__ */ new Map();
  for (const [part, text] of texts) {
    if (text.ghost) continue;
    const slot = slotOfRow(part.slot);
    rooms.set(slot, (rooms.get(slot) ?? 0) + (text.shaped.offsetsEm.at(-1) ?? 0) * text.minPx ** 2);
  }
  return [...rooms].sort(([, a], [, b]) => b - a).map(([slot]) => slot);
}
var graphemes = new Intl.Segmenter("und", { granularity: "grapheme" });
function charactersOf(slot, bound) {
  return textNames(slot, bound).flatMap((each) => [...graphemes.segment(bound.texts[each]?.text ?? "")].map(({ segment }) => segment));
}
function textNames(slot, bound) {
  const list = bound.lists[slot];
  return list === void 0 ? [slot] : Array.from({ length: list.count }, (_, index) => [rowSlot(slot, index), ...list.columns ? [valueSlot(slot, index)] : []]).flat();
}
function charactersTooMany(slot, setting, texts) {
  const total = charactersOf(slot, setting.bound).length;
  const fitsWith = (kept2) => {
    const { root, bound } = keepCharacters(slot, kept2, setting);
    const shortened = { ...setting, root, bound };
    return !runFit(shortened, kept2 === total ? texts : shapeTexts(shortened)).overflow;
  };
  if (!fitsWith(0)) return null;
  let [low, high] = [0, total];
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (fitsWith(middle)) low = middle;
    else high = middle;
  }
  return total - low;
}
function keepCharacters(slot, kept2, { bound, arrangement }) {
  const texts = { ...bound.texts };
  const list = bound.lists[slot];
  let left = kept2;
  let rows = 0;
  for (const name of textNames(slot, bound)) {
    const own = [...graphemes.segment(bound.texts[name]?.text ?? "")].map(({ segment }) => segment);
    const text = own.slice(0, left).join("").trim();
    left = Math.max(0, left - own.length);
    if (text === "") {
      delete texts[name];
      delete texts[echoSlot(name)];
    } else {
      texts[name] = { text, ghost: false };
      if (list === void 0) texts[echoSlot(name)] = { text: echoLine(text), ghost: false };
      if (!name.endsWith(".value")) rows += 1;
    }
  }
  const lists = list === void 0 ? bound.lists : { ...bound.lists, [slot]: { ...list, count: rows } };
  return { bound: { ...bound, texts, lists }, root: expandRows(arrangement.root, (each) => lists[each] ?? NO_LIST) };
}
function textFits(texts, fitted, placed2, overBy) {
  const slots = /* @__PURE__ */ new Map();
  for (const [part, text] of texts) {
    const found = placed2.find((each) => each.slot === part.slot);
    if (text.ghost || !found || isNumeral(part.slot) || part.ornament) continue;
    const slot = slotOfRow(part.slot);
    const before = slots.get(slot);
    slots.set(slot, { sizePx: Math.min(before?.sizePx ?? Infinity, found.sizePx), lines: (before?.lines ?? 0) + found.lines });
  }
  return [...slots].map(([slot, { sizePx, lines }]) => {
    if (fitted.overflow && overBy?.slot === slot) return { kind: "overflows", slot, sizePx, lines, overBy: overBy.characters, reason: fitted.overflow.reason };
    return { kind: "fits", slot, sizePx, lines };
  });
}

// src/core/compose/compose-run.ts
var MOST_KEPT = 1200;
var RunComposer = class {
  constructor(engines2) {
    this.engines = engines2;
  }
  engines;
  #kept = new LRUCache2({ max: MOST_KEPT });
  compose(members) {
    const alone = members.map((member) => this.#composeOnce(member, null));
    return members.map((member, index) => {
      const own = alone[index];
      const caps = /* @__PURE__ */ new Map();
      members.forEach((other, at) => {
        if (other.family !== member.family) return;
        for (const [key7, sizePx] of alone[at]?.sizes ?? []) caps.set(key7, Math.min(sizePx, caps.get(key7) ?? Infinity));
      });
      const isSmallest = own !== void 0 && [...own.sizes].every(([key7, sizePx]) => sizePx <= (caps.get(key7) ?? Infinity) + 1e-6);
      return own !== void 0 && isSmallest ? own : this.#composeOnce(member, caps);
    });
  }
  #composeOnce(member, caps) {
    const key7 = caps === null ? member.signature : `${member.signature}|${[...caps].map(([name, sizePx]) => `${name}=${sizePx.toFixed(3)}`).join(",")}`;
    const known = this.#kept.get(key7);
    const composed = known ?? compose(caps === null ? member : { ...member, caps }, this.engines);
    this.#kept.set(key7, composed);
    return composed;
  }
};

// src/core/compose/needed-glyphs.ts
function neededGlyphs(book, contents) {
  const texts = new Set(book.facts.map((fact) => fact.text));
  for (const { template: template2, frame } of contents) {
    for (const value of Object.values(frame.slots)) if (value.kind === "text") texts.add(value.text);
    for (const slot of template2.slots) texts.add(slot.hint);
  }
  const all = [...texts].join("\n");
  const fontKeys = Object.values(book.type).flatMap((role) => fontKeysFor(all, role.font, fontWeight(book, role.font)));
  return { fontKeys: [...new Set(fontKeys)], emoji: [...new Set(findEmoji(all).map((each) => each.code))] };
}

// src/core/video/subtitle-template.ts
var band2 = {
  part: "stack",
  direction: "column",
  field: { ink: "ground", shape: "box" },
  padM: { top: 0.3, right: 0.5, bottom: 0.24, left: 0.5 },
  align: "stretch",
  alignSelf: "centre",
  children: [{ part: "text", slot: "line", role: "text", align: "centre", ink: "ink", sizeM: { max: 0.74, min: 0.6 } }]
};
var anchored = { part: "stack", direction: "column", justify: "end", align: "stretch", padM: { top: 0, right: 1, bottom: 0.7, left: 1 }, safe: ["top", "right", "bottom", "left"], children: [band2] };
var subtitleTemplate = readTemplate({
  version: 1,
  key: "subtitle",
  name: "Subtitle",
  purpose: "A line that is spoken",
  kind: "graphic",
  scheme: "dark",
  slots: [{ key: "line", kind: "text", label: "Line", hint: "What is said", required: true }],
  arrangements: [
    { key: "upright", name: "Upright", aspect: { from: 0, to: 1.2 }, root: anchored },
    { key: "wide", name: "Wide", aspect: { from: 1.2, to: 10 }, root: { ...anchored, padM: { top: 0, right: 4, bottom: 0.7, left: 4 } } }
  ]
});

// src/core/export/picture-metadata.ts
function toXmp({ title, altText, credit, licence }) {
  const alternative = (name, text) => text === "" ? "" : `<${name}><rdf:Alt><rdf:li xml:lang="x-default">${escapeXml(text)}</rdf:li></rdf:Alt></${name}>`;
  const properties = [
    alternative("dc:title", title),
    alternative("dc:description", altText),
    alternative("Iptc4xmpCore:AltTextAccessibility", altText),
    alternative("dc:rights", licence),
    credit === "" ? "" : `<dc:creator><rdf:Seq>${credit.split("; ").map((name) => `<rdf:li>${escapeXml(name)}</rdf:li>`).join("")}</rdf:Seq></dc:creator>`
  ];
  return `<?xpacket begin="\uFEFF" id="W5M0MpCehiHzreSzNTczkc9d"?><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#"><rdf:Description rdf:about="" xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:Iptc4xmpCore="http://iptc.org/std/Iptc4xmpCore/1.0/xmlns/">${properties.join("")}</rdf:Description></rdf:RDF><?xpacket end="w"?>`;
}
function escapeXml(text) {
  return text.replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, "").replaceAll("&", "&amp;").replaceAll("<", "&lt;").replaceAll(">", "&gt;").replaceAll('"', "&quot;");
}

// src/server/film/paint-layers.ts
import { writeFile as writeFile2 } from "node:fs/promises";
import { join as join2 } from "node:path";
import sharp4 from "sharp";

// src/core/video/motion.ts
var MOTION = { firstFrame: 3, staggerFrames: 2, enterFrames: 12, leaveFrames: 6 };
var RISE_M = 0.7;
var MARGIN_SHARE2 = 0.06;
function motionLayers({ nodes }) {
  const orders = /* @__PURE__ */ new Map();
  const layers = [];
  for (const node of nodes) {
    const slot = node.kind === "glyphs" ? node.slot : void 0;
    const last = layers.at(-1);
    if (node.kind !== "glyphs" || slot === void 0) {
      if (last?.kind === "still") layers[layers.length - 1] = { ...last, nodes: [...last.nodes, node] };
      else layers.push({ kind: "still", nodes: [node] });
      continue;
    }
    const order = orders.get(slot) ?? orders.size;
    orders.set(slot, order);
    if (last?.kind === "text" && last.order === order) layers[layers.length - 1] = { ...last, nodes: [...last.nodes, node] };
    else layers.push({ kind: "text", order, nodes: [node] });
  }
  return layers;
}
function textTimes(order, lengthFrames, staysAtEnd) {
  const { firstFrame, staggerFrames, enterFrames, leaveFrames } = MOTION;
  return { enterAt: firstFrame + order * staggerFrames, enterFrames, leaveAt: staysAtEnd ? Infinity : lengthFrames - leaveFrames, leaveFrames };
}
function risePx({ size }) {
  return Math.min(size.widthPx, size.heightPx) * MARGIN_SHARE2 * RISE_M;
}

// src/core/video/render-plan.ts
function planShot(scene, { lengthFrames, isLast }, clips2) {
  const layers = motionLayers(scene).flatMap((layer) => layer.kind === "text" ? [{ kind: "text", nodes: layer.nodes, times: textTimes(layer.order, lengthFrames, isLast) }] : splitAtFilms(layer.nodes, clips2));
  const cover = layers.findLastIndex((layer) => layer.kind === "film" && layer.box.widthPx >= scene.size.widthPx && layer.box.heightPx >= scene.size.heightPx);
  return cover < 0 ? layers : layers.slice(cover);
}
function splitAtFilms(nodes, clips2) {
  const layers = [];
  for (const node of nodes) {
    const last = layers.at(-1);
    if (node.kind === "picture" && clips2.has(node.pictureId)) layers.push({ kind: "film", mediaId: node.pictureId, box: node.box, window: node.window });
    else if (last?.kind === "still") layers[layers.length - 1] = { kind: "still", nodes: [...last.nodes, node] };
    else layers.push({ kind: "still", nodes: [node] });
  }
  return layers;
}

// src/server/render/canvas-painter.ts
import { createCanvas, ImageData, Path2D } from "@napi-rs/canvas";
import { LRUCache as LRUCache3 } from "lru-cache";
import sharp3 from "sharp";

// src/core/scene/paint.ts
var PENDING_PICTURE = "#8a8c90";
function paint(context, scene, scale, assets) {
  context.save();
  for (const node of scene.nodes) {
    context.setTransform(scale, 0, 0, scale, 0, 0);
    switch (node.kind) {
      case "fill":
        context.globalAlpha = node.alpha;
        context.fillStyle = node.colour;
        context.fill(assets.path(node.path));
        break;
      case "picture":
        paintPicture(context, node, scale, assets);
        break;
      case "glyphs":
        paintGlyphs(context, node, scale, assets);
        break;
      case "artwork":
        paintArtwork(context, node, scale, assets);
        break;
    }
  }
  context.restore();
}
function paintPicture(context, node, scale, assets) {
  const raster = pictureRaster(node, scale);
  const bitmap = assets.picture(node, scale);
  context.globalAlpha = 1;
  context.setTransform(1, 0, 0, 1, 0, 0);
  if (bitmap !== null) {
    context.drawImage(bitmap, raster.xPx, raster.yPx);
    return;
  }
  context.fillStyle = PENDING_PICTURE;
  context.fillRect(raster.xPx, raster.yPx, raster.widthPx, raster.heightPx);
}
function paintGlyphs(context, node, scale, assets) {
  context.globalAlpha = node.alpha;
  context.fillStyle = node.colour;
  for (const glyph of node.glyphs) {
    const { path, unitsPerEm } = assets.glyph(glyph.fontKey, glyph.id);
    const unit = node.sizePx / unitsPerEm * scale;
    context.setTransform(unit, 0, 0, -unit, glyph.xPx * scale, glyph.yPx * scale);
    context.fill(path);
  }
}
function paintArtwork(context, node, scale, assets) {
  context.globalAlpha = 1;
  const unit = node.scale * scale;
  context.setTransform(unit, 0, 0, unit, node.xPx * scale, node.yPx * scale);
  for (const each of node.paths) {
    context.fillStyle = each.fill;
    context.fill(assets.path(each.d), each.evenOdd ? "evenodd" : "nonzero");
  }
}

// src/server/render/decoded-pictures.ts
import sharp2 from "sharp";
var MOST_PIXELS = 4e7;
var LEVELS = [12, 6, 3];
var WHOLE = 1;
var LEAST_REST = 1.25;
var DecodedPictures = class {
  #last = null;
  /** @param shrink pixels of the file that become one pixel, in the direction where they are fewer */
  async open({ filePath, widthPx, heightPx }, shrink) {
    if (widthPx * heightPx > MOST_PIXELS) return { image: sharp2(filePath), widthPx, heightPx };
    const level = LEVELS.find((factor) => shrink >= factor * LEAST_REST) ?? WHOLE;
    const isFirst = this.#last?.filePath !== filePath;
    if (isFirst || !this.#last) this.#last = { filePath, levels: /* @__PURE__ */ new Map() };
    if (isFirst && level === WHOLE) return { image: sharp2(filePath), widthPx, heightPx };
    const decoding = this.#last.levels.get(level) ?? decode(filePath, { widthPx, heightPx }, level);
    this.#last.levels.set(level, decoding);
    const { data, ...raw } = await decoding;
    return { image: sharp2(data, { raw }), widthPx: raw.width, heightPx: raw.height };
  }
};
async function decode(filePath, { widthPx, heightPx }, level) {
  const image = sharp2(filePath);
  if (level > WHOLE) image.resize(Math.floor(widthPx / level), Math.floor(heightPx / level), { fit: "fill", kernel: "lanczos3" });
  const { data, info } = await image.raw().toBuffer({ resolveWithObject: true });
  return { data, width: info.width, height: info.height, channels: info.channels };
}

// src/server/render/srgb-tag.ts
import { crc32 } from "node:zlib";
function tagJpegAsSrgb(image) {
  return image.withExif({ IFD2: { ColorSpace: "1" } });
}
var BEHIND_HEADER = 8 + 25;
var PERCEPTUAL = 0;
function tagPngAsSrgb(png) {
  const body = Buffer.from([...Buffer.from("sRGB", "latin1"), PERCEPTUAL]);
  const chunk = Buffer.alloc(4 + body.length + 4);
  chunk.writeUInt32BE(1, 0);
  body.copy(chunk, 4);
  chunk.writeUInt32BE(crc32(body), 4 + body.length);
  return Buffer.concat([png.subarray(0, BEHIND_HEADER), chunk, png.subarray(BEHIND_HEADER)]);
}

// src/server/render/canvas-painter.ts
async function paintScene(scene, typesetter, sources, scale = 1) {
  const canvas = await paintOnCanvas(scene, typesetter, sources, scale);
  return { widthPx: canvas.width, heightPx: canvas.height, rgba: canvas.data() };
}
async function paintLayer(scene, typesetter, sources) {
  const canvas = await paintOnCanvas(scene, typesetter, sources, 1);
  const { data } = canvas.getContext("2d").getImageData(0, 0, canvas.width, canvas.height);
  return { widthPx: canvas.width, heightPx: canvas.height, rgba: Buffer.from(data.buffer, data.byteOffset, data.byteLength) };
}
async function paintOnCanvas(scene, typesetter, sources, scale) {
  const bitmaps = /* @__PURE__ */ new Map();
  for (const node of scene.nodes) {
    if (node.kind !== "picture") continue;
    const source = sources.get(node.pictureId);
    if (!source) throw new RangeError(`No file is at hand for picture '${node.pictureId}'`);
    bitmaps.set(node, node.box.widthPx > scene.size.widthPx ? await rasteriseWide(node, source, scale) : await rasterise(node, source, scale));
  }
  const canvas = surfaceOf(Math.round(scene.size.widthPx * scale), Math.round(scene.size.heightPx * scale));
  paint(canvas.getContext("2d"), scene, scale, {
    path: (data) => new Path2D(data),
    glyph: glyphPaths(typesetter),
    picture: (node) => bitmaps.get(node) ?? null
  });
  return canvas;
}
var surfaces = new LRUCache3({ max: 6 });
function surfaceOf(width, height) {
  const key7 = `${width}x${height}`;
  const known = surfaces.get(key7);
  known?.getContext("2d").clearRect(0, 0, width, height);
  const canvas = known ?? createCanvas(width, height);
  surfaces.set(key7, canvas);
  return canvas;
}
var lastWide = null;
function rasteriseWide(node, source, scale) {
  const { widthPx, heightPx } = node.box;
  const key7 = JSON.stringify([source.filePath, node.window, widthPx, heightPx, scale, node.tone, node.mask]);
  if (lastWide?.key !== key7) lastWide = { key: key7, canvas: rasterise(node, source, scale) };
  return lastWide.canvas;
}
var pathCaches = /* @__PURE__ */ new WeakMap();
function glyphPaths(typesetter) {
  const cache = pathCaches.get(typesetter) ?? /* @__PURE__ */ new Map();
  pathCaches.set(typesetter, cache);
  return (fontKey, glyphId) => {
    const key7 = `${fontKey}/${glyphId}`;
    let path = cache.get(key7);
    if (!path) {
      path = new Path2D(typesetter.outline(fontKey, glyphId));
      cache.set(key7, path);
    }
    return { path, unitsPerEm: typesetter.unitsPerEm(fontKey) };
  };
}
async function rasterise(node, source, scale) {
  const target = pictureRaster(node, scale);
  const shrink = Math.min(node.window.width * source.widthPx / target.widthPx, node.window.height * source.heightPx / target.heightPx);
  const { image, widthPx, heightPx } = await decoded.open(source, shrink);
  const left = Math.min(widthPx - 1, Math.round(node.window.x * widthPx));
  const top = Math.min(heightPx - 1, Math.round(node.window.y * heightPx));
  const { data, info } = await image.extract({
    left,
    top,
    width: Math.max(1, Math.min(widthPx - left, Math.round(node.window.width * widthPx))),
    height: Math.max(1, Math.min(heightPx - top, Math.round(node.window.height * heightPx)))
  }).resize(target.widthPx, target.heightPx, { fit: "fill", kernel: "lanczos3" }).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  const canvas = createCanvas(info.width, info.height);
  const context = canvas.getContext("2d");
  const pixels = new Uint8ClampedArray(data.buffer, data.byteOffset, data.length);
  if (node.tone) applyTone(pixels, node.tone);
  context.putImageData(new ImageData(pixels, info.width, info.height), 0, 0);
  maskPicture(context, node, scale, (path) => new Path2D(path));
  return canvas;
}
var decoded = new DecodedPictures();
var BEST_QUALITY = { png: 100, jpeg: 92, webp: 92, avif: 69 };
async function encodeCut(cut, { format, quality, xmp }) {
  const image = sharp3(cut.rgba, { raw: { width: cut.widthPx, height: cut.heightPx, channels: 4 } }).removeAlpha();
  const about = xmp === null ? image : image.withXmp(xmp);
  switch (format) {
    case "png":
      return tagPngAsSrgb(await about.png(quality >= 100 ? { compressionLevel: 6 } : { compressionLevel: 9, palette: true, quality }).toBuffer());
    case "jpeg":
      return tagJpegAsSrgb(about).jpeg({ quality, chromaSubsampling: quality >= 90 ? "4:4:4" : "4:2:0" }).toBuffer();
    case "webp":
      return about.withIccProfile("srgb").webp({ quality }).toBuffer();
    case "avif":
      return about.withIccProfile("srgb").avif({ quality, effort: 3 }).toBuffer();
  }
}

// src/server/film/paint-layers.ts
async function paintShot(scene, times, clips2, name, painter) {
  const layers = [];
  for (const [index, layer] of planShot(scene, times, clips2).entries()) {
    const painted = await paintPlanLayer(layer, scene, `${name}-${index}.png`, painter);
    if (painted) layers.push(painted);
  }
  return { lengthFrames: times.lengthFrames, layers };
}
async function paintPlanLayer(layer, scene, fileName, painter) {
  if (layer.kind === "film") return layer;
  const painted = await paintToFile({ size: scene.size, nodes: layer.nodes }, fileName, painter);
  if (!painted) return null;
  return layer.kind === "text" ? { kind: "text", ...painted, times: layer.times, risePx: risePx(scene) } : { kind: "still", ...painted };
}
async function paintToFile(scene, fileName, { typesetter, sources, folder }) {
  const { rgba, widthPx, heightPx } = await paintLayer(scene, typesetter, sources);
  const box = inkBox(rgba, widthPx, heightPx);
  if (!box) return null;
  const png = await sharp4(rgba, { raw: { width: widthPx, height: heightPx, channels: 4 } }).extract({ left: box.xPx, top: box.yPx, width: box.widthPx, height: box.heightPx }).png({ compressionLevel: 1 }).toBuffer();
  const file = join2(folder, fileName);
  await writeFile2(file, png);
  return { file, box };
}
function inkBox(rgba, width, height) {
  let [left, top, right, bottom] = [width, height, -1, -1];
  for (let y = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1) {
      if (rgba[(y * width + x) * 4 + 3] === 0) continue;
      if (x < left) left = x;
      if (x > right) right = x;
      if (y < top) top = y;
      bottom = y;
    }
  }
  if (right < 0) return null;
  const even = (value) => value - value % 2;
  const [x0, y0] = [even(left), even(top)];
  return { xPx: x0, yPx: y0, widthPx: Math.min(width, even(right) + 2) - x0, heightPx: Math.min(height, even(bottom) + 2) - y0 };
}

// src/server/render/scene-to-pdf.ts
import {
  beginText,
  clip as clip2,
  concatTransformationMatrix,
  endPath,
  endText,
  fill,
  PDFDocument,
  PDFOperator,
  PDFOperatorNames,
  popGraphicsState,
  pushGraphicsState,
  rgb,
  setFillingColor,
  setCharacterSqueeze,
  setFontAndSize,
  setGraphicsState,
  setTextMatrix,
  setTextRenderingMode,
  showText,
  StandardFonts,
  TextRenderingMode
} from "pdf-lib";
import { parse as parseColour } from "culori";

// src/server/render/path-operators.ts
import { appendBezierCurve, closePath, lineTo, moveTo } from "pdf-lib";
import svgpath from "svgpath";
function pathOperators(path) {
  const operators = [];
  svgpath(path).abs().unshort().unarc().iterate((segment, _index, x, y) => {
    const [command, ...numbers] = segment;
    const [a = 0, b = 0, c = 0, d = 0, e = 0, f = 0] = numbers;
    switch (command) {
      case "M":
        operators.push(moveTo(a, b));
        break;
      case "L":
        operators.push(lineTo(a, b));
        break;
      case "H":
        operators.push(lineTo(a, y));
        break;
      case "V":
        operators.push(lineTo(x, a));
        break;
      case "C":
        operators.push(appendBezierCurve(a, b, c, d, e, f));
        break;
      case "Q":
        operators.push(appendBezierCurve(x + 2 / 3 * (a - x), y + 2 / 3 * (b - y), c + 2 / 3 * (a - c), d + 2 / 3 * (b - d), c, d));
        break;
      case "Z":
        operators.push(closePath());
        break;
    }
  });
  return operators;
}

// src/server/render/scene-to-svg.ts
import sharp5 from "sharp";

// src/core/export/to-svg.ts
function toSvg(scene, assets, about) {
  const { widthPx, heightPx } = scene.size;
  const definitions = /* @__PURE__ */ new Map();
  const body = scene.nodes.map((node) => drawNode(node, assets, definitions)).join("\n");
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${widthPx}" height="${heightPx}" viewBox="0 0 ${widthPx} ${heightPx}" role="img">`,
    `<title>${escapeXml(about.title)}</title>`,
    `<desc>${escapeXml(about.description)}</desc>`,
    definitions.size === 0 ? "" : `<defs>${[...definitions.values()].join("")}</defs>`,
    body,
    "</svg>\n"
  ].filter((line) => line !== "").join("\n");
}
function drawNode(node, assets, definitions) {
  switch (node.kind) {
    case "fill":
      return `<path d="${node.path}" fill="${node.colour}"${opacity(node.alpha)}/>`;
    case "picture": {
      const { xPx, yPx, widthPx, heightPx } = node.box;
      return `<image x="${short(xPx)}" y="${short(yPx)}" width="${short(widthPx)}" height="${short(heightPx)}" preserveAspectRatio="none"${clip(node, definitions)} href="${assets.picture(node)}"/>`;
    }
    case "glyphs":
      return drawGlyphs(node, assets, definitions);
    case "artwork":
      return `<g transform="translate(${short(node.xPx)} ${short(node.yPx)}) scale(${short(node.scale)})">${node.paths.map((path) => `<path d="${path.d}" fill="${path.fill}"${path.evenOdd ? ' fill-rule="evenodd"' : ""}/>`).join("")}</g>`;
  }
}
function clip(node, definitions) {
  if (node.mask === void 0) return "";
  const id2 = `window-${definitions.size}`;
  definitions.set(id2, `<clipPath id="${id2}"><path d="${node.mask}"/></clipPath>`);
  return ` clip-path="url(#${id2})"`;
}
function drawGlyphs(node, assets, definitions) {
  const uses = node.glyphs.map((glyph) => {
    const { path, unitsPerEm } = assets.glyph(glyph.fontKey, glyph.id);
    if (path === "") return "";
    const id2 = `${glyph.fontKey}-${glyph.id}`;
    definitions.set(id2, `<path id="${id2}" d="${path}"/>`);
    const unit = node.sizePx / unitsPerEm;
    return `<use href="#${id2}" transform="matrix(${short(unit)} 0 0 ${short(-unit)} ${short(glyph.xPx)} ${short(glyph.yPx)})"/>`;
  });
  return `<g fill="${node.colour}"${opacity(node.alpha)}>${uses.join("")}</g>`;
}
function opacity(alpha) {
  return alpha === 1 ? "" : ` fill-opacity="${short(alpha)}"`;
}
function short(value) {
  return String(Math.round(value * 1e5) / 1e5);
}

// src/server/render/scene-to-svg.ts
var VECTOR_PICTURE_SCALE = 2;
var VECTOR_PICTURE_QUALITY = 82;
async function encodePictureNode(node, source) {
  const canvas = await rasterise({ ...node, mask: void 0 }, source, VECTOR_PICTURE_SCALE);
  const { widthPx, heightPx } = pictureRaster(node, VECTOR_PICTURE_SCALE);
  const pixels = canvas.data();
  const image = sharp5(pixels, { raw: { width: widthPx, height: heightPx, channels: 4 } });
  const isOpaque = (await image.clone().stats()).isOpaque;
  return isOpaque ? { bytes: await image.removeAlpha().jpeg({ quality: VECTOR_PICTURE_QUALITY }).toBuffer(), mime: "image/jpeg" } : { bytes: await image.png({ compressionLevel: 6 }).toBuffer(), mime: "image/png" };
}
async function sceneToSvg({ scene, typesetter, sources, metadata }) {
  const pictures2 = /* @__PURE__ */ new Map();
  for (const node of scene.nodes) {
    if (node.kind !== "picture") continue;
    const source = sources.get(node.pictureId);
    if (!source) throw new RangeError(`No file is at hand for picture '${node.pictureId}'`);
    const { bytes, mime } = await encodePictureNode(node, source);
    pictures2.set(node, `data:${mime};base64,${bytes.toString("base64")}`);
  }
  const glyph = (fontKey, glyphId) => ({ path: typesetter.outline(fontKey, glyphId), unitsPerEm: typesetter.unitsPerEm(fontKey) });
  return Buffer.from(toSvg(scene, { glyph, picture: (node) => pictures2.get(node) ?? "" }, { title: metadata.title, description: metadata.altText }), "utf8");
}

// src/server/render/scene-to-pdf.ts
var POINTS_PER_PIXEL = 0.75;
async function scenesToPdf(inputs) {
  const document = await PDFDocument.create();
  const [first] = inputs;
  document.setTitle(first?.metadata.title ?? "");
  document.setSubject(first?.metadata.altText ?? "");
  if (first?.metadata.credit) document.setAuthor(first.metadata.credit);
  document.setCreator("Confetti");
  const font = await document.embedFont(StandardFonts.Helvetica);
  const images = /* @__PURE__ */ new Map();
  for (const input of inputs) {
    const { widthPx, heightPx } = input.scene.size;
    const page = document.addPage([widthPx * POINTS_PER_PIXEL, heightPx * POINTS_PER_PIXEL]);
    page.pushOperators(pushGraphicsState(), concatTransformationMatrix(POINTS_PER_PIXEL, 0, 0, -POINTS_PER_PIXEL, 0, heightPx * POINTS_PER_PIXEL));
    for (const node of input.scene.nodes) await drawNode2(document, page, node, input, images);
    page.pushOperators(popGraphicsState());
    for (const text of input.texts) writeUnseen(page, font, text, heightPx);
  }
  return Buffer.from(await document.save());
}
function writeUnseen(page, font, { box, lineTexts, sizePx }, pageHeightPx) {
  const size = sizePx * POINTS_PER_PIXEL;
  lineTexts.forEach((line, index) => {
    const text = line.trim();
    if (text === "" || !canWrite(font, text)) return;
    const baselinePx = box.yPx + box.heightPx * (index + 1) / lineTexts.length;
    const squeeze = Math.min(100, 100 * box.widthPx * POINTS_PER_PIXEL / Math.max(1, font.widthOfTextAtSize(text, size)));
    page.pushOperators(
      beginText(),
      setTextRenderingMode(TextRenderingMode.Invisible),
      setFontAndSize(page.node.newFontDictionary("Text", font.ref), size),
      setCharacterSqueeze(squeeze),
      setTextMatrix(1, 0, 0, 1, box.xPx * POINTS_PER_PIXEL, (pageHeightPx - baselinePx) * POINTS_PER_PIXEL),
      showText(font.encodeText(text)),
      endText()
    );
  });
}
function canWrite(font, text) {
  const known = new Set(font.getCharacterSet());
  return [...text].every((character) => known.has(character.codePointAt(0) ?? 0));
}
async function drawNode2(document, page, node, { typesetter, sources }, images) {
  switch (node.kind) {
    case "fill":
      page.pushOperators(pushGraphicsState(), ...alphaState(document, page, node.alpha), colourOf(node.colour), ...pathOperators(node.path), fill(), popGraphicsState());
      return;
    case "glyphs":
      page.pushOperators(pushGraphicsState(), ...alphaState(document, page, node.alpha), colourOf(node.colour));
      for (const glyph of node.glyphs) {
        const unit = node.sizePx / typesetter.unitsPerEm(glyph.fontKey);
        page.pushOperators(pushGraphicsState(), concatTransformationMatrix(unit, 0, 0, -unit, glyph.xPx, glyph.yPx), ...pathOperators(typesetter.outline(glyph.fontKey, glyph.id)), fill(), popGraphicsState());
      }
      page.pushOperators(popGraphicsState());
      return;
    case "artwork":
      page.pushOperators(pushGraphicsState(), concatTransformationMatrix(node.scale, 0, 0, node.scale, node.xPx, node.yPx));
      for (const path of node.paths) page.pushOperators(colourOf(path.fill), ...pathOperators(path.d), path.evenOdd ? PDFOperator.of(PDFOperatorNames.FillEvenOdd) : fill());
      page.pushOperators(popGraphicsState());
      return;
    case "picture": {
      const source = sources.get(node.pictureId);
      if (!source) throw new RangeError(`No file is at hand for picture '${node.pictureId}'`);
      const key7 = JSON.stringify([node.pictureId, node.window, node.box.widthPx, node.box.heightPx, node.tone]);
      const known = images.get(key7) ?? encodePictureNode(node, source).then(({ bytes, mime }) => mime === "image/jpeg" ? document.embedJpg(bytes) : document.embedPng(bytes));
      images.set(key7, known);
      const image = await known;
      const name = page.node.newXObject("Picture", image.ref);
      const { xPx, yPx, widthPx, heightPx } = node.box;
      const window = node.mask === void 0 ? [] : [...pathOperators(node.mask), clip2(), endPath()];
      page.pushOperators(pushGraphicsState(), ...window, concatTransformationMatrix(widthPx, 0, 0, -heightPx, xPx, yPx + heightPx), PDFOperator.of(PDFOperatorNames.DrawObject, [name]), popGraphicsState());
      return;
    }
  }
}
function alphaState(document, page, alpha) {
  if (alpha === 1) return [];
  return [setGraphicsState(page.node.newExtGState("Alpha", document.context.obj({ Type: "ExtGState", ca: alpha })))];
}
function colourOf(hex2) {
  const colour = parseColour(hex2);
  return colour?.mode === "rgb" ? setFillingColor(rgb(colour.r, colour.g, colour.b)) : setFillingColor(rgb(0, 0, 0));
}

// src/server/render/render-cut.ts
var fileMimes = { png: "image/png", jpeg: "image/jpeg", webp: "image/webp", avif: "image/avif", svg: "image/svg+xml", pdf: "application/pdf" };
var LEAST_QUALITY = { png: 60, jpeg: 40, webp: 40, avif: 25 };
var TooHeavyError = class extends Error {
  constructor(maxBytes) {
    super(`No quality of this cut stays below ${maxBytes} bytes`);
    this.maxBytes = maxBytes;
  }
  maxBytes;
  name = "TooHeavyError";
  code = "too-heavy";
};
async function runRenderJob(job, engines2) {
  switch (job.kind) {
    case "report": {
      const reports = [];
      for (const source of job.sources) reports.push((await composeSource(source, engines2, false)).map(({ report }) => report));
      return { kind: "reports", reports };
    }
    case "layers":
      return { kind: "layers", ...await paintLayers(job, engines2) };
    case "small":
      return { kind: "pictures", pictures: [await renderSmall(job, engines2)] };
    case "as":
      return { kind: "pictures", pictures: await renderFiles(job, engines2) };
    case "full":
      return { kind: "pictures", pictures: await eachSlide(job, engines2, (scene, metadata) => renderFull(scene, metadata, job, engines2)) };
  }
}
async function composeSource({ slides, book, placement, pictures: shown, typefaceFiles }, engines2, ghosts) {
  await engines2.load(neededGlyphs(book, slides), typefaceFiles);
  const pictures2 = new Map(shown.map(({ picture }) => [picture.id, picture]));
  const members = slides.map((slide, index) => ({ ...slide, book, placement, pictures: pictures2, ghosts, signature: String(index) }));
  return new RunComposer(engines2.engines).compose(members);
}
var noMetadata = { title: "", altText: "", credit: "", licence: "" };
async function eachSlide(job, engines2, render2) {
  const pictures2 = [];
  for (const [index, { scene }] of (await composeSource(job.source, engines2, false)).entries()) {
    if (job.kind === "as" && job.only !== void 0 && job.only !== index) continue;
    pictures2.push(await render2(scene, job.metadata[index] ?? noMetadata));
  }
  return pictures2;
}
function pictureFiles(source) {
  return new Map(source.pictures.map(({ picture, filePath }) => [picture.id, { filePath, widthPx: picture.widthPx, heightPx: picture.heightPx }]));
}
async function paintLayers({ source, shots, clips: clips2, subtitles, folder }, engines2) {
  const painter = { typesetter: engines2.engines.typesetter, sources: pictureFiles(source), folder };
  const moving = new Set(clips2);
  const painted = [];
  for (const [index, { scene }] of (await composeSource(source, engines2, false)).entries()) {
    const times = shots[index];
    if (times) painted.push(await paintShot(scene, times, moving, `shot-${index}`, painter));
  }
  const lines = [];
  for (const [index, text] of subtitles.entries()) {
    const slide = { template: subtitleTemplate, frame: { id: "cue", slots: { line: { kind: "text", text } } }, adjustment: linkedCut, place: ALONE, family: "subtitle" };
    const [composed] = await composeSource({ ...source, slides: [slide] }, engines2, false);
    lines.push(composed ? await paintToFile(composed.scene, `cue-${index}.png`, painter) : null);
  }
  return { shots: painted, subtitles: lines };
}
async function renderSmall({ source, fitPx }, engines2) {
  const [first] = await composeSource(source, engines2, true);
  if (!first) throw new RangeError("A cut without slides cannot be painted");
  const painted = await paintScene(first.scene, engines2.engines.typesetter, pictureFiles(source), 1);
  const { data, info } = await sharp6(painted.rgba, { raw: { width: painted.widthPx, height: painted.heightPx, channels: 4 } }).resize(fitPx, fitPx, { fit: "inside" }).webp({ quality: 86 }).toBuffer({ resolveWithObject: true });
  return { bytes: data, mime: "image/webp", widthPx: info.width, heightPx: info.height };
}
function renderFiles(job, engines2) {
  const { format } = job;
  if (format === "pdf") return renderDocument(job, engines2).then((document) => [document]);
  return eachSlide(job, engines2, (scene, metadata) => renderAs(scene, metadata, { ...job, format }, engines2));
}
async function renderDocument({ source, metadata, maxBytes }, engines2) {
  const composed = await composeSource(source, engines2, false);
  const { width, height } = source.placement.exportPx;
  const pages = composed.map(({ scene, report }, index) => ({ scene, texts: report.placed, typesetter: engines2.engines.typesetter, sources: pictureFiles(source), metadata: metadata[index] ?? noMetadata }));
  const bytes = await scenesToPdf(pages);
  if (bytes.length > maxBytes) throw new TooHeavyError(maxBytes);
  return { bytes, mime: fileMimes.pdf, widthPx: width, heightPx: height };
}
async function renderAs(scene, metadata, { source, format, scale, maxBytes }, engines2) {
  const mime = fileMimes[format];
  const { typesetter } = engines2.engines;
  if (format === "svg") return { bytes: await sceneToSvg({ scene, typesetter, sources: pictureFiles(source), metadata }), mime, ...scene.size };
  const painted = await paintScene(scene, typesetter, pictureFiles(source), scale);
  const bytes = await encodeBelow(painted, format, maxBytes, toXmp(metadata));
  if (!bytes) throw new TooHeavyError(maxBytes);
  return { bytes, mime, widthPx: painted.widthPx, heightPx: painted.heightPx };
}
async function renderFull(scene, metadata, { source, maxBytes }, engines2) {
  const painted = await paintScene(scene, engines2.engines.typesetter, pictureFiles(source), 1);
  const size = { widthPx: painted.widthPx, heightPx: painted.heightPx };
  const xmp = toXmp(metadata);
  const png = await encodeCut(painted, { format: "png", quality: BEST_QUALITY.png, xmp });
  if (png.length <= maxBytes) return { bytes: png, mime: fileMimes.png, ...size };
  const jpeg = await encodeBelow(painted, "jpeg", maxBytes, xmp);
  if (!jpeg) throw new TooHeavyError(maxBytes);
  return { bytes: jpeg, mime: fileMimes.jpeg, ...size };
}
async function encodeBelow(painted, format, maxBytes, xmp) {
  const at = (quality) => encodeCut(painted, { format, quality, xmp });
  const best = await at(BEST_QUALITY[format]);
  if (best.length <= maxBytes) return best;
  let [low, high] = [LEAST_QUALITY[format], BEST_QUALITY[format]];
  let found = null;
  while (low < high) {
    const middle = Math.floor((low + high) / 2);
    const tried = await at(middle);
    if (tried.length <= maxBytes) {
      found = tried;
      low = middle + 1;
    } else high = middle;
  }
  return found;
}

// src/server/film/filter-graph.ts
var xfades = { fade: "fade", push: "slideleft", wipe: "wipeleft" };
var SAMPLE_RATE = 48e3;
var SOFT_EDGE_S = 0.03;
var MUSIC_OUT_S = 0.8;
function filterGraph(film, files) {
  const builder = new GraphBuilder(film, files);
  const shots = film.shots.map((shot, index) => builder.shot(shot, index));
  const picture = builder.cues(builder.join(shots));
  return { inputs: builder.inputs, picture: [...builder.chains, picture].join(";"), sound: builder.sound() };
}
var GraphBuilder = class {
  constructor(film, files) {
    this.film = film;
    this.files = files;
  }
  film;
  files;
  inputs = [];
  chains = [];
  #clipInputs = /* @__PURE__ */ new Map();
  #inputCount = 0;
  #input(path, ...options) {
    this.inputs.push(...inputFile(path, ...options));
    this.#inputCount += 1;
    return this.#inputCount - 1;
  }
  /** A painted layer as a stream without end. */
  #still(file, more = "") {
    const input = this.#input(file, "-framerate", String(VIDEO_FPS));
    return `[${input}:v]format=rgba${more},scale=in_range=pc:out_color_matrix=bt709:out_range=tv,format=yuva420p`;
  }
  shot(shot, index) {
    const { size } = this.film;
    const [first, ...rest] = shot.layers;
    const fills = first && first.kind !== "text" && first.box.widthPx >= size.widthPx && first.box.heightPx >= size.heightPx;
    const end = `trim=end_frame=${shot.lengthFrames}`;
    let current = `s${index}l0`;
    if (first && fills) this.chains.push(first.kind === "film" ? `${this.#film(first, shot, index)}[${current}]` : `${this.#still(first.file)},${LOOP},${end},format=yuv420p[${current}]`);
    else this.chains.push(`color=c=black:s=${size.widthPx}x${size.heightPx}:r=${VIDEO_FPS},${end},format=yuv420p[${current}]`);
    const over = fills ? rest : shot.layers;
    over.forEach((layer, at) => {
      const name = `s${index}o${at}`;
      const next = `s${index}l${at + 1}`;
      this.chains.push(`${this.#layer(layer, shot, index)}[${name}]`, `[${current}][${name}]${overlayOf(layer)}[${next}]`);
      current = next;
    });
    this.chains.push(`[${current}]${STEADY}[shot${index}]`);
    return `shot${index}`;
  }
  #layer(layer, shot, index) {
    if (layer.kind === "film") return this.#film(layer, shot, index);
    if (layer.kind === "still") return `${this.#still(layer.file)},${LOOP}`;
    const { enterAt, enterFrames, leaveAt, leaveFrames } = layer.times;
    const leave = Number.isFinite(leaveAt) ? `,fade=t=out:s=${leaveAt}:n=${leaveFrames}:alpha=1` : "";
    return `${this.#still(layer.file)},${LOOP},fade=t=in:s=${enterAt}:n=${enterFrames}:alpha=1${leave}`;
  }
  #film({ mediaId: mediaId2, box, window }, shot, index) {
    const file = this.files.get(mediaId2);
    if (!file) throw new RangeError(`No file is at hand for clip '${mediaId2}'`);
    const input = this.#input(file.path, "-ss", seconds(shot.clip?.fromFrame ?? 0), "-t", seconds(shot.lengthFrames + VIDEO_FPS));
    this.#clipInputs.set(index, input);
    const crop = [window.width * file.widthPx, window.height * file.heightPx, window.x * file.widthPx, window.y * file.heightPx].map(Math.round).join(":");
    const end = `trim=end_frame=${shot.lengthFrames}`;
    return `[${input}:v]fps=${VIDEO_FPS},${end},setpts=PTS-STARTPTS,crop=${crop},scale=${Math.round(box.widthPx)}:${Math.round(box.heightPx)}:flags=bicubic,setsar=1,tpad=stop_mode=clone:stop=${shot.lengthFrames},${end},format=yuv420p`;
  }
  /** Shots one after the other, by their transitions. */
  join(shots) {
    return shots.reduce((joined, name, index) => {
      const shot = this.film.shots[index];
      if (index === 0 || !shot) return name;
      const result = `j${index}`;
      const { kind, frames: frames2 } = shot.into;
      const how = kind === "cut" ? "concat=n=2:v=1:a=0" : `xfade=transition=${xfades[kind]}:duration=${seconds(frames2)}:offset=${seconds(shot.startFrame)}`;
      this.chains.push(`[${joined}][${name}]${how},${STEADY}[${result}]`);
      return result;
    });
  }
  cues(joined) {
    let current = joined;
    this.film.cues.forEach(({ layer, fromFrame, toFrame }, index) => {
      const name = `cue${index}`;
      this.chains.push(`${this.#still(layer.file)},${LOOP}[${name}]`, `[${current}][${name}]overlay=x=${layer.box.xPx}:y=${layer.box.yPx}:shortest=1:enable='between(n,${fromFrame},${toFrame - 1})'[${name}o]`);
      current = `${name}o`;
    });
    return `[${current}]format=yuv420p[picture]`;
  }
  /** Clip sound, voice and music, which gives way to the voice; silence where there is nothing. */
  sound() {
    const total = seconds(this.film.lengthFrames);
    const even = `aresample=${SAMPLE_RATE},aformat=channel_layouts=stereo`;
    const chains = [];
    const mixed2 = [];
    this.film.shots.forEach((shot, index) => {
      const input = this.#clipInputs.get(index);
      if (input === void 0 || !shot.clip?.hasSound || shot.clip.volume === 0) return;
      const length = toMs(shot.lengthFrames) / 1e3;
      chains.push(`[${input}:a]atrim=end=${length},asetpts=PTS-STARTPTS,${even},volume=${shot.clip.volume},afade=t=in:d=${SOFT_EDGE_S},afade=t=out:st=${Math.max(0, length - SOFT_EDGE_S)}:d=${SOFT_EDGE_S},adelay=${Math.round(toMs(shot.startFrame))}:all=1[a${index}]`);
      mixed2.push(`[a${index}]`);
    });
    const { voice, music } = this.film;
    if (voice) {
      const input = this.#input(voice.path);
      chains.push(`[${input}:a]${even},atrim=end=${total}${music ? ",asplit[voice][key]" : "[voice]"}`);
      mixed2.push("[voice]");
    }
    if (music) {
      const input = this.#input(music.path, "-stream_loop", "-1");
      const out = Math.max(0, toMs(this.film.lengthFrames) / 1e3 - MUSIC_OUT_S);
      chains.push(`[${input}:a]${even},atrim=end=${total},volume=${music.volume},afade=t=out:st=${out}:d=${MUSIC_OUT_S}[${voice ? "loud" : "music"}]`);
      if (voice) chains.push("[key]apad[always]", "[loud][always]sidechaincompress=threshold=0.02:ratio=9:attack=25:release=350[music]");
      mixed2.push("[music]");
    }
    if (mixed2.length === 0) return `anullsrc=r=${SAMPLE_RATE}:cl=stereo,atrim=end=${total}[sound]`;
    return [...chains, `${mixed2.join("")}amix=inputs=${mixed2.length}:normalize=0:duration=longest,apad,atrim=end=${total}[sound]`].join(";");
  }
};
var LOOP = `loop=loop=-1:size=1:start=0,setpts=N/(${VIDEO_FPS}*TB)`;
var STEADY = `fps=${VIDEO_FPS},settb=1/${VIDEO_FPS}`;
function overlayOf(layer) {
  const { xPx, yPx } = layer.box;
  const at = (y) => `overlay=x=${Math.round(xPx)}:y=${y}:shortest=1:format=yuv420`;
  if (layer.kind !== "text") return at(String(Math.round(yPx)));
  const { enterAt, enterFrames } = layer.times;
  return at(`'${Math.round(yPx)}+${layer.risePx.toFixed(2)}*pow(1-clip((n-${enterAt})/${enterFrames},0,1),3)'`);
}
var seconds = (frames2) => (frames2 / VIDEO_FPS).toFixed(5);

// src/server/film/render-film.ts
var LOUDNESS = "I=-14:TP=-1.5:LRA=11";
var SOUND_KBPS = 160;
var PAINTED = 0.1;
var MOST_MS2 = 60 * 60 * 1e3;
var AIM_SHARE = 0.94;
var LEAST_KBPS = 300;
var pictureCodecs = {
  mp4: ["-c:v", "libx264", "-preset", "veryfast", "-profile:v", "high"],
  webm: ["-c:v", "libvpx-vp9", "-deadline", "realtime", "-cpu-used", "6", "-row-mt", "1"]
};
var constantQuality = { mp4: ["-crf", "20"], webm: ["-crf", "32", "-b:v", "0"] };
var soundCodecs = { mp4: ["-c:a", "aac", "-b:a", `${SOUND_KBPS}k`], webm: ["-c:a", "libopus", "-b:a", `${SOUND_KBPS}k`] };
var tags = ["-colorspace", "bt709", "-color_primaries", "bt709", "-color_trc", "bt709", "-color_range", "tv"];
async function renderFilm(source, path, { render: render2, media }, options) {
  const folder = await media.temporaryPath();
  await mkdir3(folder);
  try {
    const graph = filterGraph(await paintedFilm(source, folder, render2), source.clips);
    options.onProgress(PAINTED);
    await encode(graph, source.timeline.lengthFrames, path, options);
  } finally {
    await rm2(folder, { recursive: true, force: true });
  }
}
async function paintedFilm({ cut, timeline: timeline2, track, clips: clips2, musicPath, voicePath }, folder, render2) {
  const { shots, lengthFrames } = timeline2;
  const spoken = (track.subtitles ?? []).filter(({ text, fromMs }) => text.trim() !== "" && toFrames(fromMs) < lengthFrames);
  const painted = await render2.layers({
    kind: "layers",
    source: cut,
    shots: shots.map((shot, index) => ({ lengthFrames: shot.lengthFrames, isLast: index === shots.length - 1 })),
    clips: [...clips2.keys()],
    subtitles: spoken.map(({ text }) => text),
    folder
  });
  return {
    size: { widthPx: cut.placement.exportPx.width, heightPx: cut.placement.exportPx.height },
    lengthFrames,
    shots: shots.map(({ startFrame, into, clip: clip3 }, index) => ({ startFrame, into, clip: clip3, layers: painted.shots[index]?.layers ?? [], lengthFrames: painted.shots[index]?.lengthFrames ?? 0 })),
    cues: spoken.flatMap(({ fromMs, toMs: endMs }, index) => {
      const layer = painted.subtitles[index];
      return layer ? [{ layer: { kind: "still", ...layer }, fromFrame: toFrames(fromMs), toFrame: Math.min(lengthFrames, toFrames(endMs)) }] : [];
    }),
    music: musicPath === null ? null : { path: musicPath, volume: track.musicVolume ?? 1 },
    voice: voicePath === null ? null : { path: voicePath }
  };
}
async function encode(graph, lengthFrames, path, options) {
  const { format, maxBytes, signal, title, onProgress } = options;
  const lengthMs = toMs(lengthFrames);
  const sound = `${graph.sound};[sound]${await levelled(graph, signal)}[level]`;
  const run2 = (rate, from) => runFfmpeg(
    [...graph.inputs, "-filter_complex", `${graph.picture};${sound}`, "-map", "[picture]", "-map", "[level]", ...pictureCodecs[format], ...rate, "-pix_fmt", "yuv420p", ...tags, "-r", String(VIDEO_FPS), ...soundCodecs[format], "-ar", "48000", "-map_metadata", "-1", "-metadata", `title=${title}`, "-movflags", "+faststart", "-f", format, path],
    { signal, mostMs: MOST_MS2, onProgress: (reachedMs) => onProgress(from + (1 - from) * Math.min(1, reachedMs / lengthMs)) }
  );
  await run2(constantQuality[format], PAINTED);
  if ((await stat2(path)).size <= maxBytes) return;
  const kbps = Math.floor((maxBytes * AIM_SHARE * 8 / (lengthMs / 1e3) - SOUND_KBPS * 1e3) / 1e3);
  if (kbps < LEAST_KBPS) throw new TooHeavyError(maxBytes);
  await run2(["-b:v", `${kbps}k`, "-maxrate", `${kbps}k`, "-bufsize", `${kbps * 2}k`], PAINTED);
  if ((await stat2(path)).size > maxBytes) throw new TooHeavyError(maxBytes);
}
async function levelled(graph, signal) {
  const { messages } = await runFfmpeg([...graph.inputs, "-filter_complex", `${graph.sound};[sound]loudnorm=${LOUDNESS}:print_format=json[level]`, "-map", "[level]", "-f", "null", "-"], { signal, mostMs: MOST_MS2 });
  const found = /\{[^{}]*"input_i"[^{}]*\}/.exec(messages);
  const measured = found ? JSON.parse(found[0]) : {};
  if (!Number.isFinite(Number(measured["input_i"]))) return "anull";
  return `loudnorm=${LOUDNESS}:measured_I=${measured["input_i"]}:measured_TP=${measured["input_tp"]}:measured_LRA=${measured["input_lra"]}:measured_thresh=${measured["input_thresh"]}:offset=${measured["target_offset"]}:linear=true,aresample=48000`;
}

// src/server/render/engines.ts
import { readFile } from "node:fs/promises";
import { join as join3 } from "node:path";
import { loadYoga } from "yoga-layout/load";

// src/core/text/typesetter.ts
import bidiFactory from "bidi-js";
import { Blob as FontBlob, Buffer as ShapeBuffer, Direction, Face, Font, MetricsTag, shape } from "harfbuzzjs";
var NO_REACH = { topEm: 0, bottomEm: 0, leftEm: 0, rightEm: 0 };
var EMOJI_REACH = { topEm: EMOJI_METRICS.sizeEm - EMOJI_METRICS.descentEm, bottomEm: EMOJI_METRICS.descentEm, leftEm: 0, rightEm: EMOJI_METRICS.advanceEm };
var bidi = bidiFactory();
var DEEPEST_DESCENT_EM = 0.24;
var SHAPED_CACHE_SIZE = 400;
var Typesetter = class {
  #fonts = /* @__PURE__ */ new Map();
  #shaped = /* @__PURE__ */ new Map();
  #emoji = /* @__PURE__ */ new Map();
  #emojiArt = [];
  has(fontKey) {
    return this.#fonts.has(fontKey);
  }
  /** Adds a typeface from the bytes of a TTF or OTF file. */
  add(fontKey, bytes) {
    const face = new Face(new FontBlob(bytes));
    const font = new Font(face);
    const unitsPerEm = face.upem;
    const cap = font.getMetricPosition(MetricsTag.CAP_HEIGHT) ?? unitsPerEm * 0.7;
    const heights = { capEm: cap / unitsPerEm, descentEm: Math.min(DEEPEST_DESCENT_EM, -font.hExtents().descender / unitsPerEm) };
    this.#fonts.set(fontKey, { font, unitsPerEm, outlines: /* @__PURE__ */ new Map(), reaches: /* @__PURE__ */ new Map(), heights });
    this.#shaped.clear();
  }
  hasEmoji(code) {
    return this.#emoji.has(code);
  }
  /** Adds the picture of an emoji. */
  addEmoji(code, art) {
    if (this.#emoji.has(code)) return;
    this.#emoji.set(code, this.#emojiArt.length);
    this.#emojiArt.push(art);
    this.#shaped.clear();
  }
  /**
   * The picture of an emoji glyph.
   * @throws RangeError when there is none with this id
   */
  emojiArt(id2) {
    const art = this.#emojiArt[id2];
    if (!art) throw new RangeError(`There is no emoji ${id2}`);
    return art;
  }
  heightsOf(fontKey) {
    return this.#get(fontKey).heights;
  }
  /** Outline of a glyph as SVG path data in em units times 1000, y upwards. */
  outline(fontKey, glyphId) {
    const loaded = this.#get(fontKey);
    let path = loaded.outlines.get(glyphId);
    if (path === void 0) {
      path = loaded.font.glyphToPath(glyphId);
      loaded.outlines.set(glyphId, path);
    }
    return path;
  }
  unitsPerEm(fontKey) {
    return this.#get(fontKey).unitsPerEm;
  }
  /** Box of the ink of a text's first glyph, in em, y upwards from the baseline. */
  inkOfFirstGlyph(text, fontKey) {
    const loaded = this.#get(fontKey);
    const glyphId = loaded.font.nominalGlyph(text.codePointAt(0) ?? 32) ?? 0;
    const extents = loaded.font.glyphExtents(glyphId);
    const em = loaded.unitsPerEm;
    if (!extents) return { glyphId, leftEm: 0, bottomEm: 0, widthEm: 0, heightEm: 0 };
    return {
      glyphId,
      leftEm: extents.xBearing / em,
      bottomEm: (extents.yBearing + extents.height) / em,
      widthEm: extents.width / em,
      heightEm: -extents.height / em
    };
  }
  /**
   * Shapes one paragraph.
   * @param fontKeys the wanted typeface first, then those that help out
   * @param trackingEm room added behind every glyph
   */
  shape(text, fontKeys, trackingEm) {
    const cacheKey = `${fontKeys.join(",")}|${trackingEm}|${text}`;
    const known = this.#shaped.get(cacheKey);
    if (known) return known;
    const shaped = this.#shapeAfresh(text, fontKeys, trackingEm);
    if (this.#shaped.size >= SHAPED_CACHE_SIZE) this.#shaped.delete(this.#shaped.keys().next().value ?? "");
    this.#shaped.set(cacheKey, shaped);
    return shaped;
  }
  #shapeAfresh(text, fontKeys, trackingEm) {
    const levels = bidi.getEmbeddingLevels(text);
    const missing = /* @__PURE__ */ new Set();
    const runs = [];
    for (const item of this.#itemise(text, levels.levels, fontKeys, missing)) {
      runs.push(item.fontKey === EMOJI_FONT ? this.#emojiRun(text, item, trackingEm) : this.#shapeItem(text, item, trackingEm));
    }
    const advances = new Float64Array(text.length + 1);
    for (const run2 of runs) for (const glyph of run2.glyphs) advances[glyph.cluster + 1] = (advances[glyph.cluster + 1] ?? 0) + glyph.advanceEm;
    for (let index = 1; index < advances.length; index += 1) advances[index] = (advances[index] ?? 0) + (advances[index - 1] ?? 0);
    return { text, baseLevel: levels.paragraphs[0]?.level ?? 0, runs, offsetsEm: advances, ...this.#inkReach(runs), missing: [...missing] };
  }
  #inkReach(runs) {
    let [inkTopEm, inkBottomEm] = [0, 0];
    for (const run2 of runs) {
      for (const glyph of run2.glyphs) {
        const reach = this.glyphReach(run2.fontKey, glyph.id);
        inkTopEm = Math.max(inkTopEm, reach.topEm + glyph.dyEm);
        inkBottomEm = Math.max(inkBottomEm, reach.bottomEm - glyph.dyEm);
      }
    }
    return { inkTopEm, inkBottomEm };
  }
  /** How far a glyph's ink reaches from its origin. */
  glyphReach(fontKey, glyphId) {
    if (fontKey === EMOJI_FONT) return EMOJI_REACH;
    const loaded = this.#get(fontKey);
    let reach = loaded.reaches.get(glyphId);
    if (!reach) {
      const extents = loaded.font.glyphExtents(glyphId);
      const em = loaded.unitsPerEm;
      reach = extents ? { topEm: extents.yBearing / em, bottomEm: -(extents.yBearing + extents.height) / em, leftEm: extents.xBearing / em, rightEm: (extents.xBearing + extents.width) / em } : NO_REACH;
      loaded.reaches.set(glyphId, reach);
    }
    return reach;
  }
  /** Cuts a text into stretches of one bidi level that one typeface can write. Marks stay with the character they follow. */
  #itemise(text, levels, fontKeys, missing) {
    const items = [];
    const first = fontKeys[0] ?? "";
    const emoji = new Map(findEmoji(text).map((each) => [each.start, each]));
    for (let offset = 0; offset < text.length; ) {
      const codePoint = text.codePointAt(offset) ?? 0;
      const level = levels[offset] ?? 0;
      const picture = emoji.get(offset);
      if (picture) {
        if (this.#emoji.has(picture.code)) items.push({ fontKey: EMOJI_FONT, level, start: offset, end: picture.end });
        else missing.add(text.slice(picture.start, picture.end));
        offset = picture.end;
        continue;
      }
      const length = codePoint > 65535 ? 2 : 1;
      const open2 = items.at(-1);
      const neutral = /^[\p{M}\p{Z}\p{C}]$/u.test(String.fromCodePoint(codePoint));
      let fontKey = open2 && neutral && open2.fontKey !== EMOJI_FONT ? open2.fontKey : fontKeys.find((key7) => this.#get(key7).font.nominalGlyph(codePoint));
      if (fontKey === void 0) {
        if (!neutral) missing.add(String.fromCodePoint(codePoint));
        fontKey = first;
      }
      if (open2 && open2.fontKey === fontKey && open2.level === level && open2.end === offset) open2.end = offset + length;
      else items.push({ fontKey, level, start: offset, end: offset + length });
      offset += length;
    }
    return items;
  }
  #emojiRun(text, item, trackingEm) {
    const [emoji] = findEmoji(text.slice(item.start, item.end));
    const id2 = this.#emoji.get(emoji?.code ?? "") ?? 0;
    return { ...item, glyphs: [{ id: id2, cluster: item.start, advanceEm: EMOJI_METRICS.advanceEm + trackingEm, dxEm: 0, dyEm: 0 }] };
  }
  #shapeItem(text, item, trackingEm) {
    const { font, unitsPerEm } = this.#get(item.fontKey);
    const buffer = new ShapeBuffer();
    buffer.addText(text, item.start, item.end - item.start);
    buffer.guessSegmentProperties();
    buffer.setDirection(item.level % 2 === 1 ? Direction.RTL : Direction.LTR);
    shape(font, buffer);
    const glyphs = buffer.getGlyphInfosAndPositions().map(
      (glyph) => ({
        id: glyph.codepoint,
        cluster: glyph.cluster,
        advanceEm: (glyph.xAdvance ?? 0) / unitsPerEm + trackingEm,
        dxEm: (glyph.xOffset ?? 0) / unitsPerEm,
        dyEm: (glyph.yOffset ?? 0) / unitsPerEm
      })
    );
    return { ...item, glyphs };
  }
  #get(fontKey) {
    const loaded = this.#fonts.get(fontKey);
    if (!loaded) throw new RangeError(`The typeface '${fontKey}' has not been loaded`);
    return loaded;
  }
};

// src/server/render/engines.ts
var ServerEngines = class {
  constructor(engines2, settings) {
    this.engines = engines2;
    this.settings = settings;
  }
  engines;
  settings;
  /** Loads what is needed and not there yet. `ownFiles`: files of the brand's own typefaces, by key. */
  async load(needed, ownFiles) {
    const { typesetter } = this.engines;
    for (const key7 of needed.fontKeys) {
      if (typesetter.has(key7)) continue;
      typesetter.add(key7, await readFile(ownFiles[key7] ?? join3(this.settings.fontsFolder, getShelfFont(key7).file)));
    }
    for (const code of needed.emoji) {
      if (typesetter.hasEmoji(code)) continue;
      const art = await readEmoji(this.settings, code);
      if (art) typesetter.addEmoji(code, art);
    }
  }
};
async function readEmoji({ emojiFolder }, code) {
  try {
    return JSON.parse(await readFile(join3(emojiFolder, `${code}.json`), "utf8"));
  } catch (error) {
    if (error.code === "ENOENT") return null;
    throw error;
  }
}

// tests/fixtures/engines.ts
import { loadYoga as loadYoga2 } from "yoga-layout/load";

// tests/fixtures/typesetter.ts
import { readFileSync } from "node:fs";
function testTypesetter() {
  const typesetter = new Typesetter();
  for (const font of fontShelf) typesetter.add(font.key, readFileSync(`fonts/${font.file}`));
  return typesetter;
}

// tests/fixtures/engines.ts
async function testEngines() {
  return { typesetter: testTypesetter(), yoga: await loadYoga2() };
}

// .y.ts
var engines = new ServerEngines(await testEngines(), { fontsFolder: "fonts", emojiFolder: "dist/emoji" });
var store = new MediaStore("/tmp/filmdata");
var films = /* @__PURE__ */ new Map();
var clips = /* @__PURE__ */ new Map();
var pictures = [];
var t = Date.now();
for (const n of ["clip-figure-of-eight.mp4", "clip-reel-spinning.mp4", "clip-festival-pan.mp4", "clip-tail-ribbons.mp4"]) {
  const m = await importFilm(`demo/media/${n}`, n, store);
  const id2 = n.replace(".mp4", "");
  films.set(id2, m.film);
  clips.set(id2, { path: store.pathOf(m.storedHash), widthPx: m.still.widthPx, heightPx: m.still.heightPx });
  const h = await store.keep(m.still.bytes);
  pictures.push({ filePath: store.pathOf(h), picture: { id: id2, widthPx: m.still.widthPx, heightPx: m.still.heightPx, facts: m.still.facts, focal: m.still.facts.focal, focalBy: "proposal" } });
}
console.log("imported", Date.now() - t);
var template = getShippedTemplate("gust");
var tx = (o) => Object.fromEntries(Object.entries(o).map(([k, v]) => [k, k === "film" ? { kind: "picture", mediaId: v } : { kind: "text", text: v }]));
var frames = [
  { id: "a", slots: tx({ film: "clip-figure-of-eight", label: "This Saturday", headline: "Build your own kite" }), shot: { lengthMs: 3500 } },
  { id: "b", slide: "moment", slots: tx({ film: "clip-reel-spinning", heading: "You pick the colours", text: "We cut the sails for you." }), shot: { lengthMs: 3e3, into: { kind: "fade", ms: 400 }, volume: 0.6 } },
  { id: "c", slide: "moment", slots: tx({ film: "clip-festival-pan", heading: "By three it flies" }), shot: { lengthMs: 3500, into: { kind: "push", ms: 400 } } },
  { id: "d", slide: "moment", slots: tx({ film: "clip-tail-ribbons", heading: "Bring a friend" }), shot: { lengthMs: 3e3 } },
  { id: "e", slide: "closing", slots: tx({ headline: "Come and catch some wind", call: "Book an afternoon" }), shot: { lengthMs: 3400, into: { kind: "wipe", ms: 500 } } }
];
var timeline = timelineOf(frames, films);
console.log("frames", timeline.lengthFrames);
var places = placesOf(frames, template);
var render = { layers: (job) => runRenderJob(job, engines) };
for (const [net, pl] of [["petalry", "story"], ["quipline", "post-wide"]]) {
  const placement = getPlacement(shippedSheets.find((s) => s.key === net), pl);
  const cut = { slides: frames.map((f, i) => ({ template: slideTemplate(template, f.slide), frame: filledSlide(f, frames[0], template, places[i]), adjustment: {}, place: places[i], family: f.slide ?? "cover" })), book: gullwickBook, placement, pictures, typefaceFiles: {} };
  t = Date.now();
  await renderFilm({ cut, timeline, track: { subtitles: [{ fromMs: 350, toMs: 4082, text: "Come to the workshop this Saturday and build your very own kite." }, { fromMs: 4632, toMs: 8824, text: "We cut the sails, you pick the colours, and we tie every knot together." }], musicVolume: 0.5 }, clips, musicPath: "demo/media/audio-tune-loop.m4a", voicePath: "demo/media/voice-over.m4a" }, `/tmp/out-${pl}.mp4`, { render, media: store }, { format: "mp4", maxBytes: 9e9, title: "x", signal: new AbortController().signal, onProgress: () => {
  } });
  console.log(pl, Date.now() - t);
}
process.exit(0);
