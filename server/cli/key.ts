import { clusterUrl, prepareCluster } from './cluster';
import { homeOf } from './home';
import { newEntrance, runningIn } from './run';

/** `./crow key [demo]`: prints an address that lets one more browser in to the program that runs. */
export async function main([which = 'own']: string[]): Promise<number> {
  const home = homeOf(which === 'demo' ? 'demo' : 'own');
  const running = runningIn(home);
  if (!running?.address) {
    console.error('Crow Shelf is not running; start it, and it prints such an address by itself.');
    return 1;
  }
  console.log(await newEntrance(running.address, clusterUrl(prepareCluster(home), running.databasePort)));
  return 0;
}
