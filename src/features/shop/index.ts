export { PriorWeights } from './PriorWeights';
