export { CommandPalette } from './CommandPalette';
