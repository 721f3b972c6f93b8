import { Beginning1764000000000 } from './1764000000000-Beginning';
import { Recipes1764100000000 } from './1764100000000-Recipes';
import { Captures1764200000000 } from './1764200000000-Captures';
import { Sorting1764300000000 } from './1764300000000-Sorting';
import { Scanners1764400000000 } from './1764400000000-Scanners';
import { WatchedFolders1764500000000 } from './1764500000000-WatchedFolders';
import { Dividers1764600000000 } from './1764600000000-Dividers';
import { MoreFacts1764700000000 } from './1764700000000-MoreFacts';
import { Filing1764800000000 } from './1764800000000-Filing';
import { Versions1764900000000 } from './1764900000000-Versions';
import { Senders1765000000000 } from './1765000000000-Senders';
import { FactValues1765100000000 } from './1765100000000-FactValues';
import { Looks1765200000000 } from './1765200000000-Looks';
import { Archives1765300000000 } from './1765300000000-Archives';
import { Besides1765400000000 } from './1765400000000-Besides';
import { FoldedFacts1765500000000 } from './1765500000000-FoldedFacts';
import { Lines1765600000000 } from './1765600000000-Lines';
import { Handwriting1765700000000 } from './1765700000000-Handwriting';
import { Sessions1765800000000 } from './1765800000000-Sessions';
import { Sturdiness1765900000000 } from './1765900000000-Sturdiness';
import { Actors1766000000000 } from './1766000000000-Actors';
import { TypedFacts1767000000000 } from './1767000000000-TypedFacts';
import { FactNames1768000000000 } from './1768000000000-FactNames';
import { Codes1769000000000 } from './1769000000000-Codes';
import { MoreRead1770000000000 } from './1770000000000-MoreRead';
import { People1771000000000 } from './1771000000000-People';
import { Sights1772000000000 } from './1772000000000-Sights';
import { BoundBooks1773000000000 } from './1773000000000-BoundBooks';
import { Marks1774000000000 } from './1774000000000-Marks';
import { KeptSearches1775000000000 } from './1775000000000-KeptSearches';
import { Remarks1776000000000 } from './1776000000000-Remarks';
import { Mails1777000000000 } from './1777000000000-Mails';
import { Parcels1778000000000 } from './1778000000000-Parcels';
import { Signing1779000000000 } from './1779000000000-Signing';
import { Ledger1780000000000 } from './1780000000000-Ledger';
import { Keeping1781000000000 } from './1781000000000-Keeping';
import { LedgerHabits1782000000000 } from './1782000000000-LedgerHabits';
import { CopyPlaces1783000000000 } from './1783000000000-CopyPlaces';
import { SignedElsewhere1784000000000 } from './1784000000000-SignedElsewhere';
import { BoundWhere1785000000000 } from './1785000000000-BoundWhere';

/** What made the tables what they are, in order. Frozen: what has run somewhere is never changed. */
export const MIGRATIONS = [
  Beginning1764000000000,
  Recipes1764100000000,
  Captures1764200000000,
  Sorting1764300000000,
  Scanners1764400000000,
  WatchedFolders1764500000000,
  Dividers1764600000000,
  MoreFacts1764700000000,
  Filing1764800000000,
  Versions1764900000000,
  Senders1765000000000,
  FactValues1765100000000,
  Looks1765200000000,
  Archives1765300000000,
  Besides1765400000000,
  FoldedFacts1765500000000,
  Lines1765600000000,
  Handwriting1765700000000,
  Sessions1765800000000,
  Sturdiness1765900000000,
  Actors1766000000000,
  TypedFacts1767000000000,
  FactNames1768000000000,
  Codes1769000000000,
  MoreRead1770000000000,
  People1771000000000,
  Sights1772000000000,
  BoundBooks1773000000000,
  Marks1774000000000,
  KeptSearches1775000000000,
  Remarks1776000000000,
  Mails1777000000000,
  Parcels1778000000000,
  Signing1779000000000,
  Ledger1780000000000,
  Keeping1781000000000,
  LedgerHabits1782000000000,
  CopyPlaces1783000000000,
  SignedElsewhere1784000000000,
  BoundWhere1785000000000,
];
