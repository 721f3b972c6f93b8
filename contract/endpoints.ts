import { askingEndpoints } from './asking';
import { copyPlacesEndpoints } from './copyPlaces';
import { documentsEndpoints } from './documents';
import { findingEndpoints } from './finding';
import { foldersEndpoints } from './folders';
import { historyEndpoints } from './history';
import { ledgerEndpoints } from './ledger';
import { keepingEndpoints } from './keeping';
import { ledgerLinesEndpoints } from './ledgerLines';
import { marksEndpoints } from './marks';
import { pagesEndpoints } from './pages';
import { peopleEndpoints } from './people';
import { scanningEndpoints } from './scanning';
import { sendingEndpoints } from './sending';
import { settingsEndpoints } from './settings';
import { signingEndpoints } from './signing';
import { stacksEndpoints } from './stacks';
import { watchingEndpoints } from './watching';

/** Everything that the server answers below /api, besides bytes going in. The API's page is made from this. */
export const endpoints = {
  ...settingsEndpoints,
  ...peopleEndpoints,
  ...historyEndpoints,
  ...scanningEndpoints,
  ...watchingEndpoints,
  ...stacksEndpoints,
  ...pagesEndpoints,
  ...documentsEndpoints,
  ...marksEndpoints,
  ...signingEndpoints,
  ...foldersEndpoints,
  ...findingEndpoints,
  ...askingEndpoints,
  ...ledgerEndpoints,
  ...ledgerLinesEndpoints,
  ...keepingEndpoints,
  ...sendingEndpoints,
  ...copyPlacesEndpoints,
};

export type EndpointName = keyof typeof endpoints;
