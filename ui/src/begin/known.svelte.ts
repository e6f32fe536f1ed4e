// What an answer is entered with: the entries there are, the forms, and the trade shelf.
import { api, type ShelfEntry, type TradeEntry } from '../api/client.svelte';
import type { Form } from '../shelf/forms';

export class Known {
  entries = $state.raw<ShelfEntry[]>([]);
  shelf = $state.raw<TradeEntry[]>([]);
  forms = $state.raw<Form[]>([]);

  async load(): Promise<void> {
    const [all, made, trade] = await Promise.all([
      api.shelf(),
      this.forms.length > 0 ? null : api.forms(),
      this.shelf.length > 0 ? null : api.trade(''),
    ]);
    if (all.ok) this.entries = all.data.entries;
    if (trade?.ok) this.shelf = trade.data;
    if (made?.ok) this.forms = made.data;
  }
}
