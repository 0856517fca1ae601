/** What a column of a table of posts can mean. */
export const tableFields = [
  { key: 'key', name: 'Key', hint: 'Names the row, so that a second upload updates it' },
  { key: 'date', name: 'Date', hint: '' },
  { key: 'time', name: 'Time', hint: '' },
  { key: 'channels', name: 'Channels', hint: 'Names of networks or accounts, parted by commas' },
  { key: 'template', name: 'Template', hint: '' },
  { key: 'theme', name: 'Theme', hint: '' },
  { key: 'headline', name: 'Headline', hint: 'Stands on the picture' },
  { key: 'line', name: 'Line', hint: 'Stands below the headline' },
  { key: 'points', name: 'Points', hint: 'A list, a line each or parted by |' },
  { key: 'caption', name: 'Caption', hint: '' },
  { key: 'hashtags', name: 'Hashtags', hint: '' },
  { key: 'firstComment', name: 'First comment', hint: '' },
  { key: 'altText', name: 'Alt text', hint: '' },
  { key: 'link', name: 'Link', hint: '' },
  { key: 'picture', name: 'Picture', hint: 'A file name, a name of the media, or an address' },
] as const;

export type TableField = (typeof tableFields)[number]['key'];
export const tableFieldKeys = tableFields.map(({ key }) => key) as readonly TableField[];

/** Which column each field is in, by its place from 0; a field that is missing has none. */
export type Mapping = Readonly<Partial<Record<TableField, number>>>;

/** The cells of one row by field; a field without a column, or with an empty cell, is missing. */
export type RowCells = Readonly<Partial<Record<TableField, string>>>;
