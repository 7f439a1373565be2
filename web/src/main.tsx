import './nonce';
import '@fontsource/b612/400.css';
import '@fontsource/b612/700.css';
import '@fontsource/b612-mono/400.css';
import '@fontsource-variable/literata/wght.css';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { I18nProvider } from 'react-aria-components';
import { Provider } from 'react-redux';
import { BrowserRouter } from 'react-router';
import { App } from './App';
import { store } from './store';
import { chooseTheme, chosenTheme } from './theme/themeChoice';
import { GlobalStyle } from './theme/GlobalStyle';

chooseTheme(chosenTheme());
createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <Provider store={store}>
      {/* Dates are read and typed as everywhere else on the screen, whatever the browser speaks. */}
      <I18nProvider locale="en-GB">
        <BrowserRouter>
          <GlobalStyle />
          <App />
        </BrowserRouter>
      </I18nProvider>
    </Provider>
  </StrictMode>,
);
