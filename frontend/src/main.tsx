import '@fontsource-variable/national-park/wght.css';
import '@fontsource/barlow-semi-condensed/400.css';
import '@fontsource/barlow-semi-condensed/500.css';
import '@fontsource/barlow-semi-condensed/600.css';
import './app/tokens.css';
import './app/base.css';
import './app/ink.css';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { App, ready } from './app/App';
import { applyTheme } from './ui/theme';

applyTheme();
const root = document.getElementById('root');
if (root)
  void ready.then(() =>
    createRoot(root).render(
      <StrictMode>
        <App />
      </StrictMode>,
    ),
  );
