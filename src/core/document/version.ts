/** What a show file says of itself: apart from the schema, which no page needs to load. */
export const showFormat = 'pyrvel.show' as const;
export const showVersion = 9 as const;
