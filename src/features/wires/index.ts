export { EndReadings } from './EndReadings';
export { WiresView } from './WiresView';
