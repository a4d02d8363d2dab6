import { createRoot } from 'react-dom/client';
import { Notices } from '../parts/notices';
import { CodeForm } from './code-form';
import { RemoteDesk } from './remote-desk';
import { comeBack, remoteStore } from './remote-session';
import '../styles.css';

function Remote() {
  const isIn = remoteStore((s) => s.role !== null);
  return isIn ? <RemoteDesk /> : <CodeForm />;
}

document.documentElement.dataset.theme = 'pyrvel-night';
comeBack();
createRoot(document.getElementById('root')!).render(
  <>
    <Remote />
    <Notices />
  </>,
);
