/** The views of a job that are whole pages, each fetched for itself. */
export const loadJobPage = () => import('./JobPage').then((loaded) => loaded.JobPage);
export const loadHandOverSheet = () => import('./HandOverSheet').then((loaded) => loaded.HandOverSheet);
