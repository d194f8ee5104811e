import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { createBrowserRouter, Navigate } from 'react-router'
import { RouterProvider } from 'react-router/dom'
import { BenchPage } from '../features/bench/BenchPage'
import { ComparePage } from '../features/compare/ComparePage'
import { FamiliesPage } from '../features/families/FamiliesPage'
import { LibraryPage } from '../features/library/LibraryPage'
import { StartPage } from '../features/library/StartPage'
import { OrderPage, StackStart } from '../features/orders/OrderPage'
import { OrdersPage } from '../features/orders/OrdersPage'
import { PantryPage } from '../features/pantry/PantryPage'
import { Broken } from './Broken'
import { Shell } from './Shell'

const client = new QueryClient({
  // The server is this machine or the next: a browser's idea of being online says nothing about it.
  defaultOptions: {
    queries: { networkMode: 'always', refetchOnWindowFocus: false, retry: 1, retryDelay: 1000 },
    mutations: { networkMode: 'always' },
  },
})

const router = createBrowserRouter([
  {
    element: <Shell />,
    errorElement: <Broken />,
    children: [
      {
        errorElement: <Broken />,
        children: [
          { path: '/', element: <StartPage /> },
          { path: '/bench/:id', element: <BenchPage /> },
          { path: '/new', element: <FamiliesPage /> },
          { path: '/stack', element: <StackStart /> },
          { path: '/stack/:id', element: <OrderPage /> },
          { path: '/orders', element: <OrdersPage /> },
          { path: '/formulas', element: <LibraryPage /> },
          { path: '/compare', element: <ComparePage /> },
          { path: '/pantry', element: <PantryPage /> },
          { path: '/pantry/:key', element: <PantryPage /> },
          { path: '*', element: <Navigate to="/" replace /> },
        ],
      },
    ],
  },
])

export function App() {
  return (
    <QueryClientProvider client={client}>
      <RouterProvider router={router} />
    </QueryClientProvider>
  )
}
