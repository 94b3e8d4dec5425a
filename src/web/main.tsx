import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { createBrowserRouter } from 'react-router'
import { RouterProvider } from 'react-router/dom'
import { isPassing } from '@web/api/client.ts'
import { FloorPage } from './floor/FloorPage.tsx'
import { Nowhere } from '@web/frame/Nowhere.tsx'
import { Shell } from '@web/frame/Shell.tsx'
import './main.scss'

const STALE_MS = 2000
const ASK_AGAIN_MS = 5000
/** Asked whether or not the device thinks it has a link: it is often wrong, and what was seen before is kept. */
const client = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: STALE_MS,
      retry: 1,
      networkMode: 'always',
      // A page that was told "not now" asks again by itself.
      refetchInterval: ({ state }) => (isPassing(state.error) ? ASK_AGAIN_MS : false),
    },
    mutations: { networkMode: 'always' },
  },
})

/** Floor comes with the first load; the rest when it is asked for. */
const router = createBrowserRouter([
  {
    path: '/',
    Component: Shell,
    ErrorBoundary: Nowhere,
    HydrateFallback: () => null,
    children: [
      { index: true, Component: FloorPage },
      { path: 'gun/:stationId', lazy: async () => ({ Component: (await import('./gun/GunPage.tsx')).GunPage }) },
      { path: 'bay', lazy: async () => ({ Component: (await import('./firsthour/BayPage.tsx')).BayPage }) },
      { path: 'look', lazy: async () => ({ Component: (await import('./rightparts/LookPage.tsx')).LookPage }) },
      { path: 'change', lazy: async () => ({ Component: (await import('./changeover/ChangePage.tsx')).ChangePage }) },
      { path: 'guide', lazy: async () => ({ Component: (await import('./guide/GuidePage.tsx')).GuidePage }) },
      { path: 'liner', lazy: async () => ({ Component: (await import('./liner/LinerPage.tsx')).LinerPage }) },
      { path: 'drag', lazy: async () => ({ Component: (await import('./drag/DragPage.tsx')).DragPage }) },
      { path: 'read', lazy: async () => ({ Component: (await import('./reading/ReadPage.tsx')).ReadPage }) },
      { path: 'walk', lazy: async () => ({ Component: (await import('./walk/WalkPage.tsx')).WalkPage }) },
      { path: 'audit', lazy: async () => ({ Component: (await import('./walk/AuditPage.tsx')).AuditPage }) },
      {
        path: 'handover',
        lazy: async () => ({ Component: (await import('./walk/HandoverPage.tsx')).HandoverPage }),
      },
      { path: 'down', lazy: async () => ({ Component: (await import('./down/DownPage.tsx')).DownPage }) },
      { path: 'tune', lazy: async () => ({ Component: (await import('./down/TunePage.tsx')).TunePage }) },
      { path: 'life', lazy: async () => ({ Component: (await import('./life/LifePage.tsx')).LifePage }) },
      { path: 'payback', lazy: async () => ({ Component: (await import('./payback/PaybackPage.tsx')).PaybackPage }) },
      { path: 'device', lazy: async () => ({ Component: (await import('@web/device/DevicePage.tsx')).DevicePage }) },
      { path: 'day', lazy: async () => ({ Component: (await import('./changeover/DayPage.tsx')).DayPage }) },
      { path: 'cells', lazy: async () => ({ Component: (await import('./cell/CellsPage.tsx')).CellsPage }) },
      { path: 'classes', lazy: async () => ({ Component: (await import('./classes/ClassesPage.tsx')).ClassesPage }) },
      {
        path: 'before-class',
        lazy: async () => ({ Component: (await import('./classes/BeforeClass.tsx')).BeforeClass }),
      },
      { path: 'groups', lazy: async () => ({ Component: (await import('./classes/GroupsPage.tsx')).GroupsPage }) },
      {
        path: 'calendar',
        lazy: async () => ({ Component: (await import('./classes/CalendarPage.tsx')).CalendarPage }),
      },
      {
        path: 'technique',
        lazy: async () => ({ Component: (await import('./classes/TechniquePage.tsx')).TechniquePage }),
      },
      { path: 'quiz', lazy: async () => ({ Component: (await import('./classes/QuizPage.tsx')).QuizPage }) },
      { path: 'lesson', lazy: async () => ({ Component: (await import('./classes/Lesson.tsx')).Lesson }) },
      { path: 'pairs', lazy: async () => ({ Component: (await import('./classes/PairsPage.tsx')).PairsPage }) },
      {
        path: 'practice',
        lazy: async () => ({ Component: (await import('./practice/PracticePage.tsx')).PracticePage }),
      },
      {
        path: 'practice/drill',
        lazy: async () => ({ Component: (await import('./practice/DrillPage.tsx')).DrillPage }),
      },
      {
        path: 'practice/hands',
        lazy: async () => ({ Component: (await import('./practice/HandsPage.tsx')).HandsPage }),
      },
      { path: 'parts', lazy: async () => ({ Component: (await import('./buying/PartsPage.tsx')).PartsPage }) },
      { path: 'spools', lazy: async () => ({ Component: (await import('./spools/SpoolsPage.tsx')).SpoolsPage }) },
      { path: 'waste', lazy: async () => ({ Component: (await import('./spools/WastePage.tsx')).WastePage }) },
      { path: 'jobs', lazy: async () => ({ Component: (await import('./spools/JobsPage.tsx')).JobsPage }) },
      { path: 'logbook', lazy: async () => ({ Component: (await import('./logbook/LogbookPage.tsx')).LogbookPage }) },
      { path: 'shop', lazy: async () => ({ Component: (await import('./shop/ShopPage.tsx')).ShopPage }) },
      { path: 'scan', lazy: async () => ({ Component: (await import('./scan/ScanPage.tsx')).ScanPage }) },
      { path: 'go/*', lazy: async () => ({ Component: (await import('./scan/GoPage.tsx')).GoPage }) },
      { path: 'sign-in', lazy: async () => ({ Component: (await import('./people/SignIn.tsx')).SignInPage }) },
      { path: 'link/:token', lazy: async () => ({ Component: (await import('./people/Link.tsx')).LinkPage }) },
      { path: '*', Component: Nowhere },
    ],
  },
])

const RELOADED = 'idle-spool-reloaded'
const RELOAD_MS = 30_000
/**
 * A newer program is there and the piece that is asked for is gone: the page loads itself again and goes on where it was, since a walk, a
 * list in hand and what waits are kept on the device. Once in a while only, so that it never turns in a circle.
 */
addEventListener('vite:preloadError', (event) => {
  if (Date.now() - Number(sessionStorage.getItem(RELOADED) ?? 0) < RELOAD_MS) return
  sessionStorage.setItem(RELOADED, String(Date.now()))
  event.preventDefault()
  location.reload()
})

const root = document.getElementById('root')
if (!root) throw new Error('main: expected #root in the page')
createRoot(root).render(
  <StrictMode>
    <QueryClientProvider client={client}>
      <RouterProvider router={router} />
    </QueryClientProvider>
  </StrictMode>,
)
