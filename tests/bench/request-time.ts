/** What a request costs with all of its answer, as the median of some rounds, in milliseconds. @throws Error when it is not answered well */
export async function requestMs(origin: string, path: string, token: string, rounds: number): Promise<number> {
  const times: number[] = [];
  for (let round = 0; round < rounds; round += 1) {
    const started = performance.now();
    const response = await fetch(`${origin}${path}`, { headers: { authorization: `Bearer ${token}` } });
    await response.arrayBuffer();
    if (!response.ok) throw new Error(`${path} was answered ${response.status}`);
    times.push(performance.now() - started);
  }
  return times.toSorted((a, b) => a - b)[Math.floor(rounds / 2)] ?? 0;
}
