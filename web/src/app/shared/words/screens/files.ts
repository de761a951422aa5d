/** Words of the screens of files, one list a part. */

export const FILES_PAGE = {
  csv: 'CSV',
  json: 'JSON',
  files: 'Files',
  bringThemInFromTheTop:
    'Bring them in from the top down: each names what stands above it. What a log or a battery went through is added to, never replaced.',
  import: 'Import ',
  import2: 'Import',
  schema: 'Schema',
  allOfItTogetherPhotosIncluded: 'All of it together, photos included, goes out with',
  npmRunExportFile: 'npm run export -- FILE',
  andIntoAnEmptyFolderWith: 'and into an empty folder with',
  npmRunImportFile: 'npm run import -- FILE',
} as const;
