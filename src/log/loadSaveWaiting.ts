/** Saving what waits: fetched once the page has come to rest, so that it is there when the server is not. */
export const loadSaveWaiting = () => import('./SaveWaiting').then((loaded) => loaded.SaveWaiting);
