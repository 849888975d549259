/** What a meter, a lamp, an ohmmeter or a clamp shows. */
export { ohmmeterShows } from './show';
