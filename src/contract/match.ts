/** Which endpoint an address means. */

/** An endpoint's path, and what the names in it stand for. */
export interface Matched {
  path: string;
  at: Record<string, string>;
}

const special = /[.*+?^$()|[\]\\]/g;

interface Way {
  path: string;
  method: string;
  names: string[];
  pattern: RegExp;
}

/**
 * A function that finds the endpoint for a method and an address beneath `/api`; what is named outright goes
 * before what a name stands for. null where there is none.
 */
export function matcher(paths: readonly string[]): (method: string, address: string) => Matched | null {
  const ways = paths.map(wayOf).sort((a, b) => a.names.length - b.names.length);
  return (method, address) => {
    const plain = address.length > 1 && address.endsWith('/') ? address.slice(0, -1) : address;
    for (const { path, method: own, names, pattern } of ways) {
      const found = own === method ? pattern.exec(plain) : null;
      if (found)
        return {
          path,
          at: Object.fromEntries(names.map((name, at) => [name, decodeURIComponent(found[at + 1] ?? '')])),
        };
    }
    return null;
  };
}

function wayOf(path: string): Way {
  const [method = '', address = ''] = path.split(' ');
  const names = [...address.matchAll(/\{(\w+)\}/g)].map(([, name]) => name ?? '');
  const pattern = address.replace(special, String.raw`\$&`).replace(/\{\w+\}/g, '([^/]+)');
  return { path, method, names, pattern: new RegExp(`^${pattern}$`) };
}
