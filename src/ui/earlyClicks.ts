/**
 * Buttons that are pressed before the program of the page runs: a script in the document itself takes them, and they are
 * pressed again once it does. Links, fields and forms work without it.
 */

declare global {
  interface Window {
    /** Ends the script's listening and gives the buttons that were pressed; undefined once it was called. */
    everyTraceClicks?: (() => readonly HTMLElement[]) | undefined;
  }
}

/**
 * Runs as it stands here, so it takes nothing from elsewhere. From where React listens at the document it hears each press
 * itself, and has the part of the page run first that was pressed.
 */
export const EARLY_CLICKS_SCRIPT = `(()=>{const pressed=new Set();
const hear=(event)=>{if(Object.keys(document).some((key)=>key.startsWith('_reactListening')))return;
const button=event.target instanceof Element&&event.target.closest('button[type="button"]');
if(button)pressed.add(button)};
document.addEventListener('click',hear,true);
window.everyTraceClicks=()=>{document.removeEventListener('click',hear,true);window.everyTraceClicks=undefined;return[...pressed]}})()`;

/** Presses them, each once: whoever saw nothing happen has pressed again. */
export function pressEarlyClicks(): void {
  for (const button of window.everyTraceClicks?.() ?? []) {
    if (!button.isConnected) continue;
    // A menu opens where the finger comes down.
    if (button.getAttribute('aria-haspopup') === 'menu') {
      button.dispatchEvent(new PointerEvent('pointerdown', { bubbles: true, button: 0 }));
    }
    button.click();
  }
}
