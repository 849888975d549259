/** What a shop has in a database, table by table, for comparing: by a way of its own, that no backup goes. */
import { createHash } from 'node:crypto';
import pg from 'pg';

/** Ways in, and rows that are made anew, are no part of the record. */
const LEFT_OUT_TABLES = [
  'entry_links',
  'guest_links',
  'shop_devices',
  'helpers',
  'presence',
  'sessions',
  'accounts',
];
const LEFT_OUT_COLUMNS = ['feed_token', 'user_id', 'code_hash'];

/** Every row of every table that belongs to the shop, each as its text, sorted; pictures as their checksum. */
export async function shopRows(url: string, shopId: string): Promise<Record<string, readonly string[]>> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    const tables = await client.query<{ name: string }>(
      `select table_name as name from information_schema.columns
       where table_schema = 'public' and column_name = 'shop_id' order by 1`,
    );
    const rows: Record<string, readonly string[]> = {};
    for (const name of [...tables.rows.map((one) => one.name), 'shops']) {
      if (LEFT_OUT_TABLES.includes(name)) continue;
      const owner = name === 'shops' ? 'id' : 'shop_id';
      const found = await client.query(`select * from ${name} where ${owner} = $1`, [shopId]);
      rows[name] = found.rows.map(textOf).sort();
    }
    return rows;
  } finally {
    await client.end();
  }
}

function textOf(row: Record<string, unknown>): string {
  const kept = Object.entries(row)
    .filter(([name]) => !LEFT_OUT_COLUMNS.includes(name))
    .map(([name, value]) => [
      name,
      Buffer.isBuffer(value) ? createHash('sha256').update(value).digest('hex') : value,
    ]);
  return JSON.stringify(
    Object.fromEntries(kept.sort(([one], [other]) => (String(one) < String(other) ? -1 : 1))),
  );
}
