export { AtTheKeyView } from './AtTheKeyView';
