import { useSearchParams } from 'react-router';

/** Keys of the address's query to change; an empty value takes the key away. */
type Changes = Readonly<Record<string, string | null>>;

/** The query of the address, and a way to change keys of it in place. */
export function useAddress(): readonly [URLSearchParams, (changes: Changes) => void] {
  const [search, setSearch] = useSearchParams();
  const set = (changes: Changes) =>
    setSearch(
      (current) => {
        for (const [key, value] of Object.entries(changes)) {
          if (value) current.set(key, value);
          else current.delete(key);
        }
        return current;
      },
      { replace: true },
    );
  return [search, set];
}
