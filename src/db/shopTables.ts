/**
 * All tables whose rows belong to a shop, those first that others point to: the order in which a shop is brought back,
 * and, from its end, the order in which one is removed. A test compares it with what the database has.
 */

interface ShopTable {
  readonly name: string;
  /** Column that says whose a row is. */
  readonly shop: 'id' | 'shop_id';
  /**
   * `record`: what people entered. `made`: rows that lists read, made anew from the record. `access`: who may come in;
   * it stays with the installation, for it holds secrets and ways in.
   */
  readonly sort: 'record' | 'made' | 'access';
}

const record = (name: string): ShopTable => ({ name, shop: 'shop_id', sort: 'record' });
const rows = (name: string): ShopTable => ({ name, shop: 'shop_id', sort: 'made' });
const access = (name: string): ShopTable => ({ name, shop: 'shop_id', sort: 'access' });

export const SHOP_TABLES: readonly ShopTable[] = [
  { name: 'shops', shop: 'id', sort: 'record' },
  record('people'),
  record('customers'),
  record('vehicles'),
  record('circuits'),
  record('circuit_versions'),
  record('panel_sets'),
  record('panel_set_versions'),
  record('jobs'),
  record('job_circuits'),
  record('job_events'),
  record('photos'),
  record('stock_items'),
  record('stock_places'),
  record('stock_moves'),
  record('recipes'),
  record('learning_resets'),
  record('requests'),
  rows('job_summaries'),
  rows('findings'),
  rows('slot_sightings'),
  rows('follow_ups'),
  rows('hazards'),
  rows('stock_levels'),
  rows('search_entries'),
  access('entry_links'),
  access('guest_links'),
  access('shop_devices'),
  access('helpers'),
  access('presence'),
];
