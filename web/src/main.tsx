import '@fontsource-variable/atkinson-hyperlegible-next'
import '@fontsource-variable/jetbrains-mono'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { App } from './app/App'
import { applyTheme, keptTheme } from './app/colourTheme'

applyTheme(keptTheme())

const root = document.getElementById('root')
if (root === null) {
  throw new Error('the page has no root')
}
createRoot(root).render(
  <StrictMode>
    <App />
  </StrictMode>,
)
