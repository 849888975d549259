/**
 * Keys for the palette that are pressed before the program of the page runs: a script in the document itself takes them,
 * and the palette hears them once it is there.
 */

declare global {
  interface Window {
    /** Ends the script's listening and gives what was pressed; undefined once it was called. */
    everyTraceKeys?: (() => readonly KeyboardEvent[]) | undefined;
  }
}

/** Runs as it stands here, so it takes nothing from elsewhere. Only Ctrl+K and what is typed after it is taken. */
export const EARLY_KEYS_SCRIPT = `(()=>{const keys=[];let open=false;
const hear=(event)=>{const held=event.ctrlKey||event.metaKey;
if(held&&event.key.toLowerCase()==='k')open=!open;
else if(!open||held||event.altKey||/^F\\d+$/.test(event.key))return;
else if(event.key==='Escape')open=false;
event.preventDefault();event.stopPropagation();keys.push(event)};
document.addEventListener('keydown',hear,true);
window.everyTraceKeys=()=>{document.removeEventListener('keydown',hear,true);window.everyTraceKeys=undefined;return keys}})()`;

/** What was pressed before; from now on the caller hears keys by itself. */
export function earlyKeys(): readonly KeyboardEvent[] {
  return window.everyTraceKeys?.() ?? [];
}
