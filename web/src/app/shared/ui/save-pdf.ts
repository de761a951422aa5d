import type { TDocumentDefinitions } from 'pdfmake/interfaces';

/** Makes a PDF and hands it to the browser to keep. The maker of PDFs is fetched when it is first asked for. */
export async function savePdf(document: TDocumentDefinitions, name: string): Promise<void> {
  const [{ default: pdfMake }, { default: fonts }] = await Promise.all([
    import('pdfmake/build/pdfmake'),
    import('pdfmake/build/vfs_fonts'),
  ]);
  pdfMake.addVirtualFileSystem(fonts);
  await pdfMake.createPdf(document).download(name);
}
