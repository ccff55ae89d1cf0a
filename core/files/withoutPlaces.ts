/** What a library says of a trouble, without the places of this machine in it: they are nobody's business but its log's. */
export const withoutPlaces = (message: string): string =>
  message
    .replace(/(?<![\w.])(?:file:\/\/)?(?:\/|[a-z]:\\)[^\s'",:)]+(?:[/\\][^\s'",:)]+)*/gi, 'the file')
    .replace(/'the file'|"the file"/g, 'the file')
