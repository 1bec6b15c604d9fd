/** What stands in a section of a sheet: its parts one below the other, a sentence with its mark, lists without dots, presses in a row. */
import styled from 'styled-components';

export const Panel = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s8);
  .said {
    display: flex;
    gap: var(--s6);
  }
  .said > span {
    font-weight: var(--w-strong);
  }
  .said svg {
    flex: none;
  }
  ul,
  ol.steps {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  .row,
  .presses {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s6) var(--s14);
    align-items: end;
  }
  .presses {
    gap: var(--s4);
    justify-content: flex-end;
  }
`;
