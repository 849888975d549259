/**
 * Asks a server, and reads what it says as JSON. Gives `status`, `ok` and `body`; null where no whole answer came within
 * `ms` milliseconds, or none that is JSON.
 */
export async function asked(url, ms, options = {}) {
  try {
    const response = await fetch(url, { ...options, signal: AbortSignal.timeout(ms) });
    return { status: response.status, ok: response.ok, body: await response.json() };
  } catch {
    return null;
  }
}
