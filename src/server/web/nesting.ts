const MAX_JSON_DEPTH = 64;
const [QUOTE, BACKSLASH, OPEN_BRACKET, CLOSE_BRACKET, OPEN_BRACE, CLOSE_BRACE] = [0x22, 0x5c, 0x5b, 0x5d, 0x7b, 0x7d];

/** Whether brackets of JSON stand in one another deeper than any document has them; what comes after goes down by recursion. */
export function isNestedTooDeep(json: Buffer): boolean {
  let [depth, isText] = [0, false];
  for (let at = 0; at < json.length; at += 1) {
    const byte = json[at];
    if (isText) {
      if (byte === BACKSLASH) at += 1;
      else if (byte === QUOTE) isText = false;
    } else if (byte === QUOTE) isText = true;
    else if (byte === OPEN_BRACKET || byte === OPEN_BRACE) depth += 1;
    else if (byte === CLOSE_BRACKET || byte === CLOSE_BRACE) depth -= 1;
    if (depth > MAX_JSON_DEPTH) return true;
  }
  return false;
}
