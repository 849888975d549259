/** Daylight and footwell: chosen by hand and kept in a cookie, else as the system has it. */

const THEMES = ['daylight', 'footwell'] as const;
export type Theme = (typeof THEMES)[number];

export function isTheme(text: string | undefined): text is Theme {
  return THEMES.some((one) => one === text);
}

/**
 * Puts the chosen theme on the document before anything is drawn. For a document that is the same for everybody; it runs
 * as it stands here, so it takes nothing from elsewhere.
 */
export const THEME_SCRIPT = `document.documentElement.dataset.theme=/(?:^|; )theme=(${THEMES.join('|')})(?:;|$)/.exec(document.cookie)?.[1]??''`;
