/** The body of a sheet in two columns where there is room, their sections parted by thin rules. */
import styled from 'styled-components';

export const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  > div > section + section,
  &:not([data-wide]) > div + div {
    border-top: var(--r-hair) solid var(--ink);
  }
  a {
    color: inherit;
    text-underline-offset: var(--s3);
  }
  &[data-wide] {
    grid-template-columns: minmax(0, 5fr) minmax(0, 6fr);
  }
  &[data-wide] > div + div {
    border-left: var(--r-hair) solid var(--rule);
    padding-left: var(--s16);
    margin-left: var(--s16);
  }
`;
