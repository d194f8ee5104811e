import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { useEffect } from 'react'
import { createBrowserRouter, Navigate } from 'react-router'
import { RouterProvider } from 'react-router/dom'
import { Broken } from './Broken'
import { Shell } from './Shell'
import { fetchAllViews, view } from './view'
import { Waiting } from './Waiting'

const client = new QueryClient({
  // The server is this machine or the next: a browser's idea of being online says nothing about it.
  defaultOptions: {
    queries: { networkMode: 'always', refetchOnWindowFocus: false, retry: 1, retryDelay: 1000 },
    mutations: { networkMode: 'always' },
  },
})

/** A view is fetched when it is first gone to; the rest of the page is there. */
const router = createBrowserRouter([
  {
    element: <Shell />,
    errorElement: <Broken />,
    hydrateFallbackElement: <Waiting />,
    children: [
      {
        errorElement: <Broken />,
        children: [
          { path: '/', lazy: view(() => import('../features/library/StartPage'), 'StartPage') },
          { path: '/bench/:id', lazy: view(() => import('../features/bench/BenchPage'), 'BenchPage') },
          { path: '/new', lazy: view(() => import('../features/families/FamiliesPage'), 'FamiliesPage') },
          { path: '/stack', lazy: view(() => import('../features/orders/OrderPage'), 'StackStart') },
          { path: '/stack/:id', lazy: view(() => import('../features/orders/OrderPage'), 'OrderPage') },
          { path: '/day', lazy: view(() => import('../features/day/DayPage'), 'DayPage') },
          { path: '/day/room', lazy: view(() => import('../features/day/RoomPage'), 'RoomPage') },
          { path: '/make', lazy: view(() => import('../features/batch/MakeStart'), 'MakeStart') },
          { path: '/make/:id', lazy: view(() => import('../features/batch/MakePage'), 'MakePage') },
          { path: '/log', lazy: view(() => import('../features/log/LogPage'), 'LogPage') },
          { path: '/log/beside', lazy: view(() => import('../features/log/BesidePage'), 'BesidePage') },
          {
            path: '/log/measured',
            lazy: view(() => import('../features/learned/MeasuredPage'), 'MeasuredPage'),
          },
          {
            path: '/log/learned',
            lazy: view(() => import('../features/learned/LearnedPage'), 'LearnedPage'),
          },
          {
            path: '/log/trainer',
            lazy: view(() => import('../features/trainer/TrainerPage'), 'TrainerPage'),
          },
          { path: '/log/:id', lazy: view(() => import('../features/log/RecordPage'), 'RecordPage') },
          { path: '/orders', lazy: view(() => import('../features/orders/OrdersPage'), 'OrdersPage') },
          { path: '/formulas', lazy: view(() => import('../features/library/LibraryPage'), 'LibraryPage') },
          { path: '/compare', lazy: view(() => import('../features/compare/ComparePage'), 'ComparePage') },
          { path: '/pantry', lazy: view(() => import('../features/pantry/PantryPage'), 'PantryPage') },
          { path: '/pantry/:key', lazy: view(() => import('../features/pantry/PantryPage'), 'PantryPage') },
          { path: '*', element: <Navigate to="/" replace /> },
        ],
      },
    ],
  },
])

export function App() {
  useEffect(fetchAllViews, [])
  return (
    <QueryClientProvider client={client}>
      <RouterProvider router={router} />
    </QueryClientProvider>
  )
}
