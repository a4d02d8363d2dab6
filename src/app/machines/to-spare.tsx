import { pageAt } from './pass';

/**
 * Ways to the spare where the main machine is gone, one for each of its addresses. Nobody is taken there unasked: a browser that does not know its certificate
 * would show a warning in place of the page.
 */
export function ToSpare({ addresses, as }: { addresses: readonly string[]; as: 'remote' | 'player' }) {
  return addresses.map((address) => (
    <a key={address} className="btn btn-sm" href={pageAt(address, as)} data-testid="to-spare">
      Go to the spare
      {addresses.length > 1 && <span className="figures">{new URL(address).hostname}</span>}
    </a>
  ));
}
