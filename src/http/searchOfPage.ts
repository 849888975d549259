/** What a page of the server is asked for behind the `?` of its address. */
export type SearchParams = Promise<Record<string, string | string[] | undefined>>;

/** As it stands in the address, without what is said twice. */
export async function searchOfPage(params: SearchParams): Promise<string> {
  const once = Object.entries(await params).flatMap(([key, value]) =>
    typeof value === 'string' ? [[key, value]] : [],
  );
  return new URLSearchParams(once).toString();
}
