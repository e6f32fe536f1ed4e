// What a screen shows while it waits, when it failed, and when it has data.
import type { Answer, Failure } from '../api/client.svelte';

export class Loaded<T> {
  data = $state.raw<T | null>(null);
  failure = $state.raw<Failure | null>(null);
  busy = $state(false);
  private turn = 0;

  /** Takes the answer of the newest call; an older one that comes late is dropped. */
  async take(call: Promise<Answer<T>>): Promise<boolean> {
    const turn = ++this.turn;
    this.busy = true;
    const answer = await call;
    if (turn !== this.turn) return false;
    this.busy = false;
    if (answer.ok) {
      this.data = answer.data;
      this.failure = null;
      return true;
    }
    this.failure = answer.failure;
    return false;
  }
}
