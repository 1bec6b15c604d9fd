/** The sheet that a stage is drawn on: as wide as it may be, as high as the window. */
import styled from 'styled-components';

export const SheetPage = styled.div`
  zoom: var(--zoom);
  max-width: var(--sheet-most);
  height: calc(100vh / var(--zoom));
  min-height: 640px;
  margin: 0 auto;
  padding: var(--s8) var(--s16);
  display: grid;
  @media print {
    height: auto;
    min-height: 0;
  }
`;
