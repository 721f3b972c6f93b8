/** A house number and the name of a street or a place (folded). */
export const STREET =
  /^\d{1,4}[a-z]? (?:\p{L}[\p{L}'.-]+ ){1,3}(?:street|st|road|rd|lane|row|avenue|ave|way|drive|dr|close|court|place|square|sq|hill|yard|quay|wharf|terrace|gardens|boulevard|blvd|parkway|pkwy|plaza|highway|hwy|mews|crescent)\b|^\d{1,4}(?: ?bis)?,? (?:rue|impasse|avenue|place|quai|allee|chemin|boulevard|route|via|calle)\b/u;
