import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import '../kit/theme.css';
import { ReviewPage } from './review-page.tsx';

const token = window.location.pathname.split('/')[2] ?? '';
createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <ReviewPage token={token} />
  </StrictMode>,
);
