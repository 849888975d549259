/** What is done at a box besides the test of every fuse. */
export { DrainView } from './DrainView';
export { Exchanges } from './Exchanges';
export { SurveyView } from './SurveyView';
export { WorkView } from './WorkView';
