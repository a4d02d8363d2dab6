/** Steps a match may take; patterns from outside must not keep anybody busy. */
const mostSteps = 10000;

/**
 * Whether an address is meant by a pattern (Open Sound Control 1.0): ? one sign, * any number, [a-z] one of some, [!a] none
 * of them, {one,two} one of some words; none of them reaches over a slash.
 */
export function matchesAddress(pattern: string, address: string): boolean {
  let steps = 0;
  const from = (p: number, a: number): boolean => {
    if (++steps > mostSteps) return false;
    if (p === pattern.length) return a === address.length;
    const sign = pattern[p];
    if (sign === '*') {
      for (let k = a; ; k++) {
        if (from(p + 1, k)) return true;
        if (k >= address.length || address[k] === '/') return false;
      }
    }
    if (sign === '{') {
      const end = pattern.indexOf('}', p);
      if (end < 0) return false;
      return pattern
        .slice(p + 1, end)
        .split(',')
        .some((word) => address.startsWith(word, a) && from(end + 1, a + word.length));
    }
    if (a >= address.length) return false;
    if (sign === '[') {
      const end = pattern.indexOf(']', p);
      if (end < 0 || address[a] === '/') return false;
      return oneOf(pattern.slice(p + 1, end), address[a]) && from(end + 1, a + 1);
    }
    if (sign === '?') return address[a] !== '/' && from(p + 1, a + 1);
    return sign === address[a] && from(p + 1, a + 1);
  };
  return from(0, 0);
}

function oneOf(set: string, sign: string): boolean {
  const isNot = set.startsWith('!');
  const signs = isNot ? set.slice(1) : set;
  for (let k = 0; k < signs.length; k++) {
    if (signs[k + 1] === '-' && k + 2 < signs.length) {
      if (sign >= signs[k] && sign <= signs[k + 2]) return !isNot;
      k += 2;
    } else if (signs[k] === sign) return !isNot;
  }
  return isNot;
}

/** Whether an address is a pattern. */
export const isPattern = (address: string): boolean => /[?*[\]{}]/.test(address);
