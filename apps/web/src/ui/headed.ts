/** Gives the cells of a column its head along, which stands before each on a narrow screen, where rows are slips. */
export const headed = (head: string) => ({ bodyCell: { 'data-head': head } });
