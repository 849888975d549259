export { JobSums } from './JobSums';
export { SumsPage } from './SumsPage';
