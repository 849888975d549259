export { HandForm } from './HandForm';
export { PriorWeights } from './PriorWeights';
