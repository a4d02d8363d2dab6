import { anyRelay } from '../../core/kind/relay';

export default anyRelay({
  id: 'way-out',
  label: 'Module Out',
  summary: 'An output of the module that it lies in: what enters here leaves the module.',
  words: ['output', 'module', 'port', 'result'],
  end: 'out',
  source: { label: 'In', help: 'What leaves the module.' },
  carriesHelp: 'What the output gives; it follows the first wire.',
});
