export { CombinationsView } from './CombinationsView';
