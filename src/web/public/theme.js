// Before anything is drawn: the theme this device was left in, so that a bright room gets no dark page first.
;(function () {
  try {
    var kept = localStorage.getItem('idle-theme')
    var isLight = kept ? kept === 'light' : matchMedia('(prefers-color-scheme: light)').matches
    document.documentElement.dataset.bsTheme = isLight ? 'light' : 'dark'
  } catch {
    // Without storage the dark one stands.
  }
})()
