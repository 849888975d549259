export { TraceView } from './TraceView';
