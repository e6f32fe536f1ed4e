// What an answer is entered with: the form, the entry asked about, and, where its field names
// others, all entries there are and the trade shelf.
import { api, type Missing, type ShelfEntry, type TradeEntry } from '../api/client.svelte';
import type { Form } from '../shelf/forms';

export class Known {
  entries = $state.raw<ShelfEntry[]>([]);
  shelf = $state.raw<TradeEntry[]>([]);
  forms = $state.raw<Form[]>([]);
  private all = false;

  /** What a missing value of an entry is entered with, where it names nothing else. */
  async about(missing: Missing): Promise<void> {
    if (this.all) return this.load();
    const [found, made] = await Promise.all([
      missing.id === '' ? null : api.shelf({ find: missing.id }),
      this.forms.length > 0 ? null : api.forms(),
    ]);
    if (found?.ok) this.entries = found.data.entries;
    if (made?.ok) this.forms = made.data;
  }

  async load(): Promise<void> {
    const [all, made, trade] = await Promise.all([
      api.shelf(),
      this.forms.length > 0 ? null : api.forms(),
      this.shelf.length > 0 ? null : api.trade(''),
    ]);
    if (all.ok) this.entries = all.data.entries;
    if (trade?.ok) this.shelf = trade.data;
    if (made?.ok) this.forms = made.data;
    this.all = all.ok;
  }
}
