import { anyRelay } from '../../core/kind/relay';

export default anyRelay({
  id: 'relay',
  label: 'Relay',
  summary: 'Hands on what enters it: a joint that leads a long wire where it is out of the way.',
  words: ['joint', 'bend', 'tidy', 'pass', 'through', 'wire', 'reroute'],
  source: { label: 'In', help: 'What is handed on.' },
  carriesHelp: 'What it hands on; it follows the first wire.',
});
