export { WiresView } from './WiresView';
