import { type LayoutDocument, writeDocumentText } from '../survey';

/** What a shared run is of, as text: whoever has the same runs the same. In which unit lengths are shown is everybody’s own. */
export const sharedText = (document: LayoutDocument): string => writeDocumentText({ ...document, shownUnit: 'cm' });
