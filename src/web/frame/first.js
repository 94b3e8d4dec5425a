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
// What the first page asks for is asked for while its script is still on its way (web/api/early.ts).
;(function () {
  var paths = ['/people/me'].concat(location.pathname === '/' && !location.search ? ['/floor?'] : [])
  window.idleEarly = Object.fromEntries(
    paths.map(function (path) {
      var answer = fetch('/api' + path, { credentials: 'same-origin' })
      answer.catch(function () {})
      return [path, answer]
    }),
  )
})()
