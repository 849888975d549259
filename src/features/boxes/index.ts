export { BoxTest } from './BoxTest';
