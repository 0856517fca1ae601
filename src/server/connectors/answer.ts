const MAX_ANSWER_BYTES = 1024 * 1024;

/**
 * The text of an answer. Answers of networks are short; one that never ends is no answer.
 * @throws RangeError when it is longer than 1 MB
 */
export async function readAnswer(response: Response): Promise<string> {
  const chunks: Uint8Array[] = [];
  let bytes = 0;
  for await (const chunk of (response.body as AsyncIterable<Uint8Array> | null) ?? []) {
    bytes += chunk.byteLength;
    if (bytes > MAX_ANSWER_BYTES) throw new RangeError(`The answer is longer than ${MAX_ANSWER_BYTES} bytes`);
    chunks.push(chunk);
  }
  return Buffer.concat(chunks).toString('utf8');
}
