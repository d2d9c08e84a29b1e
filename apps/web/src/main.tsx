import '@fontsource-variable/newsreader/wght.css';
import '@fontsource-variable/newsreader/wght-italic.css';
import '@fontsource-variable/source-sans-3/wght.css';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { BrowserRouter } from 'react-router';
import { App } from './app/App';
import { applyTheme } from './app/theme';
import { Guard } from './parts/guarded';
import { startSaving } from './store/saving';
import { makeStore } from './store/store';
import './styles/base.css';

applyTheme();
const store = makeStore();
startSaving(store);

createRoot(document.getElementById('root') as HTMLElement).render(
  <StrictMode>
    <Provider store={store}>
      {/* Page and address never part: what is clicked next goes by what the address says, not by a page that is yet to follow it. */}
      <BrowserRouter useTransitions={false}>
        <Guard name="Insidia">
          <App />
        </Guard>
      </BrowserRouter>
    </Provider>
  </StrictMode>,
);
