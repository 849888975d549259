export { HandForm } from './HandForm';
export { PriorWeights } from './PriorWeights';
export { RateForm } from './RateForm';
