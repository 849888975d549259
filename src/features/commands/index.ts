export { CommandPalette } from './CommandPalette';
export { EARLY_KEYS_SCRIPT } from './earlyKeys';
