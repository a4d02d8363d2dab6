import { createRoot } from 'react-dom/client';
import { Notices } from '../parts/notices';
import { CodeForm } from './code-form';
import { RemoteDesk } from './remote-desk';
import { comeBack, enter, remoteStore } from './remote-session';
import '../styles.css';

function Remote() {
  const { role, name, fault } = remoteStore();
  return role ? <RemoteDesk /> : <CodeForm title="Remote desk" name={name} fault={fault} enter={enter} />;
}

document.documentElement.dataset.theme = 'pyrvel-night';
comeBack();
createRoot(document.getElementById('root')!).render(
  <>
    <Remote />
    <Notices />
  </>,
);
