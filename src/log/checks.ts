/** The check of entries by their schema: large, and wanted only when something is entered. */
export { checkEvent } from '#core/format';
