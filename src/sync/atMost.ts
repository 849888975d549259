/** Waits for something, and no longer than so many milliseconds; gives nothing of it, and fails where it fails in time. */
export async function atMost(ms: number, done: Promise<unknown>): Promise<void> {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<void>((resolve) => {
    timer = setTimeout(resolve, ms);
  });
  try {
    await Promise.race([done, late]);
  } finally {
    clearTimeout(timer);
  }
}
