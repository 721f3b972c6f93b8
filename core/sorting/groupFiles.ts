import { compareNames } from '../filing/names';

const PICTURE = /\.(jpe?g|png|heic|heif|webp)$/i;
const PICTURE_TYPE = /^image\/(jpeg|png|heic|heif|webp)$/;

/** How files that are chosen together become stacks: pictures are the pages of one, in the order of their names; every other file is one of its own. */
export function groupFiles<File extends { name: string; type: string }>(
  files: readonly File[],
): { name: string; files: File[] }[] {
  const isPicture = ({ name, type }: File) => PICTURE.test(name) || PICTURE_TYPE.test(type);
  const pictures = files.filter(isPicture).toSorted((a, b) => compareNames(a.name, b.name));
  const groups = files.filter((file) => !isPicture(file)).map((file) => ({ name: file.name, files: [file] }));
  if (pictures.length === 0) return groups;
  const name = pictures.length === 1 ? pictures[0].name : `${pictures[0].name} and ${pictures.length - 1} more`;
  return [...groups, { name, files: pictures }];
}
