import { anyRelay } from '../../core/kind/relay';

export default anyRelay({
  id: 'way-in',
  label: 'Module In',
  summary: 'An input of the module that it lies in: what is wired into the module comes out here.',
  words: ['input', 'module', 'port', 'entry'],
  end: 'in',
  source: {
    label: 'Stand-in',
    help: 'What comes out while nothing is wired into the module there.',
    optional: true,
  },
  carriesHelp: 'What the input takes; it follows the first wire.',
});
