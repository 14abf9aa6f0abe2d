/** Characters of a file name beside its ending: what every file system takes. */
const LONGEST = 100;

/** A file name for something of any name: without what file systems do not take, and not too long. */
export function fileNameOf(name: string, ending: string): string {
  // biome-ignore lint/suspicious/noControlCharactersInRegex: they are what is taken out
  const plain = name.replace(/[\u0000-\u001f\u007f/\\:*?"<>|\s]+/g, ' ').trim();
  const short = [...plain]
    .slice(0, LONGEST)
    .join('')
    .replace(/[. ]+$/, '');
  return `${short || 'project'}.${ending}`;
}
