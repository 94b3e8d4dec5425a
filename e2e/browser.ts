/** Debian's Chromium without its windows: what draws and runs a page is the same, what belongs to a desk is not there. */
export const BROWSER = '/usr/bin/chromium-headless-shell'
