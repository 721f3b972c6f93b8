import { QueryClient } from '@tanstack/react-query';

/** The application's one store of answers. */
export const queryClient = new QueryClient({
  defaultOptions: { queries: { staleTime: 5000, retry: 2, refetchOnWindowFocus: false } },
});

/** Has everything under a key asked again. */
export function queryStale(key: string): void {
  void queryClient.invalidateQueries({ queryKey: [key] });
}
