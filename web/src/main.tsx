import '@fontsource-variable/atkinson-hyperlegible-next/wght.css'
import '@fontsource-variable/bricolage-grotesque/wght.css'
import './ui/base.css'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { App } from './app/App'
import { LastResort } from './app/Broken'
import { showLetters } from './lib/keys'
import { applyTheme, printInTheLight, storedTheme } from './lib/theme'

applyTheme(storedTheme())
printInTheLight()
showLetters()

const root = document.getElementById('root')
if (root) {
  createRoot(root).render(
    <StrictMode>
      <LastResort>
        <App />
      </LastResort>
    </StrictMode>,
  )
}
